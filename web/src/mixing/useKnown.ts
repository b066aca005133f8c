import { inShort, leavesOf, type Mixture } from '@dusk/core';
import { useDesk } from '../engine/useDesk.ts';
import { useTubes } from '../tubes/tubes.ts';
import { useSettings } from '../shell/settings.ts';
import { usePiles } from './piles.ts';
import { stepsOf, type HeapSteps, type Known } from './steps.ts';

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
  /** The same, where piles are called otherwise than here: those of a string that is not kept yet by their places. */
  const shortWith = (mixture: Mixture, nameOf: (pileId: string) => string | undefined, ml: number): string => {
    const called = new Map(piles.byId);
    for (const { source } of leavesOf(mixture)) {
      const name = 'pile' in source ? nameOf(source.pile) : undefined;
      if ('pile' in source && name !== undefined) called.set(source.pile, { ...piles.list[0]!, name });
    }
    return inShort(stepsOf(mixture, ml, { ...known(), piles: called }), settings.settings.measure);
  };
  return { known, heapsOf, short, shortWith };
}
