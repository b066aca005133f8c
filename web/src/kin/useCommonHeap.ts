import { isTube, LEAST_PILES, leavesOf, openToTubes, type CommonHeap, type PlannedPile } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePiles } from '../stores/piles.ts';

/** A list that stays as it is for so long is looked through, ms. */
const SETTLED_MS = 300;

/** The one heap that several of the planned piles could begin with: looked for aside, whenever plans change. */
export function useCommonHeap(planned: Ref<readonly PileDto[]>) {
  const desk = useDesk();
  const piles = usePiles();
  const found = shallowRef<CommonHeap>();
  let asking: AbortController | undefined;
  onScopeDispose(() => asking?.abort());

  /** Of tubes of this palette alone, and nothing rests on it: what is planned from it would change, too. */
  const asPlanned = (pile: PileDto): PlannedPile[] => {
    const { id, plan, ml, target, predicted } = pile;
    const leaves = leavesOf(plan);
    if (!leaves.every(({ source }) => isTube(source)) || piles.stranded.has(id) || piles.childrenOf(id).length > 0) return [];
    const lab = labOfDto(predicted.lab);
    return [{ id, lab, target: target ? labOfDto(target.lab) : lab, mixture: plan, flat: openToTubes(plan, () => ({})), amountMl: ml }];
  };

  watch(
    [() => planned.value.map(({ id, version }) => `${id} ${version}`).join(), () => desk.desk] as const,
    async ([, palette]) => {
      asking?.abort();
      found.value = undefined;
      const own = (asking = new AbortController());
      const some = planned.value.flatMap(asPlanned);
      if (!palette || some.length < LEAST_PILES) return;
      await new Promise((done) => setTimeout(done, SETTLED_MS));
      if (own.signal.aborted) return;
      const answer = await unlessGivenUp(engine().ask('common', { piles: some }, { signal: own.signal, desk: palette }));
      if (!own.signal.aborted) found.value = answer;
    },
    { immediate: true },
  );
  return found;
}
