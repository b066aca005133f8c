import type { Lab } from '../colour/spaces.ts';
import { waysToAdd, type Addable, type Additions, type MeasuredDose } from '../correcting/additions.ts';
import { mismatch } from '../matching/polish.ts';
import { againstTarget } from '../matching/recipe.ts';
import type { Heap, Ingredient, Leaf, Mixture } from '../mixing/mixture.ts';
import { paintOfMixture } from '../mixing/open.ts';
import { masstoneOf } from '../mixing/order.ts';

/** A pile grown from another by additions that a knife can measure. */
export interface Child {
  /** Takes from the mother as the pile of her id; tubes and piles by theirs. */
  readonly mixture: Mixture;
  readonly lab: Lab;
  readonly deltaE00: number;
  /** Value of the child less that of the target. */
  readonly valueError: number;
  /** How large a part of the mother becomes. */
  readonly growth: number;
}

/** Parts of the mother among which the ones are chosen that make its doses come out. */
const PARTS = [3, 4, 5, 6, 8, 10, 12, 16] as const;
/** By these the smallest dose is judged: an eighth of a part beside them. */
const MOST_PARTS = PARTS[PARTS.length - 1]!;
/** A dose is measured in these steps, below two parts and from there on. */
const QUARTER = 0.25;
const HALF = 0.5;
/** ΔE00 that a whole dose is worth against a broken one, and a part of the mother less. */
const BROKEN = 0.12;
const PER_PART = 0.02;
/** Ways that are told. */
const OFFERED = 2;

const rounded = (parts: number): number => {
  const step = parts < 2 ? QUARTER : HALF;
  return Math.max(QUARTER, Math.round(parts / step) * step);
};

function childMixture(mother: Leaf, parts: number, doses: readonly MeasuredDose[], sourceOf: (id: string) => Leaf): Mixture {
  const letDowns = doses.filter((dose) => dose.letDown);
  const first = letDowns.map(({ id, letDown }): Heap => ({
    ingredients: [
      { ...sourceOf(letDown!.base), parts: letDown!.ratio },
      { ...sourceOf(id), parts: 1 },
    ],
  }));
  const added = doses.map((dose): Ingredient =>
    dose.letDown ? { heap: letDowns.indexOf(dose), parts: dose.parts } : { ...sourceOf(dose.id), parts: dose.parts },
  );
  return { heaps: [...first, { ingredients: [{ ...mother, parts }, ...added] }] };
}

/**
 * What to add to a pile so that it becomes a colour near its own: the best way and, where there is one,
 * another; in whole, half and quarter parts. None where nothing brings it nearer.
 * @param addables what may be added, as it lies on the palette
 */
export function childrenOf(mother: Addable, addables: readonly Addable[], target: Lab, sourceOf: (id: string) => Leaf): Child[] {
  const judge = mismatch(target);
  const curves = new Map([mother, ...addables].map((one) => [one.id, one]));
  const paintOf = (source: Leaf): Addable => curves.get('tube' in source ? source.tube : source.pile)!;
  const measured = ({ measured: doses, growth }: Additions): Child => {
    const tried = PARTS.map((parts) => {
      const own = doses.map((dose) => ({ ...dose, parts: rounded((dose.parts * parts) / MOST_PARTS) }));
      const mixture = childMixture(sourceOf(mother.id), parts, own, sourceOf);
      const lab = masstoneOf(paintOfMixture(mixture, paintOf));
      const broken = own.filter((dose) => !Number.isInteger(dose.parts)).length;
      return { mixture, lab, cost: judge(lab) + BROKEN * broken + PER_PART * parts };
    });
    const { mixture, lab } = tried.reduce((best, one) => (one.cost < best.cost ? one : best));
    const { deltaE00, valueError } = againstTarget(lab, target);
    return { mixture, lab, deltaE00, valueError, growth };
  };
  return waysToAdd({ ...mother, parts: MOST_PARTS }, addables, target)
    .ways.slice(0, OFFERED)
    .map(measured);
}
