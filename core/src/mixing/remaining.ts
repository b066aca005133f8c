import type { Millilitres } from './units.ts';

/** What happens to how much there is of a pile: paint put in, paint taken out, or what is left said. */
export interface Happening {
  readonly in?: Millilitres;
  readonly out?: Millilitres;
  readonly left?: Millilitres;
}

/**
 * How much of a pile there is: what was last said to be left, plus what went in since, minus what was
 * taken since. Never below nothing: a knife takes up more than is written down.
 */
export const remaining = (happenings: readonly Happening[]): Millilitres =>
  happenings.reduce((ml, { in: more = 0, out = 0, left }) => (left === undefined ? Math.max(0, ml + more - out) : left), 0);
