// The piles of a painting as they lie: layer by layer, dark to light in each, and what is left of each.
import { mlText } from '@dusk/core';
import type { PileDto } from '@dusk/wire';

export interface Layer<Pile> {
  readonly layer: number;
  /** Whether it is the one that is painted now. */
  readonly isNow: boolean;
  readonly piles: readonly Pile[];
}

/** As a painter lays them: the layer that is painted now first, then from the top down; in each as they came. */
export function byLayer<Pile extends Pick<PileDto, 'layer'>>(piles: readonly Pile[], now: number): readonly Layer<Pile>[] {
  const layers = [...new Set(piles.map(({ layer }) => layer))].sort((a, b) => Number(b === now) - Number(a === now) || b - a);
  return layers.map((layer) => ({ layer, isNow: layer === now, piles: piles.filter((pile) => pile.layer === layer) }));
}

/** Whether a pile is yet to be mixed, lies there, or is gone. */
export function standingOf({ stages, there }: Pick<PileDto, 'stages' | 'there'>): string {
  if (stages.length === 0) return 'planned';
  if (there > 0) return `${mlText(there)} on the palette`;
  return stages.at(-1)!.kind === 'scraped' ? 'wiped off' : 'used up';
}
