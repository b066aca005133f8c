import type { Emphasis, Hold, Wishes } from '@dusk/core';
import { defineStore } from 'pinia';
import { reactive } from 'vue';
import type { Proposal } from '../engine/proposal.ts';

/** What recipes may be taken from: tubes, the piles on the palette too, or these alone. */
export const TAKEN_FROM = ['tubes', 'both', 'piles'] as const;
export type TakenFrom = (typeof TAKEN_FROM)[number];

/** What a painter asks of the recipe for one pile. */
export interface Wished {
  leftOut: string[];
  must: string[];
  most: number | undefined;
  parts: number | undefined;
  minding: Emphasis;
  hold: Hold | '';
  from: TakenFrom;
  /** Exact shares, for a scale. */
  exactly: boolean;
  pinned: Proposal | undefined;
}

const nothingAsked = (): Wished => ({
  leftOut: [],
  must: [],
  most: undefined,
  parts: undefined,
  minding: 'usual',
  hold: '',
  from: 'tubes',
  exactly: false,
  pinned: undefined,
});

/** What was asked of each pile's recipe, for as long as this window is open. */
export const useWished = defineStore('wished', () => {
  const byPile = reactive(new Map<string, Wished>());
  function of(pileId: string): Wished {
    if (!byPile.has(pileId)) byPile.set(pileId, nothingAsked());
    return byPile.get(pileId)!;
  }
  return { of };
});

/** Left out, and back. What must be in it cannot be left out. */
export function leaveOut(wished: Wished, id: string): void {
  wished.must = wished.must.filter((one) => one !== id);
  wished.leftOut = wished.leftOut.includes(id) ? wished.leftOut.filter((one) => one !== id) : [...wished.leftOut, id];
}
/** In it whatever else is, and free again. */
export function mustHave(wished: Wished, id: string): void {
  wished.leftOut = wished.leftOut.filter((one) => one !== id);
  wished.must = wished.must.includes(id) ? wished.must.filter((one) => one !== id) : [...wished.must, id];
}

/** What is wished of the engine, of what lies on the desk. */
export function wishesOf(wished: Wished, dulling: Wishes['dulling'], there: (id: string) => boolean): Wishes {
  const exclude = wished.leftOut.filter(there);
  const mustUse = wished.must.filter(there);
  return {
    emphasis: wished.minding,
    ...(dulling && { dulling }),
    ...(exclude.length > 0 && { exclude }),
    ...(mustUse.length > 0 && { mustUse }),
    ...(wished.most !== undefined && { most: wished.most }),
    ...(wished.parts !== undefined && { parts: wished.parts }),
    ...(wished.hold !== '' && { hold: wished.hold }),
    ...(wished.from === 'piles' && { onlyPiles: true }),
  };
}
