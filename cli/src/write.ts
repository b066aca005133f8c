import { CATALOGUE, labToHex, trustIn, type Lab, type Recipe } from '@dusk/core';
import { rounded, roundedList } from './command.ts';

export const writtenShares = (flat: Readonly<Record<string, number>>): Record<string, number> =>
  Object.fromEntries(Object.entries(flat).map(([id, share]) => [id, rounded(share, 9)]));

/** ΔE00 that nine of ten mixtures from real tubes of these generic pigments stay within. */
const errorEstimate = ({ flat }: Recipe): number =>
  rounded(trustIn(Object.entries(flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts }))).errorEstimate, 2);

/** A recipe as every command writes it. */
export const writtenRecipe = (recipe: Recipe) => ({
  parts: Object.fromEntries(recipe.measures.map(({ ingredient, parts }) => [ingredient.id, parts])),
  letdowns: recipe.letdowns,
  flat: writtenShares(recipe.flat),
  deltaE00: rounded(recipe.deltaE00),
  valueError: rounded(recipe.valueError),
  lab: roundedList(recipe.lab),
  steadiness: rounded(recipe.steadiness),
  errorEstimate: errorEstimate(recipe),
});

export const writtenColour = (lab: Lab) => ({ lab: roundedList(lab), hex: labToHex(lab) });
export const writtenDoses = (doses: readonly { readonly id: string; readonly parts: number }[]): Record<string, number> =>
  Object.fromEntries(doses.map(({ id, parts }) => [id, rounded(parts)]));
