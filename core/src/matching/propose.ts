import type { Heap, Ingredient, Leaf, Mixture } from '../mixing/mixture.ts';
import type { Recipe } from './recipe.ts';

/** What a name on the palette stands for: a tube in its state, or a pile at its stage. */
export type SourceOfName = (id: string) => Leaf;

/**
 * A recipe as a mixture: its let-downs are heaps of their own before the pile. This is the one place
 * where a proposed recipe becomes what is shown, kept and sent.
 */
export function mixtureOfRecipe({ measures }: Pick<Recipe, 'measures'>, sourceOf: SourceOfName): Mixture {
  const heaps: Heap[] = [];
  const ingredients = measures.map(({ ingredient, parts }): Ingredient => {
    if (!ingredient.letdown) return { ...sourceOf(ingredient.id), parts };
    const inside = Object.entries(ingredient.letdown.parts).map(([id, n]): Ingredient => ({ ...sourceOf(id), parts: n }));
    heaps.push({ ingredients: inside });
    return { heap: heaps.length - 1, parts };
  });
  return { heaps: [...heaps, { ingredients }] };
}
