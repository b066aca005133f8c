import { COMPARED_LIGHTS, labOf, reflectance, type Lab, type PaintCurves } from '@dusk/core';

const NAMES: Readonly<Record<(typeof COMPARED_LIGHTS)[number], string>> = {
  D65: 'daylight',
  A: 'filament lamp',
  LED: 'LED (modelled)',
  F10: 'three-band tube',
};

/** A paint as it looks under each lamp that is compared, to an eye that is used to it. */
export function underLamps(paint: PaintCurves): readonly { readonly name: string; readonly lab: Lab }[] {
  const seen = reflectance(paint);
  return COMPARED_LIGHTS.map((light) => ({ name: NAMES[light], lab: labOf(seen, light) }));
}
