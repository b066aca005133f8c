import { deltaE00, type Delta } from '../colour/difference.ts';
import { hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import { asTouch } from '../mixing/hand.ts';
import type { Heap, Ingredient, Leaf, Mixture } from '../mixing/mixture.ts';
import { isTube } from '../mixing/mixture.ts';
import { leavesOf, openToTubes, type PaintOf } from '../mixing/open.ts';
import { inMixingOrder } from '../mixing/order.ts';
import { steadinessOf } from '../mixing/predict.ts';
import type { Portion } from '../paint/mix.ts';
import type { Found } from './sought.ts';
import type { Palette, PaletteIngredient } from '../laying/palette.ts';
import { expectedDifference } from '../laying/worth.ts';

/** A recipe, its colour and how it stands to a target. */
export interface Recipe {
  /** How it is measured: tubes and piles by their ids on the palette, in mixing order. */
  readonly mixture: Mixture;
  /** Share of volume of each tube, heaps and piles opened. */
  readonly flat: Readonly<Record<string, number>>;
  /** Where and as it is looked at. */
  readonly lab: Lab;
  readonly deltaE00: Delta;
  /** Value of the recipe less that of the target: positive is too light. */
  readonly valueError: MunsellValue;
  /** Hue of the recipe less that of the target in degrees, and chroma likewise. */
  readonly hueError: number;
  readonly chromaError: number;
  /** How far ΔE00 moves when every part is off by a tenth of itself; lower is steadier. */
  readonly steadiness: number;
  /** Root mean square of the true difference that is to be expected: prediction, doubt and dosing together. */
  readonly expected: Delta;
  /** Ranking score, ΔE00; lower is better. */
  readonly score: number;
}

/** Hue error as a distance in Lab, so that it means little near neutral. */
export const hueGap = ({ hueError, lab }: Pick<Recipe, 'hueError' | 'lab'>): number =>
  Math.abs(Math.sin((hueError * Math.PI) / 360)) * 2 * Math.hypot(lab[1], lab[2]);

/** How a colour stands to a target. */
export function againstTarget(lab: Lab, target: Lab): Pick<Recipe, 'lab' | 'deltaE00' | 'valueError' | 'hueError' | 'chromaError'> {
  const [, C, h] = labToLch(lab);
  const [, targetC, targetH] = labToLch(target);
  return {
    lab,
    deltaE00: deltaE00(target, lab),
    valueError: valueOfLightness(Math.max(0, lab[0])) - valueOfLightness(Math.max(0, target[0])),
    hueError: hueDifference(targetH, h),
    chromaError: C - targetC,
  };
}

/** An ingredient of a palette as the source of a mixture. */
export const sourceOn = ({ id, tubes }: PaletteIngredient): Leaf => (tubes ? { pile: id } : { tube: id });

/** Curves of what lies on a palette, as paint. */
export function paintOn({ ingredients }: Palette): PaintOf {
  const byId = new Map(ingredients.map((ingredient) => [ingredient.id, ingredient]));
  return (source) => byId.get(isTube(source) ? source.tube : source.pile)!;
}

/** Share of volume of each tube in a mixture from a palette. */
export function flatOn({ ingredients }: Palette, mixture: Mixture): Record<string, number> {
  const piles = new Map(ingredients.flatMap(({ id, tubes }) => (tubes ? [[id, tubes] as const] : [])));
  return openToTubes(mixture, (pile) => piles.get(pile)!);
}

/** Every source of a mixture with its share. */
export const portionsOn = (palette: Palette, mixture: Mixture): Portion[] => {
  const paintOf = paintOn(palette);
  return leavesOf(mixture).map(({ source, share }) => ({ paint: paintOf(source), parts: share }));
};

function mixtureOfPlan(palette: Palette, { set, heaps }: Found['plan']): Mixture {
  const made = heaps.map((heap): Heap => ({
    ingredients: heap.map(({ of, at, parts, touchMl }): Ingredient => ({
      ...(of === 'heap' ? { heap: at } : sourceOn(palette.ingredients[set[at]!]!)),
      parts,
      ...(touchMl !== undefined && asTouch(touchMl, KNIFE_BORE_MM, parts)),
    })),
  }));
  return inMixingOrder({ heaps: made }, paintOn(palette));
}

/** A plan that was found, as a recipe. */
export function recipeOf(palette: Palette, { plan, error, dosing, score }: Found, target: Lab): Recipe {
  const mixture = mixtureOfPlan(palette, plan);
  const stands = againstTarget(plan.lab, target);
  return {
    mixture,
    flat: flatOn(palette, mixture),
    ...stands,
    steadiness: steadinessOf(mixture, paintOn(palette), palette.eye.light),
    expected: expectedDifference(stands.deltaE00, error, dosing),
    score,
  };
}
