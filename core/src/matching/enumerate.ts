import { CraftError } from '../errors.ts';
import type { BookIngredient } from './ingredients.ts';
import { MOST_RECIPES, type Limits } from './limits.ts';

/** Ingredients that are used together, by their index, ascending. */
export type IngredientSet = readonly number[];

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/**
 * Every way to divide at most `most` parts among `count` ingredients, each at least one part,
 * without those that are a multiple of another (2:2 is 1:1).
 */
export function compositions(count: number, most: number): Uint8Array[] {
  const found: Uint8Array[] = [];
  const parts = new Uint8Array(count);
  const place = (at: number, left: number, common: number): void => {
    if (at === count) {
      if (common === 1) found.push(parts.slice());
      return;
    }
    for (let n = 1; n <= left - (count - 1 - at); n++) {
      parts[at] = n;
      place(at + 1, left - n, gcd(n, common));
    }
  };
  place(0, most, 0);
  return found;
}

/** How many different tubes are in a set, let-downs opened. */
const tubesIn = (set: IngredientSet, all: readonly BookIngredient[]): number => new Set(set.flatMap((i) => all[i]!.counts)).size;

/** The strong tube of a let-down, or the ingredient itself. */
const originOf = ({ id, letdown }: BookIngredient): string =>
  letdown ? Object.entries(letdown.parts).find(([, parts]) => parts === 1)![0] : id;

/** Every set of ingredients that keeps within the limit of tubes, smallest first. */
function ingredientSets(all: readonly BookIngredient[], limits: Limits): IngredientSet[] {
  const sets: IngredientSet[] = [];
  const origins = all.map(originOf);
  const grow = (set: number[], from: number, size: number): void => {
    if (set.length === size) {
      if (tubesIn(set, all) <= limits.tubes) sets.push([...set]);
      return;
    }
    for (let i = from; i < all.length; i++) {
      // A tube and its let-downs beside one another are a finer recipe of the same, never needed.
      if (set.some((other) => origins[other] === origins[i])) continue;
      grow([...set, i], i + 1, size);
    }
  };
  for (let size = 1; size <= Math.min(limits.tubes, limits.parts, all.length); size++) grow([], 0, size);
  return sets;
}

/** A let-down alone is a colour of its own, though a single part of a single thing. */
export interface Enumeration {
  readonly sets: readonly IngredientSet[];
  /** By size of set. */
  readonly divisions: ReadonlyMap<number, readonly Uint8Array[]>;
  readonly count: number;
}

const choose = (n: number, k: number): number => Array.from({ length: k }, (_, i) => (n - i) / (i + 1)).reduce((p, f) => p * f, 1);

/**
 * All recipes within the limits, as sets times divisions.
 * @throws CraftError when there would be too many to hold.
 */
export function enumerate(all: readonly BookIngredient[], limits: Limits): Enumeration {
  const sizes = Array.from({ length: Math.min(limits.tubes, limits.parts, all.length) }, (_, i) => i + 1);
  const most = sizes.reduce((sum, k) => sum + choose(all.length, k) * choose(limits.parts, k), 0);
  if (most > 3 * MOST_RECIPES) throw tooMany(most);
  const divisions = new Map(sizes.map((k) => [k, compositions(k, limits.parts)]));
  const sets = ingredientSets(all, limits);
  const count = sets.reduce((sum, set) => sum + divisions.get(set.length)!.length, 0);
  if (count > MOST_RECIPES) throw tooMany(count);
  return { sets, divisions, count };
}

const tooMany = (count: number): CraftError =>
  new CraftError(
    'limits',
    `These tubes and limits allow some ${Math.round(count / 1e6)} million recipes, more than can be held; choose fewer tubes or parts.`,
  );
