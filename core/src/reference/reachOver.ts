import { deltaE00 } from '../colour/difference.ts';
import type { Lab, LinearRgb } from '../colour/spaces.ts';
import { valueOfLightness } from '../colour/value.ts';
import { Nearing } from '../matching/nearing.ts';
import type { InSteps } from '../matching/inSteps.ts';
import type { Palette } from '../laying/palette.ts';
import { desktop, nearestShares, offFrom, straightTo, type Desktop, type Shares } from '../laying/shares.ts';
import { questFor } from '../matching/sought.ts';
import { IN_REACH } from '../laying/worth.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import { ellipsoidAt } from '../colour/ellipse.ts';
import { throughKey, type Key } from './key.ts';
import { linearReader, linearToLab, SRGB, type Pixels } from './pixels.ts';
import type { ValueRange } from './valueRange.ts';

/** Where in a picture a palette cannot reach. */
export interface ReachMap {
  /** Share of the pixels that are out of reach. */
  readonly out: number;
  /** By the pixel's first 6 bits of red, green and blue: 1 where it is out of reach. */
  readonly table: Uint8Array;
  /** Colours that were gone into. */
  readonly solved: number;
}

/** Bits of each channel that pixels are told apart by. */
const BITS = 6;
const BINS = 1 << (3 * BITS);
/** Colours are judged a cell of Lab at a time, so many units wide. */
const CELL = 4;
/** How much nearer than a neighbour's distance less the way to it a colour may lie, since ΔE00 is not quite a metric. */
const MARGIN = 1.25;

/** Cells from a mixture to which its shares may be taken to go in straight lines. */
const MOST_STRAIGHT = 2;
/** Nearer than this nothing is sought: it is in reach. */
const ENOUGH = IN_REACH / 2;
/** So far beyond reach, ΔE00, other sets of tubes are not looked for; nor so few cells from one for which they were. */
const DOUBT = 1.25;
const STILL_KNOWN = 1;

export const binOf = (r: number, g: number, b: number): number => ((r >> 2) << 12) | ((g >> 2) << 6) | (b >> 2);

interface Cell {
  readonly lab: Lab;
  readonly at: readonly [number, number, number];
  readonly key: number;
}
interface Judged {
  readonly lab: Lab;
  readonly distance: number;
  readonly exact: Shares | undefined;
  /** Cells that lie between it and one for which all sets of tubes were looked through. */
  readonly after: number;
  /** Cells that lie between it and the one about which its shares were taken to go in straight lines. */
  readonly straight: number;
}

const cellKey = (l: number, a: number, b: number): number => (l * 128 + (a + 64)) * 128 + (b + 64);

/** Sets of tubes of neighbours that are tried for a colour. */
const MOST_TRIED = 4;

const away = (one: Lab, other: Lab): number => (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2 + (one[2] - other[2]) ** 2;
const nearestOf = (near: readonly Judged[], lab: Lab): Judged[] =>
  near.length < 2 ? [...near] : [...near].sort((one, other) => away(one.lab, lab) - away(other.lab, lab));

/** Judges colours one after another, each with the help of its neighbours. */
class Sweep {
  readonly judged = new Map<number, Judged>();
  solved = 0;
  private readonly desk: Desktop = desktop();

  constructor(private readonly palette: Palette) {}

  private neighbours([l, a, b]: Cell['at']): Judged[] {
    const found: Judged[] = [];
    for (let dl = -1; dl <= 1; dl++)
      for (let da = -1; da <= 1; da++)
        for (let db = -1; db <= 1; db++) {
          const one = this.judged.get(cellKey(l + dl, a + da, b + db));
          if (one) found.push(one);
        }
    return found;
  }

  isOut(cell: Cell): boolean {
    const { lab } = cell;
    const near = this.neighbours(cell.at);
    let distance = 0;
    let exact: Shares | undefined;
    let after = 0;
    const straight = this.alongFrom(lab, near);
    if (straight) {
      this.judged.set(cell.key, { ...straight, lab, straight: straight.straight + 1 });
      return false;
    }
    // A neighbour that is far out keeps this one out.
    for (const one of near) distance = Math.max(distance, one.distance - MARGIN * deltaE00(one.lab, lab));
    if (distance <= IN_REACH) {
      exact = this.fromNeighbours(lab, near);
      after = near.reduce((least, one) => Math.min(least, one.after + 1), Infinity);
      // What is nearest to a neighbour out of reach is nearest here as well, or not far from it.
      const isKnown = exact !== undefined && (exact.distance > IN_REACH + DOUBT || after <= STILL_KNOWN);
      const surelyOut = isKnown && near.some((one) => one.distance > IN_REACH);
      if (!exact || (exact.distance > IN_REACH && !surelyOut)) {
        exact = this.anew(lab);
        after = 0;
      }
      // Far off, the ellipsoid about a colour says too much.
      distance = exact ? Math.min(exact.distance, deltaE00(exact.lab, lab)) : Infinity;
    }
    this.judged.set(cell.key, { lab, distance, exact, after, straight: 0 });
    return distance > IN_REACH;
  }

  /** A neighbour from whose mixture a colour is reached in a straight line with shares to spare: nothing need be mixed to know. */
  private alongFrom(lab: Lab, near: readonly Judged[]): Judged | undefined {
    return near.find(
      ({ exact, distance, straight }) =>
        exact &&
        distance <= ENOUGH &&
        straight < MOST_STRAIGHT &&
        straightTo(exact, offFrom(ellipsoidAt(exact.lab), exact.lab, lab)) <= ENOUGH,
    );
  }

  /** What is in reach of the cells beside one. */
  serving(at: Cell['at']): Judged[] {
    return this.neighbours(at).filter((one) => one.distance <= IN_REACH);
  }

  /** Whether a colour of a cell that is out as a whole is in reach all the same, by what serves the cells beside it: the nearest few of them. */
  isInAfterAll(lab: Lab, cell: number, serving: readonly Judged[]): boolean {
    const whole = this.judged.get(cell)!;
    if (whole.distance - MARGIN * deltaE00(whole.lab, lab) > IN_REACH) return false;
    if (this.alongFrom(lab, serving)) return true;
    const exact = serving.length > 0 ? this.fromNeighbours(lab, serving) : undefined;
    return exact !== undefined && exact.distance <= IN_REACH;
  }

  /** What serves a neighbour mostly serves here, in other shares. */
  private fromNeighbours(lab: Lab, near: readonly Judged[]): Shares | undefined {
    const U = ellipsoidAt(lab);
    const tried = new Set<string>();
    let best: Shares | undefined;
    const tryFrom = (set: readonly number[], shares: readonly number[]): void => {
      const key = set.join();
      if (tried.has(key)) return;
      tried.add(key);
      const own = nearestShares(this.palette, set, shares, lab, U, this.desk, ENOUGH);
      if (own && own.distance < (best?.distance ?? Infinity)) best = own;
      // Where a tube falls to nothing the others do without it.
      if (!own && set.length > 1) for (const i of set.keys()) tryFrom(set.toSpliced(i, 1), shares.toSpliced(i, 1));
    };
    for (const { exact } of nearestOf(near, lab)) {
      if (exact) tryFrom(exact.set, [...exact.shares]);
      if ((best && best.distance < IN_REACH) || tried.size >= MOST_TRIED) break;
    }
    return best;
  }

  private anew(lab: Lab): Shares | undefined {
    this.solved++;
    const { known } = new Nearing(questFor(this.palette, { target: lab, hold: 'all' })).goBy();
    return known.reduce<Shares | undefined>((best, one) => (one.distance < (best?.distance ?? Infinity) ? one : best), undefined);
  }
}

/** How many pixels there are of each colour, by its bin. */
export function countBins(picture: Pixels): Uint32Array {
  const { data } = picture;
  const counts = new Uint32Array(BINS);
  const shift = data instanceof Uint16Array ? 8 : 0;
  for (let at = 0; at < data.length; at += 4) {
    counts[binOf(data[at]! >> shift, data[at + 1]! >> shift, data[at + 2]! >> shift)]!++;
  }
  return counts;
}

/** Colours of bins that occur, by cell. */
export function cellsOf(
  counts: Uint32Array,
  space: Pixels['space'],
  gains: LinearRgb,
  key: Key | undefined,
): { cells: Map<number, Cell>; cellOfBin: Int32Array; colours: Float32Array } {
  const sums = new Map<
    number,
    { readonly at: Cell['at']; readonly l: number; readonly a: number; readonly b: number; readonly n: number }
  >();
  const cellOfBin = new Int32Array(BINS).fill(-1);
  const colours = new Float32Array(3 * BINS);
  const one = new Uint8Array(4);
  const read = linearReader({ data: one, width: 1, height: 1, ...(space && { space }) });
  for (let bin = 0; bin < BINS; bin++) {
    if (counts[bin] === 0) continue;
    one[0] = ((bin >> 12) << 2) | 2;
    one[1] = (((bin >> 6) & 63) << 2) | 2;
    one[2] = ((bin & 63) << 2) | 2;
    const seen = linearToLab(space ?? SRGB, read(0, 0) * gains[0], read(0, 1) * gains[1], read(0, 2) * gains[2]);
    const lab = key ? throughKey(key, seen) : seen;
    for (let k = 0; k < 3; k++) colours[3 * bin + k] = lab[k]!;
    const at = [Math.round(Math.min(110, lab[0]) / CELL), Math.round(lab[1] / CELL), Math.round(lab[2] / CELL)] as const;
    const cell = cellKey(...at);
    const sum = sums.get(cell) ?? { at, l: 0, a: 0, b: 0, n: 0 };
    const n = counts[bin]!;
    sums.set(cell, { at, l: sum.l + n * lab[0], a: sum.a + n * lab[1], b: sum.b + n * lab[2], n: sum.n + n });
    cellOfBin[bin] = cell;
  }
  const cells = new Map([...sums].map(([key, { at, l, a, b, n }]) => [key, { lab: [l / n, a / n, b / n] as Lab, at, key }]));
  return { cells, cellOfBin, colours };
}

/** Cells in an order in which each mostly has a neighbour that was judged: outwards from the first, one shell after another. */
function inOrder(cells: ReadonlyMap<number, Cell>): Cell[] {
  const left = new Set(cells.keys());
  const order: Cell[] = [];
  for (const start of cells.keys()) {
    if (!left.delete(start)) continue;
    order.push(cells.get(start)!);
    for (let i = order.length - 1; i < order.length; i++) {
      const [l, a, b] = order[i]!.at;
      for (let dl = -1; dl <= 1; dl++)
        for (let da = -1; da <= 1; da++)
          for (let db = -1; db <= 1; db++) {
            const next = cellKey(l + dl, a + da, b + db);
            if (left.delete(next)) order.push(cells.get(next)!);
          }
    }
  }
  return order;
}

/** How often it is said how far a sweep is. */
const EVERY = 8;

/**
 * Looks through a picture for what a palette cannot mix, in steps: a colour is in reach where some
 * mixture in exact shares comes within what an eye lets pass.
 */
export function* reachOver(palette: Palette, picture: Pixels, gains: LinearRgb = [1, 1, 1], key?: Key): InSteps<ReachMap> {
  const counts = countBins(picture);
  yield 0.02;
  const { cells, cellOfBin, colours } = cellsOf(counts, picture.space, gains, key);
  yield 0.05;
  const sweep = new Sweep(palette);
  const out = new Set<number>();
  const order = inOrder(cells);
  for (let i = 0; i < order.length; i++) {
    if (sweep.isOut(order[i]!)) out.add(order[i]!.key);
    if (i % EVERY === 0) yield 0.05 + (0.95 * i) / order.length;
  }
  const table = new Uint8Array(BINS);
  let beyond = 0;
  const servingOf = new Map([...out].map((key) => [key, sweep.serving(cells.get(key)!.at)]));
  for (let bin = 0; bin < BINS; bin++) {
    if (counts[bin] === 0 || !out.has(cellOfBin[bin]!)) continue;
    const serving = servingOf.get(cellOfBin[bin]!)!;
    if (bin % EVERY === 0 && serving.length > 0) yield 0.99;
    if (
      serving.length > 0 &&
      sweep.isInAfterAll([colours[3 * bin]!, colours[3 * bin + 1]!, colours[3 * bin + 2]!], cellOfBin[bin]!, serving)
    )
      continue;
    table[bin] = 1;
    beyond += counts[bin]!;
  }
  return { out: beyond / Math.max(1, picture.width * picture.height), table, solved: sweep.solved };
}

/** Shares that are tried of two paints, in doublings. */
const DOUBLINGS = [-6, -4, -3, -2, -1, 0, 1, 2, 3, 4, 6] as const;

/** Values of the darkest and the lightest that a palette can mix: of its tubes alone and of every two of them. */
export function paintRange({ ingredients }: Palette): ValueRange {
  let darkest = 10;
  let lightest = 0;
  const tell = (value: number): void => {
    darkest = Math.min(darkest, value);
    lightest = Math.max(lightest, value);
  };
  const valueOf = (parts: readonly { readonly paint: (typeof ingredients)[number]; readonly parts: number }[]): number =>
    valueOfLightness(labOf(reflectance(mixCurves(parts)))[0]);
  ingredients.forEach((paint, i) => {
    tell(valueOf([{ paint, parts: 1 }]));
    for (const other of ingredients.slice(i + 1))
      for (const n of DOUBLINGS)
        tell(
          valueOf([
            { paint, parts: 1 },
            { paint: other, parts: 2 ** n },
          ]),
        );
  });
  return { darkest, lightest };
}
