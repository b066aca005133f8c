import type { Lab } from '../colour/spaces.ts';
import { deltaE76 } from '../colour/difference.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixCurves } from '../paint/mix.ts';
import { masstoneOf } from './order.ts';

/** One mixture of two paints on a chart. */
export interface ChartStep {
  /** Parts of the one to parts of the other: what a knife can divide. */
  readonly parts: readonly [number, number];
  readonly lab: Lab;
}

/** Divisions that a knife can make, the one against one of the other. */
const AGAINST_ONE = [1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 30, 40, 60, 99] as const;
const DIVISIONS: readonly (readonly [number, number])[] = [
  ...[...AGAINST_ONE].reverse().map((parts) => [parts, 1] as const),
  ...AGAINST_ONE.slice(1).map((parts) => [1, parts] as const),
].map(([one, other]) => (one === 1.5 ? [3, 2] : other === 1.5 ? [2, 3] : [one, other]));

/**
 * Two paints mixed in steps that look even: of a strong one little is wanted at first, so that parts
 * alone would bunch the steps at one end.
 * @param n steps between the two, neither of them counted
 */
export function pairSteps(one: PaintCurves, other: PaintCurves, n: number): ChartStep[] {
  const mixed = DIVISIONS.map((parts) => ({
    parts,
    lab: masstoneOf(
      mixCurves([
        { paint: one, parts: parts[0] },
        { paint: other, parts: parts[1] },
      ]),
    ),
  }));
  const along: number[] = [];
  let [from, way] = [masstoneOf(one), 0];
  for (const { lab } of mixed) {
    way += deltaE76(from, lab);
    along.push(way);
    from = lab;
  }
  way += deltaE76(from, masstoneOf(other));
  // Each step goes its share of the way that is left: where the first cannot be small enough, the others share what remains.
  const steps: ChartStep[] = [];
  let [next, gone] = [0, 0];
  for (let left = n; left >= 1; left--) {
    const wanted = gone + (way - gone) / (left + 1);
    const last = mixed.length - left;
    let best = next;
    for (let at = next; at <= last; at++) if (Math.abs(along[at]! - wanted) < Math.abs(along[best]! - wanted)) best = at;
    steps.push(mixed[best]!);
    gone = along[best]!;
    next = best + 1;
  }
  return steps;
}
