import { BY_KNIFE, isTube, type Handling, type Leaf, type Source } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import type { Tube } from '../stores/tubes.ts';

type Tubes = ReadonlyMap<string, Tube>;
type Piles = ReadonlyMap<string, Pick<PileDto, 'name'>>;

export const handlingOf =
  (tubes: Tubes) =>
  (source: Leaf): Handling =>
    (isTube(source) ? tubes.get(source.tube) : undefined) ?? BY_KNIFE;

/** What a source is called; heaps are named by their mixture. */
export function sourceName(source: Source, tubes: Tubes, piles: Piles): string {
  if (isTube(source)) return tubes.get(source.tube)?.name ?? 'a tube that is gone';
  return 'pile' in source ? (piles.get(source.pile)?.name ?? 'another pile') : 'the mix before';
}

/** L* from which a paint is one that others are let down with. */
const PALE = 85;
export const isPale =
  (tubes: Tubes) =>
  (source: Leaf): boolean =>
    isTube(source) && (tubes.get(source.tube)?.masstone[0] ?? 0) > PALE;
