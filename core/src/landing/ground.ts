import { labToXyz, xyzToLab, type Lab, type Xyz } from '../colour/spaces.ts';
import { BANDS, type Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { reflectance } from '../paint/mix.ts';

/** How much of a wash is left on the priming, in words, the most first. */
export const WIPED = ['left as it runs', 'wiped back', 'wiped to a stain'] as const;
export type Wiped = (typeof WIPED)[number];

/** Films that are left of a wash, µm of paint as it sets. */
const LEFT_UM: Readonly<Record<Wiped, number>> = { 'left as it runs': 6, 'wiped back': 2.2, 'wiped to a stain': 0.8 };
/** White acrylic priming, evenly. */
const PRIMING = 0.86;

/** Light is added in shares of white, whichever white that is. */
const ANY_WHITE: Xyz = [100, 100, 100];

/** The white priming that washes are laid on. */
export const priming = (): Spectrum => new Float64Array(BANDS).fill(PRIMING);

/**
 * A ground made of a tube: a wash of it over white priming, wiped back so far. A wash of nothing is the priming.
 * @param share of the wash that is left for the eye, 0–1, 1 unless said
 */
export function washOver(paint: PaintCurves, wiped: Wiped, share = 1): Spectrum {
  const thicknessUm = LEFT_UM[wiped] * share;
  return reflectance(paint, { film: { thicknessUm, ground: priming() } });
}

/**
 * Two colours that lie beside one another in small spots, as an eye mixes them at a distance: light adds up, by share
 * of the surface (Grassmann's laws).
 * @param share of the surface that shows the other, 0–1
 */
export function mixedByEye(one: Lab, other: Lab, share: number): Lab {
  const [X1, Y1, Z1] = labToXyz(one, ANY_WHITE);
  const [X2, Y2, Z2] = labToXyz(other, ANY_WHITE);
  const mixed = (a: number, b: number): number => a + (b - a) * share;
  return xyzToLab([mixed(X1, X2), mixed(Y1, Y2), mixed(Z1, Z2)], ANY_WHITE);
}

/** How much of what is below shows on purpose between strokes, in words, as shares of the surface. */
export const SHOWING_THROUGH = { 'a little': 0.1, 'a quarter': 0.25, half: 0.5 } as const;
export type ShowingThrough = keyof typeof SHOWING_THROUGH;
