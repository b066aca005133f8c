import { shallowRef, watch, type ShallowRef } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { AlikeFound } from '../engine/rack.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';

/** Tubes of a rack that are alike, or ready mixed; asked anew whenever one of them is another. */
export function useAlike(rack: () => readonly Tube[]): ShallowRef<AlikeFound | undefined> {
  const tubes = useTubes();
  const found = shallowRef<AlikeFound>();
  let asking: AbortController | undefined;
  watch(
    () =>
      rack()
        .map(({ stateId }) => stateId)
        .join(),
    async () => {
      asking?.abort();
      const own = (asking = new AbortController());
      const white = tubes.all.find(({ pigment, maker }) => pigment === 'titanium-white' && maker === '');
      const among = rack();
      if (!white || among.length < 2) return void (found.value = undefined);
      const { K, S } = white.paint;
      const needs = {
        tubes: among.map(({ id, pigments, paint }) => ({ id, pigments: [...pigments], K: paint.K, S: paint.S })),
        white: { K, S },
      };
      const answer = await unlessGivenUp(engine().ask('alike', needs, { signal: own.signal }));
      if (!own.signal.aborted) found.value = answer;
    },
    { immediate: true },
  );
  return found;
}
