// The colours of the picture that are proposed: accepted, moved, refused; nothing of it is kept until piles are made.
import { rangeSaid, readOutline, USUAL_PROPOSED, type ProposedColour } from '@dusk/core';
import { defineStore } from 'pinia';
import { ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { useReference } from './reference.ts';

export interface Proposed extends ProposedColour {
  readonly id: string;
  readonly isRefused: boolean;
}

export const useProposals = defineStore('proposals', () => {
  const reference = useReference();
  const list = shallowRef<readonly Proposed[]>([]);
  const isLooking = ref(false);
  const most = ref(USUAL_PROPOSED);
  let asking: AbortController | undefined;

  async function look(): Promise<void> {
    asking?.abort();
    const { pixels, gains } = reference;
    if (!pixels) return;
    const own = (asking = new AbortController());
    isLooking.value = true;
    const started = performance.now();
    const found = await unlessGivenUp(
      engine().ask('propose', { pictureId: pixels.id, gains, most: most.value }, { signal: own.signal }),
    ).catch(() => undefined);
    if (own.signal.aborted) return;
    isLooking.value = false;
    list.value = (found ?? []).map((one, i) => ({ ...one, id: `proposed ${i}`, isRefused: false }));
    performance.measure('proposed', { start: started, end: performance.now() });
  }
  function leaveOff(): void {
    asking?.abort();
    isLooking.value = false;
  }
  const set = (id: string, part: Partial<Proposed>): void =>
    void (list.value = list.value.map((one) => (one.id === id ? { ...one, ...part } : one)));
  const refuse = (id: string): void => set(id, { isRefused: !list.value.find((one) => one.id === id)?.isRefused });
  /** To another place, whose colour it then has. */
  function move(id: string, x: number, y: number): void {
    const one = list.value.find((other) => other.id === id);
    if (!one || !reference.pixels) return;
    const outline = { x, y, radius: one.outline.radius };
    set(id, { outline, lab: readOutline(reference.pixels, outline, reference.gains).lab, isRefused: false });
  }
  /** What is to be known of the picture's ends. */
  const ends = () =>
    reference.range && reference.ends ? rangeSaid(reference.range, reference.ends, reference.light?.glints, reference.key) : undefined;

  watch(
    () => `${reference.pixels?.id} ${reference.gains.join()}`,
    () => {
      leaveOff();
      list.value = [];
    },
  );
  const clear = (): void => void (list.value = []);
  return { clear, list, isLooking, most, look, leaveOff, refuse, move, ends };
});
