import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueFromY } from '../colour/value.ts';
import { labToLinear } from '../reference/light.ts';
import type { LightPlane } from '../reference/lightPlane.ts';
import { eachInPolygon } from '../reference/outline.ts';
import { lumaOf } from '../reference/pixels.ts';

/** What an outlined shape of a picture is tried as; what is not said of it stays as it is. */
export interface TrialChange {
  /** Corners, px of what is shown: x, y, x, y, … */
  readonly points: readonly number[];
  /** Another colour, flat; or, with `fades`, from its top to another at its foot. */
  readonly to?: Lab | undefined;
  readonly fades?: Lab | undefined;
  /** Values lighter, darker below nought: its own drawing stays. */
  readonly lighter?: number | undefined;
  /** Elsewhere, px; where it was is closed from what lies round it. */
  readonly move?: readonly [dx: number, dy: number] | undefined;
}

/** Changes that one trial has at most. */
export const MOST_CHANGES = 12;
const MOST_LIGHTER = 8;

function maskOf({ width, height }: LightPlane, points: readonly number[]): Uint8Array {
  const mask = new Uint8Array(width * height);
  eachInPolygon(points, width, height, (x, y) => (mask[y * width + x] = 1));
  return mask;
}

/** Relative luminance of a value. */
function lightOfValue(value: number): number {
  const f = (lightnessOfValue(Math.min(10, Math.max(0, value))) + 16) / 116;
  return f > 6 / 29 ? f ** 3 : (f - 16 / 116) * 3 * (6 / 29) ** 2;
}

/** Closes a hole from its rim: along rows and columns, what is nearer counts for more. */
function closed(rgb: Float32Array, mask: Uint8Array, width: number, height: number): void {
  const sums = new Float32Array(rgb.length);
  const weights = new Float32Array(mask.length);
  const walk = (from: number, step: number, count: number): void => {
    let last = -1;
    for (let k = 0, i = from; k < count; k++, i += step) {
      if (mask[i] === 0) {
        last = k;
        continue;
      }
      if (last < 0) continue;
      const weight = 1 / (k - last);
      const at = 3 * (from + step * last);
      for (let c = 0; c < 3; c++) sums[3 * i + c]! += weight * rgb[at + c]!;
      weights[i]! += weight;
    }
  };
  for (let y = 0; y < height; y++) {
    walk(y * width, 1, width);
    walk(y * width + width - 1, -1, width);
  }
  for (let x = 0; x < width; x++) {
    walk(x, width, height);
    walk((height - 1) * width + x, -width, height);
  }
  for (let i = 0; i < mask.length; i++)
    if (mask[i] === 1 && weights[i]! > 0) for (let c = 0; c < 3; c++) rgb[3 * i + c] = sums[3 * i + c]! / weights[i]!;
}

const mixed = ([L, a, b]: Lab, other: Lab, t: number): Lab => [L + t * (other[0] - L), a + t * (other[1] - a), b + t * (other[2] - b)];

function changed(plane: LightPlane, { points, to, fades, lighter = 0, move }: TrialChange): LightPlane {
  const { width, height, space } = plane;
  const mask = maskOf(plane, points);
  const rgb = plane.rgb.slice();
  const luma = lumaOf(space);
  const ys = points.filter((_, i) => i % 2 === 1);
  const [top, foot] = [Math.min(...ys), Math.max(...ys)];
  const rows =
    to &&
    Array.from({ length: height }, (_, y) => {
      const t = fades ? Math.min(1, Math.max(0, (y - top) / Math.max(1, foot - top))) : 0;
      const end = fades ?? to;
      return labToLinear(space, mixed(to, end, t));
    });
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 0) continue;
    const at = 3 * i;
    const row = rows?.[Math.floor(i / width)];
    if (row) for (let c = 0; c < 3; c++) rgb[at + c] = row[c]!;
    if (lighter === 0) continue;
    const Y = Math.max(1e-5, luma[0] * rgb[at]! + luma[1] * rgb[at + 1]! + luma[2] * rgb[at + 2]!);
    const k = lightOfValue(valueFromY(100 * Math.min(1, Y)) + lighter) / Y;
    for (let c = 0; c < 3; c++) rgb[at + c] = rgb[at + c]! * k;
  }
  if (!move || (move[0] === 0 && move[1] === 0)) return { ...plane, rgb };
  const own = rgb.slice();
  closed(rgb, mask, width, height);
  const [dx, dy] = move.map(Math.round) as [number, number];
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 0) continue;
    const [x, y] = [(i % width) + dx, Math.floor(i / width) + dy];
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    for (let c = 0; c < 3; c++) rgb[3 * (y * width + x) + c] = own[3 * i + c]!;
  }
  return { ...plane, rgb };
}

/**
 * A picture with a trial laid over it, change after change: any look is then looked at through it. The picture stays what it was.
 * @throws CraftError for more than twelve changes, or a step of more than eight values
 */
export function withTrial(plane: LightPlane, changes: readonly TrialChange[]): LightPlane {
  if (changes.length > MOST_CHANGES) throw new CraftError('input', `A trial has at most ${MOST_CHANGES} changes.`);
  for (const { lighter = 0 } of changes)
    if (!(Math.abs(lighter) <= MOST_LIGHTER))
      throw new CraftError('input', `A shape is tried at most ${MOST_LIGHTER} values lighter or darker.`);
  return changes.reduce(changed, plane);
}
