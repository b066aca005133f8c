import { CraftError, finite } from '../errors.ts';
import { beadLength, dosingOf, easyBead, LEAST_TOUCH_ML } from './hand.ts';
import { isHeap, type Heap, type Ingredient, type Leaf, type Mixture } from './mixture.ts';
import type { Grams, Millilitres, Millimetres } from './units.ts';

/** What one ingredient of a pile comes to. */
export interface Amount {
  readonly ml: Millilitres;
  readonly grams: Grams;
  /** As a bead; where that is too short for one, how many touches of the knife's tip stand for it. */
  readonly beadMm: Millimetres;
  readonly touches?: number;
}

/** What a volume of paint weighs and how it leaves its tube: grams per ml, and the bore of the mouth. */
export interface Handling {
  readonly density: number;
  readonly nozzleMm: Millimetres;
}

/**
 * Millilitres, grams and bead of every ingredient of a pile of a given size.
 * @throws CraftError unless the size, densities and bores are above 0 and some part is
 */
export function amountsFor(ingredients: readonly (Handling & { readonly parts: number })[], pileMl: Millilitres): Amount[] {
  if (!(finite('input', 'The size of the pile', pileMl) > 0))
    throw new CraftError('input', `A pile must be above 0 ml; this one is ${pileMl}.`);
  const whole = ingredients.reduce((sum, { parts }) => sum + parts, 0);
  if (!(whole > 0)) throw new CraftError('parts', 'A pile needs at least one part of something.');
  return ingredients.map(({ parts, density, nozzleMm }) => {
    if (!(density > 0) || !(nozzleMm > 0)) throw new CraftError('input', 'Density and nozzle must be above 0.');
    const ml = (pileMl * parts) / whole;
    return amountOf(ml, density, nozzleMm);
  });
}

function amountOf(ml: Millilitres, density: number, nozzleMm: Millimetres): Amount {
  const dosing = dosingOf(ml, nozzleMm);
  return { ml, grams: ml * density, beadMm: beadLength(ml, nozzleMm), ...(dosing.how === 'touch' && { touches: dosing.touches }) };
}

/** A heap of a mixture as it is laid out: how much is mixed, and what each ingredient comes to. */
export interface MeasuredHeap {
  readonly ml: Millilitres;
  /** How many times as much is mixed as is needed, since less cannot be measured. */
  readonly batch: number;
  readonly amounts: readonly Amount[];
}

/** What is taken up with the knife is laid out as from a nozzle of this bore. */
export const KNIFE_BORE_MM: Millimetres = 6;
/** It weighs about this: most oil colours do. */
export const BY_KNIFE: Handling = { density: 1.5, nozzleMm: KNIFE_BORE_MM };

/** A pile grows at most so many times for the sake of a dose. */
const MOST_GROWN = 4;

/**
 * Measures a mixture out for a pile of a size. A heap mixed first is made so large that no bead in it, and
 * none of it, is shorter than a hand can lay; the pile itself only grows where less than a speck is asked for,
 * to at most four times its size.
 * @param handlingOf how a tube, or a pile that is there, is measured
 * @throws CraftError unless the size, densities and bores are above 0
 */
export function measureOut({ heaps }: Mixture, pileMl: Millilitres, handlingOf: (source: Leaf) => Handling): MeasuredHeap[] {
  const densities: number[] = [];
  const handling = (ingredient: Ingredient): Handling =>
    isHeap(ingredient) ? { density: densities[ingredient.heap]!, nozzleMm: KNIFE_BORE_MM } : handlingOf(ingredient);
  const measured = ({ ingredients }: Heap) => ingredients.map((ingredient) => ({ ...handling(ingredient), parts: ingredient.parts }));
  for (const heap of heaps) {
    const known = measured(heap);
    const whole = known.reduce((sum, { parts }) => sum + parts, 0);
    densities.push(known.reduce((sum, { parts, density }) => sum + (parts * density) / whole, 0));
  }
  const needed = new Float64Array(heaps.length);
  needed[heaps.length - 1] = pileMl;
  const found: MeasuredHeap[] = [];
  for (let at = heaps.length - 1; at >= 0; at--) {
    const heap = heaps[at]!;
    const known = measured(heap);
    const exact = amountsFor(known, needed[at]!);
    const isPile = at === heaps.length - 1;
    const least = isPile ? () => LEAST_TOUCH_ML : ({ nozzleMm }: Handling) => easyBead(nozzleMm);
    const short = Math.max(1, ...exact.map(({ ml }, i) => least(known[i]!) / ml));
    const batch = isPile ? Math.min(short, MOST_GROWN) : short;
    const amounts = batch === 1 ? exact : amountsFor(known, needed[at]! * batch);
    heap.ingredients.forEach((ingredient, i) => {
      if (isHeap(ingredient)) needed[ingredient.heap]! += amounts[i]!.ml;
    });
    found.unshift({ ml: needed[at]! * batch, batch, amounts });
  }
  return found;
}
