import { deltaE00 } from '../colour/difference.ts';
import { CraftError } from '../errors.ts';
import { smoothSpectrum } from '../colour/smoothSpectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import { measurings } from '../mixing/mixture.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import { findPlans } from './find.ts';
import type { Palette } from '../laying/palette.ts';
import { standingOf, type Reach } from './passing.ts';
import { hueGap, portionsOn, recipeOf, type Recipe } from './recipe.ts';
import type { Sought } from './sought.ts';
import { IN_REACH } from '../laying/worth.ts';
import { emphasisCost, soughtOn, type Emphasis, type Wishes } from './wishes.ts';

/** A recipe and what it is better at than the others on offer. */
export interface Offer extends Recipe {
  readonly betterAt: string;
}

/** What a palette has to offer for a target, best first. */
export interface Answer {
  /** What the tubes reach, which the first recipe may not. */
  readonly reach: Reach;
  readonly recipes: readonly Offer[];
}

/** What must be in a recipe may not fit together in any. */
const NONE = 'No recipe near this colour has all of that in it: ask for less.';
/** Sets of tubes that alternatives are chosen from. */
const SHORTLIST = 24;
/** ΔE00 an alternative may be further off than the best, and what passes in any case. */
const FURTHER_AT_MOST = 1.5;

/** How a target is to be solved. */
export interface SolveOptions extends Wishes {
  /** Really different recipes beside the best, 3 unless said. */
  readonly alternatives?: number;
  /** Value steps that may be off before value counts on its own. */
  readonly valueTolerance?: number;
}

/** The best recipe for a target and what the tubes reach, fast enough to follow a pointer. */
export function follow(
  palette: Palette,
  target: Lab,
  options: Pick<SolveOptions, 'valueTolerance'> & Wishes = {},
): { readonly reach: Reach; readonly recipe: Recipe } {
  const { valueTolerance } = options;
  const sought = { target, valueTolerance, ...soughtOn(palette, options) };
  const standing = standingOf(palette, sought, findPlans(palette, sought, 1));
  if (!standing) throw new CraftError('limits', NONE);
  return { reach: standing.reach, recipe: recipeOf(palette, standing.first, target) };
}

/** The best recipe for a target. */
export const best = (...needs: Parameters<typeof follow>): Recipe => follow(...needs).recipe;

const tubesOf = (recipe: Recipe): string[] => Object.keys(recipe.flat).sort();
const heapsFirst = ({ mixture }: Recipe): number => mixture.heaps.length - 1;

/** The same tubes measured in another way, or the same with one tube on top, are no alternative. */
function differs(recipe: Recipe, taken: readonly Recipe[]): boolean {
  const own = new Set(tubesOf(recipe));
  return taken.every((other) => tubesOf(other).some((tube) => !own.has(tube)));
}

/** Lights by which a picture hangs when it is not day. */
const LAMP = 'A';

/** How far a recipe parts by lamp from a thing of the target's colour, taken as smooth as colours mostly are. */
function byLamp(palette: Palette, recipe: Recipe, thing: Lab): number {
  return deltaE00(thing, labOf(reflectance(mixCurves(portionsOn(palette, recipe.mixture))), LAMP));
}

/** What an alternative can be better at, and by how much it must be to say so. */
const MERITS: readonly { readonly name: string; readonly gain: (alternative: Recipe, best: Recipe) => number }[] = [
  { name: 'fewer tubes', gain: (a, b) => tubesOf(b).length - tubesOf(a).length },
  { name: 'nothing to mix first', gain: (a, b) => (heapsFirst(a) === 0 ? heapsFirst(b) : 0) },
  { name: 'fewer heaps to mix first', gain: (a, b) => heapsFirst(b) - heapsFirst(a) },
  { name: 'surer', gain: (a, b) => b.expected / Math.max(0.05, a.expected) - 1.12 },
  { name: 'steadier: forgives a clumsy knife', gain: (a, b) => b.steadiness / Math.max(0.05, a.steadiness) - 1.4 },
  { name: 'closer in value', gain: (a, b) => Math.abs(b.valueError) - Math.abs(a.valueError) - 0.08 },
  { name: 'closer in hue', gain: (a, b) => hueGap(b) - hueGap(a) - 0.8 },
  { name: 'fewer measurings', gain: (a, b) => measurings(b.mixture) - measurings(a.mixture) - 1 },
];
const BETTER_BY_LAMP = 'as good by day, better by lamp';
const LAMP_GAIN = 0.8;

const BEST_AT: Readonly<Record<Emphasis, string>> = {
  usual: 'close, with little work',
  closest: 'closest',
  fewest: 'close with few tubes',
  steady: 'close and steady',
  cheap: 'close and cheap',
  fast: 'close and soon dry',
  covers: 'close and covering',
  'lets through': 'close and transparent',
  cautious: 'close, no tube with a caution if it can be',
};

/**
 * The best recipe and really different ones, each with what it is better at.
 * @throws CraftError for wishes that leave nothing to mix with
 */
export function solve(palette: Palette, target: Lab, options: SolveOptions = {}): Answer {
  const { alternatives = 3, valueTolerance, emphasis = 'usual' } = options;
  const sought = { target, valueTolerance, ...soughtOn(palette, options) };
  const ranked = findPlans(palette, sought, SHORTLIST)
    .map((found) => ({ found, recipe: recipeOf(palette, found, target) }))
    .map((one) => ({ ...one, score: one.recipe.score + emphasisCost(palette, one.recipe, emphasis) }))
    .sort((a, b) => a.score - b.score);
  const standing = standingOf(
    palette,
    sought,
    ranked.map((one) => one.found),
  );
  if (!standing) throw new CraftError('limits', NONE);
  const { first: found, reach } = standing;
  const isSimplest = found === ranked[0]!.found;
  const first = ranked.find((one) => one.found === found)?.recipe ?? recipeOf(palette, found, target);
  const rest = ranked.flatMap(({ recipe }) => (recipe === first ? [] : [recipe]));
  const worthwhile = rest.filter((r) => r.deltaE00 <= Math.max(IN_REACH, first.deltaE00 + FURTHER_AT_MOST));
  const offers: Offer[] = [{ ...first, betterAt: BEST_AT[emphasis] }];
  // What habit would mix, though it is only near.
  const [habit] = rest;
  if (!isSimplest && habit && alternatives > 0)
    offers.push({ ...habit, betterAt: heapsFirst(habit) === 0 ? 'nothing to mix first' : 'less work' });
  if (alternatives > 0 && !sought.closest && !sought.hold) offers.push(...closestOffer(palette, sought, first));
  for (const { name, gain } of MERITS) {
    if (offers.length > alternatives) break;
    const other = worthwhile.find((r) => gain(r, first) > 0 && differs(r, offers));
    if (other) offers.push({ ...other, betterAt: name });
  }
  if (offers.length <= alternatives) offers.push(...lampOffer(palette, target, first, worthwhile, offers));
  for (const other of worthwhile) {
    if (offers.length > alternatives) break;
    if (differs(other, offers)) offers.push({ ...other, betterAt: 'other tubes' });
  }
  const [top, ...others] = offers as [Offer, ...Offer[]];
  return { reach, recipes: [top, ...others.sort((a, b) => a.score - b.score)] };
}

/** ΔE00 that the closest recipe must be closer to be told. */
const CLOSER = 0.25;

/** The closest recipe that can be measured, whatever work it is. */
function closestOffer(palette: Palette, sought: Sought, first: Recipe): Offer[] {
  const [found] = findPlans(palette, { ...sought, closest: true }, 1);
  if (!found) return [];
  const closest = recipeOf(palette, found, sought.target);
  return closest.deltaE00 < first.deltaE00 - CLOSER ? [{ ...closest, betterAt: BEST_AT.closest }] : [];
}

/** An alternative that is as good by day and nearer by lamp. */
function lampOffer(palette: Palette, target: Lab, first: Recipe, worthwhile: readonly Recipe[], taken: readonly Offer[]): Offer[] {
  const asGood = worthwhile.filter((r) => r.score <= first.score + 0.5 && differs(r, taken));
  if (asGood.length === 0 || palette.eye.light !== 'D65') return [];
  const thing = labOf(smoothSpectrum(target), LAMP);
  const off = byLamp(palette, first, thing);
  const better = asGood.find((r) => off - byLamp(palette, r, thing) > LAMP_GAIN);
  return better ? [{ ...better, betterAt: BETTER_BY_LAMP }] : [];
}
