// Files of cards as they are read: what they hold, and ids made of what a thing is.
import { createHash } from 'node:crypto';
import { CraftError, readCardsInSteps, type CardsRead, type CardTube } from '@dusk/core';
import { ProblemError } from '../refusing/problems.ts';

/** A file of cards with what it holds. */
export interface FileRead extends CardsRead {
  readonly id: string;
  readonly name: string;
}

/** Lets whoever else asks be answered. */
export const othersTurn = (): Promise<void> => new Promise((turn) => setImmediate(turn));

/** The files that were read last: whoever looks at one brings it in next. */
const lately = new Map<string, FileRead>();
const MOST_LATELY = 2;

/** Reads a file, others having their turn between its cards. @throws ProblemError, a sentence, where it is none of cards */
export async function readFile(id: string, name: string, bytes: Buffer): Promise<FileRead> {
  const known = lately.get(id);
  if (known) return { ...known, name };
  try {
    const reading = readCardsInSteps(bytes.toString('utf8'));
    for (;;) {
      const { done, value } = reading.next();
      if (!done) {
        await othersTurn();
        continue;
      }
      const file = { id, name, ...value };
      lately.set(id, file);
      if (lately.size > MOST_LATELY) lately.delete(lately.keys().next().value!);
      return file;
    }
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    throw new ProblemError(422, 'No file of cards', cause.message);
  }
}

export const hashOf = (...parts: readonly (string | Buffer)[]): string => {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part).update('\0');
  return hash.digest('hex');
};
/** An id made of what a thing is: the same thing always has the same. */
export const idFrom = (...parts: readonly string[]): string => {
  const hex = hashOf(...parts);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-5${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};
/** What a tube of a file is, whatever it is called by there. */
export function tubeId({ name, pigment, colourIndex, K, S }: CardTube): string {
  // All cards of a file that take from a tube share its curves.
  let id = tubeIds.get(K);
  if (id === undefined) {
    id = hashOf(JSON.stringify([name, pigment, colourIndex]), JSON.stringify([Array.from(K), Array.from(S)]));
    tubeIds.set(K, id);
  }
  return id;
}
const tubeIds = new WeakMap<Float64Array, string>();
