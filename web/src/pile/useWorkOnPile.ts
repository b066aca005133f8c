import { deltaE00, type Way } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import {
  addAll,
  addOne,
  changedUnrecorded,
  mixAsPlanned,
  mostOf,
  scrapeOff,
  shortFor,
  takePart,
  unmixedIn,
  type Short,
} from '../recipe/deeds.ts';
import { usePiles } from '../stores/piles.ts';
import { useCorrection } from '../correcting/useCorrection.ts';
import { useLook } from '../correcting/useLook.ts';

/** A way that is being gone step by step. */
interface UnderWay {
  readonly way: Way;
  readonly mlOfPart: number;
  readonly done: number;
}

/** What is written down when a pile looks as wanted. */
const AS_WANTED = 'as wanted';
/** ΔE00 from which two halves differ plainly. */
const SEEN_APART = 1;

/** What is done with an open pile: mixed, looked at, added to, scraped off; each recorded as one change. */
export function useWorkOnPile(pile: Ref<PileDto>) {
  const piles = usePiles();
  const tubes = useTubes();
  const looking = useLook(pile);
  const settings = useSettings();
  const busy = ref(false);
  const underWay = shallowRef<UnderWay>();
  const state = computed(() => (pile.value.stages.length === 0 || pile.value.stages.at(-1)!.kind === 'scraped' ? 'planned' : 'mixed'));

  /** The look that is answered: the draft, or what was recorded of the newest stage. */
  const look = computed(() => {
    if (looking.draft.value) return looking.draft.value;
    const recorded = looking.stage.value?.looks.at(-1);
    return recorded && { lab: looking.now.value, sight: recorded.kind, confirmed: recorded.confirmed };
  });
  const { corrected, target, beliefs } = useCorrection(pile, look);
  /** The painter said of the newest stage that it looks as wanted: that ends it, whatever is reckoned. */
  const isAsWanted = computed(
    () =>
      !looking.draft.value &&
      looking.stage.value?.looks.at(-1)?.said === AS_WANTED &&
      // What is wanted may be another since.
      (!target.value || deltaE00(looking.now.value, target.value) < SEEN_APART),
  );
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

  /** What the pile takes more of than lies there: asked about before it is said to be mixed. */
  const short = shallowRef<readonly Short[]>([]);
  const most = computed(() => (short.value.length > 0 ? mostOf(pile.value, short.value) : 0));
  watch([() => pile.value.id, () => pile.value.version], () => (short.value = []));

  const mixed = (): Promise<boolean> => {
    short.value = shortFor(pile.value, tubes.byId, piles.byId);
    return short.value.length > 0 ? Promise.resolve(false) : mixedAnyway();
  };
  /** As large as what lies there allows. */
  async function mixedOfLess(): Promise<boolean> {
    const changed = await once(() => piles.change(pile.value.id, { ml: most.value }, `“${pile.value.name}” is made smaller`));
    return changed && mixedAnyway();
  }
  const mixedAnyway = (): Promise<boolean> =>
    once(() => {
      short.value = [];
      const mothers = unmixedIn(pile.value.plan, piles.byId).map(({ name }) => `“${name}”`);
      const first = mothers.length > 0 ? `, and ${mothers.join(', ')} before it` : '';
      return piles.make(mixAsPlanned(pile.value, settings.settings.measure, tubes.byId, piles.byId), `Mixed “${pile.value.name}”${first}`);
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

  /** It is this pile, in this light, however strange it looks: what is drafted says so, or the same look is recorded again. */
  const confirm = (): Promise<boolean> =>
    once(async () => {
      const recorded = looking.stage.value?.looks.at(-1);
      if (looking.draft.value || !recorded) {
        looking.confirm();
        return true;
      }
      const { kind: sight, said } = recorded;
      const { ops, done } = looking.record({ lab: looking.now.value, sight, ...(said !== null && { said }), confirmed: true });
      const made = await piles.make(ops, `“${pile.value.name}” is what was looked at`);
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
      if (!going) return withLook(addAll(pile.value, way, mlOfPart, settings.settings.measure, tubes.byId, piles.byId), says);
      const rest = going.way.steps
        .slice(going.done)
        .flatMap((step) => addOne(pile.value, step, mlOfPart * (way.part?.keep ?? 1), settings.settings.measure, tubes.byId, piles.byId));
      const made = await piles.make(rest, says);
      if (made) underWay.value = undefined;
      return made;
    });

  const one = (way: Way, index: number): Promise<boolean> =>
    once(async () => {
      const going = underWay.value ?? { way, mlOfPart: corrected.value!.mlOfPart, done: 0 };
      if (index !== going.done) return false;
      const first = index === 0 && way.part ? takePart(pile.value, way.part.keep) : [];
      const step = addOne(
        pile.value,
        way.steps[index]!,
        going.mlOfPart * (way.part?.keep ?? 1),
        settings.settings.measure,
        tubes.byId,
        piles.byId,
      );
      const made = await withLook([...first, ...step], `One step added to “${pile.value.name}”`);
      if (!made) return false;
      underWay.value = index + 1 < way.steps.length ? { ...going, way, done: index + 1 } : undefined;
      return true;
    });

  const changed = (): Promise<boolean> => once(() => withLook(changedUnrecorded(pile.value), `“${pile.value.name}” changed by eye`));
  const scraped = (): Promise<boolean> => once(() => piles.make(scrapeOff(pile.value), `“${pile.value.name}” wiped off`));

  return {
    state,
    looking,
    look,
    corrected,
    target,
    beliefs,
    isAsWanted,
    underWay,
    mixed,
    short,
    most,
    mixedOfLess,
    mixedAnyway,
    recordLook,
    confirm,
    fits,
    all,
    one,
    changed,
    scraped,
  };
}
