import { CraftError, finite } from '../errors.ts';
import type { Millilitres, Millimetres } from './units.ts';
import type { Measured } from './mixture.ts';

/** How well a hand lays paint, each as one standard deviation. */
export interface Hand {
  /** Of a bead: a share of itself, and a length beside it. */
  readonly bead: number;
  readonly beadMm: Millimetres;
  /** Of a touch of the knife's tip: a share of itself. */
  readonly touch: number;
}

/** An ordinary hand. */
export const USUAL_HAND: Hand = { bead: 0.1, beadMm: 0.7, touch: 0.4 };

/** The pile that is wanted unless it is said. */
export const USUAL_AMOUNT_ML: Millilitres = 4;
/** Least and most paint that a recipe is asked for. */
export const LEAST_AMOUNT_ML: Millilitres = 0.2;
export const MOST_AMOUNT_ML: Millilitres = 500;

/** No bead shorter than this is asked for. */
export const SHORTEST_BEAD_MM: Millimetres = 3;
/** What the tip of a knife takes up at least and at most. */
export const LEAST_TOUCH_ML: Millilitres = 0.01;
export const MOST_TOUCH_ML: Millilitres = 0.02;
/** Less than this of a touch is a speck. */
export const SPECK_BELOW_ML: Millilitres = 0.0135;

const MM3_PER_ML = 1000;

/** Length of a bead that holds `ml` of paint, squeezed from a round nozzle. */
export const beadLength = (ml: Millilitres, nozzleMm: Millimetres): Millimetres => (ml * MM3_PER_ML) / (Math.PI * (nozzleMm / 2) ** 2);

/** Paint in the shortest bead from a nozzle. */
export const shortestBead = (nozzleMm: Millimetres): Millilitres => (SHORTEST_BEAD_MM * Math.PI * (nozzleMm / 2) ** 2) / MM3_PER_ML;

/** In a heap that is mixed first no bead need be as short as that: what is left over costs less than what a short bead is off by. */
const EASY_BEAD_MM: Millimetres = 5;
export const easyBead = (nozzleMm: Millimetres): Millilitres => (shortestBead(nozzleMm) * EASY_BEAD_MM) / SHORTEST_BEAD_MM;

/** A hair less than what is allowed is rounding. */
export const ROUNDING = 1 - 1e-9;

/** How a dose is laid: a bead, or so many touches of the knife's tip. */
export type Dosing = { readonly how: 'bead'; readonly mm: Millimetres } | { readonly how: 'touch'; readonly touches: number };

/** Touches of the knife's tip that hold so much. */
export const touchesFor = (ml: Millilitres): number => Math.max(1, Math.ceil((ml / MOST_TOUCH_ML) * ROUNDING));

/** How so much paint is laid; touches where a bead would be too short. */
export function dosingOf(ml: Millilitres, nozzleMm: Millimetres): Dosing {
  const mm = beadLength(ml, nozzleMm);
  if (mm >= SHORTEST_BEAD_MM * ROUNDING) return { how: 'bead', mm };
  return { how: 'touch', touches: touchesFor(ml) };
}

/** By how much a dose may be expected to be off, as a share of itself (1 σ). */
export function doseError(ml: Millilitres, nozzleMm: Millimetres, hand: Hand = USUAL_HAND): number {
  const mm = beadLength(ml, nozzleMm);
  if (mm >= SHORTEST_BEAD_MM * ROUNDING) return Math.sqrt(hand.bead * hand.bead + (hand.beadMm / mm) ** 2);
  // Many touches are no surer than the shortest bead.
  return Math.max(hand.touch / Math.sqrt(touchesFor(ml)), Math.min(hand.touch, Math.hypot(hand.bead, hand.beadMm / SHORTEST_BEAD_MM)));
}

/** `a touch`, `a speck`, `two touches`. */
export function touchesInWords(ml: Millilitres): string {
  if (ml < SPECK_BELOW_ML) return 'a speck';
  const touches = touchesFor(ml);
  return touches === 1 ? 'a touch' : `${COUNTED[touches] ?? touches} touches`;
}

/** How a touch is said, and what it may really be. @param counted as what the range counts it: parts, or ml */
export function asTouch(
  ml: Millilitres,
  nozzleMm: Millimetres,
  counted: number,
  hand: Hand = USUAL_HAND,
): Required<Pick<Measured, 'said' | 'range'>> {
  const by = doseError(ml, nozzleMm, hand);
  return { said: touchesInWords(ml), range: [counted * (1 - by), counted * (1 + by)] };
}

/** Whether an amount is said to be laid with the knife's tip. */
export const isTouch = ({ said }: { readonly said?: string | undefined }): boolean =>
  said !== undefined && /\b(touch|touches|speck)$/.test(said);

const COUNTED: readonly (string | undefined)[] = [undefined, undefined, 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/** Most that a hand may be off. */
const CLUMSIEST = { bead: 0.6, beadMm: 5, touch: 0.9 } as const;

/**
 * A hand as it was given: what is absent is as usual.
 * @throws CraftError for a hand that no one has
 */
export function handFromInput(given: unknown): Hand {
  if (given === undefined) return USUAL_HAND;
  if (typeof given !== 'object' || given === null || Array.isArray(given))
    throw new CraftError('input', 'A hand looks like {"bead": 0.1, "bead_mm": 0.7, "touch": 0.4}.');
  const { bead, bead_mm: beadMm, touch, ...rest } = given as Record<string, unknown>;
  const unknown = Object.keys(rest)[0];
  if (unknown !== undefined) throw new CraftError('input', `A hand has no ${JSON.stringify(unknown)}: only bead, bead_mm and touch.`);
  const within = (name: keyof Hand, value: unknown): number => {
    if (value === undefined) return USUAL_HAND[name];
    const n = finite('input', 'How far a hand is off', value);
    if (n < 0 || n > CLUMSIEST[name])
      throw new CraftError(
        'input',
        `A hand is off by 0 to ${CLUMSIEST[name]} (${name === 'beadMm' ? 'bead_mm' : name}); this one by ${n}.`,
      );
    return n;
  };
  return { bead: within('bead', bead), beadMm: within('beadMm', beadMm), touch: within('touch', touch) };
}

/** An amount as it was given; the usual one when it is absent. @throws CraftError for one that no palette holds */
export function amountFromInput(given: unknown): Millilitres {
  if (given === undefined) return USUAL_AMOUNT_ML;
  const ml = finite('input', 'The amount', given);
  if (ml < LEAST_AMOUNT_ML || ml > MOST_AMOUNT_ML)
    throw new CraftError('input', `An amount is ${LEAST_AMOUNT_ML} to ${MOST_AMOUNT_ML} ml; this one is ${ml} ml.`);
  return ml;
}
