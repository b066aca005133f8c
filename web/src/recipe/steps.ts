import { isTube, stepsOf as stepsOfMixture, type HeapSteps, type Leaf, type Mixture, type PaintCurves } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import type { Tube } from '../stores/tubes.ts';
import { handlingOf, sourceName } from './handling.ts';

export type { HeapSteps, Step } from '@dusk/core';

/** What a mixture is shown with. */
export interface Known {
  readonly tubes: ReadonlyMap<string, Tube>;
  readonly piles: ReadonlyMap<string, Pick<PileDto, 'name'>>;
  readonly paintOf: (source: Leaf) => PaintCurves;
}

/** A mixture measured out for a pile of `ml`, of this studio's tubes and piles. */
export const stepsOf = (mixture: Mixture, ml: number, { tubes, piles, paintOf }: Known): HeapSteps[] =>
  stepsOfMixture(mixture, ml, {
    paintOf,
    nameOf: (leaf) => sourceName(leaf, tubes, piles),
    handlingOf: handlingOf(tubes),
    cautionOf: (leaf) => (isTube(leaf) ? (tubes.get(leaf.tube)?.caution ?? 'none') : 'none'),
  });
