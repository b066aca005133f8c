import { CraftError, finite } from '../errors.ts';
import type { Lab, LinearRgb, Xyz } from '../colour/spaces.ts';
import { labInverse } from '../colour/spaces.ts';
import { inverse3, times3, type Row3 } from '../colour/threes.ts';
import { lumaOf, SRGB, type RgbSpace } from './pixels.ts';

/** How the light of a photo is put right: in stops, and by what is known to be without hue, or by the colour of its light. */
export interface Lighting {
  /** Stops: each doubles the light. */
  readonly exposure?: number | undefined;
  /** A place known to be white or grey, as the photo shows it. */
  readonly neutral?: Lab | undefined;
  /** Correlated colour temperature of the light the photo was taken in, K; 6504 changes nothing. */
  readonly kelvin?: number | undefined;
}

/** Linear light in a space of an XYZ with Y of white at 1. */
export function xyzToLinear({ toXyz: m }: RgbSpace, xyz: Xyz): LinearRgb {
  const row = (i: number): Row3 => [m[i]!, m[i + 1]!, m[i + 2]!];
  return times3(inverse3([row(0), row(3), row(6)]), xyz);
}

/** Linear light in a space of a Lab colour under D65. */
export function labToLinear(space: RgbSpace, [L, a, b]: Lab): LinearRgb {
  const m = space.toXyz;
  const fy = (L + 16) / 116;
  return xyzToLinear(space, [
    (m[0]! + m[1]! + m[2]!) * labInverse(fy + a / 500),
    (m[3]! + m[4]! + m[5]!) * labInverse(fy),
    (m[6]! + m[7]! + m[8]!) * labInverse(fy - b / 200),
  ]);
}

/** Below this the locus of black bodies stands for lamps, above it that of daylight. */
const DAYLIGHT_FROM = 4000;
const KELVIN = [1700, 20_000] as const;

/** Chromaticity of a light by its temperature: daylight (CIE 15, 4.1.2), or a black body (Kim et al. 2002). */
function chromaticity(T: number): readonly [x: number, y: number] {
  if (T >= DAYLIGHT_FROM) {
    const x =
      T <= 7000
        ? 0.244063 + 0.09911e3 / T + 2.9678e6 / T ** 2 - 4.607e9 / T ** 3
        : 0.23704 + 0.24748e3 / T + 1.9018e6 / T ** 2 - 2.0064e9 / T ** 3;
    return [x, -3 * x * x + 2.87 * x - 0.275];
  }
  const x = -0.2661239e9 / T ** 3 - 0.2343589e6 / T ** 2 + 0.8776956e3 / T + 0.17991;
  const y =
    T < 2222
      ? -1.1063814 * x ** 3 - 1.3481102 * x ** 2 + 2.18555832 * x - 0.20219683
      : -0.9549476 * x ** 3 - 1.37418593 * x ** 2 + 2.09137015 * x - 0.16748867;
  return [x, y];
}

/** Below this a place is too dark to tell the colour of a light by. */
const TOO_DARK = 0.004;

/**
 * What each channel's linear light is to be multiplied with (von Kries in the picture's own channels).
 * The colour of the light is taken out at the same Y; exposure comes on top.
 * @throws CraftError where the neutral place is too dark, or a figure lies out of range
 */
export function gainsOf({ exposure = 0, neutral, kelvin }: Lighting, space: RgbSpace = SRGB): LinearRgb {
  if (Math.abs(finite('colour', 'The exposure', exposure)) > 8)
    throw new CraftError('colour', `Exposure is changed by at most 8 stops; this is ${exposure}.`);
  let light: LinearRgb = [1, 1, 1];
  if (neutral) {
    light = labToLinear(space, neutral);
    if (Math.min(...light) < TOO_DARK)
      throw new CraftError(
        'colour',
        'This place is too dark, or too strong in colour, to be the white or grey of the picture. Choose a lighter one.',
      );
  } else if (kelvin !== undefined) {
    const [least, most] = KELVIN;
    if (!(finite('colour', 'The temperature of a light', kelvin) >= least && kelvin <= most))
      throw new CraftError('colour', `The temperature of a light lies within ${least} and ${most} K; this is ${kelvin}.`);
    const [x, y] = chromaticity(kelvin);
    light = xyzToLinear(space, [x / y, 1, (1 - x - y) / y]).map((v) => Math.max(v, 0.01)) as unknown as LinearRgb;
  }
  const luma = lumaOf(space);
  const Y = luma[0] * light[0] + luma[1] * light[1] + luma[2] * light[2];
  const stops = 2 ** exposure;
  return [(stops * Y) / light[0], (stops * Y) / light[1], (stops * Y) / light[2]];
}
