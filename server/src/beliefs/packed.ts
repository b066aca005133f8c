// How beliefs and shares lie in the file: a line of JSON, then 64-bit numbers as every machine of today has them (little-endian).
import type { Beliefs, PileShare } from '@dusk/core';

/** All that is believed after some evidence. */
export interface Folded {
  readonly beliefs: Beliefs;
  /** By tube: how many piles spoke of it, and what said so last. */
  readonly tally: Readonly<Record<string, Spoken>>;
  /** How many piles that was. */
  readonly piles: number;
}

export interface Spoken {
  readonly piles: number;
  readonly beliefId: string;
}

/** Raised whenever the same evidence would teach something else: what was folded before counts no more. */
const MADE_BY = 1;

function pack(head: object, numbers: readonly number[]): Buffer {
  const line = Buffer.from(`${JSON.stringify({ madeBy: MADE_BY, ...head })}\n`);
  return Buffer.concat([line, new Uint8Array(Float64Array.from(numbers).buffer)]);
}

/** Nothing where another make of this program packed it. */
function unpack<Head>(bytes: Buffer): { readonly head: Head; readonly numbers: Float64Array } | undefined {
  const end = bytes.indexOf('\n');
  const head = JSON.parse(bytes.toString('utf8', 0, end)) as Head & { madeBy: number };
  if (head.madeBy !== MADE_BY) return undefined;
  // Copied, since numbers must begin at a multiple of their size.
  return { head, numbers: new Float64Array(Uint8Array.from(bytes.subarray(end + 1)).buffer) };
}

/** A symmetric matrix, its upper half row by row. */
const half = (rows: readonly (readonly number[])[]): number[] => rows.flatMap((row, i) => row.slice(i));
function whole(numbers: ArrayLike<number>, size: number): number[][] {
  const rows = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  let at = 0;
  for (let i = 0; i < size; i++) for (let j = i; j < size; j++) rows[i]![j] = rows[j]![i] = numbers[at++]!;
  return rows;
}

export const packFolded = ({ beliefs: { ids, mean, covariance }, tally, piles }: Folded): Buffer =>
  pack({ ids, tally, piles }, [...mean, ...half(covariance)]);

export function unpackFolded(bytes: Buffer): Folded | undefined {
  const found = unpack<{ ids: string[]; tally: Folded['tally']; piles: number }>(bytes);
  if (!found) return undefined;
  const { ids, tally, piles } = found.head;
  const size = ids.length * 3;
  return {
    beliefs: { ids, mean: [...found.numbers.subarray(0, size)], covariance: whole(found.numbers.subarray(size), size) },
    tally,
    piles,
  };
}

export const packShare = ({ ids, pull, precision }: PileShare): Buffer => pack({ ids }, [...pull, ...half(precision)]);

export function unpackShare(bytes: Buffer): PileShare | undefined {
  const found = unpack<{ ids: string[] }>(bytes);
  if (!found) return undefined;
  const size = found.head.ids.length * 3;
  return { ids: found.head.ids, pull: [...found.numbers.subarray(0, size)], precision: whole(found.numbers.subarray(size), size) };
}
