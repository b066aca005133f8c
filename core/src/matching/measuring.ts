import type { Lab } from '../colour/spaces.ts';
import { WORTH } from './worth.ts';

/** Something measured into a heap: an ingredient of the set by its place in it, or an earlier heap. */
export interface PlanPart {
  readonly of: 'ingredient' | 'heap';
  readonly at: number;
  readonly parts: number;
}

/** A measuring plan: heaps in the order in which they are mixed, the last is the pile. */
export interface Plan {
  readonly set: readonly number[];
  readonly heaps: readonly (readonly PlanPart[])[];
  /** Share of volume of each ingredient of the set, heaps opened. */
  readonly shares: Float64Array;
  readonly lab: Lab;
  /** What measuring it costs, in ΔE00. */
  readonly effort: number;
}

/** Parts of the base to one of the tube that a let-down is made at. */
export const LETDOWN_RATIOS = [3, 4, 5, 7, 9, 11, 14, 19, 24, 29, 39, 49, 69, 99] as const;
/** Parts of the base to one of a body, beyond what a dozen parts allow. */
export const BODY_RATIOS = [14, 19, 24, 29, 39, 50] as const;
/** A heap of more parts than this is a thin one. */
export const DOZEN = 12;

/** What measuring a heap of so many parts costs, in ΔE00. A long bead is one measuring: beyond a dozen parts are not counted one by one. */
export const heapEffort = (parts: number): number => (parts > DOZEN ? WORTH.part * DOZEN + WORTH.thinHeap : WORTH.part * parts);

/** What measuring a plan costs, in ΔE00. */
export const measuringEffort = (heaps: readonly (readonly { readonly parts: number }[])[]): number =>
  heaps.reduce((sum, heap) => sum + heapEffort(heap.reduce((whole, { parts }) => whole + parts, 0)), 0) +
  WORTH.heap * (heaps.length - 1) -
  WORTH.part;

/** Shares of the ingredients of a set in the last of some heaps. */
export function sharesIn(heaps: readonly (readonly PlanPart[])[], n: number): Float64Array {
  const opened: Float64Array[] = [];
  for (const heap of heaps) {
    const shares = new Float64Array(n);
    let whole = 0;
    for (const { parts } of heap) whole += parts;
    for (const { of, at, parts } of heap)
      if (of === 'ingredient') shares[at]! += parts / whole;
      else for (let k = 0; k < n; k++) shares[k]! += (parts / whole) * opened[at]![k]!;
    opened.push(shares);
  }
  return opened.at(-1)!;
}
