// A palette laid out in the engine: the easel's, or any other.
import { CraftError, type Lab } from '@dusk/core';
import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import type { LaidTube } from '../engine/jobs.ts';
import type { Proposal } from '../engine/proposal.ts';
import type { Tube } from './tubes.ts';

/** A tube as the engine takes it. */
export const laidTube = ({ id, stateId, paint, basis, drying, caution, nozzleMm }: Tube): LaidTube => ({
  id,
  state: stateId,
  K: paint.K,
  S: paint.S,
  ...(paint.doubt && { doubt: paint.doubt }),
  basis,
  drying,
  caution,
  nozzleMm,
});

/** The best recipe for a colour from some tubes alone, laid out for this one question; nothing where none is found. */
export async function recipeFrom(tubes: readonly Tube[], target: Lab, amountMl: number): Promise<Proposal | undefined> {
  const desk = await engine().lay({ tubes: tubes.map(laidTube), piles: [] }, { prepared: false });
  const found = await unlessGivenUp(engine().ask('solve', { target, wishes: { amountMl } }, { desk })).finally(() => engine().clear(desk));
  return found?.proposals[0];
}

/**
 * Tubes laid out for mixing; anew whenever one of them, or its curves, is another. A desk that is no longer wanted is cleared.
 * @returns the desk once it is laid, and why it could not be, in a painter's words
 */
export function useLaid(tubes: () => readonly Tube[]): { readonly desk: ShallowRef<Desk | undefined>; readonly failure: Ref<string> } {
  const desk = shallowRef<Desk>();
  const failure = ref('');
  let laying: AbortController | undefined;
  function clear(): void {
    laying?.abort();
    if (desk.value) engine().clear(desk.value);
    desk.value = undefined;
    failure.value = '';
  }
  async function lay(chosen: readonly Tube[]): Promise<void> {
    clear();
    if (chosen.length === 0) return;
    const own = (laying = new AbortController());
    try {
      const laid = await unlessGivenUp(engine().lay({ tubes: chosen.map(laidTube), piles: [] }, { signal: own.signal }));
      if (!own.signal.aborted) desk.value = laid;
    } catch (cause) {
      if (own.signal.aborted) return;
      if (!(cause instanceof CraftError)) throw cause;
      failure.value = cause.message;
    }
  }
  watch(
    () =>
      tubes()
        .map((t) => `${t.id} ${t.stateId}`)
        .join(),
    () => void lay(tubes()),
    { immediate: true },
  );
  onScopeDispose(clear);
  return { desk, failure };
}
