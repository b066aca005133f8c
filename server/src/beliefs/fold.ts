// Folds evidence pile by pile: plain data in and out, so that a worker can do it as well.
import { afterEvidence, firstBeliefs, shareOf } from '@dusk/core';
import type { PileEvidence } from './evidence.ts';
import { packFolded, packShare, type Folded } from './packed.ts';

export interface TubeCurves {
  readonly id: string;
  readonly K: Float64Array;
  readonly S: Float64Array;
}

export interface FoldedPile {
  readonly pileId: string;
  readonly share: Uint8Array;
  /** What is believed after it. */
  readonly after: Folded;
}

export const NOTHING_FOLDED: Folded = { beliefs: firstBeliefs([]), tally: {}, piles: 0 };

/** Folds piles one after the other. @param tubes curves of at least the tubes in them */
export function* foldOn(from: Folded, evidence: readonly PileEvidence[], tubes: readonly TubeCurves[]): Generator<FoldedPile> {
  let before = from;
  for (const pile of evidence) {
    const { pileId, beliefId, tubeIds } = pile;
    const beliefs = afterEvidence([pile], tubes, before.beliefs);
    const tally = { ...before.tally };
    for (const id of tubeIds) tally[id] = { piles: (tally[id]?.piles ?? 0) + 1, beliefId };
    const after = { beliefs, tally, piles: before.piles + 1 };
    yield { pileId, share: packShare(shareOf(before.beliefs, beliefs, tubeIds)), after };
    before = after;
  }
}

/** What a worker is sent, and what it answers with. */
export interface FoldAsked {
  readonly from: Folded;
  readonly evidence: readonly PileEvidence[];
  readonly tubes: readonly TubeCurves[];
}

export interface FoldAnswered {
  readonly shares: readonly { readonly pileId: string; readonly share: Uint8Array }[];
  /** What is believed after the last few of them. */
  readonly snapshots: readonly { readonly pileId: string; readonly piles: number; readonly snapshot: Uint8Array }[];
}

/** Piles behind the last one that get a snapshot too, so that a look at one of them takes no long fold. */
const LAST = 4;

export function foldAll({ from, evidence, tubes }: FoldAsked): FoldAnswered {
  const piles = [...foldOn(from, evidence, tubes)];
  return {
    shares: piles.map(({ pileId, share }) => ({ pileId, share })),
    snapshots: piles.slice(-LAST).map(({ pileId, after }) => ({ pileId, piles: after.piles, snapshot: packFolded(after) })),
  };
}
