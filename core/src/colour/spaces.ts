import { CraftError, finite } from '../errors.ts';

/** CIE XYZ with Y of the white at 100. */
export type Xyz = readonly [X: number, Y: number, Z: number] & { readonly __space?: 'xyz' };
/** CIELAB relative to the white of the light it was seen under (D65 unless said). */
export type Lab = readonly [L: number, a: number, b: number] & { readonly __space?: 'lab' };
/** CIELAB in polar form, hue in degrees 0–360. */
export type Lch = readonly [L: number, C: number, h: number] & { readonly __space?: 'lch' };
/** Linear-light sRGB, each 0–1 inside the display's gamut. */
export type LinearRgb = readonly [r: number, g: number, b: number] & { readonly __space?: 'rgb' };

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;
const RADIANS = Math.PI / 180;

export const labForward = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
/** Inverse of {@link labForward}. */
export const labInverse = (f: number): number => (f * f * f > EPSILON ? f * f * f : (116 * f - 16) / KAPPA);

/** CIELAB of `xyz` relative to `white` (CIE 15). */
export function xyzToLab(xyz: Xyz, white: Xyz): Lab {
  const fx = labForward(xyz[0] / white[0]);
  const fy = labForward(xyz[1] / white[1]);
  const fz = labForward(xyz[2] / white[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** Inverse of {@link xyzToLab}. */
export function labToXyz(lab: Lab, white: Xyz): Xyz {
  const fy = (lab[0] + 16) / 116;
  return [white[0] * labInverse(fy + lab[1] / 500), white[1] * labInverse(fy), white[2] * labInverse(fy - lab[2] / 200)];
}

export const labToLch = ([L, a, b]: Lab): Lch => [L, Math.hypot(a, b), hueDegrees(a, b)];

export const lchToLab = ([L, C, h]: Lch): Lab => [L, C * Math.cos(h * RADIANS), C * Math.sin(h * RADIANS)];

/** Hue angle in degrees, 0–360; 0 for a neutral. */
export function hueDegrees(a: number, b: number): number {
  const h = Math.atan2(b, a) / RADIANS;
  return h < 0 ? h + 360 : h;
}

/** Signed difference of two hues, shortest way round, −180…180. */
export const hueDifference = (from: number, to: number): number => ((((to - from) % 360) + 540) % 360) - 180;

/**
 * Reads Lab that came from outside.
 * @throws CraftError unless three finite numbers with L within 0–100 (a little over for bright whites).
 */
export function labFromInput(value: unknown): Lab {
  if (!Array.isArray(value) || value.length !== 3) throw new CraftError('colour', 'Lab must be three numbers: L, a, b.');
  const [L, a, b] = value.map((v, i) => finite('colour', `Lab's ${'Lab'[i]}`, v)) as [number, number, number];
  if (L < 0 || L > 110) throw new CraftError('colour', `L must lie within 0 and 100; it is ${L}.`);
  if (Math.abs(a) > 300 || Math.abs(b) > 300) throw new CraftError('colour', 'a and b must lie within −300 and 300.');
  return [L, a, b];
}
