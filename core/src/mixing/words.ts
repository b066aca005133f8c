import { CraftError } from '../errors.ts';

/** Parts that were logged in a word: what it most likely means, and the range it may. */
export interface UncertainParts {
  readonly parts: number;
  readonly range: readonly [least: number, most: number];
}

/** Painters' words for amounts, in parts of a pile of some twelve. */
const WORDS: Readonly<Record<string, UncertainParts>> = {
  mostly: { parts: 8, range: [6, 11] },
  half: { parts: 6, range: [5, 7] },
  much: { parts: 5, range: [3.5, 7] },
  some: { parts: 2.5, range: [1.5, 4] },
  'a little': { parts: 1, range: [0.6, 1.8] },
  'a touch': { parts: 0.4, range: [0.2, 0.8] },
  'a speck': { parts: 0.1, range: [0.04, 0.25] },
};

export const PART_WORDS: readonly string[] = Object.keys(WORDS);

/**
 * What a word for an amount means.
 * @throws CraftError for a word that is none of {@link PART_WORDS}
 */
export function partsInWords(word: string): UncertainParts {
  const known = WORDS[word.trim().toLowerCase()];
  if (!known) throw new CraftError('parts', `${JSON.stringify(word)} is no amount; words are ${PART_WORDS.join(', ')}.`);
  return known;
}
