import type { Way } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useTubes } from '../tubes/tubes.ts';
import { addAll, addOne, changedUnrecorded, mixAsPlanned, scrapeOff, takePart, unmixedIn } from './deeds.ts';
import { usePiles } from './piles.ts';
import { useCorrection } from './useCorrection.ts';
import { useLook } from './useLook.ts';

/** A way that is being gone step by step. */
interface UnderWay {
  readonly way: Way;
  readonly mlOfPart: number;
  readonly done: number;
}

/** What is written down when a pile looks as wanted. */
const AS_WANTED = 'as wanted';

/** What is done with an open pile: mixed, looked at, added to, scraped off; each recorded as one change. */
export function useWorkOnPile(pile: Ref<PileDto>) {
  const piles = usePiles();
  const tubes = useTubes();
  const looking = useLook(pile);
  const busy = ref(false);
  const underWay = shallowRef<UnderWay>();
  const state = computed(() => (pile.value.stages.length === 0 || pile.value.stages.at(-1)!.kind === 'scraped' ? 'planned' : 'mixed'));

  /** The look that is answered: the draft, or what was recorded of the newest stage. */
  const look = computed(() => {
    if (looking.draft.value) return looking.draft.value;
    const recorded = looking.stage.value?.looks.at(-1);
    return recorded && { lab: looking.now.value, sight: recorded.kind };
  });
  const { corrected, target, beliefs } = useCorrection(pile, look);
  /** The painter said of the newest stage that it looks as wanted: that ends it, whatever is reckoned. */
  const isAsWanted = computed(() => !looking.draft.value && looking.stage.value?.looks.at(-1)?.said === AS_WANTED);
  watch([() => pile.value.id, looking.draft], () => {
    if (looking.draft.value) underWay.value = undefined;
  });

  /** One thing at a time: a key that is pressed twice does it once. */
  async function once(work: () => Promise<boolean>): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    try {
      return await work();
    } finally {
      busy.value = false;
    }
  }

  const mixed = (): Promise<boolean> =>
    once(() => {
      const mothers = unmixedIn(pile.value.plan, piles.byId).map(({ name }) => `“${name}”`);
      const first = mothers.length > 0 ? `, and ${mothers.join(', ')} before it` : '';
      return piles.make(mixAsPlanned(pile.value, tubes.byId, piles.byId), `Mixed “${pile.value.name}”${first}`);
    });

  /** The operations that record the draft, if there is one. */
  const drafted = () => (looking.draft.value ? looking.record(looking.draft.value) : { ops: [], done: () => undefined });

  const recordLook = (): Promise<boolean> =>
    once(async () => {
      if (!looking.draft.value || !looking.stage.value) return false;
      const { ops, done } = drafted();
      const made = await piles.make(ops, `What “${pile.value.name}” looks like`);
      if (made) done();
      return made;
    });

  const fits = (): Promise<boolean> =>
    once(async () => {
      if (!target.value || !looking.stage.value) return false;
      const { ops, done } = looking.record({ lab: target.value, sight: looking.byEye(), said: AS_WANTED });
      const made = await piles.make(ops, `“${pile.value.name}” looks as wanted`);
      if (made) done();
      return made;
    });

  async function withLook(deeds: ReturnType<typeof changedUnrecorded>, says: string): Promise<boolean> {
    const { ops, done } = drafted();
    const made = await piles.make([...ops, ...deeds], says);
    if (made) done();
    return made;
  }

  /** Everything of a way, or what is left of one that is under way. */
  const all = (way: Way): Promise<boolean> =>
    once(async () => {
      const going = underWay.value;
      const mlOfPart = going?.mlOfPart ?? corrected.value!.mlOfPart;
      const says = `Added to “${pile.value.name}”`;
      if (!going) return withLook(addAll(pile.value, way, mlOfPart, tubes.byId, piles.byId), says);
      const rest = going.way.steps
        .slice(going.done)
        .flatMap((step) => addOne(pile.value, step, mlOfPart * (way.part?.keep ?? 1), tubes.byId, piles.byId));
      const made = await piles.make(rest, says);
      if (made) underWay.value = undefined;
      return made;
    });

  const one = (way: Way, index: number): Promise<boolean> =>
    once(async () => {
      const going = underWay.value ?? { way, mlOfPart: corrected.value!.mlOfPart, done: 0 };
      if (index !== going.done) return false;
      const first = index === 0 && way.part ? takePart(pile.value, way.part.keep) : [];
      const step = addOne(pile.value, way.steps[index]!, going.mlOfPart * (way.part?.keep ?? 1), tubes.byId, piles.byId);
      const made = await withLook([...first, ...step], `One step added to “${pile.value.name}”`);
      if (!made) return false;
      underWay.value = index + 1 < way.steps.length ? { ...going, way, done: index + 1 } : undefined;
      return true;
    });

  const changed = (): Promise<boolean> => once(() => withLook(changedUnrecorded(pile.value), `“${pile.value.name}” changed by eye`));
  const scraped = (): Promise<boolean> => once(() => piles.make(scrapeOff(pile.value), `“${pile.value.name}” scraped off`));

  return { state, looking, look, corrected, target, beliefs, isAsWanted, underWay, mixed, recordLook, fits, all, one, changed, scraped };
}
