import { CraftError, finite } from '../errors.ts';

/** Volume of paint. */
export type Millilitres = number & { readonly __unit?: 'ml' };
export type Millimetres = number & { readonly __unit?: 'mm' };
export type Grams = number & { readonly __unit?: 'g' };

const MM3_PER_ML = 1000;

/** Length of a bead that holds `ml` of paint, squeezed from a round nozzle. */
export const beadLength = (ml: Millilitres, nozzleMm: Millimetres): Millimetres => (ml * MM3_PER_ML) / (Math.PI * (nozzleMm / 2) ** 2);

/** What one ingredient of a pile comes to. */
export interface Amount {
  readonly ml: Millilitres;
  readonly grams: Grams;
  readonly beadMm: Millimetres;
}

/** What amounts hang on: grams per ml, and the bore of the tube's mouth. */
export interface Measured {
  readonly parts: number;
  readonly density: number;
  readonly nozzleMm: Millimetres;
}

/**
 * Millilitres, grams and bead of every ingredient of a pile of a given size.
 * @throws CraftError unless the size, densities and bores are above 0 and some part is
 */
export function amountsFor(ingredients: readonly Measured[], pileMl: Millilitres): Amount[] {
  if (!(finite('input', 'The size of the pile', pileMl) > 0))
    throw new CraftError('input', `A pile must be above 0 ml; this one is ${pileMl}.`);
  const whole = ingredients.reduce((sum, { parts }) => sum + parts, 0);
  if (!(whole > 0)) throw new CraftError('parts', 'A pile needs at least one part of something.');
  return ingredients.map(({ parts, density, nozzleMm }) => {
    if (!(density > 0) || !(nozzleMm > 0)) throw new CraftError('input', 'Density and nozzle must be above 0.');
    const ml = (pileMl * parts) / whole;
    return { ml, grams: ml * density, beadMm: beadLength(ml, nozzleMm) };
  });
}
