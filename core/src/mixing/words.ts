import { CraftError } from '../errors.ts';

/** Parts that were logged in a word: what it most likely means, and the range it may. */
export interface UncertainParts {
  readonly parts: number;
  readonly range: readonly [least: number, most: number];
}

/** Painters' words for amounts, in parts of a pile of some twelve. */
const WORDS: Readonly<Record<string, UncertainParts>> = {
  mostly: { parts: 8, range: [6, 12] },
  half: { parts: 6, range: [5, 7] },
  much: { parts: 5, range: [3.5, 7] },
  some: { parts: 2.5, range: [1.5, 4] },
  'a little': { parts: 1, range: [0.6, 1.8] },
  'a touch': { parts: 0.4, range: [0.2, 0.8] },
  'a speck': { parts: 0.1, range: [0.02, 0.25] },
};
/** Words in which amounts are told, the largest first, and from how many parts of twelve on. */
const TOLD: readonly (readonly [word: string, from: number])[] = [
  ['mostly', 6.5],
  ['half', 5.5],
  ['much', 3.7],
  ['some', 1.7],
  ['a little', 0.7],
  ['a touch', 0.22],
  ['a speck', 0],
];

/** The word for so many parts of a pile of twelve; its range holds them. */
export const wordForParts = (parts: number): string => TOLD.find(([, from]) => parts >= from)![0];

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
