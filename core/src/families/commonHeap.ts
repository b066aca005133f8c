import { CraftError } from '../errors.ts';
import { deltaE00 } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { planFor } from '../matching/find.ts';
import { atOnce, type InSteps } from '../matching/inSteps.ts';
import { layPalette, type Palette } from '../laying/palette.ts';
import { DOZEN } from '../measuring/measuring.ts';
import { againstTarget, flatOn, paintOn, recipeOf, type Recipe } from '../matching/recipe.ts';
import { isWhite } from '../laying/worth.ts';
import type { Hand } from '../mixing/hand.ts';
import { measurings, mixtureOf, type Mixture } from '../mixing/mixture.ts';
import { paintOfMixture, shareOfPile } from '../mixing/open.ts';
import { inMixingOrder, masstoneOf } from '../mixing/order.ts';

/** A pile that is planned from tubes alone. */
export interface PlannedPile {
  readonly id: string;
  readonly target: Lab;
  readonly mixture: Mixture;
  /** Share of volume of each tube. */
  readonly flat: Readonly<Record<string, number>>;
  readonly lab: Lab;
  readonly amountMl: number;
}

/** A pile as it would be made of the common heap. */
export interface FromCommon {
  readonly id: string;
  /** Takes from the common heap as a pile by `COMMON_HEAP`. */
  readonly recipe: Recipe;
  /** ΔE00 to its target that this loses to its own plan; below zero where it gains. */
  readonly lost: number;
}

/** One heap of which several piles can be made: mixed once, in quantity. */
export interface CommonHeap {
  readonly mixture: Mixture;
  readonly flat: Readonly<Record<string, number>>;
  readonly lab: Lab;
  /** How much of it they take together, ml. */
  readonly ml: number;
  readonly piles: readonly FromCommon[];
  /** Measurings that are no longer needed. */
  readonly saved: number;
}

/** A little more than is taken: something stays on the knife. */
const MORE = 1.05;
/** How large a common heap is made of which so much is taken, ml. */
export const commonHeapMl = (taken: number): number => Math.max(0.5, Math.ceil(10 * MORE * taken) / 10);

/** What the common heap is called in the recipes that take from it. */
export const COMMON_HEAP = 'common heap';

/** A heap is worth mixing first for no fewer piles. */
export const LEAST_PILES = 3;
const MOST_PILES = 24;
/** ΔE00 a pile may lose by it, and value steps it may move from where it would have been. */
const MOST_LOST = 0.8;
const VALUE_MOVES = 0.1;
/** A pile that takes less of it than this is not made of it. */
const LEAST_TAKEN = 0.04;
/** The common heap is found as for so much, ml. */
const COMMON_ML = 8;
/** ΔE00 up to which whole parts of it are near enough. */
const ROUGHLY = [3, 0.7] as const;
/** Mixing the common heap is work, too: so many measurings. */
const WORTH_MIXING = 1;

type Flat = Readonly<Record<string, number>>;
const sum = (flat: Flat): number => Object.values(flat).reduce((whole, share) => whole + share, 0);

/** The tubes of a plan that give it its colour: what is left when the white is taken away. */
function bodyOf({ ingredients, tints }: Palette, { flat }: PlannedPile): Flat {
  const whites = new Set(ingredients.filter((_, i) => isWhite(tints[i]!)).map(({ id }) => id));
  const rest = Object.entries(flat).filter(([id, share]) => share > 0 && !whites.has(id));
  const whole = rest.reduce((all, [, share]) => all + share, 0);
  return Object.fromEntries(rest.map(([id, share]) => [id, share / whole]));
}

/** Every two or three of some things. */
function fewOf<T>(all: readonly T[]): T[][] {
  const few: T[][] = [];
  all.forEach((one, i) =>
    all.slice(i + 1).forEach((other, j) => {
      few.push([one, other], ...all.slice(i + j + 2).map((third) => [one, other, third]));
    }),
  );
  return few;
}

/** Shares of some tubes in bodies that hold all of them: those in the middle first, then toward both ends. */
function candidatesOf(bodies: readonly Flat[]): Flat[] {
  const together = new Map<string, { readonly tubes: readonly string[]; readonly of: Flat[] }>();
  for (const body of bodies)
    for (const tubes of fewOf(Object.keys(body).sort())) {
      const key = tubes.join();
      const entry = together.get(key) ?? { tubes, of: [] };
      entry.of.push(Object.fromEntries(tubes.map((id) => [id, body[id]!])));
      together.set(key, entry);
    }
  return [...together.values()]
    .filter(({ of }) => of.length >= LEAST_PILES)
    .flatMap(({ tubes, of }) => {
      const first = tubes[0]!;
      const sorted = of.map((flat) => ({ flat, share: flat[first]! / sum(flat) })).sort((one, other) => one.share - other.share);
      return [0.5, 0.25, 0.75].map((at) => sorted[Math.floor(at * (sorted.length - 1))]!.flat);
    });
}

/** What a pile may be made of with the common heap: it alone, a white, one tube of its own, or both. */
function waysFor({ ingredients, tints }: Palette, { flat }: PlannedPile): number[][] {
  const common = ingredients.length - 1;
  const own = ingredients.flatMap(({ id }, i) => (i < common && (flat[id] ?? 0) > 0 ? [i] : []));
  const whites = own.filter((i) => isWhite(tints[i]!));
  const others = own.filter((i) => !whites.includes(i));
  return [
    [common],
    ...own.map((one) => [one, common]),
    ...whites.flatMap((white) => others.map((one) => [white, one].sort((a, b) => a - b).concat(common))),
  ];
}

/**
 * Some tubes in few whole parts, roughly and nearly: what takes of the heap is reckoned from what it is, so that it
 * need not be exact. Where a strong tube bears no whole part, as a hand lays it.
 */
function heapsOf(palette: Palette, shares: Flat, hand: Hand | undefined): Mixture[] {
  const paintOf = paintOn(palette);
  const tubes = Object.keys(shares);
  const mixed = (parts: (tube: string) => number): Mixture => mixtureOf(tubes.map((tube) => ({ tube, parts: parts(tube) })));
  const colourOf = (mixture: Mixture): Lab => masstoneOf(paintOfMixture(mixture, paintOf));
  const exact = colourOf(mixed((tube) => shares[tube]!));
  const inParts = Array.from({ length: DOZEN + 1 - tubes.length }, (_, i) =>
    mixed((tube) => Math.max(1, Math.round(((i + tubes.length) * shares[tube]!) / sum(shares)))),
  );
  const whole = new Set(ROUGHLY.flatMap((most) => inParts.find((heap) => deltaE00(exact, colourOf(heap)) <= most) ?? []));
  if (whole.size > 0) return [...whole].map((heap) => inMixingOrder(heap, paintOf));
  const set = tubes.map((tube) => palette.ingredients.findIndex(({ id }) => id === tube)).sort((a, b) => a - b);
  const found = planFor(palette, set, { target: exact, amountMl: COMMON_ML, hand, mostHeaps: 1 });
  return found && found.plan.heaps.length === 1 ? [recipeOf(palette, found, exact).mixture] : [];
}

function madeOf(palette: Palette, heap: Mixture, piles: readonly PlannedPile[], hand: Hand | undefined): CommonHeap | undefined {
  const { ingredients, limits, eye } = palette;
  const paint = paintOfMixture(heap, paintOn(palette));
  const flat = flatOn(palette, heap);
  const wanted = new Set(piles.flatMap(({ flat }) => Object.keys(flat)));
  const laid = layPalette(
    ingredients.filter(({ id }) => wanted.has(id)),
    limits,
    eye.viewing,
    [{ id: COMMON_HEAP, ...paint, flat }],
  );
  const made = piles.flatMap((pile): (FromCommon & { readonly saved: number; readonly takes: number })[] => {
    const { id, target, lab, amountMl, mixture } = pile;
    const own = againstTarget(lab, target);
    const best = waysFor(laid, pile)
      .flatMap((way) => planFor(laid, way, { target, amountMl, hand, closest: 'in one heap', mostHeaps: 1 }) ?? [])
      .filter((one) => one.plan.heaps.length === 1 && one.deltaE00 <= own.deltaE00 + MOST_LOST)
      .map((one) => recipeOf(laid, one, target))
      .filter((one) => Math.abs(one.valueError) <= Math.abs(own.valueError) + VALUE_MOVES)
      .filter((one) => measurings(one.mixture) < measurings(mixture) && shareOfPile(one.mixture, COMMON_HEAP) >= LEAST_TAKEN)
      .sort((one, other) => measurings(one.mixture) - measurings(other.mixture) || one.score - other.score)[0];
    if (!best) return [];
    const takes = amountMl * shareOfPile(best.mixture, COMMON_HEAP);
    return [{ id, recipe: best, lost: best.deltaE00 - own.deltaE00, saved: measurings(mixture) - measurings(best.mixture), takes }];
  });
  const saved = made.reduce((all, one) => all + one.saved, 0) - measurings(heap);
  if (made.length < LEAST_PILES || saved < WORTH_MIXING) return undefined;
  return {
    mixture: heap,
    flat,
    lab: masstoneOf(paint),
    ml: made.reduce((all, { takes }) => all + takes, 0),
    piles: made.map(({ id, recipe, lost }) => ({ id, recipe, lost })),
    saved,
  };
}

const lostBy = ({ piles }: CommonHeap): number => piles.reduce((all, { lost }) => all + lost, 0);

/**
 * The one heap that several planned piles can begin with, where there is one, a little at a time: it holds two or three
 * tubes, each pile takes from it in one heap of its own, and together they are fewer measurings.
 * @param palette of tubes
 * @throws CraftError for a pile that is planned from something that does not lie on the palette
 */
export function* commonHeapInSteps(palette: Palette, piles: readonly PlannedPile[], hand?: Hand): InSteps<CommonHeap | undefined> {
  const there = new Set(palette.ingredients.map(({ id }) => id));
  for (const { flat } of piles)
    for (const id of Object.keys(flat))
      if (!there.has(id)) throw new CraftError('palette', `There is no tube ${JSON.stringify(id)} on this palette.`);
  const some = piles.slice(0, MOST_PILES);
  const heaps = candidatesOf(some.map((pile) => bodyOf(palette, pile))).flatMap((shares) => heapsOf(palette, shares, hand));
  const found: CommonHeap[] = [];
  for (const [at, heap] of heaps.entries()) {
    const made = madeOf(palette, heap, some, hand);
    if (made) found.push(made);
    yield (at + 1) / heaps.length;
  }
  return found.sort((one, other) => other.saved - one.saved || lostBy(one) - lostBy(other))[0];
}

export const commonHeap = (palette: Palette, piles: readonly PlannedPile[], hand?: Hand): CommonHeap | undefined =>
  atOnce(commonHeapInSteps(palette, piles, hand));
