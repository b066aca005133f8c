import {
  BY_KNIFE,
  isHeap,
  isPile,
  isTube,
  keptAs,
  lastHeap,
  measureOut,
  type Handling,
  type Heap,
  type Ingredient,
  type KeptDose,
  type Leaf,
  type Measure,
  type Mixture,
} from '@dusk/core';
import type { Needs, Operation } from './changes.ts';
import type { MixtureSent } from './mixtures.ts';
import { mixtureSent } from './written.ts';

/** What it takes to say that a plan was mixed. */
export interface MixingTable {
  readonly paintingId: string | null;
  readonly newId: () => string;
  /** The state each tube is reckoned with, and the newest stage of a pile that is there. */
  readonly stateOf: (tube: string) => string;
  readonly stageOf: (pile: string) => string;
  readonly handlingOf: (source: Leaf) => Handling;
  /** How it was measured: what was laid by eye is kept as ranges. In parts unless it is said. */
  readonly measure?: Measure;
  /** What a heap of a plan is called once it is a pile of its own. */
  readonly nameOf: (heap: Heap, plan: Mixture) => string;
}

type Addition = Needs<'stage.add'>['additions'][number];

const LEAST_ML = 0.1;
const MOST_ML = 500;

/**
 * The operations that say a pile was mixed as planned: every heap before the last becomes a pile of
 * its own, in a batch that can be measured, and the pile takes from them.
 * @param ml how large the pile was made
 */
export function operationsToMix(pileId: string, plan: Mixture, ml: number, table: MixingTable): Operation[] {
  const { newId } = table;
  const measured = measureOut(plan, ml, table.handlingOf);
  const heapPiles = plan.heaps.map(() => ({ pile: newId(), stage: newId() }));
  const sourceOf = (ingredient: Ingredient): Pick<Addition, 'tubeId' | 'stateId' | 'stageId'> => {
    if (isTube(ingredient)) return { tubeId: ingredient.tube, stateId: ingredient.state ?? table.stateOf(ingredient.tube) };
    if (isPile(ingredient)) return { stageId: ingredient.stage ?? table.stageOf(ingredient.pile) };
    return { stageId: heapPiles[ingredient.heap]!.stage };
  };
  const kept = (ingredient: Ingredient, amount: number, whole: number): KeptDose => {
    const { range, said, parts } = ingredient;
    if (range === undefined) {
      const { nozzleMm } = isHeap(ingredient) ? BY_KNIFE : table.handlingOf(ingredient);
      return keptAs(amount, nozzleMm, table.measure ?? 'parts', whole);
    }
    return {
      low: Math.min(amount, (amount * range[0]) / parts),
      high: Math.max(amount, (amount * range[1]) / parts),
      ...(said !== undefined && { said }),
    };
  };
  const additionsOf = (heap: Heap, at: number): Addition[] =>
    heap.ingredients.map((ingredient, i) => {
      const { ml: whole, amounts } = measured[at]!;
      const { ml } = amounts[i]!;
      return { id: newId(), ...sourceOf(ingredient), ml, ...kept(ingredient, ml, whole) };
    });
  /** A heap as the plan of its own pile: what it takes from other heaps it takes from their piles. */
  const planOf = (heap: Heap): MixtureSent => {
    const ingredients = heap.ingredients.map((ingredient): Ingredient => {
      if (isTube(ingredient) || isPile(ingredient)) return ingredient;
      const { parts, range, said } = ingredient;
      return {
        ...heapPiles[ingredient.heap]!,
        parts,
        ...(range && { range }),
        ...(said !== undefined && { said }),
      };
    });
    return mixtureSent({ heaps: [{ ingredients }] });
  };
  const first = plan.heaps.slice(0, -1).flatMap((heap, at): Operation[] => [
    {
      do: 'pile.add',
      id: heapPiles[at]!.pile,
      ...(table.paintingId !== null && { paintingId: table.paintingId }),
      name: table.nameOf(heap, plan),
      plan: planOf(heap),
      purpose: { leftOf: pileId },
      ml: Math.min(MOST_ML, Math.max(LEAST_ML, measured[at]!.ml)),
    },
    { do: 'stage.add', id: heapPiles[at]!.stage, pileId: heapPiles[at]!.pile, kind: 'mixed', additions: additionsOf(heap, at) },
  ]);
  return [...first, { do: 'stage.add', id: newId(), pileId, kind: 'mixed', additions: additionsOf(lastHeap(plan), plan.heaps.length - 1) }];
}
