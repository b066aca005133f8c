import type { Lab } from '../colour/spaces.ts';
import type { Book } from './book.ts';
import { lookUp } from './lookUp.ts';
import { rankingFor, VALUE_TOLERANCE } from './ranking.ts';
import { hueGap, readRecipe, type Recipe } from './recipe.ts';
import { allowedSets, emphasisCost, type Emphasis, type Wishes } from './wishes.ts';

/** Whether a palette reaches a target: as near as a painter can see, near, or not at all. */
export type Reach = 'in' | 'near' | 'out';

/** ΔE00 up to which a mixture passes for the target, and up to which it is near. */
export const IN_REACH = 2;
export const NEAR_REACH = 5;

/** A recipe and what it is better at than the others on offer. */
export interface Offer extends Recipe {
  readonly betterAt: string;
}

/** What a palette has to offer for a target, best first. */
export interface Answer {
  readonly reach: Reach;
  readonly recipes: readonly Offer[];
}

export function reachOf({ deltaE00, valueError }: Pick<Recipe, 'deltaE00' | 'valueError'>): Reach {
  if (deltaE00 <= IN_REACH && Math.abs(valueError) <= VALUE_TOLERANCE) return 'in';
  return deltaE00 <= NEAR_REACH ? 'near' : 'out';
}

/** Sets of tubes that alternatives are chosen from. */
const SHORTLIST = 24;
/** ΔE00 an alternative may be further off than the best. */
const WORSE_AT_MOST = 6;

/** The best recipe for a target, fast enough to follow a pointer. */
export function best(book: Book, target: Lab, valueTolerance?: number): Recipe {
  const [found] = lookUp(book, rankingFor(target, valueTolerance), 1);
  return readRecipe(book, found!.recipe, target);
}

const tubesOf = (recipe: Recipe): string[] => Object.keys(recipe.flat).sort();
const tubeSet = (recipe: Recipe): string => tubesOf(recipe).join('+');
const totalParts = (recipe: Recipe): number => recipe.measures.reduce((sum, { parts }) => sum + parts, 0);

/** The same tubes with another let-down, or the same with one tube on top, are no alternative. */
function differs(recipe: Recipe, taken: readonly Recipe[]): boolean {
  const own = new Set(tubesOf(recipe));
  return taken.every((other) => tubesOf(other).some((tube) => !own.has(tube)) && tubeSet(recipe) !== tubeSet(other));
}

/** What an alternative can be better at, and by how much it must be to say so. */
const MERITS: readonly { readonly name: string; readonly gain: (alternative: Recipe, best: Recipe) => number }[] = [
  { name: 'fewer tubes', gain: (a, b) => tubesOf(b).length - tubesOf(a).length },
  { name: 'no let-down to mix first', gain: (a, b) => (a.letdowns.length === 0 ? b.letdowns.length : 0) },
  { name: 'fewer let-downs', gain: (a, b) => b.letdowns.length - a.letdowns.length },
  { name: 'steadier: forgives a clumsy knife', gain: (a, b) => b.steadiness / Math.max(0.05, a.steadiness) - 1.4 },
  { name: 'closer in value', gain: (a, b) => Math.abs(b.valueError) - Math.abs(a.valueError) - 0.08 },
  { name: 'closer in hue', gain: (a, b) => hueGap(b) - hueGap(a) - 0.8 },
  { name: 'fewer parts to measure', gain: (a, b) => totalParts(b) - totalParts(a) - 2.5 },
];

/** How a target is to be solved. */
export interface SolveOptions extends Wishes {
  /** Really different recipes beside the best, 3 unless said. */
  readonly alternatives?: number;
  /** Value steps that may be off before value counts on its own. */
  readonly valueTolerance?: number;
}

/**
 * The best recipe and really different ones, each with what it is better at.
 * @throws CraftError for wishes that leave nothing to mix with
 */
export function solve(book: Book, target: Lab, options: SolveOptions = {}): Answer {
  const { alternatives = 3, valueTolerance, emphasis = 'closest' } = options;
  const found = lookUp(book, rankingFor(target, valueTolerance), SHORTLIST, allowedSets(book, options));
  const ranked = found
    .map(({ recipe, score }) => ({ recipe: readRecipe(book, recipe, target), score }))
    .map(({ recipe, score }) => ({ recipe, score: score + emphasisCost(recipe, emphasis) }))
    .sort((a, b) => a.score - b.score);
  const [first, ...rest] = ranked.map(({ recipe }) => recipe) as [Recipe, ...Recipe[]];
  const worthwhile = rest.filter((r) => r.deltaE00 <= Math.max(first.deltaE00 + WORSE_AT_MOST, 2 * first.deltaE00));
  const offers: Offer[] = [{ ...first, betterAt: BEST_AT[emphasis] }];
  for (const { name, gain } of MERITS) {
    if (offers.length > alternatives) break;
    const other = worthwhile.find((r) => gain(r, first) > 0 && differs(r, offers));
    if (other) offers.push({ ...other, betterAt: name });
  }
  for (const other of worthwhile) {
    if (offers.length > alternatives) break;
    if (differs(other, offers)) offers.push({ ...other, betterAt: 'other tubes' });
  }
  const [top, ...others] = offers as [Offer, ...Offer[]];
  return { reach: reachOf(first), recipes: [top, ...others.sort((a, b) => a.deltaE00 - b.deltaE00)] };
}

const BEST_AT: Readonly<Record<Emphasis, string>> = {
  closest: 'closest overall',
  fewest: 'close with few tubes',
  steady: 'close and steady',
  cheap: 'close and cheap',
  fast: 'close and soon dry',
};
