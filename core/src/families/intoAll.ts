import { CraftError, finite } from '../errors.ts';
import { mixtureOf, type Leaf, type Mixture } from '../mixing/mixture.ts';
import { wholeParts } from '../mixing/measures.ts';

/** How much of one pile goes into the others, as shares of them: from a hint to a quarter. */
export const TIES = [1 / 40, 1 / 24, 1 / 16, 1 / 12, 1 / 8, 1 / 6, 1 / 4] as const;
const MOST_TIE = 0.5;

/**
 * A little of one pile let into another, to tie a picture's colours together.
 * @param share of the new pile that is the tie
 * @throws CraftError for a share that is more than a little
 */
export function tied(pile: Leaf, tie: Leaf, share: number): Mixture {
  if (!(finite('parts', 'What goes into all', share) > 0 && share <= MOST_TIE))
    throw new CraftError('parts', `A little of it is up to half; this is ${share}.`);
  const [own, into] = wholeParts([1 - share, share]);
  return mixtureOf([
    { ...pile, parts: own! },
    { ...tie, parts: into! },
  ]);
}
