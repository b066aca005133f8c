import { CraftError } from '../errors.ts';
import type { Handling } from './amounts.ts';
import type { Grams, Millilitres, Millimetres } from './units.ts';
import { asTouch, dosingOf, isTouch, touchesInWords } from './hand.ts';
import { partsInWords, wordForParts } from './words.ts';
import { mmText, partsText } from './written.ts';

/** Ways in which painters measure: by eye, in parts, as beads, by scale. The recipe is the same. */
export const MEASURES = ['eye', 'parts', 'beads', 'scale'] as const;
export type Measure = (typeof MEASURES)[number];

/** @throws CraftError for a way of measuring that is none */
export function measureFromInput(given: unknown): Measure {
  const known = MEASURES.find((measure) => measure === given);
  if (!known) throw new CraftError('input', `"measure" is one of ${MEASURES.join(', ')}; it is ${JSON.stringify(given)}.`);
  return known;
}

/** One dose of a heap, in each way of measuring. */
export type Told = Readonly<Record<Measure, string>>;

/** A dose as it is laid out. */
export interface LaidDose {
  readonly parts: number;
  readonly said?: string | undefined;
  readonly ml: Millilitres;
  readonly grams: Grams;
  readonly beadMm: Millimetres;
  readonly touches?: number | undefined;
}

/** Multiples of the least dose by which a heap is divided into whole parts. */
const MOST_OF_LEAST = 6;
/** How far parts may be rounded: a share of themselves. */
const ROUNDED_BY = 0.06;
const WHOLE = 1e-6;

/**
 * Whole parts for a heap, as a painter counts them: as they are where they are whole, else the fewest that
 * leave every dose within six hundredths of itself; a half only where it is of one part.
 * @param parts above 0, touches left out
 */
export function wholeParts(parts: readonly number[]): number[] {
  if (parts.length === 0) return [];
  if (parts.every((n) => Math.abs(n - Math.round(n)) < WHOLE && n > 0.5)) return parts.map(Math.round);
  const least = Math.min(...parts);
  let best: { readonly off: number; readonly whole: number[] } | undefined;
  for (let of = 1; of <= MOST_OF_LEAST; of++) {
    const whole = parts.map((n) => Math.max(1, Math.round((n / least) * of)));
    const by = whole.reduce((sum, n) => sum + n, 0) / parts.reduce((sum, n) => sum + n, 0);
    const off = Math.max(...whole.map((n, i) => Math.abs(n / (parts[i]! * by) - 1)));
    if (!best || off < best.off - WHOLE) best = { off, whole };
    if (off <= ROUNDED_BY) break;
  }
  return best!.whole;
}

/** What a scale beside an easel shows, and by how much of itself a dose may be rounded to that. */
const SCALE_G: Grams = 0.1;
const gramsText = (grams: Grams): string => `${grams.toFixed(grams < 10 ? 1 : 0)} g`;
const isWeighed = (grams: Grams): boolean => Math.abs(Math.round(grams / SCALE_G) * SCALE_G - grams) <= 0.1 * grams;
/** By scale, what it cannot tell is laid as a bead. */
const byScale = (grams: Grams, beadMm: Millimetres): string => (isWeighed(grams) ? gramsText(grams) : mmText(beadMm));

/** The doses of a heap in each way of measuring, in their order. */
export function tell(doses: readonly LaidDose[]): Told[] {
  const byTip = (dose: LaidDose): boolean => dose.touches !== undefined || isTouch(dose);
  const counted = doses.filter((dose) => !byTip(dose));
  const whole = wholeParts(counted.map(({ parts }) => parts));
  const all = doses.reduce((sum, { ml }) => sum + ml, 0);
  return doses.map((dose): Told => {
    if (byTip(dose)) {
      const words = dose.touches === undefined ? dose.said! : touchesInWords(dose.ml);
      return { eye: words, parts: words, beads: words, scale: words };
    }
    return {
      eye: doses.length === 1 ? 'all of it' : wordForParts((12 * dose.ml) / all),
      parts: String(whole[counted.indexOf(dose)]!),
      beads: mmText(dose.beadMm),
      scale: byScale(dose.grams, dose.beadMm),
    };
  });
}

/** What is added to a pile is told to halves of its parts; less than one is told by its word. */
const HALF = 0.5;

/**
 * An addition to a pile that lies there, in one way of measuring.
 * @param whole how large the pile is then
 * @param partMl how much a part of it is
 */
export function tellAdded(
  ml: Millilitres,
  { nozzleMm, density }: Handling,
  measure: Measure,
  whole: Millilitres,
  partMl: Millilitres,
): string {
  const dosing = dosingOf(ml, nozzleMm);
  if (dosing.how === 'touch') return touchesInWords(ml);
  if (measure === 'scale') return byScale(ml * density, dosing.mm);
  if (measure === 'beads') return mmText(dosing.mm);
  const halves = Math.round(ml / partMl / HALF) * HALF;
  return measure === 'eye' || halves < HALF ? wordForParts((12 * ml) / whole) : partsText(halves);
}

/** What a dose that was laid may have been, ml, and the word that it was laid by. */
export interface KeptDose {
  readonly low: Millilitres;
  readonly high: Millilitres;
  readonly said?: string;
}

/**
 * How a dose is kept once it is laid: what was put in with the knife's tip, or by eye, is a range with its word; a bead,
 * a part and a weight are what they are.
 * @param whole how large the pile is with it
 */
export function keptAs(ml: Millilitres, nozzleMm: Millimetres, measure: Measure, whole: Millilitres): KeptDose {
  if (dosingOf(ml, nozzleMm).how === 'touch') {
    const { said, range } = asTouch(ml, nozzleMm, ml);
    return { low: range[0], high: range[1], said };
  }
  if (measure !== 'eye' || whole <= ml) return { low: ml, high: ml };
  const said = wordForParts((12 * ml) / whole);
  const [low, high] = partsInWords(said).range;
  return { low: Math.min(ml, (low * whole) / 12), high: Math.max(ml, (high * whole) / 12), said };
}
