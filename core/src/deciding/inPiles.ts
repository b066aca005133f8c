import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import { labToLinear } from '../reference/light.ts';
import { eachInPolygon } from '../reference/outline.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { byteEncoder, greyOfValue, valuesOf, type LightPlane } from '../reference/lightPlane.ts';
import { checkBounds, isHatched, stepOf, type Looked } from '../reference/looks.ts';
import { linearToLab } from '../reference/pixels.ts';

/** Shapes of a plan, at most. */
export const MOST_SHAPES = 60;

/** What a part of a picture is painted with: a colour, the mean of what it has, or nothing yet. */
export type Dress = Lab | 'mean' | undefined;

/** A picture redrawn in flat colours. */
export interface Dressed extends Looked {
  /** Mean colour of what each part has. */
  readonly means: readonly Lab[];
}

/** Which part each pixel belongs to. */
export const partsBySteps = (plane: LightPlane, bounds: readonly MunsellValue[]): Uint8Array => {
  checkBounds(bounds);
  return Uint8Array.from(valuesOf(plane), (value) => stepOf(value, bounds));
};

/** The same by shapes, in pixels of the plane, later ones over earlier ones; 0 where none lies, then each in its order. */
export function partsByShapes({ width, height }: LightPlane, shapes: readonly (readonly number[])[]): Uint8Array {
  if (shapes.length > MOST_SHAPES) throw new CraftError('input', `A plan has at most ${MOST_SHAPES} shapes.`);
  const parts = new Uint8Array(width * height);
  shapes.forEach((points, k) => eachInPolygon(points, width, height, (x, y) => (parts[y * width + x] = k + 1)));
  return parts;
}

/** So much lighter or darker are the lines over a part without a pile, in values. */
const LINED = 1.2;

/**
 * A picture redrawn with what its parts are dressed in: a pile, the mean of what it has there, or, where
 * nothing is said, a lined grey of its value. @param parts for each pixel the index of its part
 */
export function dressed(plane: LightPlane, parts: Uint8Array, dress: readonly Dress[]): Dressed {
  const { rgb, space, width } = plane;
  const sums = dress.map(() => [0, 0, 0, 0] as [number, number, number, number]);
  for (let i = 0, at = 0; i < parts.length; i++, at += 3) {
    const sum = sums[parts[i]!]!;
    sum[0] += rgb[at]!;
    sum[1] += rgb[at + 1]!;
    sum[2] += rgb[at + 2]!;
    sum[3]++;
  }
  const means = sums.map(([r, g, b, n]) => (n > 0 ? linearToLab(space, r / n, g / n, b / n) : ([50, 0, 0] as Lab)));
  const byteOf = byteEncoder();
  const colours = dress.map((one, k) => (one === undefined ? undefined : labToLinear(space, one === 'mean' ? means[k]! : one).map(byteOf)));
  const bare = means.map(([L]) => {
    const value = valueOfLightness(Math.min(100, Math.max(0, L)));
    return [greyOfValue(value), greyOfValue(value + (value > 5 ? -LINED : LINED))] as const;
  });
  const bytes = new Uint8ClampedArray(parts.length * 4);
  for (let i = 0, at = 0; i < parts.length; i++, at += 4) {
    const colour = colours[parts[i]!];
    if (colour) bytes.set(colour, at);
    else bytes[at] = bytes[at + 1] = bytes[at + 2] = bare[parts[i]!]![isHatched(i % width, Math.floor(i / width)) ? 1 : 0]!;
    bytes[at + 3] = 255;
  }
  return { bytes, shares: sums.map(([, , , n]) => n / Math.max(1, parts.length)), means };
}
