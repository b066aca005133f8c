import { inShort, paintOfMixture, type Leaf, type Mixture, type PaintCurves } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { useDesk } from '../stores/useDesk.ts';
import { useTubes } from '../stores/tubes.ts';
import { useSettings } from '../stores/settings.ts';
import { usePiles } from '../stores/piles.ts';
import { stepsOf, type HeapSteps, type Known } from './steps.ts';

/** A pile that is not kept yet. */
export interface Planned {
  readonly name: string;
  readonly mixture: Mixture;
}

/** Mixtures as this studio's tubes and piles show them. */
export function useKnown() {
  const tubes = useTubes();
  const piles = usePiles();
  const desk = useDesk();
  const settings = useSettings();
  const known = (): Known => ({ tubes: tubes.byId, piles: piles.byId, paintOf: (source) => desk.paintOf(source).paint });
  const heapsOf = (mixture: Mixture, ml: number): HeapSteps[] => stepsOf(mixture, ml, known());
  /** In the painter's way of measuring, for an amount; the usual one unless it is said. */
  const short = (mixture: Mixture, ml: number = settings.settings.amountMl): string =>
    inShort(heapsOf(mixture, ml), settings.settings.measure);
  /** The same, where some piles are not kept yet, as those of a string: what they are called and made of is said. */
  const shortWith = (mixture: Mixture, planned: ReadonlyMap<string, Planned>, ml: number): string => {
    const called = new Map<string, Pick<PileDto, 'name'>>(piles.byId);
    for (const [id, { name }] of planned) called.set(id, { name });
    const paintOf = (source: Leaf): PaintCurves => {
      const own = 'pile' in source ? planned.get(source.pile) : undefined;
      return own ? paintOfMixture(own.mixture, paintOf) : desk.paintOf(source).paint;
    };
    return inShort(stepsOf(mixture, ml, { tubes: tubes.byId, piles: called, paintOf }), settings.settings.measure);
  };
  return { known, heapsOf, short, shortWith };
}
