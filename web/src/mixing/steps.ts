import {
  chipsAlong,
  heapName,
  inMixingOrder,
  isHeap,
  isTube,
  masstoneOf,
  measureOut,
  paintOfSource,
  type Ingredient,
  type Lab,
  type Leaf,
  type Mixture,
  type PaintCurves,
} from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { partsText } from '../chips/words.ts';
import type { Tube } from '../tubes/tubes.ts';
import { handlingOf, isPale, sourceName } from './handling.ts';

/** One thing to measure, and what the heap turns into. */
export interface Step {
  readonly name: string;
  readonly parts: number;
  readonly ml: number;
  /** Length of paint to squeeze, for the tube's nozzle; what is taken up with the knife as if from one of 6 mm. */
  readonly beadMm: number;
  readonly paint: Lab;
  readonly after: Lab;
  readonly caution: string;
}

/** A heap with its steps in mixing order; the last is the pile. */
export interface HeapSteps {
  readonly name: string;
  readonly ml: number;
  /** How many times as much is mixed as is needed, since less cannot be measured. */
  readonly batch: number;
  readonly colour: Lab;
  readonly steps: readonly Step[];
}

/** What a mixture is shown with. */
export interface Known {
  readonly tubes: ReadonlyMap<string, Tube>;
  readonly piles: ReadonlyMap<string, PileDto>;
  readonly paintOf: (source: Leaf) => PaintCurves;
}

/** A mixture measured out for a pile of `ml`, heap by heap, each in mixing order. */
export function stepsOf(mixture: Mixture, ml: number, { tubes, piles, paintOf }: Known): HeapSteps[] {
  const ordered = inMixingOrder(mixture, paintOf);
  const measured = measureOut(ordered, ml, handlingOf(tubes));
  const names = ordered.heaps.map((heap) => heapName(heap, (leaf) => sourceName(leaf, tubes, piles), isPale(tubes)));
  const nameOf = (ingredient: Ingredient): string => (isHeap(ingredient) ? names[ingredient.heap]! : sourceName(ingredient, tubes, piles));
  return ordered.heaps.map((heap, at): HeapSteps => {
    const chips = chipsAlong(ordered, heap, paintOf);
    return {
      name: names[at]!,
      ml: measured[at]!.ml,
      batch: measured[at]!.batch,
      colour: chips.at(-1)!,
      steps: heap.ingredients.map((ingredient, i): Step => {
        const { ml: own, beadMm } = measured[at]!.amounts[i]!;
        const caution = isTube(ingredient) ? (tubes.get(ingredient.tube)?.caution ?? 'none') : 'none';
        const paint = masstoneOf(paintOfSource(ordered, ingredient, paintOf));
        return { name: nameOf(ingredient), parts: ingredient.parts, ml: own, beadMm, paint, after: chips[i]!, caution };
      }),
    };
  });
}

/** The last heap with its parts, as `3 Titanium white · 1 Viridian`. */
export const inShort = (heaps: readonly HeapSteps[]): string =>
  heaps
    .at(-1)!
    .steps.map(({ parts, name }) => `${partsText(parts)} ${name}`)
    .join(' · ');
