import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf } from '../paint/mixer.ts';
import type { Dose } from './beliefs.ts';
import type { PaletteTube } from './ingredients.ts';
import { mismatch } from './polish.ts';
import { searchFactors } from './search.ts';

/** A pile that lies on the palette. */
export interface LyingPile extends PaintCurves {
  /** How large it is, in parts. */
  readonly parts: number;
  /** What it looks like beyond what its curves say: seen less believed, in Lab. */
  readonly residual?: Lab;
}

/** What to add to a pile so that it comes nearest to a target. */
export interface Additions {
  readonly add: readonly Dose[];
  /** Size of the pile afterwards, in sizes of the pile before. */
  readonly growth: number;
  readonly lab: Lab;
  /** ΔE00 from the target with the value beyond tolerance, before and after. */
  readonly mismatchBefore: number;
  readonly mismatchAfter: number;
}

/** What a pile grown by its own size, or a further tube, is worth in ΔE00. */
const GROWTH_TROUBLE = 0.25;
const TUBE_TROUBLE = 0.2;
const START = 0.04;
const LEAST = 1e-4;
/** Tubes alone and in pairs that are tried with a third. */
const BEST_PAIRS = 6;

export const MOST_GROWTH = 4;

/**
 * Finds what to add, paint taken out being impossible: one tube, pairs, and the best pairs with a
 * third, each in the amounts that suit it best. What cannot be explained of the pile's look is
 * carried over in proportion to the old pile's share of the new.
 * @param mostGrowth largest size of the new pile, in sizes of the old
 * @throws CraftError for an empty palette or pile
 */
export function additionsFor(pile: LyingPile, tubes: readonly PaletteTube[], target: Lab, mostGrowth: number = MOST_GROWTH): Additions {
  if (tubes.length === 0) throw new CraftError('palette', 'The palette is empty: there is nothing to add.');
  if (!(pile.parts > 0)) throw new CraftError('parts', 'The pile has nothing in it.');
  const judge = mismatch(target);
  const [rL, ra, rb] = pile.residual ?? [0, 0, 0];
  const look = (mix: (parts: Float64Array) => Lab, amounts: ArrayLike<number>): Lab => {
    const parts = new Float64Array(amounts.length + 1);
    parts[0] = 1;
    let whole = 1;
    for (let i = 0; i < amounts.length; i++) whole += parts[i + 1] = amounts[i]!;
    const [L, a, b] = mix(parts);
    return [L + rL / whole, a + ra / whole, b + rb / whole];
  };
  const none = judge(look(mixerOf([pile]), []));

  interface Tried {
    readonly set: readonly PaletteTube[];
    readonly amounts: Float64Array;
    readonly cost: number;
    readonly lab: Lab;
  }
  const tryOut = (set: readonly PaletteTube[]): Tried => {
    const mix = mixerOf([pile, ...set]);
    const cost = (amounts: Float64Array): number => {
      const growth = amounts.reduce((s, v) => s + v, 0);
      const over = Math.max(0, growth + 1 - mostGrowth);
      return judge(look(mix, amounts)) + GROWTH_TROUBLE * growth + 50 * over;
    };
    const { numbers, cost: least } = searchFactors(
      cost,
      set.map(() => START),
      { factor: 3, least: LEAST, rounds: 90, smallest: 1.01 },
    );
    return { set, amounts: numbers, cost: least + TUBE_TROUBLE * set.length, lab: look(mix, numbers) };
  };
  const singles = tubes.map((tube) => tryOut([tube]));
  const pairs = tubes.flatMap((one, i) => tubes.slice(i + 1).map((other) => tryOut([one, other]))).sort((a, b) => a.cost - b.cost);
  const triples = pairs
    .slice(0, BEST_PAIRS)
    .flatMap(({ set }) => tubes.filter((t) => !set.includes(t)).map((third) => tryOut([...set, third])));
  const [first] = [...singles, ...pairs, ...triples].sort((a, b) => a.cost - b.cost);
  if (first!.cost >= none) return { add: [], growth: 1, lab: look(mixerOf([pile]), []), mismatchBefore: none, mismatchAfter: none };
  const add = first!.set
    .map(({ id }, i) => ({ id, parts: first!.amounts[i]! * pile.parts }))
    .filter(({ parts }) => parts > 2 * LEAST * pile.parts);
  const growth = 1 + add.reduce((s, { parts }) => s + parts, 0) / pile.parts;
  return { add, growth, lab: first!.lab, mismatchBefore: none, mismatchAfter: judge(first!.lab) };
}
