import { beadLength, CraftError, partsInWords, type Handling, type Ingredient, type Leaf } from '@dusk/core';

/** How an amount was measured when a pile was mixed without the product. */
export const UNITS = ['parts', 'mm', 'g', 'words'] as const;
export type Unit = (typeof UNITS)[number];

/** One line of what went in, as the painter writes it. */
export interface LoggedLine {
  readonly source: Leaf;
  readonly amount: string;
  readonly unit: Unit;
}

/** Beads and weights are exact to about a tenth; parts by knife are what they say. */
const ABOUT = 1.1;

function measured({ amount, unit }: LoggedLine): number {
  const n = Number(amount.replace(',', '.'));
  if (!Number.isFinite(n) || n <= 0) throw new CraftError('parts', `${JSON.stringify(amount)} is no amount of ${unit}.`);
  return n;
}

/**
 * What went into a pile as one heap, in parts by volume: beads by their nozzle, grams by density, words
 * with the range they leave open.
 * @throws CraftError for an amount that is none, or nothing at all
 */
export function ingredientsOf(lines: readonly LoggedLine[], handlingOf: (source: Leaf) => Handling): Ingredient[] {
  if (lines.length === 0) throw new CraftError('parts', 'Say what went into the pile.');
  return lines.map((line): Ingredient => {
    const { source, amount, unit } = line;
    if (unit === 'words') return { ...source, ...partsInWords(amount), said: amount.trim().toLowerCase() };
    const n = measured(line);
    if (unit === 'parts') return { ...source, parts: n };
    const { density, nozzleMm } = handlingOf(source);
    const ml = unit === 'g' ? n / density : n / beadLength(1, nozzleMm);
    return { ...source, parts: ml, range: [ml / ABOUT, ml * ABOUT], said: `${amount} ${unit}` };
  });
}

/** Whether the amounts are of themselves millilitres, so that they also say how large the pile is. */
export const saysSize = (lines: readonly LoggedLine[]): boolean => lines.every(({ unit }) => unit === 'mm' || unit === 'g');
