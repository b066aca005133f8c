import type { Mixture } from '@dusk/core';
import { useDesk } from '../engine/useDesk.ts';
import { useTubes } from '../tubes/tubes.ts';
import { usePiles } from './piles.ts';
import { inShort, stepsOf, type HeapSteps, type Known } from './steps.ts';

/** Mixtures as this studio's tubes and piles show them. */
export function useKnown() {
  const tubes = useTubes();
  const piles = usePiles();
  const desk = useDesk();
  const known = (): Known => ({ tubes: tubes.byId, piles: piles.byId, paintOf: (source) => desk.paintOf(source).paint });
  const heapsOf = (mixture: Mixture, ml: number): HeapSteps[] => stepsOf(mixture, ml, known());
  const short = (mixture: Mixture): string => inShort(heapsOf(mixture, 1));
  return { known, heapsOf, short };
}
