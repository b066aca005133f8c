import { deltaE00 } from '../colour/difference.ts';
import { CraftError } from '../errors.ts';
import { hueDifference, labToLch, lchToLab, type Lab } from '../colour/spaces.ts';
import { COOL_POLE, WARM_POLE } from '../colour/temperature.ts';
import { lightnessOfValue, valueOfLightness } from '../colour/value.ts';
import type { Palette } from '../laying/palette.ts';
import { fromMothers, type Alone, type Family, type Mother } from './mothers.ts';
import { findPlans, planFor } from '../matching/find.ts';
import { recipeOf, type Recipe } from '../matching/recipe.ts';

/** The way between two hues: straight through Lab, by neutral, or round by the warm or the cool side. */
export const ROUTES = ['straight', 'neutral', 'warm', 'cool'] as const;
export type Route = (typeof ROUTES)[number];

/** Stops closer in value than this count as sharing one. */
const ONE_VALUE = 0.15;
const FINE = 64;
export const MOST_IN_STRING = 24;

/** Colour a share `t` of the way from one stop to the next; value goes evenly in Munsell steps. */
export function between(one: Lab, other: Lab, route: Route, t: number): Lab {
  const value = valueOfLightness(one[0]) * (1 - t) + valueOfLightness(other[0]) * t;
  const L = lightnessOfValue(value);
  const mix = (k: 1 | 2): number => one[k] * (1 - t) + other[k] * t;
  const [, C1, h1] = labToLch(one);
  const [, C2, h2] = labToLch(other);
  const C = C1 * (1 - t) + C2 * t;
  switch (route) {
    case 'straight':
      return [L, mix(1), mix(2)];
    case 'neutral': {
      // Down to grey in the middle and up again, each half in its own hue.
      const [from, hue] = t < 0.5 ? [C1 * (1 - 2 * t), h1] : [C2 * (2 * t - 1), h2];
      return lchToLab([L, from, hue]);
    }
    case 'warm':
    case 'cool': {
      const pole = route === 'warm' ? WARM_POLE : COOL_POLE['red-leaning'];
      const short = hueDifference(h1, h2);
      const toPole = hueDifference(h1, pole);
      const passes = Math.sign(toPole) === Math.sign(short) && Math.abs(toPole) <= Math.abs(short);
      const turn = passes ? short : short - Math.sign(short || 1) * 360;
      return lchToLab([L, C, (h1 + turn * t + 720) % 360]);
    }
  }
}

/** ΔE00 that lies behind at each of {@link FINE} steps of the way from one stop to the next. */
function wayAlong(one: Lab, other: Lab, route: Route): readonly number[] {
  const way = [0];
  let from = between(one, other, route, 0);
  for (let i = 1; i <= FINE; i++) {
    const to = between(one, other, route, i / FINE);
    way.push(way[i - 1]! + deltaE00(from, to));
    from = to;
  }
  return way;
}

/** The share of the way at which a share of its ΔE00 lies behind. */
function shareByDifference(way: readonly number[], share: number): number {
  const wanted = share * way[FINE]!;
  let i = 1;
  while (i < FINE && way[i]! < wanted) i++;
  return (i - 1 + (wanted - way[i - 1]!) / Math.max(1e-12, way[i]! - way[i - 1]!)) / FINE;
}

/** A stretch between two stops. */
interface Stretch {
  readonly from: Lab;
  readonly to: Lab;
  readonly route: Route;
  /** ΔE00 along it, where it is even in that; else it is even in value. */
  readonly way: readonly number[] | undefined;
  readonly length: number;
}

function stretchesOf(stops: readonly Lab[], n: number, routes: readonly Route[]): Stretch[] {
  if (stops.length < 2) throw new CraftError('target', 'A string needs at least two stops.');
  if (!Number.isInteger(n) || n < 2 || n > MOST_IN_STRING)
    throw new CraftError('target', `A string has 2 to ${MOST_IN_STRING} piles; this one is to have ${JSON.stringify(n)}.`);
  if (n < stops.length)
    throw new CraftError(
      'target',
      `A string that goes through ${stops.length} stops has at least as many piles; this one is to have ${n}.`,
    );
  for (const route of routes)
    if (!ROUTES.includes(route))
      throw new CraftError('target', `A route is one of ${ROUTES.join(', ')}; this is ${JSON.stringify(route)}.`);
  const values = stops.map((lab) => valueOfLightness(lab[0]));
  const ofOneValue = Math.max(...values) - Math.min(...values) < ONE_VALUE;
  return stops.slice(1).map((to, i) => {
    const from = stops[i]!;
    const route = routes[i] ?? routes.at(-1) ?? 'straight';
    const way = ofOneValue ? wayAlong(from, to, route) : undefined;
    return { from, to, route, way, length: way ? way[FINE]! : Math.abs(values[i + 1]! - values[i]!) };
  });
}

/** So many steps for each stretch, at least one, so that the largest step is as small as can be: each goes where steps are largest. */
function stepsOfStretches(stretches: readonly Stretch[], steps: number): number[] {
  const counts = stretches.map(() => 1);
  for (let left = steps - counts.length; left > 0; left--) {
    const sizes = stretches.map(({ length }, i) => length / counts[i]!);
    counts[sizes.indexOf(Math.max(...sizes))]!++;
  }
  return counts;
}

/** Places of the stops among `n` piles: a string lands on every one of them. */
export function stopPlaces(stops: readonly Lab[], n: number, routes: readonly Route[] = []): number[] {
  const counts = stepsOfStretches(stretchesOf(stops, n, routes), n - 1);
  return counts.reduce<number[]>((places, count) => [...places, places.at(-1)! + count], [0]);
}

/**
 * Target colours of a string of `n` piles over two or more stops, each of which is one of them: between
 * them even in Munsell value, or even in ΔE00 where all stops share a value. Each stretch takes its own route.
 * @throws CraftError for fewer than two stops, too few or too many piles, or an unknown route
 */
export function stringTargets(stops: readonly Lab[], n: number, routes: readonly Route[] = []): Lab[] {
  const stretches = stretchesOf(stops, n, routes);
  const counts = stepsOfStretches(stretches, n - 1);
  const along = stretches.flatMap(({ from, to, route, way }, i) =>
    Array.from({ length: counts[i]! }, (_, k) => {
      const share = k / counts[i]!;
      return between(from, to, route, way ? shareByDifference(way, share) : share);
    }),
  );
  return [...along, stops.at(-1)!];
}

/** A string: a target and the best recipe for each of its piles. */
export interface StringPile {
  readonly target: Lab;
  readonly recipe: Recipe;
}

/** Piles in steps, and the mixtures they are made from. */
export interface PileString {
  readonly mothers: readonly Mother[];
  readonly piles: readonly StringPile[];
}

/** Value steps a pile of a string may be off: two of these apart, a step is still within 0.15 of even. */
const VALUE_EVEN = 0.05;
/** Sets of tubes that are taken from each target to be tried for all. */
const SETS_OF_EACH = 12;
/** ΔE00 that keeping the tubes of the pile before is worth; more where they would otherwise change more than once in three piles. */
const KEEPING = [0.9, 2, 4, 8] as const;
const PILES_TO_A_CHANGE = 3;
/** How far behind the best a pile may fall for it, ΔE00. */
const MOST_LOSS = 1;
/** What a set costs that falls too far behind the best. */
const TOO_FAR = 8;

/**
 * Recipes for a row of targets that hang together: from one pile to the next the tubes stay the same
 * unless that loses more than a painter gives for it. Every set of tubes that suits one of the targets
 * is tried for all; the cheapest way through them is found as Viterbi (1967) finds a path. Then as few
 * mothers as will do are found for each stretch of the same tubes.
 */
export function hangTogether(palette: Palette, targets: readonly Lab[], amountMl?: number): Family {
  // Steps are told apart by little: as near as one heap comes.
  const sought = (target: Lab) => ({ target, valueTolerance: VALUE_EVEN, closest: 'in one heap' as const, amountMl });
  const own = targets.map((target) => findPlans(palette, sought(target), SETS_OF_EACH));
  const sets = new Map<string, readonly number[]>();
  for (const list of own) for (const { plan } of list) sets.set(plan.set.join(), plan.set);
  const keys = [...sets.keys()];
  const plans = targets.map((target, i) => {
    const known = new Map(own[i]!.map((found) => [found.plan.set.join(), found]));
    return keys.map((key) => known.get(key) ?? planFor(palette, sets.get(key)!, sought(target)));
  });
  const bests = plans.map((row) =>
    row.reduce((least, found) => (found && found.score < least.score ? found : least), { score: Infinity, deltaE00: 0 }),
  );
  const costs = plans.map((row, i) => {
    return row.map((found) => {
      if (!found) return Infinity;
      const behind = found.deltaE00 - Math.max(bests[i]!.deltaE00, MOST_LOSS);
      return found.score + (behind > 0 ? TOO_FAR * behind : 0);
    });
  });
  const ways = KEEPING.map((keeping) => cheapestWay(costs, keeping));
  const way = ways.find((one) => changesIn(one) * PILES_TO_A_CHANGE <= targets.length) ?? ways.at(-1)!;
  return fromMothers(
    palette,
    way.map((chosen, i): Alone => {
      const target = targets[i]!;
      return { target, recipe: recipeOf(palette, plans[i]![chosen]!, target), allowed: bests[i]!.deltaE00 + MOST_LOSS };
    }),
    amountMl,
  );
}

const changesIn = (way: readonly number[]): number => way.slice(1).filter((column, i) => column !== way[i]).length;

/** The cheapest way through rows of costs, where changing the column costs, too: one column of each row. */
function cheapestWay(costs: readonly (readonly number[])[], changing: number): number[] {
  let sums = [...costs[0]!];
  const from: number[][] = [];
  for (const row of costs.slice(1)) {
    const least = sums.indexOf(Math.min(...sums));
    from.push(row.map((_, column) => (sums[column]! <= sums[least]! + changing ? column : least)));
    sums = row.map((cost, column) => cost + Math.min(sums[column]!, sums[least]! + changing));
  }
  const way = [sums.indexOf(Math.min(...sums))];
  for (const before of [...from].reverse()) way.unshift(before[way[0]!]!);
  return way;
}

/** A string of `n` piles from a palette, from few tubes and few mothers. */
export function stringOf(palette: Palette, stops: readonly Lab[], n: number, routes?: readonly Route[], amountMl?: number): PileString {
  const targets = stringTargets(stops, n, routes);
  const { mothers, recipes } = hangTogether(palette, targets, amountMl);
  return { mothers, piles: recipes.map((recipe, i) => ({ target: targets[i]!, recipe })) };
}
