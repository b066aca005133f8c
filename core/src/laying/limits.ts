import { CraftError } from '../errors.ts';

/** What a recipe may consist of. */
export interface Limits {
  /** Most tubes in one recipe, 1–6. */
  readonly tubes: number;
  /** Most parts in one recipe, all together, 1–24. */
  readonly parts: number;
}

export const USUAL_LIMITS: Limits = { tubes: 4, parts: 12 };

/** Most tubes a palette may hold; painters lay out four to eight. */
export const MOST_TUBES = 30;
/** Tubes and piles that may be laid out together. */
export const MOST_INGREDIENTS = 40;
/** A larger book takes more memory than a tablet can spare. */
export const MOST_RECIPES = 3_000_000;

function wholeWithin(name: string, value: unknown, usual: number, low: number, high: number): number {
  if (value === undefined) return usual;
  if (typeof value !== 'number' || !Number.isInteger(value) || value < low || value > high)
    throw new CraftError(
      'limits',
      `The most ${name} in a recipe must be a whole number from ${low} to ${high}; it is ${JSON.stringify(value)}.`,
    );
  return value;
}

/**
 * Reads limits that came from outside; what is absent is as usual.
 * @throws CraftError for limits out of range.
 */
export function limitsFromInput(input: unknown): Limits {
  if (input === undefined) return USUAL_LIMITS;
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('limits', 'Limits look like {"tubes": 4, "parts": 12}.');
  const given = input as Record<string, unknown>;
  const unknown = Object.keys(given).find((key) => key !== 'tubes' && key !== 'parts');
  if (unknown) throw new CraftError('limits', `There is no limit called ${JSON.stringify(unknown)}; limits are tubes and parts.`);
  return {
    tubes: wholeWithin('tubes', given['tubes'], USUAL_LIMITS.tubes, 1, 6),
    parts: wholeWithin('parts', given['parts'], USUAL_LIMITS.parts, 1, 24),
  };
}
