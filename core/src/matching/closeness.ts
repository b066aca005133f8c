import { IN_REACH } from '../laying/worth.ts';
import { NEAR_REACH } from './solve.ts';

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
