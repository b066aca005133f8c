import { COMPARED_LIGHTS, labOf, masstoneOf, reflectance, smoothSpectrum, type Lab, type PaintCurves, type Spectrum } from '@dusk/core';

export type Lamp = (typeof COMPARED_LIGHTS)[number];

export const LAMP_NAMES: Readonly<Record<Lamp, string>> = {
  D65: 'daylight',
  A: 'filament lamp',
  LED: 'LED (modelled)',
  F10: 'shop light',
};

/** A paint as it looks under each lamp that is compared, to an eye that is used to it. */
export function underLamps(paint: PaintCurves): readonly { readonly lamp: Lamp; readonly name: string; readonly lab: Lab }[] {
  const seen = reflectance(paint);
  return COMPARED_LIGHTS.map((lamp) => ({ lamp, name: LAMP_NAMES[lamp], lab: labOf(seen, lamp) }));
}

/**
 * A colour under a lamp, to an eye that is used to it.
 * @param paint what it is painted with; without it, it is taken as smooth as colours mostly are
 */
export function underLamp(lab: Lab, lamp: Lamp, paint?: PaintCurves): Lab {
  if (lamp === 'D65') return lab;
  const spectrum: Spectrum = paint ? reflectance(paint) : smoothSpectrum(lab);
  const [L, a, b] = labOf(spectrum, lamp);
  // What a look says beyond the curves stays beyond them.
  const day = paint ? masstoneOf(paint) : lab;
  return [L + lab[0] - day[0], a + lab[1] - day[1], b + lab[2] - day[2]];
}
