import { Matrix, solve } from 'ml-matrix';
import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { labOf, reflectance } from '../paint/mix.ts';

/** Smooth changes of log K over the spectrum: level, slope, bow. */
const SHAPES: readonly Float64Array[] = [0, 1, 2].map((m) =>
  Float64Array.from({ length: BANDS }, (_, i) => Math.cos((Math.PI * m * (i + 0.5)) / BANDS)),
);
const STEP = 1e-4;
const ROUNDS = 12;
const NEAR = 0.02;
/** Log K moves by no more than this in a round, nor in all: a look far off says little of the curves. */
const STRIDE = 0.6;
const FARTHEST = 2;

const changed = ({ K, S }: PaintCurves, by: readonly number[]): PaintCurves => ({
  K: K.map((k, i) => k * Math.exp(SHAPES.reduce((sum, shape, m) => sum + by[m]! * shape[i]!, 0))),
  S,
});

/**
 * Curves of a pile that was looked at: as its tubes say, with absorption changed smoothly and as
 * little as needed until it has the look (Newton's method in three numbers), so that what is mixed
 * from it starts from what was seen.
 */
export function asSeen(paint: PaintCurves, seen: Lab): PaintCurves {
  let by = [0, 0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const off = (at: readonly number[]): number[] => labOf(reflectance(changed(paint, at))).map((v, i) => seen[i]! - v);
    const now = off(by);
    if (Math.hypot(...now) < NEAR) break;
    const J = new Matrix(3, 3);
    for (let m = 0; m < 3; m++) off(by.map((v, k) => (k === m ? v + STEP : v))).forEach((v, i) => J.set(i, m, (now[i]! - v) / STEP));
    const damped = J.transpose().mmul(J).add(Matrix.eye(3).mul(1e-3));
    const stride = solve(damped, J.transpose().mmul(Matrix.columnVector(now))).to1DArray();
    const longest = Math.max(STRIDE, ...stride.map(Math.abs)) / STRIDE;
    by = by.map((v, m) => Math.min(FARTHEST, Math.max(-FARTHEST, v + stride[m]! / longest)));
  }
  return changed(paint, by);
}
