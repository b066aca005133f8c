import { compareColours, type Compared } from '../reference/compare.ts';
import type { Lab, LinearRgb } from '../colour/spaces.ts';
import { deltaE00 } from '../colour/difference.ts';
import { lightOf, valuesSquinted, type LightPlane } from '../reference/lightPlane.ts';
import { isWithin } from '../reference/outline.ts';
import { linearReader, linearToLab, lumaOf, SRGB, type Pixels } from '../reference/pixels.ts';
import type { Quad } from './quad.ts';

/** How the light in a photo of the canvas was told: from a white that was given, one that was found, or from the canvas itself. */
export const LIT_BY = ['given', 'found', 'fitted'] as const;
export type LitBy = (typeof LIT_BY)[number];

/** Where the canvas is not as the reference is to be painted. */
export interface Miss {
  /** Squares of the grid that it takes, by their place in rows from the top. */
  readonly cells: readonly number[];
  /** Its middle in shares of the canvas. */
  readonly x: number;
  readonly y: number;
  readonly share: number;
  readonly wanted: Lab;
  readonly seen: Lab;
  /** How what is seen differs from what is wanted. */
  readonly compared: Compared;
  /** It lies where a difference is meant so. */
  readonly isMeant: boolean;
}
/** Where an edge is not as hard or soft as in the reference. */
export interface EdgeMiss {
  readonly x: number;
  readonly y: number;
  readonly is: 'harder' | 'softer';
  /** Times that it is harder or softer. */
  readonly times: number;
}
export interface CanvasCompared {
  /** Squares of the grid. */
  readonly across: number;
  readonly down: number;
  /** The largest first. */
  readonly misses: readonly Miss[];
  readonly edges: readonly EdgeMiss[];
  /** Share of the canvas that glare took, and that was left out. */
  readonly glare: number;
}

/** Squares along the longer side. */
const SQUARES = 36;
/** A difference below this is none that a photo can tell, ΔE00. */
const TELLS = 5;
/** Neighbours whose differences are no further apart are one miss, ΔE76. */
const ALIKE = 9;
/** A miss takes at least so much of the canvas. */
const LEAST_SHARE = 0.006;
/** Places are looked for so far about, in squares: corners are not told to a hair. */
const ABOUT = 0.34;
/** Of what lies in a square these are counted, by light: glare only lightens. */
const COUNTED: readonly [number, number] = [0.08, 0.6];
/** A pixel so many times lighter than the middle of its square, and paler, is glare. */
const GLARE = 1.7;
/** A square with more glare than this is left out. */
const TOO_MUCH = 0.45;
const PAPER = 0.89;
/** A value off counts for so much ΔE00 more. */
const VALUES_COUNT = 8;

/** White paper or primer round the canvas: light by channel there. */
function whiteBeside(photo: Pixels, corners: Quad): LinearRgb | undefined {
  const read = linearReader(photo);
  const { width, height, space = SRGB } = photo;
  const luma = lumaOf(space);
  // Beside the canvas: where a sheet of paper lies or hangs.
  const inQuad = (x: number, y: number): boolean => {
    const [ax, ay] = [x / width, y / height];
    const edge = (i: number, j: number): number =>
      (corners[j]! - corners[i]!) * (ay - corners[i + 1]!) - (corners[j + 1]! - corners[i + 1]!) * (ax - corners[i]!);
    return edge(0, 2) > 0 && edge(2, 4) > 0 && edge(4, 6) > 0 && edge(6, 0) > 0;
  };
  const step = Math.max(1, Math.floor(Math.max(width, height) / 300));
  const cell = 6;
  const across = Math.ceil(width / (step * cell));
  const sums = new Map<number, [number, number, number, number, number, number]>();
  for (let y = 0; y < height; y += step)
    for (let x = 0; x < width; x += step) {
      if (inQuad(x, y)) continue;
      const i = 4 * (y * width + x);
      const [r, g, b] = [read(i, 0), read(i, 1), read(i, 2)];
      const Y = luma[0] * r + luma[1] * g + luma[2] * b;
      const key = Math.floor(y / (step * cell)) * across + Math.floor(x / (step * cell));
      const sum = sums.get(key) ?? [0, 0, 0, 0, Infinity, 0];
      sum[0] += r;
      sum[1] += g;
      sum[2] += b;
      sum[3]++;
      sum[4] = Math.min(sum[4], Y);
      sum[5] = Math.max(sum[5], Y);
      sums.set(key, sum);
    }
  let best: { Y: number; rgb: LinearRgb } | undefined;
  const all: number[] = [];
  for (const [r, g, b, n, least, most] of sums.values()) {
    if (n < (cell * cell) / 2) continue;
    const rgb: LinearRgb = [r / n, g / n, b / n];
    const Y = luma[0] * rgb[0] + luma[1] * rgb[1] + luma[2] * rgb[2];
    all.push(Y);
    // Even, not clipped, and of a colour that a white under some lamp may have.
    const isEven = most - least < 0.12 * Y;
    const isWhite = Math.max(...rgb) < 0.97 && Math.max(...rgb) < 2.6 * Math.min(...rgb);
    if (isEven && isWhite && Y > (best?.Y ?? 0.25)) best = { Y, rgb };
  }
  // A white stands out against the wall: a wall alone is none.
  all.sort((one, other) => one - other);
  const usual = all[Math.floor(all.length / 2)] ?? 1;
  return best && best.Y > 1.35 * usual ? best.rgb : undefined;
}

/** Lab of the squares of a plane: of each what is counted of it, how much glare it has, and how far it is one colour. */
interface Squares {
  readonly lab: readonly Lab[];
  readonly glare: Float32Array;
}
function squaresOf(plane: LightPlane, across: number, down: number, dx = 0, dy = 0): Squares {
  const { rgb, width, height, space } = plane;
  const luma = lumaOf(space);
  const light = new Float32Array(width * height);
  for (let i = 0; i < light.length; i++) light[i] = luma[0] * rgb[3 * i]! + luma[1] * rgb[3 * i + 1]! + luma[2] * rgb[3 * i + 2]!;
  const lab: Lab[] = [];
  const glare = new Float32Array(across * down);
  for (let cy = 0; cy < down; cy++)
    for (let cx = 0; cx < across; cx++) {
      const edge = (v: number, most: number): number => Math.min(most, Math.max(0, Math.round(v)));
      const [x0, y0] = [edge(((cx + dx) * width) / across, width - 1), edge(((cy + dy) * height) / down, height - 1)];
      const x1 = Math.max(x0 + 1, edge(((cx + 1 + dx) * width) / across, width));
      const y1 = Math.max(y0 + 1, edge(((cy + 1 + dy) * height) / down, height));
      const own = new Float32Array((x1 - x0) * (y1 - y0));
      for (let y = y0, n = 0; y < y1; y++) for (let x = x0; x < x1; x++) own[n++] = light[y * width + x]!;
      own.sort();
      const middle = own[Math.floor(0.35 * own.length)]!;
      let shining = 0;
      for (let k = own.length - 1; k >= 0 && own[k]! > GLARE * middle + 0.05; k--) shining++;
      glare[cy * across + cx] = shining / own.length;
      const [from, to] = COUNTED.map((share) => own[Math.min(own.length - 1, Math.floor(share * own.length))]!) as [number, number];
      const sum: [number, number, number] = [0, 0, 0];
      let counted = 0;
      for (let y = y0; y < y1; y++)
        for (let x = x0; x < x1; x++) {
          const at = y * width + x;
          if (light[at]! < from || light[at]! > to) continue;
          counted++;
          for (const c of [0, 1, 2] as const) sum[c] += rgb[3 * at + c]!;
        }
      for (const c of [0, 1, 2] as const) sum[c] /= Math.max(1, counted);
      lab.push(linearToLab(space, sum[0]!, sum[1]!, sum[2]!));
    }
  return { lab, glare };
}

/** The light taken out of a flat photo of the canvas. */
export function canvasLight(
  photo: Pixels,
  corners: Quad,
  flat: Pixels,
  wanted: LightPlane,
  white?: { readonly x: number; readonly y: number },
): { readonly gains: LinearRgb; readonly by: LitBy } {
  const given = white && whiteAt(photo, white);
  const found = given ?? whiteBeside(photo, corners);
  if (found) return { gains: found.map((v) => PAPER / Math.max(1e-3, v)) as unknown as LinearRgb, by: given ? 'given' : 'found' };
  // Of the canvas itself: what most of it differs by is taken for the light. An error of all of it is not seen so.
  const own = lightOf(flat);
  const gains = [0, 1, 2].map((c) => {
    const ratios: number[] = [];
    const step = Math.max(1, Math.floor(own.rgb.length / 3 / 4000));
    for (let i = 0; i < own.rgb.length / 3; i += step) {
      const x = i % own.width;
      const y = Math.floor(i / own.width);
      const j = Math.floor((y * wanted.height) / own.height) * wanted.width + Math.floor((x * wanted.width) / own.width);
      const [is, to] = [own.rgb[3 * i + c]!, wanted.rgb[3 * j + c]!];
      if (is > 0.01 && to > 0.01) ratios.push(to / is);
    }
    ratios.sort((a, b) => a - b);
    return ratios[Math.floor(ratios.length / 2)] ?? 1;
  });
  return { gains: gains as unknown as LinearRgb, by: 'fitted' };
}

function whiteAt(photo: Pixels, { x, y }: { readonly x: number; readonly y: number }): LinearRgb {
  const read = linearReader(photo);
  const r = Math.max(1, Math.round(0.006 * Math.max(photo.width, photo.height)));
  const [cx, cy] = [Math.round(x * photo.width), Math.round(y * photo.height)];
  const sum = [0, 0, 0];
  let n = 0;
  for (let py = Math.max(0, cy - r); py <= Math.min(photo.height - 1, cy + r); py++)
    for (let px = Math.max(0, cx - r); px <= Math.min(photo.width - 1, cx + r); px++) {
      for (const c of [0, 1, 2] as const) sum[c]! += read(4 * (py * photo.width + px), c);
      n++;
    }
  return sum.map((v) => v / Math.max(1, n)) as unknown as LinearRgb;
}

/** Squints at which edges are judged, as shares of the longer side: the narrow one tells a hard edge, the wide one its height. */
const NARROW = 0.0035;
const WIDE = 0.014;
/** An edge stands for at least so many values. */
const AN_EDGE = 0.9;
const TIMES = 1.55;

/** How hard the hardest edge of each square is: 1 as soft as the wide squint, more the harder; 0 where there is none. */
function hardness(plane: LightPlane, across: number, down: number): Float32Array {
  const { width, height } = plane;
  const long = Math.max(width, height);
  const [sharp, soft] = valuesSquinted(plane, [NARROW * long, WIDE * long]) as [Float32Array, Float32Array];
  const hard = new Float32Array(across * down);
  const height2 = new Float32Array(across * down);
  const steep = new Float32Array(across * down);
  const slope = (values: Float32Array, i: number): number =>
    Math.hypot(values[i + 1]! - values[i - 1]!, values[i + width]! - values[i - width]!) / 2;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const cell = Math.min(down - 1, Math.floor((y * down) / height)) * across + Math.min(across - 1, Math.floor((x * across) / width));
      height2[cell] = Math.max(height2[cell]!, slope(soft, i) * WIDE * long * Math.sqrt(2 * Math.PI));
      steep[cell] = Math.max(steep[cell]!, slope(sharp, i));
    }
  for (let k = 0; k < hard.length; k++)
    hard[k] = height2[k]! < AN_EDGE ? 0 : (steep[k]! * WIDE * long * Math.sqrt(2 * Math.PI)) / height2[k]!;
  return hard;
}

/**
 * The canvas held against the reference as it is to be painted, both flat and in the same light: where
 * values and colours differ, the largest first, and where edges are harder or softer.
 * @param meant outlines in shares of the canvas in which a difference is meant so
 */
export function compareCanvas(wanted: LightPlane, seen: LightPlane, meant: readonly (readonly number[])[] = []): CanvasCompared {
  const ratio = wanted.width / wanted.height;
  const [across, down] =
    ratio >= 1 ? [SQUARES, Math.max(2, Math.round(SQUARES / ratio))] : [Math.max(2, Math.round(SQUARES * ratio)), SQUARES];
  const want = squaresOf(wanted, across, down).lab;
  const shifts = [-ABOUT, 0, ABOUT].flatMap((dx) => [-ABOUT, 0, ABOUT].map((dy) => squaresOf(seen, across, down, dx, dy)));
  const still = shifts[4]!;
  const n = across * down;
  const isOut = Array.from({ length: n }, (_, i) => still.glare[i]! > TOO_MUCH);
  /** Of each square the reading about it that comes nearest to what is wanted. */
  const got = want.map((lab, i) =>
    shifts.map(({ lab: all }) => all[i]!).reduce((best, one) => (deltaE00(one, lab) < deltaE00(best, lab) ? one : best), still.lab[i]!),
  );
  const off = want.map((lab, i) => (isOut[i] ? 0 : deltaE00(got[i]!, lab)));
  const by = want.map((lab, i): Lab => [got[i]![0] - lab[0], got[i]![1] - lab[1], got[i]![2] - lab[2]]);
  const group = new Int32Array(n).fill(-1);
  const misses: Miss[] = [];
  const order = Array.from({ length: n }, (_, i) => i).sort((one, other) => off[other]! - off[one]! || one - other);
  for (const start of order) {
    if (off[start]! < TELLS || group[start]! >= 0) continue;
    const cells = [start];
    group[start] = start;
    for (let k = 0; k < cells.length; k++) {
      const i = cells[k]!;
      const x = i % across;
      for (const next of [x > 0 ? i - 1 : -1, x < across - 1 ? i + 1 : -1, i - across, i + across]) {
        if (next < 0 || next >= n || group[next]! >= 0 || off[next]! < TELLS) continue;
        const apart = Math.hypot(by[next]![0] - by[start]![0], by[next]![1] - by[start]![1], by[next]![2] - by[start]![2]);
        if (apart > ALIKE) continue;
        group[next] = start;
        cells.push(next);
      }
    }
    if (cells.length / n < LEAST_SHARE) continue;
    const mean = (of: readonly Lab[]): Lab =>
      [0, 1, 2].map((c) => cells.reduce((sum, i) => sum + (of[i] as readonly number[])[c]! / cells.length, 0)) as unknown as Lab;
    const at = (i: number): readonly [number, number] => [((i % across) + 0.5) / across, (Math.floor(i / across) + 0.5) / down];
    const [mx, my] = [0, 1].map((c) => cells.reduce((sum, i) => sum + (at(i) as readonly number[])[c]! / cells.length, 0)) as [
      number,
      number,
    ];
    // The square nearest to the middle: the middle itself may lie beside a bent miss.
    const [x, y] = at(
      cells.reduce((best, i) => (Math.hypot(at(i)[0] - mx, at(i)[1] - my) < Math.hypot(at(best)[0] - mx, at(best)[1] - my) ? i : best)),
    );
    const [wantedLab, seenLab] = [mean(want), mean(got)];
    misses.push({
      cells: [...cells].sort((one, other) => one - other),
      x,
      y,
      share: cells.length / n,
      wanted: wantedLab,
      seen: seenLab,
      compared: compareColours(seenLab, wantedLab),
      isMeant: meant.some((points) => cells.filter((i) => isWithin(points, ...at(i))).length > 0.6 * cells.length),
    });
  }
  // A wrong hue at the right value passes, the reverse does not; a large miss counts for a little more than a small one.
  const weight = ({ compared, share }: Miss): number => (compared.deltaE00 + VALUES_COUNT * Math.abs(compared.value)) * share ** 0.15;
  return {
    across,
    down,
    misses: misses.sort((one, other) => Number(one.isMeant) - Number(other.isMeant) || weight(other) - weight(one)),
    edges: edgeMisses(wanted, seen, across, down, isOut),
    glare: isOut.filter(Boolean).length / n,
  };
}

const MOST_EDGES = 12;
function edgeMisses(wanted: LightPlane, seen: LightPlane, across: number, down: number, isOut: readonly boolean[]): EdgeMiss[] {
  const [want, got] = [hardness(wanted, across, down), hardness(seen, across, down)];
  const found: (EdgeMiss & { readonly i: number })[] = [];
  for (let i = 0; i < want.length; i++) {
    if (want[i] === 0 || got[i] === 0 || isOut[i]) continue;
    const times = got[i]! / want[i]!;
    if (times < TIMES && times > 1 / TIMES) continue;
    const [x, y] = [((i % across) + 0.5) / across, (Math.floor(i / across) + 0.5) / down];
    found.push({ i, x, y, is: times > 1 ? 'harder' : 'softer', times: Math.max(times, 1 / times) });
  }
  // One edge runs through several squares: of those that touch only the plainest is told.
  const told: (typeof found)[number][] = [];
  for (const one of found.sort((a, b) => b.times - a.times || a.i - b.i)) {
    const isNear = told.some(
      (other) =>
        other.is === one.is &&
        Math.abs((other.i % across) - (one.i % across)) <= 3 &&
        Math.abs(Math.floor(other.i / across) - Math.floor(one.i / across)) <= 3,
    );
    if (!isNear && told.length < MOST_EDGES) told.push(one);
  }
  return told.map(({ i: _i, ...edge }) => edge);
}
