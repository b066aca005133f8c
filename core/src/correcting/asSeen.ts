import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import { dampedStep3, slopes3, type Row3 } from '../colour/threes.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { labOf, reflectance } from '../paint/mix.ts';

/** Smooth changes of log K over the spectrum: level, slope, bow. */
const SHAPES: readonly Float64Array[] = [0, 1, 2].map((m) =>
  Float64Array.from({ length: BANDS }, (_, i) => Math.cos((Math.PI * m * (i + 0.5)) / BANDS)),
);
const STEP = 1e-4;
const DAMPING = 1e-3;
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
  let by: Row3 = [0, 0, 0];
  /** How far it looks from what was seen. */
  const off = (at: Row3): Row3 => {
    const [L, a, b] = labOf(reflectance(changed(paint, at)));
    return [L - seen[0], a - seen[1], b - seen[2]];
  };
  for (let round = 0; round < ROUNDS; round++) {
    const now = off(by);
    if (Math.hypot(...now) < NEAR) break;
    const stride = dampedStep3(slopes3(off, by, now, STEP), now, () => DAMPING);
    const longest = Math.max(STRIDE, ...stride.map(Math.abs)) / STRIDE;
    const held = (m: 0 | 1 | 2): number => Math.min(FARTHEST, Math.max(-FARTHEST, by[m] - stride[m] / longest));
    by = [held(0), held(1), held(2)];
  }
  return changed(paint, by);
}
