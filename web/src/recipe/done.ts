import type { PileDto } from '@dusk/wire';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** Steps of a plan that were ticked; another plan begins anew. */
interface Ticked {
  readonly plan: string;
  readonly steps: readonly number[];
}

const planText = ({ plan, ml }: PileDto): string => JSON.stringify([plan.heaps, ml]);

/** Which steps of which piles the painter has done, kept in this browser until the pile is mixed. */
export const useDone = defineStore('done', () => {
  const all = useLocalStorage<Record<string, Ticked>>('dusk.ticked', {});
  function stepsOf(pile: PileDto): readonly number[] {
    const known = all.value[pile.id];
    return known?.plan === planText(pile) ? known.steps : [];
  }
  function tick(pile: PileDto, step: number): void {
    const known = stepsOf(pile);
    const steps = known.includes(step) ? known.filter((one) => one !== step) : [...known, step].sort((a, b) => a - b);
    all.value = { ...all.value, [pile.id]: { plan: planText(pile), steps } };
  }
  function forget(id: string): void {
    all.value = Object.fromEntries(Object.entries(all.value).filter(([pile]) => pile !== id));
  }
  return { stepsOf, tick, forget };
});
