import { Matrix, solve } from 'ml-matrix';
import { deltaE00 } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import { BOTTOM, TOP } from './area.ts';
import { PATCHES } from './besidePatch.ts';
import { linearToLab, SRGB, type Pixels, type RgbSpace } from './pixels.ts';

/** A heap of paint that was found in a photo of a palette. */
export interface PaintFound {
  /** Its middle and its width, in shares of the photo's sides. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly lab: Lab;
}

/** What a photo of a palette shows, its light taken from the white paper in it. */
export interface PalettePhoto {
  readonly paint: readonly PaintFound[];
  /** Where the paper was found, in shares of the photo's sides. */
  readonly paper: { readonly x: number; readonly y: number };
}

/** The photo is read as small as this on its longer side, px: a heap is still hundreds of pixels large. */
const READ_AT = 480;
/** Shares of the photo: less is no heap, and no paper. */
const LEAST_HEAP = 0.0006;
const LEAST_PAPER = 0.004;
const MOST_CLIPPED = 0.35;
/** How far colours may lie apart from one pixel to the next within one thing, and how far paint stands off the palette; ΔE*ab. */
const JOINS = 4;
const STANDS_OFF = 5;
/** Paper is as light as the lightest there, nearly, and has no colour of its own beside that. */
const NEARLY = 0.72;
const MOST_SURFACES = 3;
/** Of a large thing so many pixels tell its light. */
const ENOUGH_PIXELS = 3000;
/** An edge is looked for so many pixels to each side. */
const REACH = 2;
const PALE = 28;
/** A palette that is as light as the lightest on it is white itself. */
const AS_LIGHT = 0.92;

/** A photo made small: linear light by channel, smoothed over three pixels, and which pixels the photo has lost. */
interface Small {
  readonly width: number;
  readonly height: number;
  readonly rgb: Float64Array;
  readonly lost: Uint8Array;
  readonly space: RgbSpace;
}

function madeSmall({ data, width, height, space = SRGB }: Pixels): Small {
  const by = Math.max(1, Math.ceil(Math.max(width, height) / READ_AT));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const depth = data instanceof Uint16Array ? 257 : 1;
  const rgb = new Float64Array(3 * w * h);
  const lost = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let gone = 0;
      for (let j = 0; j < by; j++)
        for (let i = 0; i < by; i++) {
          const at = 4 * ((y * by + j) * width + x * by + i);
          let highest = 0;
          for (let c = 0; c < 3; c++) {
            const byte = data[at + c]! / depth;
            highest = Math.max(highest, byte);
            rgb[3 * (y * w + x) + c]! += space.ofByte[c as 0 | 1 | 2][Math.round(byte)]! / (by * by);
          }
          if (highest >= TOP || highest <= BOTTOM) gone++;
        }
      if (2 * gone > by * by) lost[y * w + x] = 1;
    }
  return { width: w, height: h, rgb: blurred(rgb, w, h), lost, space };
}

/** The mean of a pixel and its eight neighbours: a camera's noise is finer than any heap. */
function blurred(rgb: Float64Array, w: number, h: number): Float64Array {
  const out = new Float64Array(rgb.length);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        let n = 0;
        for (let j = Math.max(0, y - 1); j <= Math.min(h - 1, y + 1); j++)
          for (let i = Math.max(0, x - 1); i <= Math.min(w - 1, x + 1); i++, n++) sum += rgb[3 * (j * w + i) + c]!;
        out[3 * (y * w + x) + c] = sum / n;
      }
  return out;
}

const labsOf = ({ rgb, space }: Pick<Small, 'rgb' | 'space'>): Float32Array => {
  const labs = new Float32Array(rgb.length);
  for (let i = 0; i < rgb.length; i += 3) labs.set(linearToLab(space, rgb[i]!, rgb[i + 1]!, rgb[i + 2]!), i);
  return labs;
};
const apartAt = (labs: Float32Array, i: number, j: number): number =>
  Math.hypot(labs[3 * i]! - labs[3 * j]!, labs[3 * i + 1]! - labs[3 * j + 1]!, labs[3 * i + 2]! - labs[3 * j + 2]!);

/** Whether nothing ends near a pixel: a soft edge is told over some pixels, not from one to the next. */
function isFlat(labs: Float32Array, i: number, w: number, h: number): boolean {
  const [x, y] = [i % w, Math.floor(i / w)];
  const [left, right] = [Math.max(0, x - REACH), Math.min(w - 1, x + REACH)];
  const [top, bottom] = [Math.max(0, y - REACH), Math.min(h - 1, y + REACH)];
  return apartAt(labs, y * w + left, y * w + right) < JOINS && apartAt(labs, top * w + x, bottom * w + x) < JOINS;
}

/** Pixels that hang together. @param may whether a pixel counts @param joins whether two that touch are of one thing */
function things(w: number, h: number, may: (i: number) => boolean, joins: (i: number, j: number) => boolean): number[][] {
  const seen = new Uint8Array(w * h);
  const all: number[][] = [];
  for (let start = 0; start < w * h; start++) {
    if (seen[start] || !may(start)) continue;
    seen[start] = 1;
    const one = [start];
    for (let k = 0; k < one.length; k++) {
      const i = one[k]!;
      const x = i % w;
      for (const j of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
        if (j >= 0 && j < w * h && !seen[j] && may(j) && joins(i, j)) {
          seen[j] = 1;
          one.push(j);
        }
    }
    all.push(one);
  }
  return all;
}

/** How the light falls off over the palette: a plane through the log of its own light, by channel, fitted in least squares. */
function evened({ rgb, width: w, height: h }: Small, surface: readonly number[]): Float64Array {
  const out = new Float64Array(rgb.length);
  const step = Math.max(1, Math.floor(surface.length / ENOUGH_PIXELS));
  const some = surface.filter((_, k) => k % step === 0);
  const places = new Matrix(some.map((i) => [1, (i % w) / w - 0.5, Math.floor(i / w) / h - 0.5]));
  for (let c = 0; c < 3; c++) {
    const light = Matrix.columnVector(some.map((i) => Math.log(Math.max(1e-4, rgb[3 * i + c]!))));
    const [, byX, byY] = solve(places, light).to1DArray() as [number, number, number];
    // A plane through the log is a product of what falls off across and what falls off down.
    const across = Float64Array.from({ length: w }, (_, x) => Math.exp(-byX * (x / w - 0.5)));
    for (let y = 0, i = c; y < h; y++) {
      const down = Math.exp(-byY * (y / h - 0.5));
      for (let x = 0; x < w; x++, i += 3) out[i] = rgb[i]! * across[x]! * down;
    }
  }
  return out;
}

/** The middle light of some pixels, by channel: those lost in glare, and what is much lighter than most, left out. */
function lightOf(rgb: Float64Array, pixels: readonly number[], lost: Uint8Array): [number, number, number] {
  const step = Math.max(1, Math.floor(pixels.length / ENOUGH_PIXELS));
  const some = step === 1 ? pixels : pixels.filter((_, k) => k % step === 0);
  const sound = some.filter((i) => !lost[i]);
  const of = sound.length >= some.length / 5 ? sound : some;
  const sums = of.map((i) => rgb[3 * i]! + rgb[3 * i + 1]! + rgb[3 * i + 2]!);
  const limit = [...sums].sort((a, b) => a - b)[Math.floor(sums.length * 0.8)]!;
  const kept = of.filter((_, k) => sums[k]! <= limit);
  const middle = (c: number): number => kept.map((i) => rgb[3 * i + c]!).sort((a, b) => a - b)[Math.floor(kept.length / 2)]!;
  return [middle(0), middle(1), middle(2)];
}

/** Has no colour of its own to speak of, made as light as white; a lamp leaves it some. */
function isPale(light: readonly [number, number, number], lightest: number, space: RgbSpace): boolean {
  const [, a, b] = linearToLab(space, ...(light.map((v) => (3 * v) / lightest) as [number, number, number]));
  return Math.hypot(a, b) < PALE;
}

/** How uneven some pixels are, as a share of their light, half of them left out: paper lies flat, paint has ridges. */
function ridgesOf(rgb: Float64Array, pixels: readonly number[]): number {
  const sums = pixels.map((i) => rgb[3 * i]! + rgb[3 * i + 1]! + rgb[3 * i + 2]!).sort((one, other) => one - other);
  const at = (share: number): number => sums[Math.floor(share * (sums.length - 1))]!;
  return (at(0.75) - at(0.25)) / at(0.5);
}

/** A heap as it lies in the picture: all its pixels, and those that touch nothing else. */
interface Heap {
  readonly pixels: readonly number[];
  readonly inner: readonly number[];
}
/** A part of which more of the edge than this lies on a larger and darker part is a glint on that one, or the light side of a ridge. */
const ON_PAINT = 0.2;
const LARGER = 1.6;
/** Past a soft edge lies what a part stands on, px. */
const PAST = 4;

/** Parts that are heaps of their own: a glint on paint is of that paint, and the soft edge between two things is neither. */
function heapsAmong(parts: readonly (readonly number[])[], w: number, rgb: Float64Array): Heap[] {
  const partOf = new Int32Array(rgb.length / 3).fill(-1);
  parts.forEach((pixels, k) => pixels.forEach((i) => (partOf[i] = k)));
  const light = parts.map((pixels) => pixels.reduce((sum, i) => sum + rgb[3 * i + 1]!, 0) / pixels.length);
  const around = [-1, 1, -w, w];
  return parts.flatMap((pixels, k): Heap[] => {
    const inner = pixels.filter((i) => around.every((by) => partOf[i + by] === k));
    let edge = 0;
    const on = new Map<number, number>();
    for (const i of pixels)
      for (const by of around) {
        if (partOf[i + by] === k) continue;
        edge++;
        const past = partOf[i + PAST * by] ?? -1;
        if (past >= 0 && past !== k) on.set(past, (on.get(past) ?? 0) + 1);
      }
    const isGlint = [...on].some(
      ([m, count]) => count > ON_PAINT * edge && parts[m]!.length > LARGER * pixels.length && light[m]! < light[k]!,
    );
    return isGlint ? [] : [{ pixels, inner }];
  });
}

const PAPER_HELP = 'Lay a piece of white paper into the picture, flat and in the same light, and take it again.';

/**
 * Finds the heaps of paint on a palette and reads them: the palette is what hangs together most, the light's fall over it is
 * evened out by its own light, and the colours are taken from white paper in the picture.
 * @throws CraftError for a photo without a palette or paper, and for one that glares or is too dark
 */
export function readPalettePhoto(photo: Pixels): PalettePhoto {
  if (photo.width < 80 || photo.height < 80) throw new CraftError('input', 'This picture is too small to find paint in.');
  const small = madeSmall(photo);
  const { width: w, height: h, lost } = small;
  const all = w * h;
  const clipped = lost.reduce((sum, one) => sum + one, 0) / all;
  if (clipped > MOST_CLIPPED)
    throw new CraftError(
      'input',
      'Too much of this picture is lost in glare or in the dark. Turn the palette from the light and take it again.',
    );
  const seen = labsOf(small);
  const surfaces = things(
    w,
    h,
    (i) => !lost[i] && isFlat(seen, i, w, h),
    () => true,
  )
    .filter((one) => one.length >= all / 12)
    .sort((one, other) => other.length - one.length)
    .slice(0, MOST_SURFACES);
  if (surfaces.length === 0)
    throw new CraftError('input', 'No palette is to be seen here: take it from above, so that it fills the picture.');
  // Of what is large, the palette is what most lies on: a table round it may be larger.
  const readings = surfaces.map((surface) => readOn(small, surface));
  const [best] = readings
    .filter((one): one is PalettePhoto => !(one instanceof CraftError))
    .sort((one, other) => other.paint.length - one.paint.length);
  if (!best) throw readings[0];
  return best;
}

/** Heaps and paper on one surface of the photo, or why they cannot be read. */
function readOn(small: Small, surface: readonly number[]): PalettePhoto | CraftError {
  const { width: w, height: h, lost, space } = small;
  const all = w * h;
  const rgb = evened(small, surface);
  const labs = labsOf({ rgb, space });
  const ofSurface = lightOf(rgb, surface, lost);
  const ground = linearToLab(space, ...ofSurface);
  const standsOff = (i: number): boolean =>
    lost[i] !== 0 || Math.hypot(labs[3 * i]! - ground[0], labs[3 * i + 1]! - ground[1], labs[3 * i + 2]! - ground[2]) > STANDS_OFF;
  const parts = things(w, h, standsOff, (i, j) => lost[i] !== 0 || lost[j] !== 0 || apartAt(labs, i, j) < JOINS).filter(
    (one) => one.length >= LEAST_HEAP * all,
  );
  const found = heapsAmong(parts, w, rgb).filter(({ inner }) => inner.length >= LEAST_HEAP * all);
  const light = found.map(({ inner }) => lightOf(rgb, inner, lost));
  const sum = ([r, g, b]: readonly number[]): number => r! + g! + b!;
  const lightest = Math.max(sum(ofSurface), ...light.map(sum));
  // Of what is as light as the lightest, the flattest is the paper; where nothing is lighter than the palette, that is it.
  const papers = found
    .map(({ pixels, inner }, k) => ({ pixels, light: light[k]!, ridges: ridgesOf(rgb, inner) }))
    .filter(({ pixels, light: own }) => pixels.length >= LEAST_PAPER * all && sum(own) >= NEARLY * lightest && isPale(own, lightest, space))
    .sort((a, b) => a.ridges - b.ridges);
  const onPaper = sum(ofSurface) >= AS_LIGHT * lightest && isPale(ofSurface, lightest, space);
  const paper = onPaper ? { pixels: surface, light: ofSurface } : papers[0];
  if (!paper) return new CraftError('input', `No white paper is to be seen on this palette. ${PAPER_HELP}`);
  if (paper.pixels.filter((i) => lost[i]).length > paper.pixels.length / 2)
    return new CraftError('input', 'The white paper is lost in glare: photograph it a little darker.');
  const middleOf = (pixels: readonly number[]): { x: number; y: number } => ({
    x: pixels.reduce((n, i) => n + (i % w), 0) / pixels.length / w,
    y: pixels.reduce((n, i) => n + Math.floor(i / w), 0) / pixels.length / h,
  });
  const paint = found.flatMap(({ pixels }, k): PaintFound[] => {
    if (pixels === paper.pixels || pixels.every((i) => lost[i])) return [];
    const scaled = light[k]!.map((v, c) => Math.min(1.1, (v / paper.light[c]!) * PATCHES['white paper'])) as [number, number, number];
    const xs = pixels.map((i) => i % w);
    const touches = pixels.some((i) => i % w === 0 || i % w === w - 1 || i < w || i >= all - w);
    // What is cut by the picture's edge is the table, or a hand.
    return touches ? [] : [{ ...middleOf(pixels), width: (Math.max(...xs) - Math.min(...xs) + 1) / w, lab: linearToLab(space, ...scaled) }];
  });
  if (paint.length === 0) return new CraftError('input', 'No paint is to be seen on this palette.');
  return { paint, paper: middleOf(paper.pixels) };
}

/** A pile that may lie on a palette, as it is to look. */
export interface PileWanted {
  readonly id: string;
  readonly lab: Lab;
}

export interface PaletteMatched {
  /** What the photo does to all colours alike, ΔE*ab. */
  readonly offset: Lab;
  /** Which heap is which pile, and how far it is from how that is to look, ΔE00, without that. */
  readonly matches: readonly { readonly paint: PaintFound; readonly id: string; readonly deltaE00: number }[];
  /** Heaps that are no pile that is known. */
  readonly unknown: readonly PaintFound[];
  /** Piles that are not in the photo. */
  readonly missing: readonly string[];
}

/** Further off than this a heap is another paint, whatever the photo does to colours, ΔE00. */
const ANOTHER = 12;
/** A photo's own offset is no larger than this, ΔE*ab. */
const MOST_OFFSET = 6;
const NEVER = 1e3;

/**
 * The cheapest way to give each row a column of its own (Kuhn 1955, Munkres 1957, by shortest augmenting paths).
 * @param cost rows by columns, no more rows than columns @returns the column of each row
 * @throws RangeError for more rows than columns, and for a cost that is no number
 */
export function assigned(cost: readonly (readonly number[])[]): number[] {
  const n = cost.length;
  const m = cost[0]?.length ?? 0;
  if (n > m || !cost.flat().every(Number.isFinite)) throw new RangeError(`${n} rows cannot each have one of ${m} columns at such costs.`);
  const [u, v] = [new Float64Array(n + 1), new Float64Array(m + 1)];
  const rowOf = new Int32Array(m + 1);
  for (let i = 1; i <= n; i++) {
    const from = new Int32Array(m + 1);
    const least = new Float64Array(m + 1).fill(Infinity);
    const done = new Uint8Array(m + 1);
    rowOf[0] = i;
    let at = 0;
    while (rowOf[at] !== 0) {
      done[at] = 1;
      let next = 0;
      let by = Infinity;
      for (let j = 1; j <= m; j++) {
        if (done[j]) continue;
        const slack = cost[rowOf[at]! - 1]![j - 1]! - u[rowOf[at]!]! - v[j]!;
        if (slack < least[j]!) {
          least[j] = slack;
          from[j] = at;
        }
        if (least[j]! < by) {
          by = least[j]!;
          next = j;
        }
      }
      for (let j = 0; j <= m; j++)
        if (done[j]) {
          u[rowOf[j]!]! += by;
          v[j]! -= by;
        } else least[j]! -= by;
      at = next;
    }
    for (; at !== 0; at = from[at]!) rowOf[at] = rowOf[from[at]!]!;
  }
  const columns = new Array<number>(n).fill(-1);
  for (let j = 1; j <= m; j++) if (rowOf[j] !== 0) columns[rowOf[j]! - 1] = j - 1;
  return columns;
}

const middle = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0;

/** A colour without what a photo does to all colours alike. */
export const withoutOffset = ([L, a, b]: Lab, [dL, da, db]: Lab): Lab => [L - dL, a - da, b - db];

/** Gives each heap the pile it most likely is, all together, with what the photo does to all colours alike left out. */
export function matchPalette(paint: readonly PaintFound[], piles: readonly PileWanted[]): PaletteMatched {
  let offset: Lab = [0, 0, 0];
  let columns: number[] = [];
  for (let round = 0; round < 3; round++) {
    // A column for each pile, and for each heap one of its own: to be no pile that is known.
    const cost = paint.map(({ lab }, i) => [
      ...piles.map((pile) => Math.min(NEVER, deltaE00(withoutOffset(lab, offset), pile.lab))),
      ...paint.map((_, k) => (k === i ? ANOTHER : NEVER)),
    ]);
    columns = paint.length > 0 ? assigned(cost) : [];
    const apart = columns.flatMap((j, i) => (j < piles.length ? [paint[i]!.lab.map((value, c) => value - piles[j]!.lab[c]!)] : []));
    // From few heaps an offset is not told from what is wrong with them.
    if (apart.length < 4) break;
    const by = [0, 1, 2].map((c) => middle(apart.map((one) => one[c]!)));
    const long = Math.hypot(...by);
    offset = by.map((one) => one * Math.min(1, MOST_OFFSET / Math.max(1e-9, long))) as unknown as Lab;
  }
  const matches = columns.flatMap((j, i) => {
    const pile = piles[j];
    const found = paint[i]!;
    return pile ? [{ paint: found, id: pile.id, deltaE00: deltaE00(withoutOffset(found.lab, offset), pile.lab) }] : [];
  });
  const taken = new Set(matches.map(({ id }) => id));
  return {
    offset,
    matches,
    unknown: paint.filter((_, i) => columns[i]! >= piles.length),
    missing: piles.flatMap(({ id }) => (taken.has(id) ? [] : [id])),
  };
}
