import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import { dot3, inverse3, times3, type Row3 } from '../colour/threes.ts';
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
  for (let round = 0; round < ROUNDS; round++) {
    const off = (at: Row3): Row3 => {
      const [L, a, b] = labOf(reflectance(changed(paint, at)));
      return [seen[0] - L, seen[1] - a, seen[2] - b];
    };
    const now = off(by);
    if (Math.hypot(...now) < NEAR) break;
    /** How the look changes with each shape. */
    const column = (m: 0 | 1 | 2): Row3 => {
      const moved = off([by[0] + (m === 0 ? STEP : 0), by[1] + (m === 1 ? STEP : 0), by[2] + (m === 2 ? STEP : 0)]);
      return [(now[0] - moved[0]) / STEP, (now[1] - moved[1]) / STEP, (now[2] - moved[2]) / STEP];
    };
    const columns = [column(0), column(1), column(2)] as const;
    const damped = (i: 0 | 1 | 2): Row3 => [
      dot3(columns[i], columns[0]) + (i === 0 ? DAMPING : 0),
      dot3(columns[i], columns[1]) + (i === 1 ? DAMPING : 0),
      dot3(columns[i], columns[2]) + (i === 2 ? DAMPING : 0),
    ];
    const stride = times3(inverse3([damped(0), damped(1), damped(2)]), [
      dot3(columns[0], now),
      dot3(columns[1], now),
      dot3(columns[2], now),
    ]);
    const longest = Math.max(STRIDE, ...stride.map(Math.abs)) / STRIDE;
    const held = (m: 0 | 1 | 2): number => Math.min(FARTHEST, Math.max(-FARTHEST, by[m] + stride[m] / longest));
    by = [held(0), held(1), held(2)];
  }
  return changed(paint, by);
}
