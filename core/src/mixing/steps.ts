import type { Lab } from '../colour/spaces.ts';
import type { Handling } from './amounts.ts';
import type { Millilitres, Millimetres } from './units.ts';
import { KNIFE_BORE_MM, measureOut } from './amounts.ts';
import { tell, type Measure, type Told } from './measures.ts';
import { isHeap, isTube, type Ingredient, type Leaf, type Mixture } from './mixture.ts';
import { firstFree, heapColour, heapName } from './naming.ts';
import { paintOfSource, type PaintOf } from './open.ts';
import { mlText } from './written.ts';
import { chipsAlong, inMixingOrder, masstoneOf } from './order.ts';

/** One thing to measure, and what the heap turns into. */
export interface Step {
  readonly name: string;
  readonly from: 'tube' | 'pile' | 'heap';
  readonly parts: number;
  readonly ml: Millilitres;
  /** Length of paint to squeeze, for the tube's nozzle; what is taken up with the knife as if from one of 6 mm. */
  readonly beadMm: Millimetres;
  /** Where a bead would be too short: so many touches of the knife's tip. */
  readonly touches?: number;
  /** The same in each way of measuring. */
  readonly told: Told;
  /** The bore it is squeezed from. */
  readonly nozzleMm: Millimetres;
  readonly paint: Lab;
  readonly after: Lab;
  readonly caution: string;
}

/** A heap with its steps in mixing order; the last is the pile. */
export interface HeapSteps {
  readonly name: string;
  readonly ml: Millilitres;
  /** How many times as much is mixed as is needed, since less cannot be measured. */
  readonly batch: number;
  readonly colour: Lab;
  readonly steps: readonly Step[];
}

/** What is known of the paints that a mixture is made of. */
export interface KnownPaints {
  readonly paintOf: PaintOf;
  readonly nameOf: (leaf: Leaf) => string;
  readonly handlingOf: (leaf: Leaf) => Handling;
  /** `none`, or what to be careful about: see its label. */
  readonly cautionOf: (leaf: Leaf) => string;
}

/** The last heap in a way of measuring, as `3 Titanium white · 1 Viridian`. */
export const inShort = (heaps: readonly HeapSteps[], measure: Measure): string =>
  heaps
    .at(-1)!
    .steps.map(({ told, name }) => `${told[measure]} ${name}`)
    .join(' · ');

/** L* from which a paint is one that others are let down with. */
const PALE = 85;

/** A mixture measured out for a pile of `ml`, heap by heap, each in mixing order. */
export function stepsOf(mixture: Mixture, ml: Millilitres, { paintOf, nameOf, handlingOf, cautionOf }: KnownPaints): HeapSteps[] {
  const ordered = inMixingOrder(mixture, paintOf);
  const measured = measureOut(ordered, ml, handlingOf);
  const isPale = (leaf: Leaf): boolean => 'tube' in leaf && masstoneOf(paintOf(leaf))[0] > PALE;
  const names: string[] = [];
  for (const heap of ordered.heaps) {
    names.push(firstFree(heapName(heap, heapColour(ordered, heap, paintOf), nameOf, isPale), names));
  }
  const called = (ingredient: Ingredient): string => (isHeap(ingredient) ? names[ingredient.heap]! : nameOf(ingredient));
  return ordered.heaps.map((heap, at): HeapSteps => {
    const chips = chipsAlong(ordered, heap, paintOf);
    const told = tell(heap.ingredients.map(({ parts, said }, i) => ({ parts, said, ...measured[at]!.amounts[i]! })));
    return {
      name: names[at]!,
      ml: measured[at]!.ml,
      batch: measured[at]!.batch,
      colour: chips.at(-1)!,
      steps: heap.ingredients.map((ingredient, i): Step => {
        const { ml: own, beadMm, touches } = measured[at]!.amounts[i]!;
        return {
          name: called(ingredient),
          from: isHeap(ingredient) ? 'heap' : isTube(ingredient) ? 'tube' : 'pile',
          parts: ingredient.parts,
          ml: own,
          beadMm,
          ...(touches !== undefined && { touches }),
          told: told[i]!,
          nozzleMm: isHeap(ingredient) ? KNIFE_BORE_MM : handlingOf(ingredient).nozzleMm,
          paint: masstoneOf(paintOfSource(ordered, ingredient, paintOf)),
          after: chips[i]!,
          caution: isHeap(ingredient) ? 'none' : cautionOf(ingredient),
        };
      }),
    };
  });
}

/** What stands over a heap's steps: `First Viridian, let down, 0.80 ml`, at last `Then the pile, 4.0 ml`. @param at its place among them */
export function heapTitle(heaps: readonly HeapSteps[], at: number): string {
  const { name, ml } = heaps[at]!;
  return `${at === heaps.length - 1 ? 'Then the pile' : `${at === 0 ? 'First' : 'Then'} ${name}`}, ${mlText(ml)}`;
}
