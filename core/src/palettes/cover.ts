import type { Delta } from '../colour/difference.ts';
import type { Lab, LinearRgb } from '../colour/spaces.ts';
import type { Key } from '../reference/key.ts';
import { cellsOf, countBins } from '../reference/reachOver.ts';
import type { Pixels } from '../reference/pixels.ts';
import { layBench, nearestOf, type Bench, type NearestShares } from './nearest.ts';
import { chipsNear } from './chips.ts';
import { mixturesOf, type MixtureTable } from './table.ts';
import type { PaintCurves } from '../paint/catalogue.ts';

/** A colour of a picture and what share of it is of it. */
export interface WeightedColour {
  readonly lab: Lab;
  readonly weight: number;
}

/** Within this ΔE00 a colour is matched; within the second it is near. */
export const MATCH: Delta = 3;
export const NEARLY: Delta = 6;

/** The colours of a picture, a cell of Lab at a time, the largest first. @param most beyond so many what is left goes to the nearest of them */
export function coloursOfPicture(picture: Pixels, gains: LinearRgb = [1, 1, 1], key?: Key, most = 600): WeightedColour[] {
  const counts = countBins(picture);
  const { cells, cellOfBin } = cellsOf(counts, picture.space, gains, key);
  const weights = new Map<number, number>();
  let whole = 0;
  for (let bin = 0; bin < counts.length; bin++) {
    if (counts[bin] === 0) continue;
    const cell = cellOfBin[bin]!;
    weights.set(cell, (weights.get(cell) ?? 0) + counts[bin]!);
    whole += counts[bin]!;
  }
  const colours = [...weights].map(([cell, n]) => ({ lab: cells.get(cell)!.lab, weight: n / whole })).sort((a, b) => b.weight - a.weight);
  return fewer(colours, most);
}

/** Of each colour of a picture's pixels, by its bin: 0 where the nearest of some colours is matched, 1 where it is near, 2 where it is neither. */
export function coverByCell(
  picture: Pixels,
  colours: readonly WeightedColour[],
  distances: ArrayLike<number>,
  gains: LinearRgb = [1, 1, 1],
  key?: Key,
): Uint8Array {
  const counts = countBins(picture);
  const { cells, cellOfBin } = cellsOf(counts, picture.space, gains, key);
  const of = new Map<number, number>();
  for (const [cell, { lab }] of cells) {
    let least = Infinity;
    let at = 0;
    colours.forEach((one, i) => {
      const d = apart(one.lab, lab);
      if (d < least) [least, at] = [d, i];
    });
    const d = distances[at]!;
    of.set(cell, d <= MATCH ? 0 : d <= NEARLY ? 1 : 2);
  }
  return Uint8Array.from(counts, (n, bin) => (n === 0 ? 0 : of.get(cellOfBin[bin]!)!));
}

/** Colours in fewer: each of the rest counts for the nearest that is kept; those kept are spread, so that a small strong accent is one of them. */
export function fewer(colours: readonly WeightedColour[], most: number): WeightedColour[] {
  if (colours.length <= most) return [...colours];
  // Farthest first, the distance weighed by what stands there: a cluster's middle and an accent both come.
  const kept: number[] = [0];
  const away = Float64Array.from(colours, ({ lab }) => apart(lab, colours[0]!.lab));
  while (kept.length < most) {
    let best = -1;
    let worth = -1;
    for (let i = 0; i < colours.length; i++) {
      const own = away[i]! * Math.cbrt(colours[i]!.weight);
      if (own > worth) [best, worth] = [i, own];
    }
    if (best < 0 || worth <= 0) break;
    kept.push(best);
    for (let i = 0; i < colours.length; i++) away[i] = Math.min(away[i]!, apart(colours[i]!.lab, colours[best]!.lab));
  }
  const sums = kept.map(() => [0, 0, 0, 0]);
  for (const { lab, weight } of colours) {
    let near = 0;
    let least = Infinity;
    for (let k = 0; k < kept.length; k++) {
      const d = apart(lab, colours[kept[k]!]!.lab);
      if (d < least) [near, least] = [k, d];
    }
    const sum = sums[near]!;
    for (let j = 0; j < 3; j++) sum[j] = sum[j]! + weight * lab[j]!;
    sum[3] = sum[3]! + weight;
  }
  return sums.flatMap(([L, a, b, w]) => (w! > 0 ? [{ lab: [L! / w!, a! / w!, b! / w!] as Lab, weight: w! }] : []));
}
const apart = (one: Lab, other: Lab): number => (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2 + (one[2] - other[2]) ** 2;

/** How much of a picture some tubes come to. */
export interface Cover {
  /** Shares of the picture that are matched, near, and neither. */
  readonly match: number;
  readonly near: number;
  readonly not: number;
  /** What a choice goes by, 0–1: what is matched counts whole, what is not the less the farther it lies. */
  readonly merit: number;
}

/** What a colour counts by how far off the nearest is. */
export const meritAt = (distance: Delta): number => (distance <= MATCH ? 1 : Math.exp((MATCH - distance) / MATCH));

export function coverFrom(colours: readonly WeightedColour[], distances: ArrayLike<number>): Cover {
  let match = 0;
  let near = 0;
  let merit = 0;
  let whole = 0;
  colours.forEach(({ weight }, i) => {
    const d = distances[i]!;
    whole += weight;
    if (d <= MATCH) match += weight;
    else if (d <= NEARLY) near += weight;
    merit += weight * meritAt(d);
  });
  if (whole === 0) return { match: 0, near: 0, not: 0, merit: 0 };
  return { match: match / whole, near: near / whole, not: Math.max(0, 1 - (match + near) / whole), merit: merit / whole };
}

/** What some tubes come to of each colour. */
export interface Reached {
  readonly set: readonly number[];
  readonly nearest: readonly NearestShares[];
  readonly cover: Cover;
}

/** Nothing nearer than this is sought of a colour. */
const ENOUGH: Delta = 0.6 * MATCH;
/** How much a tube begins with that joins others: a fifth of an even part. */
const JOINING = -1.6;

/**
 * How near a set of tubes comes to each colour.
 * @param before what a set it goes on from came to: with those tubes and one more nothing is worse
 */
export function reach(bench: Bench, set: readonly number[], colours: readonly WeightedColour[], before?: Reached): Reached {
  const even = set.map((i) => bench.even[i]!);
  const nearest = colours.map(({ lab }, c) => {
    const known = before?.nearest[c];
    const starts: ArrayLike<number>[] = [];
    let best: NearestShares | undefined;
    if (known) {
      const place = new Map(before.set.map((i, k) => [i, k]));
      const gone = before.set.some((i) => !set.includes(i));
      const top = Math.max(...known.logs);
      const joined = set.map((i) => {
        const k = place.get(i);
        return k === undefined ? top + bench.even[i]! - bench.even[before.set[0]!]! + JOINING : known.logs[k]!;
      });
      if (!gone && known.distance <= ENOUGH)
        return { ...known, logs: Float64Array.from(set, (i) => (place.has(i) ? known.logs[place.get(i)!]! : LEAST)) };
      starts.push(joined);
      if (!gone) best = { ...known, logs: Float64Array.from(set, (i) => (place.has(i) ? known.logs[place.get(i)!]! : LEAST)) };
    }
    starts.push(even);
    for (const start of starts) {
      const own = nearestOf(bench, set, lab, start, ENOUGH);
      if (!best || own.distance < best.distance) best = own;
      if (best.distance <= ENOUGH) break;
    }
    return best!;
  });
  return {
    set,
    nearest,
    cover: coverFrom(
      colours,
      nearest.map(({ distance }) => distance),
    ),
  };
}
const LEAST = -13;

/** Chips that a search begins from as well, where it has come to nothing near. */
const BEGUN_FROM = 3;
/** What a tube that is in no chip begins with. */
const ASIDE = -7;

/** What a palette comes to of a picture. @param table what it makes, to begin from */
export function coverOf(
  paints: readonly PaintCurves[],
  colours: readonly WeightedColour[],
  table: MixtureTable = mixturesOf(paints),
): Reached {
  const bench = layBench(paints);
  const set = paints.map((_, i) => i);
  const first = reach(bench, set, colours);
  const nearest = first.nearest.map((own, c) => {
    if (own.distance <= ENOUGH) return own;
    const { lab } = colours[c]!;
    let best = own;
    for (const { tubes, parts } of chipsNear(table, lab, BEGUN_FROM)) {
      const start = set.map((i) => (tubes.includes(i) ? Math.log(parts[tubes.indexOf(i)]!) : ASIDE));
      const again = nearestOf(bench, set, lab, start, ENOUGH);
      if (again.distance < best.distance) best = again;
      if (best.distance <= ENOUGH) break;
    }
    return best;
  });
  return {
    set,
    nearest,
    cover: coverFrom(
      colours,
      nearest.map(({ distance }) => distance),
    ),
  };
}
