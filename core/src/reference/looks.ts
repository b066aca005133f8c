import { CraftError } from '../errors.ts';
import { BOTTOM, TOP } from './area.ts';
import type { MunsellValue } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { temperature, type WarmBlue } from '../colour/temperature.ts';
import { byteEncoder, greyOfValue, inGreys, valuesOf, valuesSquinted, type LightPlane } from './lightPlane.ts';
import { linearToLab, type Pixels } from './pixels.ts';
import type { ValueRange } from './valueRange.ts';

/** Fewest and most steps that values are cut into. */
export const FEWEST_STEPS = 2;
export const MOST_STEPS = 9;

/** Boundaries of so many even steps over a range: one fewer than steps. */
export const evenSteps = (count: number, { darkest, lightest }: ValueRange): number[] =>
  Array.from({ length: count - 1 }, (_, i) => darkest + ((lightest - darkest) * (i + 1)) / count);

/** @throws CraftError unless they are 1 to 8 rising values */
export function checkBounds(bounds: readonly MunsellValue[]): void {
  const rising = bounds.every((bound, i) => bound >= 0 && bound <= 10 && (i === 0 || bound > bounds[i - 1]!));
  if (!rising || bounds.length < FEWEST_STEPS - 1 || bounds.length > MOST_STEPS - 1)
    throw new CraftError('input', `Values are cut into ${FEWEST_STEPS} to ${MOST_STEPS} steps, at boundaries that rise from 0 to 10.`);
}

/** Which step a value falls into. */
export const stepOf = (value: number, bounds: readonly number[]): number => {
  let step = 0;
  while (step < bounds.length && value >= bounds[step]!) step++;
  return step;
};

/** Grey that stands for each step: the middle of it, of the outermost ones half a step off their boundary. */
export function stepValues(bounds: readonly MunsellValue[], { darkest, lightest }: ValueRange): MunsellValue[] {
  const ends = [Math.min(darkest, bounds[0]!), ...bounds, Math.max(lightest, bounds.at(-1)!)];
  return Array.from({ length: bounds.length + 1 }, (_, i) => (ends[i]! + ends[i + 1]!) / 2);
}

/** A look at a picture: what is to be shown, four bytes a pixel. */
export interface Looked {
  readonly bytes: Uint8ClampedArray<ArrayBuffer>;
  /** Share of the area in each part of the look, in the order of its legend. */
  readonly shares: readonly number[];
}

function painted(count: number, grey: (i: number) => number): Uint8ClampedArray<ArrayBuffer> {
  const bytes = new Uint8ClampedArray(count * 4);
  for (let i = 0, at = 0; i < count; i++, at += 4) {
    bytes[at] = bytes[at + 1] = bytes[at + 2] = grey(i);
    bytes[at + 3] = 255;
  }
  return bytes;
}
const shared = (counts: readonly number[], whole: number): number[] => counts.map((n) => n / Math.max(1, whole));

/** Values cut into flat steps, dark to light, with the share of each. */
export function valueSteps(plane: LightPlane, bounds: readonly MunsellValue[], range: ValueRange): Looked {
  checkBounds(bounds);
  const values = valuesOf(plane);
  const greys = stepValues(bounds, range).map(greyOfValue);
  const counts = greys.map(() => 0);
  const bytes = painted(values.length, (i) => {
    const step = stepOf(values[i]!, bounds);
    counts[step]!++;
    return greys[step]!;
  });
  return { bytes, shares: shared(counts, values.length) };
}

/** Bits of each channel that colours are told apart by where a map is drawn. */
const BITS = 6;

/**
 * What is asked of the colour of every pixel, reckoned once for all that are hardly different: a photo
 * has some tens of thousands of colours.
 */
export function ofEveryColour({ rgb, space }: LightPlane, of: (lab: Lab) => number): Float32Array {
  const known = new Float32Array(1 << (3 * BITS)).fill(NaN);
  const answers = new Float32Array(rgb.length / 3);
  const shift = 8 - BITS;
  const byteOf = byteEncoder();
  for (let i = 0, at = 0; i < answers.length; i++, at += 3) {
    const r = rgb[at]!;
    const g = rgb[at + 1]!;
    const b = rgb[at + 2]!;
    const bin = ((byteOf(r) >> shift) << (2 * BITS)) | ((byteOf(g) >> shift) << BITS) | (byteOf(b) >> shift);
    const before = known[bin]!;
    answers[i] = before === before ? before : (known[bin] = of(linearToLab(space, r, g, b)));
  }
  return answers;
}

/** Units of temperature at which a tint is full. */
const FULL_WARMTH = 30;
/** Nothing is called warm or cool that lies nearer the pivot than this. */
const NEITHER = 2;
/** Pixels from one line of the hatching to the next. */
const HATCH = 6;
/** Whether a line of the hatching goes through a pixel. */
export const isHatched = (x: number, y: number): boolean => (x + y) % HATCH === 0;

/**
 * Warm and cool against a pivot: what is warmer is tinted amber, what is cooler blue and hatched, both
 * the stronger the further, on the picture's own greys.
 * @returns shares warm, neither, cool
 */
export function warmthMap(plane: LightPlane, pivot: number, warmBlue?: WarmBlue): Looked {
  const { width } = plane;
  const warmth = ofEveryColour(plane, (lab) => temperature(lab, warmBlue));
  const counts = [0, 0, 0];
  const bytes = inGreys(plane, (value) => 2 + 0.7 * value);
  for (let i = 0; i < warmth.length; i++) {
    const off = warmth[i]! - pivot;
    counts[off > NEITHER ? 0 : off < -NEITHER ? 2 : 1]!++;
    const much = Math.max(-1, Math.min(1, off / FULL_WARMTH));
    const at = 4 * i;
    if (much > 0) {
      bytes[at] = bytes[at]! + 70 * much;
      bytes[at + 1] = bytes[at + 1]! + 8 * much;
      bytes[at + 2] = bytes[at + 2]! - 90 * much;
    } else {
      const dark = off < -NEITHER && isHatched(i % width, Math.floor(i / width)) ? 40 : 0;
      bytes[at] = bytes[at]! + 95 * much - dark;
      bytes[at + 1] = bytes[at + 1]! + 25 * much - dark;
      bytes[at + 2] = bytes[at + 2]! - 70 * much - dark;
    }
  }
  return { bytes, shares: shared(counts, warmth.length) };
}

/** Chroma at the boundaries of what a painter calls dull, middling, strong. */
export const STRENGTHS = [10, 25, 45] as const;
const FULL_CHROMA = 80;

/** Strength of colour as light: black is without hue, white the strongest. @returns shares from grey to strongest, by {@link STRENGTHS} */
export function strengthMap(plane: LightPlane): Looked {
  const counts = [0, 0, 0, 0];
  const chroma = ofEveryColour(plane, ([, a, b]) => Math.sqrt(a * a + b * b));
  const bytes = painted(chroma.length, (i) => {
    counts[stepOf(chroma[i]!, STRENGTHS)]!++;
    return greyOfValue(10 * Math.min(1, chroma[i]! / FULL_CHROMA));
  });
  return { bytes, shares: shared(counts, chroma.length) };
}

/** How an edge between two steps of value shows itself to a squint. */
export const EDGES = ['hard', 'soft', 'lost'] as const;
export type EdgeKind = (typeof EDGES)[number];
/** Steps of value that an edge must stand for to be hard, or still soft. */
const HARD = 1.2;
const SOFT = 0.4;
/** Up to this squint a clean step stands for its whole height, px; a wider one takes from it. */
const USUAL_SQUINT = 8;
/** Squints that are looked through on the way to the one that is asked for: from this, each twice the last. */
const LEAST_SQUINT = 2;

/** How steeply values rise at a pixel, a pixel. */
function slopeAt(values: Float32Array, x: number, y: number, width: number): number {
  const i = y * width + x;
  const left = x > 0 ? i - 1 : i;
  const above = y > 0 ? i - width : i;
  const dx = (values[i + 1]! - values[left]!) / (i + 1 - left);
  const dy = (values[i + width]! - values[above]!) / (above === i ? 1 : 2);
  return Math.sqrt(dx * dx + dy * dy);
}

function squintsTo(sigma: number): number[] {
  const list: number[] = [];
  for (let at = LEAST_SQUINT; at < sigma; at *= 2) list.push(at);
  return [...list, Math.max(1, sigma)];
}

/**
 * Edges where values cross a boundary, by what a squint leaves of them. A step of height h under a blur of
 * deviation σ rises by h / (σ √2π) a pixel at its steepest: times σ √2π a slope is the height it stands for.
 * The least that any squint on the way leaves counts: what rises slowly is no hard edge to a wide squint
 * either, nor is a weak one over which a neighbour's blur rises. So squinting never hardens.
 * @returns for each pixel 0, or 1 + the index in {@link EDGES}
 */
export function edgesOf(plane: LightPlane, bounds: readonly MunsellValue[], sigma: number): Uint8Array {
  checkBounds(bounds);
  const { width, height } = plane;
  // A little blur keeps grain from drawing edges of its own.
  const squints = squintsTo(sigma);
  const [values, ...after] = valuesSquinted(plane, [1, ...squints]) as [Float32Array, ...Float32Array[]];
  const steps = new Uint8Array(values.length);
  for (let i = 0; i < steps.length; i++) steps[i] = stepOf(values[i]!, bounds);
  const stands = squints.map((squint) => Math.sqrt(2 * Math.PI) * Math.min(squint, USUAL_SQUINT));
  const kinds = new Uint8Array(steps.length);
  for (let y = 0; y < height - 1; y++)
    for (let x = 0; x < width - 1; x++) {
      const i = y * width + x;
      if (steps[i] === steps[i + 1] && steps[i] === steps[i + width]) continue;
      let step = Infinity;
      for (let k = 0; k < after.length; k++) step = Math.min(step, stands[k]! * slopeAt(after[k]!, x, y, width));
      kinds[i] = step >= HARD ? 1 : step >= SOFT ? 2 : 3;
    }
  return kinds;
}

/** The edges drawn on a faded picture: hard ones black and thick, soft ones dark and thin, lost ones broken and white. @returns shares hard, soft, lost of all edges */
export function drawEdges(plane: LightPlane, bounds: readonly MunsellValue[], sigma: number): Looked {
  const { width, height } = plane;
  const kinds = edgesOf(plane, bounds, sigma);
  const bytes = inGreys(plane, (value) => 4.5 + 0.35 * value);
  const counts = [0, 0, 0];
  const dot = (x: number, y: number, grey: number): void => {
    if (x >= width || y >= height) return;
    const at = 4 * (y * width + x);
    bytes[at] = bytes[at + 1] = bytes[at + 2] = grey;
  };
  for (let i = 0; i < kinds.length; i++) {
    const kind = kinds[i]!;
    if (kind === 0) continue;
    counts[kind - 1]!++;
    const x = i % width;
    const y = (i - x) / width;
    if (kind === 1) {
      dot(x, y, 0);
      dot(x + 1, y, 0);
      dot(x, y + 1, 0);
      dot(x + 1, y + 1, 0);
    } else if (kind === 2) dot(x, y, 40);
    else if (Math.floor((x + y) / 3) % 2 === 0) dot(x, y, 255);
  }
  return { bytes, shares: shared(counts, counts[0]! + counts[1]! + counts[2]!) };
}

/** Marks what the photo has lost: clipped light hatched dark, crushed dark hatched light. @returns shares clipped, crushed */
export function markLost(bytes: Uint8ClampedArray, { data, width }: Pixels): readonly [clipped: number, crushed: number] {
  const counts: [number, number] = [0, 0];
  for (let i = 0, at = 0; at < bytes.length; i++, at += 4) {
    const most = Math.max(data[at]!, data[at + 1]!, data[at + 2]!);
    if (most < TOP && most > BOTTOM) continue;
    const clipped = most >= TOP;
    counts[clipped ? 0 : 1]++;
    if (isHatched(i % width, Math.floor(i / width))) bytes[at] = bytes[at + 1] = bytes[at + 2] = clipped ? 0 : 255;
  }
  const whole = bytes.length / 4;
  return [counts[0] / whole, counts[1] / whole];
}

/** Hatches the pixels of a mask both ways, light over dark and dark over light. @returns share of the area */
export function hatch(bytes: Uint8ClampedArray, mask: Uint8Array, width: number): number {
  let count = 0;
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 0) continue;
    count++;
    const [x, y] = [i % width, Math.floor(i / width)];
    if (!isHatched(x, y)) continue;
    const at = 4 * i;
    const dark = bytes[at + 1]! > 110;
    bytes[at] = bytes[at + 1] = bytes[at + 2] = dark ? 0 : 255;
  }
  return count / Math.max(1, mask.length);
}
