import { deltaE00 } from '../colour/difference.ts';
import { ellipsoidAt } from '../colour/ellipse.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Palette } from '../laying/palette.ts';
import { VALUE_TOLERANCE } from '../laying/ranking.ts';
import { desktop, nearestShares } from '../laying/shares.ts';
import { IN_REACH } from '../laying/worth.ts';
import { findPlans } from './find.ts';
import type { Found, Sought } from './sought.ts';

/** Whether a palette reaches a target: as near as a painter can see, near, or not at all. */
export type Reach = 'in' | 'near' | 'out';

/** ΔE00 up to which a mixture is near. */
export const NEAR_REACH = 5;

/** How a colour that far off stands to its target. */
export function reachOf({ deltaE00, valueError }: { readonly deltaE00: number; readonly valueError: MunsellValue }): Reach {
  if (deltaE00 <= IN_REACH && Math.abs(valueError) <= VALUE_TOLERANCE) return 'in';
  return deltaE00 <= NEAR_REACH ? 'near' : 'out';
}

const valueOf = (lab: Lab): MunsellValue => valueOfLightness(Math.min(100, Math.max(0, lab[0])));
const reachBetween = (target: Lab, lab: Lab): Reach =>
  reachOf({ deltaE00: deltaE00(target, lab), valueError: valueOf(lab) - valueOf(target) });
const passes = ({ target }: Sought, { plan }: Found): boolean => reachBetween(target, plan.lab) === 'in';

/** Heaps, the pile's own counted, beyond which a simple recipe that is near goes first: nobody mixes three heaps first unasked. */
const MOST_HEAPS = 3;
/** Closest plans that are looked through for one that passes. */
const CLOSEST_TRIED = 3;

/** ΔE00 by which a closer plan goes first where none passes. */
const SEEN_NEARER = 0.7;

/** Value steps that may be given away for one ΔE00: a grey a little too light rather than a violet of the right value. */
const VALUE_FOR_ONE = 0.1;

/** What habit would mix, or the closest in as few heaps where an eye sees what that gains, its value not being given away for nothing. */
function nearer({ target }: Sought, habit: Found, closest: readonly Found[]): Found {
  const off = ({ plan }: Found): MunsellValue => Math.abs(valueOf(plan.lab) - valueOf(target));
  const other = closest.find((one) => {
    const gains = habit.deltaE00 - one.deltaE00;
    return gains > SEEN_NEARER && off(one) <= off(habit) + VALUE_FOR_ONE * (1 + gains) && one.plan.heaps.length <= habit.plan.heaps.length;
  });
  return other ?? habit;
}

/** The plan that goes first, and what the tubes reach, whatever can be measured of it. */
export interface Standing {
  readonly first: Found;
  readonly reach: Reach;
}

/**
 * The best plan that passes for the target goes first, if two heaps mixed first are enough for it, else
 * the best of all. Where habit finds none that passes, the closest are looked through, and what their tubes
 * come to in exact shares says what is reached.
 * @param found plans, best first
 * @returns nothing where nothing was found
 */
export function standingOf(palette: Palette, sought: Sought, found: readonly Found[]): Standing | undefined {
  const [best] = found;
  if (!best) return undefined;
  const { target, hold, closest } = sought;
  const own = reachBetween(target, best.plan.lab);
  if (own === 'in') return { first: best, reach: 'in' };
  const may = (one: Found): boolean => hold === undefined && passes(sought, one) && one.plan.heaps.length <= MOST_HEAPS;
  const passing = found.find(may);
  if (passing) return { first: passing, reach: 'in' };
  const near =
    closest === true ? found.slice(0, CLOSEST_TRIED) : findPlans(palette, { ...sought, closest: true, hold: undefined }, CLOSEST_TRIED);
  const said = [own, ...near.map(({ plan }) => reachBetween(target, plan.lab))];
  if (!said.includes('in')) {
    const U = ellipsoidAt(target);
    const desk = desktop();
    for (const { plan } of near) {
      const exact = nearestShares(palette, plan.set, plan.shares, target, U, desk);
      if (exact) said.push(reachBetween(target, exact.lab));
    }
  }
  const reach = (['in', 'near'] as const).find((one) => said.includes(one)) ?? 'out';
  return { first: near.find(may) ?? (hold === undefined ? nearer(sought, best, near) : best), reach };
}
