import { CraftError, finite } from '../errors.ts';

/** A tube by its id, in one state of its curves; without a state the newest is meant. */
export interface FromTube {
  readonly tube: string;
  readonly state?: string;
}

/** A pile that is there, at one of its stages; without a stage the newest is meant. */
export interface FromPile {
  readonly pile: string;
  readonly stage?: string;
}

/** An earlier heap of the same mixture, by its place in it. */
export interface FromHeap {
  readonly heap: number;
}

/** What paint is taken from. */
export type Source = FromTube | FromPile | FromHeap;

/** What a heap opens to: a source that is no heap. */
export type Leaf = FromTube | FromPile;

/** How much of something: parts of its heap, exact or within a range as words leave it. */
export interface Measured {
  readonly parts: number;
  readonly range?: readonly [least: number, most: number];
  /** As the painter said it: `a touch`. */
  readonly said?: string;
}

/** A source and how much of it. */
export type Ingredient = Source & Measured;

/** Paint measured together, in mixing order. */
export interface Heap {
  readonly ingredients: readonly Ingredient[];
}

/**
 * What a pile's plan, a proposed recipe, a let-down, a card, a coat and a line on the command line
 * have in common: heaps in the order in which they are mixed, of which the last is the pile. Plain
 * data; every other heap is an ingredient of a later one.
 */
export interface Mixture {
  readonly heaps: readonly Heap[];
}

export const isTube = (source: Source): source is FromTube => 'tube' in source;
export const isPile = (source: Source): source is FromPile => 'pile' in source;
export const isHeap = (source: Source): source is FromHeap => 'heap' in source;

/** A mixture of one heap. */
export const mixtureOf = (ingredients: readonly Ingredient[]): Mixture => ({ heaps: [{ ingredients }] });

/** Words for a source, the same for the same source. */
export const keyOf = (source: Source): string =>
  isTube(source)
    ? `tube ${source.tube} ${source.state ?? ''}`
    : isPile(source)
      ? `pile ${source.pile} ${source.stage ?? ''}`
      : `heap ${source.heap}`;

/** Most heaps in a mixture and ingredients in a heap, of what a painter may log. */
export const MOST_HEAPS = 12;
const MOST_INGREDIENTS = 24;

function checkAmount({ parts, range }: Measured): void {
  if (!(finite('parts', 'A part', parts) > 0)) throw new CraftError('parts', `Parts must be above 0; one is ${parts}.`);
  if (!range) return;
  const [least, most] = range;
  if (!(finite('parts', 'The least', least) > 0 && least <= parts && finite('parts', 'The most', most) >= parts))
    throw new CraftError('parts', `Parts must lie within their range; ${parts} is not within ${least} and ${most}.`);
}

/**
 * Sees that a mixture can be mixed: every heap holds something, takes only from earlier heaps, and
 * is used by a later one unless it is the last.
 * @throws CraftError that says which heap cannot be
 */
export function checkMixture({ heaps }: Mixture): void {
  if (heaps.length === 0) throw new CraftError('parts', 'There is nothing to mix.');
  if (heaps.length > MOST_HEAPS) throw new CraftError('parts', `A mixture has at most ${MOST_HEAPS} heaps; this one has ${heaps.length}.`);
  const used = new Set<number>();
  heaps.forEach(({ ingredients }, at) => {
    if (ingredients.length === 0) throw new CraftError('parts', `Heap ${at + 1} has nothing in it.`);
    if (ingredients.length > MOST_INGREDIENTS)
      throw new CraftError('parts', `A heap has at most ${MOST_INGREDIENTS} ingredients; heap ${at + 1} has ${ingredients.length}.`);
    for (const ingredient of ingredients) {
      checkAmount(ingredient);
      if (!isHeap(ingredient)) continue;
      if (!Number.isInteger(ingredient.heap) || ingredient.heap < 0 || ingredient.heap >= at)
        throw new CraftError('parts', `Heap ${at + 1} takes from heap ${ingredient.heap + 1}, which is not mixed before it.`);
      used.add(ingredient.heap);
    }
  });
  const left = heaps.findIndex((_, at) => at < heaps.length - 1 && !used.has(at));
  if (left >= 0) throw new CraftError('parts', `Heap ${left + 1} is mixed but not used.`);
}

/** The heap that is the pile. */
export const lastHeap = ({ heaps }: Mixture): Heap => heaps[heaps.length - 1]!;

/** How many separate measurings a mixture asks for. */
export const measurings = ({ heaps }: Mixture): number => heaps.reduce((sum, { ingredients }) => sum + ingredients.length, 0);
