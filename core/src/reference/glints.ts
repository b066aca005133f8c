import { linearReader, lumaOf, SRGB, type Pixels } from './pixels.ts';

/** Where a picture has glints: specular highlights and bare lights, small and far lighter than what is round them. */
export interface Glints {
  /** Share of the picture that they take. */
  readonly share: number;
  /** Squares of so many pixels, so many across; 1 where there is a glint. */
  readonly size: number;
  readonly across: number;
  readonly cells: Uint8Array;
}

/** Whether there is a glint at a pixel. */
export const isGlint = ({ size, across, cells }: Glints, x: number, y: number): boolean =>
  cells[Math.floor(y / size) * across + Math.floor(x / size)] === 1;

/** Cells across the longer side. */
const CELLS = 320;
/** What is round a cell reaches so far, as a share of the longer side. */
const ROUND = 0.06;
/** A glint is so many times lighter than what is round it, and than nearly everything else. */
const TIMES = 2.2;
const AGAINST_THINGS = 1.1;
const NEARLY_ALL = 0.97;
/** What is as light as this share of a glint belongs to it. */
const HANGS = 0.6;
/** A glint takes no more of the picture than this. */
const MOST = 0.004;

interface Cells {
  readonly across: number;
  readonly down: number;
  readonly size: number;
  readonly most: Float32Array;
  readonly mean: Float32Array;
}

/** Mean and most light of squares of the picture; the most is of the second lightest pixel, since one alone may be noise. */
function cellsOf(picture: Pixels): Cells {
  const { width, height, space = SRGB } = picture;
  const read = linearReader(picture);
  const [lr, lg, lb] = lumaOf(space);
  const size = Math.max(1, Math.ceil(Math.max(width, height) / CELLS));
  const [across, down] = [Math.ceil(width / size), Math.ceil(height / size)];
  const most = new Float32Array(across * down);
  const first = new Float32Array(across * down);
  const mean = new Float32Array(across * down);
  const count = new Uint32Array(across * down);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      const Y = lr * read(at, 0) + lg * read(at, 1) + lb * read(at, 2);
      const cell = Math.floor(y / size) * across + Math.floor(x / size);
      mean[cell]! += Y;
      count[cell]!++;
      if (Y > first[cell]!) {
        most[cell] = first[cell]!;
        first[cell] = Y;
      } else if (Y > most[cell]!) most[cell] = Y;
    }
  for (let i = 0; i < mean.length; i++) {
    mean[i]! /= count[i]!;
    if (count[i] === 1) most[i] = first[i]!;
  }
  return { across, down, size, most, mean };
}

/** Mean over a square about each cell, from sums over rectangles (Crow 1984). */
function roundAbout({ across, down, mean }: Cells, reach: number): Float32Array {
  const sums = new Float64Array((across + 1) * (down + 1));
  for (let y = 0; y < down; y++) {
    let row = 0;
    for (let x = 0; x < across; x++) {
      row += mean[y * across + x]!;
      sums[(y + 1) * (across + 1) + x + 1] = sums[y * (across + 1) + x + 1]! + row;
    }
  }
  return Float32Array.from({ length: across * down }, (_, i) => {
    const [x, y] = [i % across, Math.floor(i / across)];
    const [x0, x1] = [Math.max(0, x - reach), Math.min(across, x + reach + 1)];
    const [y0, y1] = [Math.max(0, y - reach), Math.min(down, y + reach + 1)];
    const at = (px: number, py: number): number => sums[py * (across + 1) + px]!;
    return (at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0)) / ((x1 - x0) * (y1 - y0));
  });
}

/** Cells that hang together with one, as far as they are as light as that; no more than `most` are looked for. */
function patchAbout(start: number, light: Float32Array, least: number, across: number, most: number): number[] {
  const patch = [start];
  const seen = new Set(patch);
  for (let i = 0; i < patch.length && patch.length <= most; i++) {
    const at = patch[i]!;
    const x = at % across;
    for (const next of [at - across, at + across, ...(x > 0 ? [at - 1] : []), ...(x < across - 1 ? [at + 1] : [])])
      if (next >= 0 && next < light.length && light[next]! >= least && !seen.has(next)) {
        seen.add(next);
        patch.push(next);
      }
  }
  return patch;
}

/** Finds the glints of a picture: small patches of light, told from light things by what is round them. */
export function findGlints(picture: Pixels): Glints {
  const cells = cellsOf(picture);
  const { across, size, most } = cells;
  const about = roundAbout(cells, Math.max(2, Math.round((ROUND * CELLS) / 2)));
  const things = Float32Array.from(cells.mean).sort()[Math.floor(NEARLY_ALL * (cells.mean.length - 1))]!;
  const taken = new Uint8Array(most.length);
  const limit = Math.max(4, MOST * most.length);
  // A corner of a light thing has dark round it as well, but hangs together with more.
  const large = new Uint8Array(most.length);
  for (let i = 0; i < most.length; i++) {
    const Y = most[i]!;
    if (taken[i] || large[i] || Y <= TIMES * about[i]! || Y <= AGAINST_THINGS * things) continue;
    const patch = patchAbout(i, most, HANGS * Y, across, limit);
    const is = patch.length <= limit ? taken : large;
    for (const cell of patch) is[cell] = 1;
  }
  const count = taken.reduce((sum, is) => sum + is, 0);
  return { share: count / taken.length, size, across, cells: taken };
}
