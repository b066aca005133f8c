import { valueOfLightness } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { isTube, mixtureOf } from '../mixing/mixture.ts';
import { leavesOf } from '../mixing/open.ts';
import { steadinessOf } from '../mixing/predict.ts';
import type { Palette } from '../laying/palette.ts';
import { rankingFor, valueCost } from '../laying/ranking.ts';
import { againstTarget, flatOn, paintOn, sourceOn, type Recipe } from './recipe.ts';
import { nearestShares } from '../laying/shares.ts';

/** What a mixture costs against a target: ΔE00 and the value beyond tolerance. */
export function mismatch(target: Lab, valueTolerance?: number): (lab: Lab) => number {
  const ranking = rankingFor(target, valueTolerance);
  return ([L, a, b]) => ranking.deltaE(L, a, b) + valueCost(ranking, valueOfLightness(Math.max(0, L)));
}

/** ΔE00 from which exact proportions are exact. */
const EXACTLY = 1e-3;

/** Exact proportions of a recipe, for people with a scale. */
export type Polished = Pick<Recipe, 'mixture' | 'flat' | 'lab' | 'deltaE00' | 'valueError' | 'hueError' | 'chromaError' | 'steadiness'>;

/** Exact proportions of a recipe's ingredients, for people with a scale. Never worse than the recipe itself. */
export function polish(palette: Palette, recipe: Recipe, target: Lab, valueTolerance?: number): Polished {
  const index = new Map(palette.ingredients.map(({ id }, i) => [id, i]));
  const leaves = leavesOf(recipe.mixture);
  if (leaves.length > 4) return recipe;
  const set = leaves.map(({ source }) => index.get(isTube(source) ? source.tube : source.pile)!);
  const exact = nearestShares(
    palette,
    set,
    leaves.map(({ share }) => share),
    target,
    undefined,
    undefined,
    EXACTLY,
  );
  const cost = mismatch(target, valueTolerance);
  if (!exact || cost(exact.lab) >= cost(recipe.lab)) return recipe;
  const mixture = mixtureOf(set.map((i, k) => ({ ...sourceOn(palette.ingredients[i]!), parts: exact.shares[k]! })));
  return {
    mixture,
    flat: flatOn(palette, mixture),
    ...againstTarget(exact.lab, target),
    steadiness: steadinessOf(mixture, paintOn(palette), palette.eye.light),
  };
}
