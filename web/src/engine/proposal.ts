import {
  givesWay,
  mixtureOfRecipe,
  type Lab,
  type Leaf,
  type Mixture,
  type Offer,
  type Reach,
  type Recipe,
  type Rederived,
  type StringPlan,
  type TubeAdvice,
} from '@dusk/core';

/** A recipe as it leaves the engine: a mixture, and how it stands to what was asked. */
export interface Proposal {
  readonly mixture: Mixture;
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly valueError: number;
  readonly steadiness: number;
  /** What gives way where it does not reach, largest first. */
  readonly givesWay: readonly string[];
  /** What it is better at than the others on offer. */
  readonly betterAt?: string;
}

/** A recipe for an old colour from other tubes, and how far the two part under each light. */
export interface Remade extends Proposal {
  readonly differences: Rederived['differences'];
}

/** A pile of a string that is proposed; other piles of it stand in its mixture as `#` and their place. */
export interface ProposedInString {
  readonly target: Lab;
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly mixture: Mixture;
  readonly ml: number;
  readonly isPile?: string;
}
export interface ProposedString extends Omit<StringPlan, 'piles'> {
  readonly piles: readonly ProposedInString[];
}

/** The best recipe and its alternatives. */
export interface Proposed {
  readonly reach: Reach;
  readonly proposals: readonly Proposal[];
}

/** The nearest to a target out of reach, and the tubes that would bring it nearer. */
export interface NearestProposed {
  readonly kinds: readonly { readonly by: string; readonly proposal: Proposal }[];
  readonly tubes: readonly TubeAdvice[];
}

export function proposalOf(recipe: Recipe | Offer, sourceOf: (id: string) => Leaf): Proposal {
  const { lab, deltaE00, valueError, steadiness } = recipe;
  return {
    mixture: mixtureOfRecipe(recipe, sourceOf),
    lab,
    deltaE00,
    valueError,
    steadiness,
    givesWay: givesWay(recipe),
    ...('betterAt' in recipe && { betterAt: recipe.betterAt }),
  };
}
