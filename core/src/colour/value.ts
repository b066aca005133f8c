import { labForward, type Lab } from './spaces.ts';
import { finite } from '../errors.ts';

/** Munsell value, 0 (black) to 10 (white). What every value in the product is stored as. */
export type MunsellValue = number & { readonly __unit?: 'munsell value' };

/** Luminous reflectance in per cent of a Munsell value (ASTM D1535, perfect diffuser at 100). */
export const valueToY = (v: MunsellValue): number => v * (1.1914 + v * (-0.22533 + v * (0.23352 + v * (-0.020484 + v * 0.00081939))));

/** Munsell value of a luminous reflectance in per cent; inverse of {@link valueToY} by Newton's method. */
export function valueFromY(Y: number): MunsellValue {
  if (!(Y > 0)) return 0;
  if (Y >= 100) return 10 + (Y - 100) / slope(10);
  let v = Math.min(10, Math.max(0.05, (116 * labForward(Y / 100) - 16) / 10));
  for (let i = 0; i < 20; i++) {
    const step = (valueToY(v) - Y) / slope(v);
    v -= step;
    if (Math.abs(step) < 1e-10) break;
  }
  return v;
}

const slope = (v: number): number => 1.1914 + v * (-0.45066 + v * (0.70056 + v * (-0.081936 + v * 0.00409695)));

/** CIE lightness to luminous reflectance in per cent. */
function lightnessToY(L: number): number {
  const f = (L + 16) / 116;
  return L > 8 ? 100 * f * f * f : (100 * L * 27) / 24389;
}

/** Munsell value of a CIE lightness L*. */
export const valueOfLightness = (L: number): MunsellValue => valueFromY(lightnessToY(L));

/** Munsell value of a colour; what is darker than black or lighter than white counts as that. */
export const valueOfColour = ([L]: Lab): MunsellValue => valueOfLightness(Math.min(100, Math.max(0, L)));

/** CIE lightness L* of a Munsell value. */
export const lightnessOfValue = (v: MunsellValue): number => 116 * labForward(valueToY(v) / 100) - 16;

/** The scales painters think in. Values are stored as Munsell value whichever is shown. */
export const VALUE_SCALES = ['munsell', 'ten-steps', 'nine-steps', 'five-steps', 'per-cent-grey'] as const;
export type ValueScale = (typeof VALUE_SCALES)[number];

interface Scale {
  readonly name: string;
  readonly white: number;
  readonly black: number;
  readonly digits: number;
}

const SCALES: Readonly<Record<ValueScale, Scale>> = {
  munsell: { name: '0–10, white at 10', white: 10, black: 0, digits: 1 },
  'ten-steps': { name: 'ten steps, 1 is white', white: 1, black: 10, digits: 1 },
  'nine-steps': { name: 'nine steps, 1 is white', white: 1, black: 9, digits: 1 },
  'five-steps': { name: 'five steps, 1 is white', white: 1, black: 5, digits: 1 },
  'per-cent-grey': { name: 'per cent grey', white: 0, black: 100, digits: 0 },
};

export const valueScaleName = (scale: ValueScale): string => SCALES[scale].name;

/** A Munsell value on a painter's scale. */
export function toScale(v: MunsellValue, scale: ValueScale): number {
  const { white, black } = SCALES[scale];
  return black + ((white - black) * v) / 10;
}

/** A reading on a painter's scale as Munsell value. */
export function fromScale(reading: number, scale: ValueScale): MunsellValue {
  const { white, black } = SCALES[scale];
  return ((finite('colour', 'The value', reading) - black) / (white - black)) * 10;
}

/** A Munsell value written on a painter's scale, as `4.2` or `58 %`. */
export function writeValue(v: MunsellValue, scale: ValueScale = 'munsell'): string {
  const text = toScale(v, scale).toFixed(SCALES[scale].digits);
  return scale === 'per-cent-grey' ? `${text} %` : text;
}
