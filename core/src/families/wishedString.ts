import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { labToLch, lchToLab } from '../colour/spaces.ts';
import { temperature } from '../colour/temperature.ts';
import { CraftError, finite } from '../errors.ts';
import type { Palette } from '../laying/palette.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixCurves } from '../paint/mix.ts';
import { brushed, joinBetween, type WetBlend } from './brush.ts';
import type { Recipe } from '../matching/recipe.ts';
import { moved, underCeiling } from '../matching/relative.ts';
import { lastHeap, measurings, type Ingredient, type Mixture } from '../mixing/mixture.ts';
import { leavesOf } from '../mixing/open.ts';
import { warmAndCool } from './pairs.ts';
import { hangTogether, MOST_IN_STRING, stopPlaces, stringTargets, type Route } from './strings.ts';

/** What runs evenly from stop to stop, or is held at what the first stop has. */
export const HELD_IN_STRING = ['nothing', 'chroma', 'temperature'] as const;
export type HeldInString = (typeof HELD_IN_STRING)[number];

/** A string as a painter wishes it. */
export interface StringWish {
  /** Two or more. */
  readonly stops: readonly Lab[];
  /** Piles, or pairs of piles, the stops among them. */
  readonly n: number;
  /** One for each stretch; the last for those after it. */
  readonly routes?: readonly Route[] | undefined;
  readonly held?: HeldInString | undefined;
  /** Warm and cool by turns: by so much, in units of Lab; the stops stay as they are. */
  readonly turns?: number | undefined;
  /** Every step as a warm and a cool pile of one value, each so far from the middle. */
  readonly pairs?: number | undefined;
  /** Munsell chroma that none goes above. */
  readonly ceiling?: number | undefined;
  /** Piles of the palette that the stops are, in their order. */
  readonly piles?: readonly (string | undefined)[] | undefined;
  /** Only so many piles are mixed as a brush can make the others of; not with turns or pairs. */
  readonly brush?: boolean | undefined;
}

/** The first stop's chroma or temperature, at this colour's value. */
function holding(held: HeldInString, first: Lab): (lab: Lab) => Lab {
  if (held === 'chroma') {
    const [, C] = labToLch(first);
    return (lab) => lchToLab([lab[0], C, labToLch(lab)[2]]);
  }
  if (held === 'temperature') return (lab) => moved(lab, { temperature: temperature(first) - temperature(lab) });
  return (lab) => lab;
}

/**
 * The colours of a wished string, in order.
 * @throws CraftError for wishes that are no numbers, or a string that is too long
 */
export function wishedTargets({ stops, n, routes, held = 'nothing', turns = 0, pairs = 0, ceiling }: StringWish): Lab[] {
  for (const [name, by] of [
    ['Turns', turns],
    ['Pairs', pairs],
  ] as const)
    if (!(finite('target', name, by) >= 0 && by <= 60))
      throw new CraftError('target', `${name} go by 0 to 60 in temperature; these go by ${by}.`);
  if (!HELD_IN_STRING.includes(held))
    throw new CraftError('target', `A string holds ${HELD_IN_STRING.join(', ')}; this is ${JSON.stringify(held)}.`);
  if (pairs > 0 && 2 * n > MOST_IN_STRING)
    throw new CraftError('target', `A string has at most ${MOST_IN_STRING} piles; ${n} pairs are ${2 * n}.`);
  const even = stringTargets(stops, n, routes);
  const hold = holding(held, even[0]!);
  const places = new Set(stopPlaces(stops, n, routes));
  const turned = even
    .map(hold)
    .map((lab, at) => (turns === 0 || places.has(at) ? lab : moved(lab, { temperature: at % 2 === 1 ? turns : -turns })));
  const all = pairs > 0 ? turned.flatMap((lab) => [...warmAndCool(lab, pairs)]) : turned;
  return all.map((lab) => underCeiling(lab, ceiling));
}

/** A pile of a string as it is to be mixed. */
export interface StringPilePlan {
  readonly target: Lab;
  readonly recipe: Recipe;
  /** Piles of the string it takes from stand in it as {@link placeName}. */
  readonly mixture: Mixture;
  /** What it is to be, with what other piles of the string take from it. */
  readonly ml: number;
  /** The pile of the palette that it is, where that serves as it lies. */
  readonly isPile?: string;
}

/** A string as one plan. */
export interface StringPlan {
  /** How much of each pile is for the canvas, ml: what is more is for the others. */
  readonly ml: number;
  readonly piles: readonly StringPilePlan[];
  /** Separate measurings, those of mothers counted. */
  readonly measurings: number;
  /** ΔE00 from each pile to the next. */
  readonly steps: readonly Delta[];
  /** Places of the piles in the order in which they are mixed: mothers first. */
  readonly order: readonly number[];
  /** Where a brush makes the steps between: the whole row, and what it warns of, between which of the piles. */
  readonly brush?: {
    readonly row: readonly Lab[];
    readonly joins: readonly {
      readonly from: number;
      readonly to: number;
      readonly steps: number;
      readonly warns?: WetBlend['warns'];
      readonly name?: string;
    }[];
  };
}

/** What a pile of a string is called in the plans of others. */
export const placeName = (at: number): string => `#${at}`;
/** The place that such a name stands for; nothing for any other pile. */
export const placeOf = (pile: string): number | undefined => (pile.startsWith('#') ? Number(pile.slice(1)) : undefined);
const PLACE = /^mother of pile (\d+)$/;

/** A mixture that calls the piles it takes from otherwise. */
const pilesCalled = (mixture: Mixture, nameOf: (pile: string) => string): Mixture => ({
  heaps: mixture.heaps.map(({ ingredients }) => ({
    ingredients: ingredients.map((one): Ingredient => ('pile' in one ? { ...one, pile: nameOf(one.pile) } : one)),
  })),
});

const mothersAs = (mixture: Mixture): Mixture =>
  pilesCalled(mixture, (pile) => {
    const at = PLACE.exec(pile)?.[1];
    return at === undefined ? pile : placeName(Number(at) - 1);
  });

/** The mixture of a pile of a string, once each of its piles has a name of its own. @param ids by place */
export const withPlacesAs = (mixture: Mixture, ids: readonly string[]): Mixture =>
  pilesCalled(mixture, (pile) => {
    const at = placeOf(pile);
    return at === undefined ? pile : ids[at]!;
  });

/** The pile of the palette that a mixture is nothing but. */
function lyingIn(mixture: Mixture): string | undefined {
  const [only, ...more] = lastHeap(mixture).ingredients;
  const isOne = mixture.heaps.length === 1 && more.length === 0 && only !== undefined && 'pile' in only && placeOf(only.pile) === undefined;
  return isOne ? only.pile : undefined;
}

/**
 * A string as one plan, whose piles share mothers so that few measurings are needed.
 * @param ml of each pile, for the canvas
 */
export function planString(palette: Palette, wish: StringWish, ml: number): StringPlan {
  const targets = wishedTargets(wish);
  const lies = new Map(wish.pairs ? [] : stopPlaces(wish.stops, wish.n, wish.routes).map((place, stop) => [place, wish.piles?.[stop]]));
  return wish.brush && !wish.pairs && !wish.turns ? planForBrush(palette, targets, lies, ml) : planRow(palette, targets, lies, ml);
}

/** The paint of each place of a row: of the pile that lies there, or as it is planned. */
function paintsOf(palette: Palette, recipes: readonly Recipe[], lies: Lies): PaintCurves[] {
  const byId = new Map(palette.ingredients.map((one) => [one.id, one]));
  return recipes.map(({ flat }, at) => {
    const lying = byId.get(lies.get(at) ?? '');
    if (lying) return lying;
    const inside = Object.entries(flat).flatMap(([id, parts]) => (byId.has(id) ? [{ paint: byId.get(id)!, parts }] : []));
    return mixCurves(inside);
  });
}

/** The fewest piles of a row from which a brush makes the others, with as much paint in all. */
function planForBrush(palette: Palette, targets: readonly Lab[], lies: Lies, ml: number): StringPlan {
  const { recipes } = hangTogether(palette, targets, ml);
  const { piles: kept } = brushed(paintsOf(palette, recipes, lies), targets, [...lies.keys()]);
  const placed = new Map([...lies].map(([place, pile]) => [kept.indexOf(place), pile]));
  const plan = planRow(
    palette,
    kept.map((place) => targets[place]!),
    placed,
    (ml * targets.length) / kept.length,
  );
  // What is joined are the piles as they are mixed.
  const paints = paintsOf(
    palette,
    plan.piles.map(({ recipe }) => recipe),
    placed,
  );
  const joins = kept.slice(1).map((to, i) => joinBetween(paints[i]!, paints[i + 1]!, targets, kept[i]!, to));
  const made = new Map(joins.flatMap(({ steps }) => steps.map(({ at, lab }) => [at, lab] as const)));
  const labOf = (place: number): Lab => {
    const one = plan.piles[kept.indexOf(place)]!;
    return one.isPile === undefined ? one.recipe.lab : one.target;
  };
  return {
    ...plan,
    brush: {
      row: targets.map((_, place) => made.get(place) ?? labOf(place)),
      joins: joins.map(({ from, to, steps, warns, by }) => ({
        from: kept.indexOf(from),
        to: kept.indexOf(to),
        steps: steps.length,
        ...(warns && { warns }),
        ...(by && { name: by.name }),
      })),
    },
  };
}

/** Piles of the palette by the place of a row that they are. */
type Lies = ReadonlyMap<number, string | undefined>;

/** A row of piles as one plan. */
function planRow(palette: Palette, targets: readonly Lab[], lies: Lies, ml: number): StringPlan {
  const { mothers, recipes } = hangTogether(palette, targets, ml);
  const own = new Map(mothers.map(({ name, mixture }) => [Number(PLACE.exec(name)![1]) - 1, mixture]));
  const mixtures = recipes.map((recipe, at) => own.get(at) ?? mothersAs(recipe.mixture));
  const taken = targets.map(() => 0);
  mixtures.forEach((mixture, at) => {
    if (own.has(at)) return;
    for (const { source, share } of leavesOf(mixture)) {
      const mother = 'pile' in source ? placeOf(source.pile) : undefined;
      if (mother !== undefined) taken[mother]! += share * ml;
    }
  });
  const piles = mixtures.map((mixture, at): StringPilePlan => {
    const isPile = lies.get(at) ?? lyingIn(mixture);
    return { target: targets[at]!, recipe: recipes[at]!, mixture, ml: ml + taken[at]!, ...(isPile !== undefined && { isPile }) };
  });
  // A stop that is a pile lies there as it is.
  const labs = piles.map(({ recipe, isPile, target }) => (isPile === undefined ? recipe.lab : target));
  const places = piles.map((_, at) => at);
  return {
    ml,
    piles,
    measurings: piles.reduce((sum, { mixture, isPile }) => sum + (isPile === undefined ? measurings(mixture) : 0), 0),
    steps: labs.slice(1).map((lab, at) => deltaE00(labs[at]!, lab)),
    order: [...places.filter((at) => own.has(at)), ...places.filter((at) => !own.has(at))],
  };
}

/** A step between neighbours of a string that an eye cannot tell, or that jumps; by the place of the first. */
export interface StepBeyond {
  readonly at: number;
  readonly says: 'too close' | 'a jump';
}

/** Which steps are smaller than the least, or larger than the most. */
export function stepsBeyond(steps: readonly Delta[], least: Delta, most: Delta): StepBeyond[] {
  return steps.flatMap((step, at): StepBeyond[] => {
    if (step < least) return [{ at, says: 'too close' }];
    return step > most ? [{ at, says: 'a jump' }] : [];
  });
}
