import { labOf, mixCurves, reflectance, type Portion } from '../paint/mix.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { hueDifference } from '../colour/spaces.ts';
import { deltaE00 } from '../colour/difference.ts';
import { openToTubes } from '../mixing/open.ts';
import { steadiness } from '../mixing/predict.ts';
import { recipeAt, type Book } from './book.ts';
import type { BookIngredient, Letdown } from './ingredients.ts';
import { mixtureOfRecipe } from './propose.ts';

/** Some parts of an ingredient. */
export interface Measure {
  readonly ingredient: BookIngredient;
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
  const piles = new Map(measures.flatMap(({ ingredient: { id, tubes } }) => (tubes ? [[id, tubes] as const] : [])));
  const mixture = mixtureOfRecipe({ measures }, (id) => (piles.has(id) ? { pile: id } : { tube: id }));
  return openToTubes(mixture, (pile) => piles.get(pile)!);
}

const portionsOf = (measures: readonly Measure[]): Portion[] => measures.map(({ ingredient, parts }) => ({ paint: ingredient, parts }));

/** Recipe `i` of a book, reckoned exactly and set against a target. */
export function readRecipe(book: Book, i: number, target: Lab): Recipe {
  const { set, parts } = recipeAt(book, i);
  return weigh(
    set.map((ingredient, k) => ({ ingredient: book.ingredients[ingredient]!, parts: parts[k]! })),
    target,
    book.light,
  );
}

/** How a colour stands to a target. */
export function againstTarget(lab: Lab, target: Lab): Pick<Recipe, 'lab' | 'deltaE00' | 'valueError' | 'hueError' | 'chromaError'> {
  const [, C, h] = labToLch(lab);
  const [, targetC, targetH] = labToLch(target);
  return {
    lab,
    deltaE00: deltaE00(target, lab),
    valueError: valueOfLightness(lab[0]) - valueOfLightness(target[0]),
    hueError: hueDifference(targetH, h),
    chromaError: C - targetC,
  };
}

/** Sets any recipe against a target. */
export function weigh(measures: readonly Measure[], target: Lab, light: Book['light'] = 'D65'): Recipe {
  const lab = labOf(reflectance(mixCurves(portionsOf(measures))), light);
  return {
    measures,
    flat: flatten(measures),
    letdowns: measures.flatMap(({ ingredient }) => ingredient.letdown ?? []),
    ...againstTarget(lab, target),
    steadiness: steadiness(portionsOf(measures), light),
  };
}
