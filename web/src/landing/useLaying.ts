import { pilesIn, type HowItWould } from '@dusk/core';
import type { LaidDto, PileDto, PurposeDto } from '@dusk/wire';
import { labOfDto, mixtureSent } from '@dusk/wire/written';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { engine } from '../engine/engine.ts';
import { useLanding } from '../stores/landing.ts';
import { usePiles } from '../stores/piles.ts';
import { purposeWith, said, type Part } from '../stores/purpose.ts';
import { useDesk } from '../stores/useDesk.ts';

/** Says how a pile is laid. Its recipe becomes the one that looks right there, in the same change. */
export function useLaying(pile: Ref<PileDto>) {
  const piles = usePiles();
  const landing = useLanding();
  const desk = useDesk();
  const busy = ref(false);
  let solving: AbortController | undefined;
  let asking: AbortController | undefined;
  /** What was said before is written before; each rests on the last. */
  let last: Promise<unknown> = Promise.resolve();

  /** What is mixed already, or taken from other piles, or taken from by others, keeps its plan. */
  function mayBeAnother({ stages, plan, id, target }: PileDto): boolean {
    return target !== null && stages.length === 0 && pilesIn(plan).length === 0 && piles.childrenOf(id).length === 0;
  }

  async function say(part: Part<Pick<PurposeDto, 'laid' | 'overId'>>, says: string, own: PileDto, signal: AbortSignal): Promise<boolean> {
    const purpose = purposeWith(own.purpose, part);
    const at = landing.landingOf(own, { ...own.purpose, ...part });
    if (!mayBeAnother(own) || (!at && !own.purpose.laid?.how)) return piles.change(own.id, { purpose }, says);
    busy.value = true;
    try {
      const plan = await landing.recipeFor(own, labOfDto(own.target!.lab), at, signal);
      return await piles.change(own.id, { purpose, ...(plan && { plan: mixtureSent(plan) }) }, says);
    } finally {
      busy.value = false;
    }
  }

  function lay(part: Part<LaidDto>, more: Part<Pick<PurposeDto, 'overId'>> = {}): Promise<boolean> {
    // A recipe that is still looked for is not for what is said now.
    solving?.abort();
    const { signal } = (solving = new AbortController());
    const { id, name } = pile.value;
    const done = last.then(() => {
      const own = piles.byId.get(id);
      if (!own) return false;
      const laid = said<LaidDto>({ ...own.purpose.laid, ...part });
      return say({ ...more, laid: Object.keys(laid).length > 0 ? laid : undefined }, `How “${name}” is laid`, own, signal);
    });
    last = done.catch(() => undefined);
    return done;
  }

  /** What would do where one layer does not; asked anew whenever the place, or what is wanted there, is another. */
  const would = shallowRef<HowItWould>();
  watch(
    () => {
      const { target, stages, purpose } = pile.value;
      return target && stages.length === 0 && landing.landingOf(pile.value)
        ? JSON.stringify([pile.value.id, target.lab, purpose.laid, purpose.overId, desk.desk?.id])
        : '';
    },
    async (key) => {
      asking?.abort();
      const own = (asking = new AbortController());
      would.value = undefined;
      const at = landing.landingOf(pile.value);
      if (key === '' || !at || !desk.desk) return;
      const target = labOfDto(pile.value.target!.lab);
      const single = { ...at, so: { ...at.so, layers: 1 } };
      const { signal } = own;
      const found = await landing.onDeskThere(single, signal, (laid) =>
        engine().ask('layers', { landing: single, target }, { desk: laid, signal }),
      );
      if (!signal.aborted) would.value = found;
    },
    { immediate: true },
  );
  onScopeDispose(() => asking?.abort());

  return { busy, lay, would };
}
