import { CraftError } from '../errors.ts';
import type { Book } from './book.ts';
import type { Recipe } from './recipe.ts';

/** What a painter minds most, once value and colour are right. */
export const EMPHASES = ['closest', 'fewest', 'steady', 'cheap', 'fast'] as const;
export type Emphasis = (typeof EMPHASES)[number];

/** What a painter asks of a recipe beyond its colour. */
export interface Wishes {
  readonly emphasis?: Emphasis;
  /** Tubes that must not be in it, as tube blacks where darks are to be mixed. */
  readonly exclude?: readonly string[];
  /** A tube or pile that must be in it. */
  readonly mustUse?: string;
  /** Most things in one recipe, when less than the book allows. */
  readonly most?: number;
}

/**
 * For each set of the book whether it fits the wishes.
 * @returns undefined when every set does
 * @throws CraftError for a tube that is not on the palette, or when no recipe is left
 */
export function allowedSets(book: Book, { exclude = [], mustUse, most }: Wishes): Uint8Array | undefined {
  if (exclude.length === 0 && mustUse === undefined && most === undefined) return undefined;
  const known = new Set(book.ingredients.flatMap((i) => i.counts));
  const stranger = [...exclude, ...(mustUse === undefined ? [] : [mustUse])].find((id) => !known.has(id));
  if (stranger !== undefined) throw new CraftError('palette', `There is no ${JSON.stringify(stranger)} on this palette.`);
  if (most !== undefined && (!Number.isInteger(most) || most < 1))
    throw new CraftError('limits', `The most tubes in a recipe must be a whole number from 1; it is ${JSON.stringify(most)}.`);
  const allowed = Uint8Array.from(book.sets, (set) => {
    const used = new Set(set.flatMap((i) => book.ingredients[i]!.counts));
    return !exclude.some((id) => used.has(id)) && (mustUse === undefined || used.has(mustUse)) && used.size <= (most ?? Infinity) ? 1 : 0;
  });
  if (!allowed.includes(1)) throw new CraftError('limits', 'Nothing is left to mix with: ask for less.');
  return allowed;
}

/** ΔE00 that each emphasis is worth: per tube, per unit of steadiness, per doubled price, per step of drying. */
const WORTH = { fewest: 1.2, steady: 0.9, cheap: 1.5, fast: 1.2 } as const;
const DRYING = { fast: 0, medium: 1, slow: 2 } as const;

/** Effort of a recipe in the eyes of the emphasis, in ΔE00, on top of its score. */
export function emphasisCost(recipe: Recipe, emphasis: Emphasis): number {
  const parts = recipe.measures.map((m) => ({ ...m, share: m.parts }));
  const whole = parts.reduce((sum, p) => sum + p.share, 0);
  const mean = (of: (p: (typeof parts)[number]) => number): number => parts.reduce((sum, p) => sum + (of(p) * p.share) / whole, 0);
  switch (emphasis) {
    case 'closest':
      return 0;
    case 'fewest':
      return WORTH.fewest * (Object.keys(recipe.flat).length - 1);
    case 'steady':
      return WORTH.steady * recipe.steadiness;
    case 'cheap':
      return WORTH.cheap * Math.log2(1 + mean((p) => p.ingredient.price ?? 1));
    case 'fast':
      return WORTH.fast * Math.max(...parts.map((p) => DRYING[p.ingredient.drying ?? 'medium'] * Math.min(1, (4 * p.share) / whole)));
  }
}
