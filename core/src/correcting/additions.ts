import { deltaE00 } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixCurves } from '../paint/mix.ts';
import { mixerOf, type Mixer } from '../paint/mixer.ts';
import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import type { Millilitres } from '../mixing/units.ts';
import { doseError, LEAST_TOUCH_ML, ROUNDING, shortestBead, USUAL_AMOUNT_ML } from '../mixing/hand.ts';
import { mismatch } from '../matching/polish.ts';
import { searchFactors } from '../matching/search.ts';
import type { Addable, Dose } from './evidence.ts';

/** A pile that lies on the palette. */
export interface LyingPile extends PaintCurves {
  /** How large it is, in parts. */
  readonly parts: number;
  /** How much paint a part is; that of a pile of the usual amount unless it is said. */
  readonly partMl?: Millilitres | undefined;
  /** What it looks like beyond what its curves say: seen less believed, in Lab. */
  readonly residual?: Lab;
}

/** A weak premix that is made before something is added: one part of a tube in some parts of a base. */
export interface LetDown {
  readonly base: string;
  readonly ratio: number;
}

/** Something to measure: parts of a tube or a pile, or of a tube let down. */
export interface MeasuredDose extends Dose {
  readonly letDown?: LetDown;
}

/** What to add to a pile so that it comes nearest to a target. */
export interface Additions {
  /** In all, by tubes and piles, let-downs opened. */
  readonly add: readonly Dose[];
  /** As it is measured. No dose is smaller than a speck of the knife's tip. */
  readonly measured: readonly MeasuredDose[];
  /** Size of the pile afterwards, in sizes of the pile before. */
  readonly growth: number;
  readonly lab: Lab;
  /** ΔE00 from the target with the value beyond tolerance, before and after. */
  readonly mismatchBefore: number;
  readonly mismatchAfter: number;
}

/** What a pile grown by its own size, a further tube, or a let-down to mix first is worth in ΔE00. */
const GROWTH_EFFORT = 0.25;
const TUBE_EFFORT = 0.2;
const LETDOWN_EFFORT = 0.4;
const START = 0.04;
const LEAST = 1e-4;
/** Parts of the base to one of the tube in let-downs of what is too little to measure, and what a dose of one should come to. */
const RATIOS = [4, 9, 19, 49, 99] as const;
const EASY_DOSE_ML: Millilitres = 0.15;
/** Ways in which doses that are too small are let down or left out. */
const MEASURED_WAYS = 24;
/** Tubes alone and in pairs that are tried with a third. */
const BEST_PAIRS = 6;
/** Up to as many sets all are searched finely; of more, the few that look best after a coarse search. */
const ALL_FINELY = 16;
const FEW_FINELY = 12;
const FINE = { factor: 3, least: LEAST, rounds: 90, smallest: 1.01 } as const;
const COARSE = { ...FINE, smallest: 1.6 } as const;
/** A fine search that goes on from a coarse one. */
const ONWARD = { ...FINE, factor: 1.6 } as const;

export const MOST_GROWTH = 4;

/** Something to add as it is measured. */
interface Measurable extends Addable {
  readonly letDown?: LetDown;
}

interface Tried {
  readonly set: readonly Measurable[];
  readonly amounts: Float64Array;
  readonly cost: number;
}

/** A way that a hand can lay. */
interface Handled extends Tried {
  /** What it costs with what the hand is expected to be off by, ΔE00. */
  readonly dear: number;
}

/** The look of a pile with amounts of further paints in it, in sizes of the pile. */
type Look = (mix: Mixer, amounts: ArrayLike<number>) => Lab;

/** What cannot be explained of the pile's look is carried over in proportion to its share of the new. */
function lookOf({ residual = [0, 0, 0] }: LyingPile): Look {
  const parts = new Float64Array(5);
  return (mix, amounts) => {
    parts[0] = 1;
    let whole = 1;
    for (let i = 0; i < amounts.length; i++) whole += parts[i + 1] = amounts[i]!;
    const [L, a, b] = mix(parts);
    return [L + residual[0] / whole, a + residual[1] / whole, b + residual[2] / whole];
  };
}

/** Sets in the order of their cost; of many only those that a coarse search likes are searched finely. */
function searched(sets: readonly (readonly Addable[])[], search: (set: readonly Addable[], how: object, from?: Tried) => Tried): Tried[] {
  const byCost = (one: Tried, other: Tried): number => one.cost - other.cost;
  if (sets.length <= ALL_FINELY) return sets.map((set) => search(set, FINE)).sort(byCost);
  const coarse = sets.map((set) => search(set, COARSE)).sort(byCost);
  return coarse
    .slice(0, FEW_FINELY)
    .map((tried) => search(tried.set, ONWARD, tried))
    .sort(byCost);
}

/** Ways of adding to a pile, the cheapest in mismatch, paint and trouble first, and what the pile is off by as it is. */
export interface WaysToAdd {
  readonly ways: readonly Additions[];
  readonly mismatchBefore: number;
  /** The look of the pile as it is. */
  readonly lab: Lab;
}

/**
 * Finds ways of adding to a pile, paint taken out being impossible: one thing, pairs, and the best
 * pairs with a third, each in the amounts that suit it best. Only ways that bring it nearer count.
 * @param mostGrowth largest size of the new pile, in sizes of the old
 * @param anyGain whether whatever brings it nearer counts, however little that is against the trouble
 * @param among ways whose things to add alone are tried again, as with more room to grow; all are, unless they are given
 * @throws CraftError when there is nothing to add, or no pile
 */
export function waysToAdd(
  pile: LyingPile,
  addables: readonly Addable[],
  target: Lab,
  mostGrowth: number = MOST_GROWTH,
  among?: readonly Additions[],
  anyGain = false,
): WaysToAdd {
  if (addables.length === 0) throw new CraftError('palette', 'The palette is empty: there is nothing to add.');
  if (!(pile.parts > 0)) throw new CraftError('parts', 'The pile has nothing in it.');
  const judge = mismatch(target);
  const look = lookOf(pile);
  const asItIs = look(mixerOf([pile]), []);
  const none = judge(asItIs);
  const search = (set: readonly Measurable[], how: object, from?: Tried): Tried => {
    const mix = mixerOf([pile, ...set]);
    const cost = (amounts: Float64Array): number => {
      let growth = 0;
      for (let i = 0; i < amounts.length; i++) growth += amounts[i]!;
      const over = Math.max(0, growth + 1 - mostGrowth);
      return judge(look(mix, amounts)) + GROWTH_EFFORT * growth + 50 * over;
    };
    const { numbers, cost: least } = searchFactors(cost, from?.amounts ?? set.map(() => START), how);
    const letDowns = set.filter((one) => one.letDown).length;
    return { set, amounts: numbers, cost: least + TUBE_EFFORT * set.length + LETDOWN_EFFORT * letDowns };
  };
  const ofAll = (): Tried[] => {
    const singles = addables.map((one) => search([one], FINE));
    const pairs = searched(
      addables.flatMap((one, i) => addables.slice(i + 1).map((other) => [one, other])),
      search,
    );
    const triples = searched(
      pairs.slice(0, BEST_PAIRS).flatMap(({ set }) => addables.filter((t) => !set.includes(t)).map((third) => [...set, third])),
      search,
    );
    return [...singles, ...pairs, ...triples];
  };
  const again = (ways: readonly Additions[]): Tried[] =>
    ways.map(({ add }) =>
      search(
        addables.filter(({ id }) => add.some((dose) => dose.id === id)),
        FINE,
      ),
    );
  const pileMl = pile.partMl === undefined ? USUAL_AMOUNT_ML : pile.parts * pile.partMl;
  const least = LEAST_TOUCH_ML / pileMl;
  const lightest = lightestOf(addables);
  /** A way as dear as a hand makes it that lays these amounts, each as far off as is to be expected (1 σ). */
  const byHand = (tried: Tried): Handled => {
    const { set, amounts } = tried;
    const mix = mixerOf([pile, ...set]);
    const meant = look(mix, amounts);
    const missed = judge(meant);
    const squares = set.map(({ nozzleMm = KNIFE_BORE_MM }, i) => {
      const astray = amounts.slice();
      astray[i]! *= 1 + doseError(amounts[i]! * pileMl, nozzleMm);
      return deltaE00(meant, look(mix, astray)) ** 2;
    });
    const straying = squares.reduce((sum, square) => sum + square, 0);
    return { ...tried, dear: tried.cost - missed + Math.sqrt(missed * missed + straying) };
  };
  /**
   * A way that can be measured. What is less than a bead is a touch of the knife's tip, unless it is worth letting
   * down in the lightest paint; what is less than a speck is let down, made a speck, or left out.
   */
  const measurable = (tried: Tried): Handled | undefined => {
    const tooLittle = (i: number): boolean => tried.amounts[i]! < least * ROUNDING;
    const byTip = (i: number): boolean => tried.amounts[i]! * pileMl < shortestBead(tried.set[i]!.nozzleMm ?? KNIFE_BORE_MM);
    if (!tried.set.some((_, i) => byTip(i))) return byHand(tried);
    const letDown = tried.set.map((one, i): Measurable =>
      byTip(i) && one !== lightest ? weakened(one, lightest, tried.amounts[i]! * pileMl) : one,
    );
    const big = tried.set.filter((_, i) => !tooLittle(i));
    const straight = big.length === tried.set.length ? [tried] : [search(tried.set, { ...FINE, least })];
    const found = [letDown, ...(big.length > 0 && big.length < tried.set.length ? [big] : [])].map((set) =>
      search(set, { ...FINE, least }),
    );
    return [...straight, ...found]
      .filter(({ amounts }) => amounts.every((n) => n >= least * ROUNDING))
      .map(byHand)
      .sort((one, other) => one.dear - other.dear)[0];
  };
  const written = ({ set, amounts }: Tried): Additions => {
    const lab = look(mixerOf([pile, ...set]), amounts);
    const measured = set.map(({ id, letDown }, i): MeasuredDose => ({ id, parts: amounts[i]! * pile.parts, ...(letDown && { letDown }) }));
    const growth = 1 + measured.reduce((s, { parts }) => s + parts, 0) / pile.parts;
    return { add: opened(measured), measured, growth, lab, mismatchBefore: none, mismatchAfter: judge(lab) };
  };
  const byCost = (one: Tried, other: Tried): number => one.cost - other.cost;
  const ways = (among ? again(among) : ofAll())
    .sort(byCost)
    .slice(0, MEASURED_WAYS)
    .flatMap((tried) => measurable(tried) ?? [])
    .sort((one, other) => one.dear - other.dear)
    .filter(({ cost }) => anyGain || cost < none)
    .map(written)
    .filter(({ mismatchAfter }) => mismatchAfter < none);
  return { ways, mismatchBefore: none, lab: asItIs };
}

const lightestOf = (addables: readonly Addable[]): Addable =>
  addables.reduce((best, one) => (mixerOf([one])([1])[0] > mixerOf([best])([1])[0] ? one : best));

/** A paint of which so much is needed, let down so far that it can be measured. */
function weakened(paint: Addable, base: Addable, ml: Millilitres): Measurable {
  const ratio = RATIOS.find((r) => ml * (1 + r) >= EASY_DOSE_ML) ?? RATIOS.at(-1)!;
  const curves = mixCurves([
    { paint: base, parts: ratio },
    { paint, parts: 1 },
  ]);
  return { id: paint.id, ...curves, letDown: { base: base.id, ratio } };
}

/** Measured doses by what is in them. */
export function opened(measured: readonly MeasuredDose[]): Dose[] {
  const all = new Map<string, number>();
  const put = (id: string, parts: number): void => void all.set(id, (all.get(id) ?? 0) + parts);
  for (const { id, parts, letDown } of measured) {
    put(id, letDown ? parts / (1 + letDown.ratio) : parts);
    if (letDown) put(letDown.base, (parts * letDown.ratio) / (1 + letDown.ratio));
  }
  return [...all].map(([id, parts]) => ({ id, parts }));
}

/**
 * The best way of adding to a pile; nothing when every addition makes it worse.
 * @throws CraftError as {@link waysToAdd}
 */
export function additionsFor(pile: LyingPile, addables: readonly Addable[], target: Lab, mostGrowth: number = MOST_GROWTH): Additions {
  const { ways, mismatchBefore, lab } = waysToAdd(pile, addables, target, mostGrowth);
  return ways[0] ?? { add: [], measured: [], growth: 1, lab, mismatchBefore, mismatchAfter: mismatchBefore };
}
