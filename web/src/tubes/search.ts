import { deltaE00, folded, valueOfLightness, type Lab } from '@dusk/core';
import { askedFor } from '../stores/asked.ts';
import type { Tube } from '../stores/tubes.ts';

/** Whether a tube fits what was typed: every word in its name, maker, Colour Index name or character. */
export function matches(tube: Tube, wanted: string | null): boolean {
  const text = folded([tube.name, tube.maker || 'generic', tube.colourIndex, tube.character, tube.caution].join(' '));
  return folded(wanted ?? '')
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** A tube's colours: straight from the tube, and with white. */
const coloursOf = ({ masstone, tint }: Tube): readonly Lab[] => [masstone, tint];

/**
 * Tubes as a line asks for them, such as “transparent, value 3 to 5” or “like olive green”: nearest first where a colour
 * is said, else dark to light.
 * @param leanOf what a colour's temperature is called
 */
export function rackFor(tubes: readonly Tube[], line: string, leanOf: (lab: Lab) => string): Tube[] {
  const { words, near, darkest = 0, lightest = 10, temperature } = askedFor(line, []);
  const isBetween = (tube: Tube): boolean => {
    const [from, to] = coloursOf(tube).map(([L]) => valueOfLightness(L)) as [number, number];
    return Math.min(from, to) <= lightest && Math.max(from, to) >= darkest;
  };
  const found = tubes.filter(
    (tube) =>
      matches(tube, words) && isBetween(tube) && (temperature === undefined || leanOf(tube.masstone).split(' ').includes(temperature)),
  );
  const from = near
    ? (tube: Tube) => Math.min(...coloursOf(tube).map((lab) => deltaE00(lab, near.lab)))
    : ({ masstone }: Tube) => masstone[0];
  return found.sort((one, other) => from(one) - from(other));
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
