import { folded } from '@dusk/core';
import type { Tube } from '../stores/tubes.ts';

/** Whether a tube fits what was typed: every word in its name, maker, Colour Index name or character. */
export function matches(tube: Tube, wanted: string | null): boolean {
  const text = folded([tube.name, tube.maker || 'generic', tube.colourIndex, tube.character, tube.caution].join(' '));
  return folded(wanted ?? '')
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** How well a tube's name answers what was typed: every word begins one of its own, in order, above all. */
function nameRank(tube: Tube, words: readonly string[]): number {
  const own = folded(tube.name).split(/[\s-]+/);
  const begun = words.filter((word) => own.some((one) => one.startsWith(word))).length;
  const isInOrder = words.every((word, i) => own[i]?.startsWith(word));
  // Between two that answer alike the shorter name says less that was not asked for.
  return 10 * begun + (isInOrder ? 5 : 0) - own.length / 10;
}

/** Tubes that fit what was typed, the best name first. */
export function bestFirst(tubes: readonly Tube[], wanted: string | null): Tube[] {
  const words = folded(wanted ?? '')
    .split(/\s+/)
    .filter(Boolean);
  if (words.length === 0) return [...tubes];
  return tubes
    .map((tube) => ({ tube, rank: nameRank(tube, words) }))
    .sort((one, other) => other.rank - one.rank)
    .map(({ tube }) => tube);
}
