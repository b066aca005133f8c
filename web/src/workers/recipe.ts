import type { Lab, Offer, Reach, Recipe, TubeAdvice } from '@dusk/core';
import type { PileMeasure } from '@dusk/wire';

/** Parts of a tube, or of a let-down made of tubes first, as plain data. */
export interface RecipeMeasure {
  readonly parts: number;
  readonly tubeId?: string;
  readonly letdown?: readonly { readonly tubeId: string; readonly parts: number }[];
}

/** A recipe as it leaves the worker. */
export interface PlainRecipe {
  readonly measures: readonly RecipeMeasure[];
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly valueError: number;
  readonly hueError: number;
  readonly chromaError: number;
  readonly steadiness: number;
  /** ΔE00 that nine of ten mixtures from real tubes stay within. */
  readonly errorEstimate: number;
  readonly betterAt?: string;
}

/** The nearest to a target out of reach, and the tubes that would bring it nearer. */
export interface PlainNearest {
  readonly kinds: readonly { readonly by: string; readonly recipe: PlainRecipe; readonly givesWay: readonly string[] }[];
  readonly tubes: readonly TubeAdvice[];
}

/** The best recipe and its alternatives. */
export interface PlainAnswer {
  readonly reach: Reach;
  readonly recipes: readonly PlainRecipe[];
}

export function plain(recipe: Recipe | Offer, errorEstimate: number): PlainRecipe {
  const { lab, deltaE00, valueError, hueError, chromaError, steadiness } = recipe;
  const measures = recipe.measures.map(({ ingredient, parts }) =>
    ingredient.letdown
      ? { parts, letdown: Object.entries(ingredient.letdown.parts).map(([tubeId, n]) => ({ tubeId, parts: n })) }
      : { parts, tubeId: ingredient.id },
  );
  return {
    measures,
    lab,
    deltaE00,
    valueError,
    hueError,
    chromaError,
    steadiness,
    errorEstimate,
    ...('betterAt' in recipe && { betterAt: recipe.betterAt }),
  };
}

/** Measures as a pile is sent with. */
export const sentMeasures = (measures: readonly RecipeMeasure[]): PileMeasure[] =>
  measures.map(({ parts, tubeId, letdown }) => (letdown ? { parts, letdown: [...letdown] } : { parts, tubeId: tubeId! }));
