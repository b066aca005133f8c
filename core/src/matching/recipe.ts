import { labOf, mixCurves, reflectance, type Portion } from '../paint/mix.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { hueDifference } from '../colour/spaces.ts';
import { deltaE00 } from '../colour/difference.ts';
import { recipeAt, type Book } from './book.ts';
import type { Ingredient, Letdown } from './ingredients.ts';

/** Some parts of an ingredient. */
export interface Measure {
  readonly ingredient: Ingredient;
  readonly parts: number;
}

/** A recipe, its colour and how it stands to a target. */
export interface Recipe {
  /** In the order of the palette. */
  readonly measures: readonly Measure[];
  /** Share of volume of each tube, let-downs opened. */
  readonly flat: Readonly<Record<string, number>>;
  readonly letdowns: readonly Letdown[];
  readonly lab: Lab;
  readonly deltaE00: number;
  /** Value of the recipe less that of the target: positive is too light. */
  readonly valueError: MunsellValue;
  /** Hue of the recipe less that of the target in degrees, and chroma likewise. */
  readonly hueError: number;
  readonly chromaError: number;
  /** How far ΔE00 moves when every part is off by a tenth of itself; lower is steadier. */
  readonly steadiness: number;
}

/** Hue error as a distance in Lab, so that it means little near neutral. */
export const hueGap = ({ hueError, lab }: Pick<Recipe, 'hueError' | 'lab'>): number =>
  Math.abs(Math.sin((hueError * Math.PI) / 360)) * 2 * Math.hypot(lab[1], lab[2]);

/** Share of volume of each tube in a recipe. */
export function flatten(measures: readonly Measure[]): Record<string, number> {
  const total = measures.reduce((sum, { parts }) => sum + parts, 0);
  const flat: Record<string, number> = {};
  for (const { ingredient, parts } of measures)
    for (const [id, share] of Object.entries(ingredient.flat)) flat[id] = (flat[id] ?? 0) + (share * parts) / total;
  return flat;
}

const portionsOf = (measures: readonly Measure[]): Portion[] => measures.map(({ ingredient, parts }) => ({ paint: ingredient, parts }));

/** How much a dose is off, as a share of itself, where steadiness is reckoned. */
const DOSING = 0.1;

/** Root of the summed squares of ΔE00 when one part after the other is a tenth too much. */
export function steadiness(measures: readonly Measure[], light: Book['light'] = 'D65'): number {
  if (measures.length < 2) return 0;
  const lab = labOf(reflectance(mixCurves(portionsOf(measures))), light);
  const sum = measures.reduce((squares, _, off) => {
    const dosed = portionsOf(measures).map((p, i) => (i === off ? { ...p, parts: p.parts * (1 + DOSING) } : p));
    return squares + deltaE00(lab, labOf(reflectance(mixCurves(dosed)), light)) ** 2;
  }, 0);
  return Math.sqrt(sum);
}

/** Recipe `i` of a book, reckoned exactly and set against a target. */
export function readRecipe(book: Book, i: number, target: Lab): Recipe {
  const { set, parts } = recipeAt(book, i);
  return weigh(
    set.map((ingredient, k) => ({ ingredient: book.ingredients[ingredient]!, parts: parts[k]! })),
    target,
    book.light,
  );
}

/** Sets any recipe against a target. */
export function weigh(measures: readonly Measure[], target: Lab, light: Book['light'] = 'D65'): Recipe {
  const lab = labOf(reflectance(mixCurves(portionsOf(measures))), light);
  const [, C, h] = labToLch(lab);
  const [, targetC, targetH] = labToLch(target);
  return {
    measures,
    flat: flatten(measures),
    letdowns: measures.flatMap(({ ingredient }) => ingredient.letdown ?? []),
    lab,
    deltaE00: deltaE00(target, lab),
    valueError: valueOfLightness(lab[0]) - valueOfLightness(target[0]),
    hueError: hueDifference(targetH, h),
    chromaError: C - targetC,
    steadiness: steadiness(measures, light),
  };
}
