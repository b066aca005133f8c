import { ellipsoidAt } from '../src/colour/ellipse.ts';
import { deltaE00, type Lab, type Palette } from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { desktop, nearestShares } from '../src/laying/shares.ts';

/** Beginnings per set: shares by inverse strength, and random ones. */
const BEGINNINGS = 4;

/**
 * The least ΔE00 that up to four of a palette's tubes can do with exact shares, by trying every set from
 * several beginnings: what recipes are measured against. Slow on purpose, and apart from the search's own screening.
 * @param enough a difference that needs no bettering
 */
export function bestOfFour(palette: Palette, target: Lab, enough = 0.15, most = 4): number {
  const U = ellipsoidAt(target);
  const desk = desktop();
  const random = seeded(1);
  const n = palette.ingredients.length;
  const pull = palette.ingredients.map(({ K, S }) => K.reduce((s, v) => s + v, 0) + S.reduce((s, v) => s + v, 0));
  let best = Infinity;
  const grow = (set: number[], from: number): void => {
    if (best <= enough) return;
    if (set.length > 0)
      for (let b = 0; b < BEGINNINGS; b++) {
        const start = set.map((i) => (b === 0 ? 1 : Math.exp(-3 * random())) / pull[i]!);
        const found = nearestShares(palette, set, start, target, U, desk, 0.02);
        if (found) best = Math.min(best, deltaE00(target, found.lab));
        if (set.length === 1) break;
      }
    if (set.length < most) for (let i = from; i < n; i++) grow([...set, i], i + 1);
  };
  grow([], 0);
  return best;
}
