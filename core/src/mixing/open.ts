import { mixCurves, type Portion } from '../paint/mix.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import {
  isHeap,
  isPile,
  isTube,
  keyOf,
  lastHeap,
  MOST_HEAPS,
  type Heap,
  type Ingredient,
  type Leaf,
  type Measured,
  type Mixture,
  type Source,
} from './mixture.ts';

/** A leaf of a mixture and its share of the pile's volume, with the range where it is not known exactly. */
export interface LeafShare {
  readonly source: Leaf;
  readonly share: number;
  readonly range?: readonly [least: number, most: number];
}

const wholeOf = ({ ingredients }: Heap): number => ingredients.reduce((sum, { parts }) => sum + parts, 0);

/** A range of parts carried over to a share, in factors of the parts. */
const carried = ({ parts, range }: Measured, by: number): readonly [number, number] => {
  const [least, most] = range ?? [parts, parts];
  return [least * by, most * by];
};

/**
 * Opens every heap of a mixture: what it holds, in the order met, each source once, shares adding up
 * to 1. This is the one place where a let-down opens.
 */
export function leavesOf(mixture: Mixture): LeafShare[] {
  const found = new Map<string, { source: Leaf; share: number; least: number; most: number }>();
  const open = (heap: Heap, share: number, least: number, most: number): void => {
    const whole = wholeOf(heap);
    for (const ingredient of heap.ingredients) {
      const part = (share * ingredient.parts) / whole;
      const [low, high] = carried(ingredient, 1 / ingredient.parts);
      if (isHeap(ingredient)) {
        open(mixture.heaps[ingredient.heap]!, part, least * low, most * high);
        continue;
      }
      const known = found.get(keyOf(ingredient)) ?? { source: sourceOf(ingredient), share: 0, least: 0, most: 0 };
      known.share += part;
      known.least += part * least * low;
      known.most += part * most * high;
      found.set(keyOf(ingredient), known);
    }
  };
  open(lastHeap(mixture), 1, 1, 1);
  return [...found.values()].map(({ source, share, least, most }) =>
    most > share * (1 + 1e-12) || least < share * (1 - 1e-12) ? { source, share, range: [least, most] } : { source, share },
  );
}

/** What a mixture takes of a pile, whatever its stage, as a share of itself. */
export const shareOfPile = (mixture: Mixture, pileId: string): number =>
  leavesOf(mixture).reduce((sum, { source, share }) => sum + (isPile(source) && source.pile === pileId ? share : 0), 0);

/** Piles that a mixture takes from, each once. */
export const pilesIn = (mixture: Mixture): string[] => [
  ...new Set(leavesOf(mixture).flatMap(({ source }) => (isPile(source) ? source.pile : []))),
];

/** A leaf without its amount. */
export function sourceOf(source: Leaf): Leaf {
  if (isTube(source)) return source.state === undefined ? { tube: source.tube } : { tube: source.tube, state: source.state };
  return source.stage === undefined ? { pile: source.pile } : { pile: source.pile, stage: source.stage };
}

/** Shares of the tubes in a pile that is an ingredient, by the tubes' ids. */
export type TubesInPile = (pile: string, stage: string | undefined) => Readonly<Record<string, number>>;

/**
 * Opens a mixture to tubes exactly, however many that makes.
 * @param tubesIn the tubes of piles that are ingredients
 * @returns share of volume of each tube, by id
 */
export function openToTubes(mixture: Mixture, tubesIn: TubesInPile): Record<string, number> {
  const flat: Record<string, number> = {};
  for (const { source, share } of leavesOf(mixture)) {
    const inside = isTube(source) ? { [source.tube]: 1 } : tubesIn(source.pile, source.stage);
    for (const [tube, part] of Object.entries(inside)) flat[tube] = (flat[tube] ?? 0) + share * part;
  }
  return flat;
}

/** The curves of what a mixture is made from. */
export type PaintOf = (source: Leaf) => PaintCurves;

/** Every source of a heap with its curves and parts, heaps opened. */
export function portionsOf(mixture: Mixture, heap: Heap, paintOf: PaintOf): Portion[] {
  return heap.ingredients.map((ingredient) => ({ paint: paintOfSource(mixture, ingredient, paintOf), parts: ingredient.parts }));
}

/** Curves of one source of a mixture; a heap is what it is mixed from. */
export const paintOfSource = (mixture: Mixture, source: Source, paintOf: PaintOf): PaintCurves =>
  isHeap(source) ? mixCurves(portionsOf(mixture, mixture.heaps[source.heap]!, paintOf)) : paintOf(source);

/** Curves of the pile a mixture makes. */
export const paintOfMixture = (mixture: Mixture, paintOf: PaintOf): PaintCurves =>
  mixCurves(portionsOf(mixture, lastHeap(mixture), paintOf));

/** An ingredient at other parts, its range in proportion; words said no longer hold. */
const atParts = <T extends Ingredient>(one: T, by: number): T => ({
  ...one,
  said: undefined,
  parts: one.parts * by,
  ...(one.range && { range: [one.range[0] * by, one.range[1] * by] as const }),
});

/** The same mixture without its heap `gone`, which holds no other heap; `instead` says what goes where it went. */
const withoutHeap = ({ heaps }: Mixture, gone: number, instead: (used: Ingredient) => readonly Ingredient[]): Mixture => ({
  heaps: heaps
    .filter((_, at) => at !== gone)
    .map(({ ingredients }): Heap => ({
      ingredients: ingredients.flatMap((one): readonly Ingredient[] => {
        if (!isHeap(one) || one.heap < gone) return [one];
        return one.heap > gone ? [{ ...one, heap: one.heap - 1 }] : instead(one);
      }),
    })),
});

/** Heaps of the same ingredients are mixed once. */
function withoutTwins(mixture: Mixture): Mixture {
  const written = ({ ingredients }: Heap): string => ingredients.map((one) => `${keyOf(one)}: ${one.parts} ${one.range ?? ''}`).join('; ');
  const seen = new Map<string, number>();
  for (const [at, heap] of mixture.heaps.entries()) {
    const twin = seen.get(written(heap));
    if (twin === undefined) seen.set(written(heap), at);
    else if (at < mixture.heaps.length - 1)
      return withoutTwins(withoutHeap(mixture, at, (used) => [{ ...used, heap: twin } as Ingredient]));
  }
  return mixture;
}

/** As many heaps as a painter may log: the first are measured straight into what takes from them, the same paint. */
function inFewHeaps(mixture: Mixture): Mixture {
  if (mixture.heaps.length <= MOST_HEAPS) return mixture;
  const [first] = mixture.heaps as [Heap];
  const opened = withoutHeap(mixture, 0, (used) => first.ingredients.map((one) => atParts(one, used.parts / wholeOf(first))));
  return inFewHeaps({ heaps: opened.heaps.map(({ ingredients }) => ({ ingredients: eachOnce(ingredients) })) });
}

/** Sources that stand twice in a heap stand in it once. */
function eachOnce(ingredients: readonly Ingredient[]): Ingredient[] {
  const found = new Map<string, Ingredient>();
  for (const one of ingredients) {
    const known = found.get(keyOf(one));
    found.set(keyOf(one), known ? atParts(known, (known.parts + one.parts) / known.parts) : one);
  }
  return [...found.values()];
}

/** A mixture that takes from a pile, the pile being called otherwise. */
export const withPileRenamed = (mixture: Mixture, pile: string, name: string): Mixture => ({
  heaps: mixture.heaps.map(({ ingredients }) => ({
    ingredients: ingredients.map((one) => (isPile(one) && one.pile === pile ? { ...one, pile: name } : one)),
  })),
});

/**
 * A mixture that takes from a pile, with that pile's own mixture in its place: the same paint, to the last
 * grain, in at most twelve heaps.
 */
export function withPileOpened(mixture: Mixture, pile: string, inside: Mixture): Mixture {
  const by = inside.heaps.length;
  const heaps = mixture.heaps.map(({ ingredients }): Heap => ({
    ingredients: ingredients.map((one): Ingredient => {
      const { parts, range, said } = one;
      const measured = { parts, ...(range && { range }), ...(said !== undefined && { said }) };
      if (isHeap(one)) return { heap: one.heap + by, ...measured };
      return isPile(one) && one.pile === pile ? { heap: by - 1, ...measured } : one;
    }),
  }));
  return inFewHeaps(withoutTwins({ heaps: [...inside.heaps, ...heaps] }));
}
