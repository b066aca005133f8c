import { IN_REACH } from '../laying/worth.ts';
import type { Mixture } from '../mixing/mixture.ts';
import { NEAR_REACH, reachOf, type Reach } from './passing.ts';

/** Half of what still passes counts as a match. */
const MATCH = IN_REACH / 2;

/** How far off a mixture is, in words, of ΔE00; what an eye at the easel lets pass is {@link IN_REACH}. */
export function closeness(deltaE00: number): string {
  if (deltaE00 < MATCH) return 'a match';
  if (deltaE00 < IN_REACH) return 'close';
  if (deltaE00 < NEAR_REACH) return 'near';
  return 'not with these tubes';
}

/** How alike two colours are, in words, of ΔE00. */
export const likeness = (deltaE00: number): string => (deltaE00 < NEAR_REACH ? closeness(deltaE00) : 'plainly another');

const HEAPS = ['one heap', 'two heaps', 'three heaps', 'four heaps'] as const;

/** How far off a recipe is, in words, told apart from what its tubes could come to with more work. */
export function closenessWithin(
  recipe: { readonly deltaE00: number; readonly valueError: number; readonly mixture: Mixture },
  reach: Reach,
): string {
  const { deltaE00, mixture } = recipe;
  const own = reachOf(recipe);
  if (own === 'in' || own === reach) return closeness(deltaE00);
  const heaps = HEAPS[mixture.heaps.length - 1] ?? `${mixture.heaps.length} heaps`;
  return `${own === 'out' ? 'far off' : closeness(deltaE00)}, in ${heaps}; these tubes come ${reach === 'in' ? 'to a match' : 'nearer'} with more work`;
}
