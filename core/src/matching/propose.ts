import { isHeap, isTube, type Leaf, type Mixture } from '../mixing/mixture.ts';
import type { Recipe } from './recipe.ts';

/** What a name on the palette stands for: a tube in its state, or a pile at its stage. */
export type SourceOfName = (id: string) => Leaf;

/**
 * The mixture of a recipe with its names replaced by what they stand for. This is the one place where
 * a proposed recipe becomes what is shown, kept and sent.
 */
export const mixtureOfRecipe = ({ mixture }: Pick<Recipe, 'mixture'>, sourceOf: SourceOfName): Mixture => ({
  heaps: mixture.heaps.map(({ ingredients }) => ({
    ingredients: ingredients.map((ingredient) =>
      isHeap(ingredient) ? ingredient : { ...sourceOf(isTube(ingredient) ? ingredient.tube : ingredient.pile), parts: ingredient.parts },
    ),
  })),
});
