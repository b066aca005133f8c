import { CraftError } from '../errors.ts';
import type { Pixels } from '../reference/pixels.ts';

/** Corners of a canvas in a photo, in shares of its sides: upper left, upper right, lower right, lower left; x, y each. */
export type Quad = readonly [number, number, number, number, number, number, number, number];

/**
 * Leads a place of the flat canvas, in shares of its sides, to the photo: the projective map of the unit
 * square onto four corners (Heckbert 1989).
 * @throws CraftError for corners that do not go round a canvas
 */
export function fromCanvas([x0, y0, x1, y1, x2, y2, x3, y3]: Quad): (u: number, v: number) => readonly [x: number, y: number] {
  const turns = [
    [x0, y0, x1, y1, x2, y2],
    [x1, y1, x2, y2, x3, y3],
    [x2, y2, x3, y3, x0, y0],
    [x3, y3, x0, y0, x1, y1],
  ] as const;
  if (turns.some(([ax, ay, bx, by, cx, cy]) => (bx - ax) * (cy - by) - (by - ay) * (cx - bx) < 1e-4))
    throw new CraftError('input', 'The four corners go round the canvas: upper left, upper right, lower right, lower left.');
  const [dx1, dx2, dx3] = [x1 - x2, x3 - x2, x0 - x1 + x2 - x3];
  const [dy1, dy2, dy3] = [y1 - y2, y3 - y2, y0 - y1 + y2 - y3];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (dx3 * dy2 - dx2 * dy3) / det;
  const h = (dx1 * dy3 - dx3 * dy1) / det;
  const [a, b, d, e] = [x1 - x0 + g * x1, x3 - x0 + h * x3, y1 - y0 + g * y1, y3 - y0 + h * y3];
  return (u, v) => {
    const w = g * u + h * v + 1;
    return [(a * u + b * v + x0) / w, (d * u + e * v + y0) / w];
  };
}

/** The canvas as it would be seen from straight before it: so many pixels, linear between those of the photo. */
export function flattened(photo: Pixels, corners: Quad, width: number, height: number): Pixels {
  const at = fromCanvas(corners);
  const data = new Uint8ClampedArray(width * height * 4);
  const deep = photo.data instanceof Uint16Array ? 257 : 1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      const [u, v] = at((x + 0.5) / width, (y + 0.5) / height);
      const px = Math.min(photo.width - 1, Math.max(0, u * photo.width - 0.5));
      const py = Math.min(photo.height - 1, Math.max(0, v * photo.height - 0.5));
      const [left, top] = [Math.floor(px), Math.floor(py)];
      const [right, below] = [Math.min(photo.width - 1, left + 1), Math.min(photo.height - 1, top + 1)];
      const [fx, fy] = [px - left, py - top];
      const from = (cx: number, cy: number, c: number): number => photo.data[4 * (cy * photo.width + cx) + c]!;
      for (let c = 0; c < 3; c++)
        data[i + c] =
          ((from(left, top, c) * (1 - fx) + from(right, top, c) * fx) * (1 - fy) +
            (from(left, below, c) * (1 - fx) + from(right, below, c) * fx) * fy) /
          deep;
      data[i + 3] = 255;
    }
  return { data, width, height, ...(photo.space && { space: photo.space }) };
}

/** Places along the longer side of the photo that is looked through for its canvas. */
const LONGEST = 160;
/** What differs by more than this from what is round the photo's rim is not the wall behind, of 255. */
const OTHER = 26;
/** From place to place a wall differs by no more than this, of 255. */
const SMOOTH = 6;
/** Where in a place it is looked at, in shares of it. */
const SPREAD = [0.2, 0.5, 0.8] as const;
/** A canvas takes at least so much of its photo, and fills its own corners so far. */
const LEAST_SHARE = 0.15;
const FILLS = 0.82;
/** All of a photo but a hair. */
export const WHOLE: Quad = [0, 0, 1, 0, 1, 1, 0, 1];

/** What is not wall and hangs together, the largest of it: paper beside the canvas is not. */
function largestOf(isWall: Uint8Array, w: number, h: number): Uint8Array {
  const of = new Int32Array(w * h).fill(-1);
  let best: readonly number[] = [];
  for (let start = 0; start < of.length; start++) {
    if (isWall[start] === 1 || of[start]! >= 0) continue;
    const places = [start];
    of[start] = start;
    for (let k = 0; k < places.length; k++) {
      const i = places[k]!;
      const x = i % w;
      for (const next of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
        if (next >= 0 && next < of.length && isWall[next] === 0 && of[next]! < 0) {
          of[next] = start;
          places.push(next);
        }
    }
    if (places.length > best.length) best = places;
  }
  const mask = new Uint8Array(w * h);
  for (const i of best) mask[i] = 1;
  return mask;
}

/** A straight line through most of some points: v by u (Theil 1950, Sen 1968), which a third of them being off does not move. */
function throughMost(points: readonly (readonly [u: number, v: number])[]): { readonly rise: number; readonly from: number } {
  const slopes: number[] = [];
  const step = Math.max(1, Math.floor(points.length / 48));
  for (let i = 0; i < points.length; i += step)
    for (let j = i + step; j < points.length; j += step) {
      const [u1, v1] = points[i]!;
      const [u2, v2] = points[j]!;
      // Points close to one another tell little of a slope.
      if (u2 - u1 > points.length / 6) slopes.push((v2 - v1) / (u2 - u1));
    }
  const middle = (list: number[]): number => list.sort((one, other) => one - other)[Math.floor(list.length / 2)] ?? 0;
  const rise = middle(slopes);
  return { rise, from: middle(points.map(([u, v]) => v - rise * u)) };
}

/** Rows and columns at the ends of a canvas are left out where its sides are looked for: they may be of the side next to it. */
const AT_ENDS = 0.15;

/** The four straight sides of a mask, met in its corners. */
function sidesOf(mask: Uint8Array, w: number, h: number): Quad | undefined {
  const rows: { y: number; least: number; most: number }[] = [];
  const columns: { x: number; least: number; most: number }[] = [];
  for (let y = 0; y < h; y++) {
    const own = mask.subarray(y * w, (y + 1) * w);
    const least = own.indexOf(1);
    if (least >= 0) rows.push({ y, least, most: own.lastIndexOf(1) + 1 });
  }
  for (let x = 0; x < w; x++) {
    let [least, most] = [-1, -1];
    for (let y = 0; y < h; y++)
      if (mask[y * w + x] === 1) {
        if (least < 0) least = y;
        most = y + 1;
      }
    if (least >= 0) columns.push({ x, least, most });
  }
  const within = <T>(list: readonly T[]): readonly T[] =>
    list.slice(Math.ceil(AT_ENDS * list.length), Math.floor((1 - AT_ENDS) * list.length));
  if (rows.length < 12 || columns.length < 12) return undefined;
  const left = throughMost(within(rows).map(({ y, least }) => [y + 0.5, least] as const));
  const right = throughMost(within(rows).map(({ y, most }) => [y + 0.5, most] as const));
  const top = throughMost(within(columns).map(({ x, least }) => [x + 0.5, least] as const));
  const foot = throughMost(within(columns).map(({ x, most }) => [x + 0.5, most] as const));
  const share = (v: number, of: number): number => Math.min(1, Math.max(0, v / of));
  // x = side.from + side.rise * y, y = end.from + end.rise * x.
  const met = (side: typeof left, end: typeof top): readonly [number, number] => {
    const x = (side.from + side.rise * end.from) / (1 - side.rise * end.rise);
    return [share(x, w), share(end.from + end.rise * x, h)];
  };
  return [...met(left, top), ...met(right, top), ...met(right, foot), ...met(left, foot)] as unknown as Quad;
}

/** Where the canvas stands in a photo before a wall, or nothing where that cannot be told. */
export function findCanvas({ data, width, height }: Pixels): Quad | undefined {
  const per = Math.max(1, Math.max(width, height) / LONGEST);
  const [w, h] = [Math.floor(width / per), Math.floor(height / per)];
  const deep = data instanceof Uint16Array ? 257 : 1;
  const small = new Float32Array(3 * w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (const dy of SPREAD)
          for (const dx of SPREAD) sum += data[4 * (Math.floor((y + dy) * per) * width + Math.floor((x + dx) * per)) + c]!;
        small[3 * (y * w + x) + c] = sum / (SPREAD.length ** 2 * deep);
      }
  // The wall: what most of the rim is like, each side by itself since light falls off along a wall.
  const rim: number[] = [];
  for (let x = 0; x < w; x++) rim.push(x, (h - 1) * w + x);
  for (let y = 0; y < h; y++) rim.push(y * w, y * w + w - 1);
  const median = (list: number[]): number => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
  const wall = [0, 1, 2].map((c) => median(rim.map((i) => small[3 * i + c]!)));
  const off = (i: number): number => Math.max(...[0, 1, 2].map((c) => Math.abs(small[3 * i + c]! - wall[c]!)));
  /** A wall goes on smoothly; where a canvas begins there is a step, also where it is of nearly the wall's colour. */
  const step = (i: number, j: number): number => Math.max(...[0, 1, 2].map((c) => Math.abs(small[3 * i + c]! - small[3 * j + c]!)));
  if (rim.filter((i) => off(i) > OTHER).length > 0.3 * rim.length) return undefined;
  // What hangs together with the rim and is like it is wall; the rest is canvas.
  const isWall = new Uint8Array(w * h);
  const todo = rim.filter((i) => off(i) <= OTHER);
  for (const i of todo) isWall[i] = 1;
  for (let k = 0; k < todo.length; k++) {
    const i = todo[k]!;
    const x = i % w;
    for (const next of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
      if (next >= 0 && next < w * h && isWall[next] === 0 && off(next) <= OTHER && step(i, next) <= SMOOTH) {
        isWall[next] = 1;
        todo.push(next);
      }
  }
  const canvas = largestOf(isWall, w, h);
  const quad = sidesOf(canvas, w, h);
  if (!quad) return undefined;
  const inside = canvas.reduce((n, is) => n + is, 0) / (w * h);
  const own = areaOf(quad);
  return own >= LEAST_SHARE && inside / own >= FILLS && inside / own < 1.25 ? quad : undefined;
}

const areaOf = ([x0, y0, x1, y1, x2, y2, x3, y3]: Quad): number => Math.abs((x2 - x0) * (y3 - y1) - (x3 - x1) * (y2 - y0)) / 2;
