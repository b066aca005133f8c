import type { Lab } from '../colour/spaces.ts';
import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import { doseError, dosingOf, easyBead, LEAST_TOUCH_ML, ROUNDING, shortestBead, touchesFor, type Hand } from '../mixing/hand.ts';
import type { Palette } from '../laying/palette.ts';
import { WORTH, type WorkWorth } from '../laying/worth.ts';

/** Something measured into a heap: an ingredient of the set by its place in it, or an earlier heap. */
export interface PlanPart {
  readonly of: 'ingredient' | 'heap';
  readonly at: number;
  /** Whole; of what is laid as touches a fraction. */
  readonly parts: number;
  /** What is laid with the knife's tip: about so many ml. */
  readonly touchMl?: number;
}
export type PlanHeap = readonly PlanPart[];

/** A measuring plan: heaps in the order in which they are mixed, the last is the pile. */
export interface Plan {
  readonly set: readonly number[];
  readonly heaps: readonly PlanHeap[];
  /** Share of volume of each ingredient of the set, heaps opened. */
  readonly shares: Float64Array;
  readonly lab: Lab;
  /** What measuring it costs, in ΔE00. */
  readonly effort: number;
  /** Root mean square of ΔE00 by which a hand misses it. */
  readonly dosing: number;
}

/** What is measured out on, how much, and by what hand. */
export interface Tabletop {
  readonly amountMl: number;
  readonly hand: Hand;
  readonly worth: WorkWorth;
  /** Bore of the mouth of each ingredient of the palette, mm. */
  readonly bores: Float64Array;
}

export const tabletop = ({ ingredients }: Palette, amountMl: number, hand: Hand, worth: WorkWorth): Tabletop => ({
  amountMl,
  hand,
  worth,
  bores: Float64Array.from(ingredients, ({ nozzleMm = KNIFE_BORE_MM }) => nozzleMm),
});

/** Less than a touch is rounded up to one from this share of it on. */
export const NEARLY_A_TOUCH = 0.7;
/** Parts of the base to one of the tube that a let-down is made at: beyond, it is let down twice. */
export const LETDOWN_RATIOS = [2, 3, 4, 5, 7, 9, 11, 14, 19] as const;
/** Parts of the base to one of a body, beyond what a dozen parts allow. */
export const BODY_RATIOS = [14, 16, 19, 24, 29, 39] as const;
/** Parts of a heap beyond a dozen, where one is long beside the others. */
export const LONG_HEAPS = [14, 16, 18, 20, 24, 28, 32, 40, 50, 64, 80, 100, 125, 160, 200, 250, 320, 400] as const;
/** A heap of more parts than this is a long one. */
export const DOZEN = 12;

/** What measuring a heap of so many whole parts costs, in ΔE00. A long bead is one measuring: beyond a dozen parts are not counted one by one. */
export function heapEffort(parts: number): number {
  if (parts <= DOZEN) return WORTH.part * parts;
  return WORTH.part * DOZEN + (parts <= 2 * DOZEN ? WORTH.thinHeap : WORTH.longHeap);
}

/** What heaps mixed first cost. */
export const heapsFirst = ({ heaps }: WorkWorth, first: number): number => heaps[first] ?? Infinity;

/** Shares of the ingredients of a set in the last of some heaps. */
export function sharesIn(heaps: readonly PlanHeap[], n: number): Float64Array {
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

/** Touches beyond so many are no more work. */
const MOST_COUNTED = 3;
/**
 * Plans of several heaps are judged as for no more than this, ml: then a larger pile, which is mixed in one heap
 * more truly, never asks for more of them.
 */
const JUDGED_AT_ML = 1.5;

/** Nobody mixes more than this first, for the sake of one bead in it, ml. */
const LARGEST_FIRST_ML = 3;

/** How some heaps are laid out: by how much a hand misses, what they cost. */
export interface Layout {
  /** Variance of ΔE00 that the hand leaves. */
  readonly variance: number;
  readonly effort: number;
}

/** Three numbers of colour. */
export type Pull = readonly [number, number, number];

const apart = (one: Pull, other: Pull): number => (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2 + (one[2] - other[2]) ** 2;

/**
 * Lays out heaps for the amount that is wanted. Heaps mixed first are made so large that every bead in them
 * can be laid; in the pile what is less than a bead is a touch of the knife's tip.
 * @param pulls where each ingredient of the set pulls
 * @returns nothing where something is asked for that no hand can lay
 */
export function layOut(heaps: readonly PlanHeap[], set: readonly number[], pulls: readonly Pull[], table: Tabletop): Layout | undefined {
  const { amountMl, hand, worth, bores } = table;
  const last = heaps.length - 1;
  /** Where every heap pulls, how many parts it has, how much of it is needed, and its share of the pile. */
  const heapPulls: Pull[] = [];
  const wholes: number[] = [];
  const needed: number[] = [];
  const weights: number[] = [];
  for (const heap of heaps) {
    let [whole, l, c, h] = [0, 0, 0, 0];
    for (const { of, at, parts } of heap) {
      const pull = of === 'heap' ? heapPulls[at]! : pulls[at]!;
      whole += parts;
      l += parts * pull[0];
      c += parts * pull[1];
      h += parts * pull[2];
    }
    heapPulls.push([l / whole, c / whole, h / whole]);
    wholes.push(whole);
    needed.push(0);
    weights.push(0);
  }
  needed[last] = last === 0 ? amountMl : Math.min(amountMl, JUDGED_AT_ML);
  weights[last] = 1;
  const larger = amountMl / needed[last];
  let variance = 0;
  let effort = heapsFirst(worth, last) - WORTH.part;
  for (let at = last; at >= 0; at--) {
    const heap = heaps[at]!;
    const whole = wholes[at]!;
    let ml = needed[at]!;
    if (at < last) {
      for (const part of heap)
        ml = Math.max(ml, (easyBead(part.of === 'heap' ? KNIFE_BORE_MM : bores[set[part.at]!]!) * whole) / part.parts);
      if (ml > Math.max(LARGEST_FIRST_ML, needed[at]!)) return undefined;
      effort += WORTH.leftOver * (ml - needed[at]!);
    }
    let counted = 0;
    for (const part of heap) {
      const isHeap = part.of === 'heap';
      const share = part.parts / whole;
      const dose = share * ml;
      const bore = isHeap ? KNIFE_BORE_MM : bores[set[part.at]!]!;
      if (dose < shortestBead(bore) * ROUNDING) {
        if (at < last || dose * larger < LEAST_TOUCH_ML * ROUNDING) return undefined;
        effort += WORTH.touch * Math.min(MOST_COUNTED, touchesFor(dose));
      }
      if (part.touchMl === undefined) counted += part.parts;
      const off = weights[at]! * share * doseError(dose, bore, hand);
      variance += off * off * apart(isHeap ? heapPulls[part.at]! : pulls[part.at]!, heapPulls[at]!);
      if (isHeap) {
        needed[part.at]! += dose;
        weights[part.at]! += weights[at]! * share;
      }
    }
    effort += heapEffort(counted);
  }
  return { variance, effort };
}

/** The heaps of a plan, with what is laid as touches into the pile. */
export function withTouches(heaps: readonly PlanHeap[], set: readonly number[], { amountMl, bores }: Tabletop): PlanHeap[] {
  const last = heaps.length - 1;
  const whole = heaps[last]!.reduce((sum, { parts }) => sum + parts, 0);
  return heaps.map((heap, at) =>
    at < last
      ? heap
      : heap.map(({ of, at: from, parts }): PlanPart => {
          const ml = (parts / whole) * amountMl;
          const bore = of === 'heap' ? KNIFE_BORE_MM : bores[set[from]!]!;
          return dosingOf(ml, bore).how === 'touch' ? { of, at: from, parts, touchMl: ml } : { of, at: from, parts };
        }),
  );
}

/** The least that is laid as a touch, and as a bead from a mouth, as shares of the amount. */
export const leastTouch = ({ amountMl }: Tabletop): number => LEAST_TOUCH_ML / amountMl;
export const leastBead = ({ amountMl }: Tabletop, bore: number): number => shortestBead(bore) / amountMl;
