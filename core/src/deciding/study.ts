import { contours } from 'd3-contour';
import simplify from 'simplify-js';
import type { Lab, LinearRgb } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { CraftError } from '../errors.ts';
import type { InSteps } from '../matching/inSteps.ts';
import { valuesBlurred } from '../reference/lightPlane.ts';
import { areaWithin } from '../reference/outline.ts';
import type { Pixels } from '../reference/pixels.ts';
import { depths, labAt, smaller, type SmallPicture } from './smaller.ts';

export const FEWEST_FLAT = 2;
export const MOST_FLAT = 5;

/** A flat shape of a value study. */
export interface FlatShape {
  /** Its corners in shares of the picture's sides: x, y, x, y, … */
  readonly points: readonly number[];
  /** Which of the study's values it has, from the darkest on. */
  readonly step: number;
  /** Mean colour of what it covers. */
  readonly lab: Lab;
  readonly share: number;
}

/** A picture in few flat shapes; what lies within another comes after it. */
export interface ValueStudy {
  readonly bounds: readonly MunsellValue[];
  readonly shapes: readonly FlatShape[];
}

/** Places along the longer side of the picture that is studied. */
const LONGEST = 200;
/** What takes less than this of the picture is no shape of its own. */
const LEAST_SHARE = 0.008;
/** Deviation of the squint, in places. */
const SQUINT = 2.45;
/** What is nowhere deeper than this is a rim, in places. */
const RIM = 3;
const BINS = 100;
/** Corners may be so far off the border that they stand for, in places. */
const OFF = 0.9;
/** Corners so near to the picture's edge lie on it, in places. */
const AT_EDGE = 1.5;
/** Corners of one shape at most. */
const MOST_CORNERS = 120;

/**
 * The boundaries that cut values into so many groups which differ among each other the most, and within
 * themselves the least (Otsu 1979, for several by dynamic programming).
 */
export function bestBounds(values: Float32Array, groups: number): MunsellValue[] {
  const counts = new Float64Array(BINS + 1);
  const sums = new Float64Array(BINS + 1);
  for (const value of values) {
    const bin = Math.min(BINS - 1, Math.max(0, Math.floor((value / 10) * BINS)));
    counts[bin + 1]!++;
    sums[bin + 1]! += value;
  }
  for (let i = 1; i <= BINS; i++) {
    counts[i]! += counts[i - 1]!;
    sums[i]! += sums[i - 1]!;
  }
  /** What a group of bins adds to the differences among groups. */
  const worth = (from: number, to: number): number => {
    const n = counts[to]! - counts[from]!;
    return n === 0 ? 0 : (sums[to]! - sums[from]!) ** 2 / n;
  };
  let best = Float64Array.from({ length: BINS + 1 }, (_, to) => worth(0, to));
  const cuts: Int32Array[] = [];
  for (let k = 1; k < groups; k++) {
    const next = new Float64Array(BINS + 1);
    const cut = new Int32Array(BINS + 1);
    for (let to = 0; to <= BINS; to++)
      for (let from = 0; from <= to; from++) {
        const sum = best[from]! + worth(from, to);
        // Where every place between two heaps is as good the middle one is taken.
        if (sum > next[to]! * (1 + 1e-12)) {
          next[to] = sum;
          cut[to] = from;
        }
      }
    cuts.push(cut);
    best = next;
  }
  const bounds: number[] = [];
  let at = BINS;
  for (const cut of cuts.reverse()) {
    at = cut[at]!;
    // An empty stretch is cut in its middle.
    let [low, high] = [at, at];
    while (low > 0 && counts[low] === counts[low - 1]) low--;
    while (high < BINS && counts[high] === counts[high + 1]) high++;
    bounds.unshift(((low + high) / 2) * (10 / BINS));
  }
  return bounds;
}

interface Patch {
  readonly step: number;
  readonly places: number[];
}

/** Places of one step that hang together. */
function patchesOf(steps: Uint8Array, width: number, height: number): { patches: Patch[]; of: Int32Array } {
  const of = new Int32Array(steps.length).fill(-1);
  const patches: Patch[] = [];
  for (let start = 0; start < steps.length; start++) {
    if (of[start]! >= 0) continue;
    const id = patches.length;
    const places = [start];
    of[start] = id;
    for (let k = 0; k < places.length; k++) {
      const i = places[k]!;
      const x = i % width;
      for (const next of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
        if (next < 0 || next >= width * height || of[next]! >= 0 || steps[next] !== steps[start]) continue;
        of[next] = id;
        places.push(next);
      }
    }
    patches.push({ step: steps[start]!, places });
  }
  return { patches, of };
}

/** How deep each patch is where it is deepest, in places. */
function deepnessOf(patches: readonly Patch[], of: Int32Array, width: number, height: number): number[] {
  // A place on a border is of no depth: what is left is deep in whichever patch it lies.
  const inner = of.map((id, i) => {
    const x = i % width;
    const isBorder = (x < width - 1 && of[i + 1] !== id) || (i + width < of.length && of[i + width] !== id);
    return isBorder ? 0 : 1;
  });
  const depth = depths(Uint8Array.from(inner), width, height);
  return patches.map(({ places }) => places.reduce((most, i) => Math.max(most, depth[i]!), 0));
}

/**
 * Small patches go to the neighbour that they share most of their border with, the smallest first; so does
 * what is no deeper than the squint: a rim of middle value between a light and a dark is only their blur.
 */
function withoutSmall(steps: Uint8Array, width: number, height: number): Patch[] {
  const least = LEAST_SHARE * steps.length;
  for (;;) {
    const { patches, of } = patchesOf(steps, width, height);
    const deep = deepnessOf(patches, of, width, height);
    const isSmall = patches.map(({ places }, k) => places.length < least || deep[k]! < RIM);
    const small = patches.filter((_, k) => isSmall[k]).sort((a, b) => a.places.length - b.places.length);
    if (small.length === 0 || patches.length === 1) return patches;
    const taken = new Set<number>();
    for (const { places, step } of small) {
      const border = new Map<number, number>();
      for (const i of places) {
        const x = i % width;
        for (const next of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width])
          if (next >= 0 && next < steps.length && of[next] !== of[i]) border.set(of[next]!, (border.get(of[next]!) ?? 0) + 1);
      }
      const own = of[places[0]!]!;
      const [most] = [...border].filter(([id]) => !taken.has(id)).sort(([one, a], [other, b]) => b - a || one - other);
      if (taken.has(own) || !most || patches[most[0]]!.step === step) continue;
      // Neither is moved again in this round: each round so leaves fewer patches, and there is an end to it.
      taken.add(own);
      if (isSmall[most[0]]) taken.add(most[0]);
      for (const i of places) steps[i] = patches[most[0]]!.step;
    }
    if (taken.size === 0) return patches;
  }
}

/** The outer border of a patch, clean: its corners in shares of the sides. */
function borderOf({ places }: Patch, { width, height }: SmallPicture): number[] {
  // With an empty rim all round, so that what touches the picture's edge is closed there.
  const [w, h] = [width + 2, height + 2];
  const mask: number[] = new Array<number>(w * h).fill(0);
  for (const i of places) mask[(Math.floor(i / width) + 1) * w + (i % width) + 1] = 1;
  const { coordinates } = contours().size([w, h]).contour(mask, 0.5);
  const outer = coordinates.map(([ring]) => ring!).sort((one, other) => other.length - one.length)[0]!;
  const corners = outer.map(([x, y]) => ({ x: x! - 1, y: y! - 1 }));
  let off = OFF;
  let thinned = simplify(corners, off, true);
  while (thinned.length > MOST_CORNERS) thinned = simplify(corners, (off *= 1.5), true);
  // What nearly reaches the picture's edge reaches it.
  const share = (v: number, of: number): number => (v < AT_EDGE ? 0 : v > of - AT_EDGE ? 1 : Math.round((1e5 * v) / of) / 1e5);
  // The first corner comes again as the last.
  return thinned.slice(0, -1).flatMap(({ x, y }) => [share(x, width), share(y, height)]);
}

/**
 * A picture as a study in a few flat values, each patch a shape with a clean border, as a hand would block
 * it in: squinted at, cut where values part best, without what is too small to be a shape.
 * @throws CraftError unless 2 to 5 values are asked for
 */
export function* studyInSteps(picture: Pixels, gains: LinearRgb = [1, 1, 1], values = 3): InSteps<ValueStudy> {
  if (!(Number.isInteger(values) && values >= FEWEST_FLAT && values <= MOST_FLAT))
    throw new CraftError('input', `A study has ${FEWEST_FLAT} to ${MOST_FLAT} flat values.`);
  const small = smaller(picture, gains, LONGEST);
  const { width, height } = small;
  yield 0.5;
  const plain = Float32Array.from({ length: width * height }, (_, i) => valueOfLightness(small.lab[3 * i]!));
  const soft = valuesBlurred(plain, width, height, SQUINT);
  yield 0.7;
  const bounds = bestBounds(soft, values);
  const steps = Uint8Array.from(soft, (value) => bounds.filter((bound) => value >= bound).length);
  const patches = withoutSmall(steps, width, height);
  yield 0.9;
  const shapes = patches.map((patch) => {
    const mean = [0, 0, 0];
    for (const i of patch.places) labAt(small, i).forEach((v, c) => (mean[c]! += v / patch.places.length));
    return {
      points: borderOf(patch, small),
      step: patch.step,
      lab: mean as unknown as Lab,
      share: patch.places.length / steps.length,
    };
  });
  return {
    bounds,
    shapes: shapes.filter(({ points }) => points.length >= 6).sort((one, other) => areaWithin(other.points) - areaWithin(one.points)),
  };
}
