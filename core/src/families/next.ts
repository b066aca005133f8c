import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import { findPlans, planFor } from '../matching/find.ts';
import { givesWay } from '../matching/outOfReach.ts';
import type { Palette } from '../laying/palette.ts';
import { againstTarget, recipeOf, type Recipe } from '../matching/recipe.ts';
import type { Found } from '../matching/sought.ts';
import { IN_REACH, WORTH } from '../laying/worth.ts';
import type { Mixture } from '../mixing/mixture.ts';
import { shareOfPile } from '../mixing/open.ts';
import type { Hand } from '../mixing/hand.ts';

/**
 * How the next pile is got from one that is there: by additions of its own tubes, from the same tubes anew,
 * by one thing alone (a tube, or a pile that lies there), or by whatever comes closest.
 */
export const WAYS_ON = ['own tubes', 'anew', 'one thing', 'closest'] as const;
export type WayOn = (typeof WAYS_ON)[number];

/** The next pile, got in one way. */
export interface NextPile {
  readonly way: WayOn;
  /** Takes from the pile by its id where it is made of it; tubes and other piles by theirs. */
  readonly mixture: Mixture;
  readonly lab: Lab;
  readonly deltaE00: number;
  /** Value of the next pile less that of the target. */
  readonly valueError: number;
  /** How large a part of the pile becomes; nothing where it is mixed anew. */
  readonly growth: number | undefined;
  /** What gives way where it does not come there. */
  readonly givesWay: readonly string[];
  readonly score: number;
}

/** What is wished of the next pile. */
export interface NextWishes {
  readonly amountMl?: number | undefined;
  readonly hand?: Hand | undefined;
  readonly mostGrowth?: number | undefined;
}

/** Own tubes of a pile that are tried, the most plentiful; it holds more rarely. */
const MOST_OWN = 6;
/** How much a pile may grow by, and what growing by its own size is worth, ΔE00. */
const MOST_GROWN = 6;
const GROWTH_EFFORT = 0.1;
/** Value steps a next pile may be off: a quarter of a step that was asked for stays a quarter. */
const VALUE_TOLERANCE = 0.05;
/** ΔE00 that an eye does not see between two wet piles that do not touch: no second tube is added for it. */
const UNSEEN = 1.5;
/** ΔE00 that a heap mixed first must bring, and a tube that is not in the pile. */
const WORTH_A_HEAP = 1;
const WORTH_A_STRANGER = 0.6;

/** Every set of so many of some things, least sets first. */
function setsOf(all: readonly number[], most: number): number[][] {
  const sets: number[][] = [];
  const grow = (set: readonly number[], from: number): void => {
    if (set.length > 0) sets.push([...set]);
    if (set.length < most) for (let i = from; i < all.length; i++) grow([...set, all[i]!], i + 1);
  };
  grow([], 0);
  return sets.sort((one, other) => one.length - other.length);
}

/**
 * Ways to the next pile from one that is there, its own tubes first. A colour is said not to come there only
 * where no additions do.
 * @param palette tubes and piles laid out together, the pile among them
 * @throws CraftError when the pile does not lie on the palette
 */
export function nextPiles(
  palette: Palette,
  pileId: string,
  target: Lab,
  { amountMl, hand, mostGrowth = MOST_GROWN }: NextWishes = {},
): NextPile[] {
  const { ingredients } = palette;
  const mother = ingredients.findIndex(({ id, tubes }) => id === pileId && tubes !== undefined);
  if (mother < 0) throw new CraftError('palette', `There is no pile ${JSON.stringify(pileId)} on this palette.`);
  const inside = ingredients[mother]!.tubes!;
  const own = ingredients
    .map(({ id }, i) => ({ i, share: inside[id] ?? 0 }))
    .filter(({ share }) => share > 0)
    .sort((one, other) => other.share - one.share)
    .slice(0, MOST_OWN)
    .map(({ i }) => i);
  const sought = { target, valueTolerance: VALUE_TOLERANCE, amountMl, hand, closest: 'in one heap' } as const;
  const sorted = (set: readonly number[]): number[] => [...set].sort((a, b) => a - b);
  const shareOf = ({ plan }: Found): number => plan.shares[plan.set.indexOf(mother)] ?? 0;
  const best = (found: readonly (Found | undefined)[], cost: (one: Found) => number): Found | undefined =>
    found.reduce<Found | undefined>((least, one) => (one && (!least || cost(one) < cost(least)) ? one : least), undefined);
  const grown = (one: Found): number => one.score + GROWTH_EFFORT / Math.max(0.01, shareOf(one));
  const holds = (one: Found | undefined): Found | undefined => (one && shareOf(one) >= 1 / mostGrowth ? one : undefined);
  const withMother = (set: readonly number[]): Found | undefined => holds(planFor(palette, sorted([mother, ...set]), sought));
  const isOff = (one: Found): number => Math.abs(againstTarget(one.plan.lab, target).valueError);
  /** One tube alone where an eye sees no difference: lighter is white. */
  const alone = (found: readonly (Found | undefined)[]): Found | undefined =>
    best(
      found.filter((one) => one && one.deltaE00 <= UNSEEN && isOff(one) <= 2 * VALUE_TOLERANCE && one.plan.heaps.length === 1),
      grown,
    );

  const others = ingredients.map((_, i) => i).filter((i) => i !== mother);
  // What an eye does not see is not worth a heap.
  const ofIt = best(
    [true, 'in one heap' as const].flatMap((how) => findPlans(palette, { ...sought, mustUse: [mother], closest: how }, 6).map(holds)),
    ({ deltaE00, plan }) => Math.max(UNSEEN / 2, deltaE00) + WORTH_A_HEAP * (plan.heaps.length - 1),
  );
  // Where nothing that is added brings it there other tubes may: the last thing that a painter reaches for.
  const fromOthers = () => findPlans(palette, { target, amountMl, hand, usable: others }, 2);
  const closest = ofIt && ofIt.deltaE00 <= IN_REACH ? ofIt : best([ofIt, ...fromOthers()], ({ deltaE00 }) => deltaE00);
  const found: readonly (readonly [WayOn, Found | undefined])[] = [
    ['own tubes', alone(own.map((i) => withMother([i]))) ?? best(setsOf(own, 3).map(withMother), grown)],
    [
      'anew',
      best(
        setsOf(own, 4).map((set) => planFor(palette, sorted(set), sought)),
        (one) => one.score,
      ),
    ],
    [
      'one thing',
      best(
        others.map((i) => withMother([i])),
        grown,
      ),
    ],
    ['closest', closest],
  ];
  return found.flatMap(([way, one]) => (one ? [nextOf(pileId, way, recipeOf(palette, one, target), target)] : []));
}

function nextOf(pileId: string, way: WayOn, recipe: Recipe, target: Lab): NextPile {
  const { mixture, lab, score } = recipe;
  const { deltaE00, valueError } = againstTarget(lab, target);
  const share = shareOfPile(mixture, pileId);
  return {
    way,
    mixture,
    lab,
    deltaE00,
    valueError,
    growth: share > 0 ? 1 / share : undefined,
    givesWay: deltaE00 > IN_REACH ? givesWay(recipe) : [],
    score,
  };
}

/** ΔE00 by which a way falls short, work and strange tubes and a value other than was asked for counted. */
const fallsShort = ({ way, deltaE00, valueError, mixture }: NextPile): number =>
  Math.max(IN_REACH, deltaE00) +
  WORTH.value * Math.max(0, Math.abs(valueError) - 2 * VALUE_TOLERANCE) +
  WORTH_A_HEAP * (mixture.heaps.length - 1) +
  (way === 'one thing' || way === 'closest' ? WORTH_A_STRANGER : 0);

/**
 * The way that is told first: one that comes there goes before those that do not; then the pile's own tubes
 * in one heap, unless an eye would see what another way gains.
 */
export function firstWay(ways: readonly NextPile[]): NextPile | undefined {
  const there = ways.filter(({ deltaE00 }) => deltaE00 <= IN_REACH);
  return (there.length > 0 ? there : ways).reduce<NextPile | undefined>(
    (first, one) => (first && fallsShort(first) <= fallsShort(one) ? first : one),
    undefined,
  );
}
