import { joined, movedBy, type Outline } from '@dusk/core';
import { computed, nextTick, ref, watch, type Ref, type ShallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useLooking } from './looking.ts';
import { useReference } from './reference.ts';
import { useSamples } from './samples.ts';
import type { LiveReading, Place } from './useLiveRecipe.ts';

interface Hand {
  readonly live: ShallowRef<LiveReading | undefined>;
  readonly outline: Readonly<Ref<Outline | undefined>>;
  readonly holdOutline: (outline: Outline) => void;
  /** What the painter said of the next sample. */
  readonly zone: Ref<string | undefined>;
  readonly thing: Ref<string>;
  readonly zoneOf: (reading: LiveReading | undefined) => string;
}

/** A reading that has not come by then is not waited for. */
const WAIT_MS = 1500;

/** The mark that is held: gone back to, told of, moved, joined with another place. */
export function useHeld({ live, outline, holdOutline, zone, thing, zoneOf }: Hand) {
  const store = useReference();
  const looking = useLooking();
  const samples = useSamples();
  const route = useRoute();
  const router = useRouter();

  /** Whether what is read is the mark that is held, and not another place. */
  const isHeld = computed(
    () => samples.selected !== undefined && outline.value !== undefined && isSame(outline.value, samples.selected.outline),
  );
  const isSame = (one: Outline, other: Outline): boolean =>
    Math.hypot(one.x - other.x, one.y - other.y) < 0.51 && one.more?.length === other.more?.length;
  /** A hand that leaves the picture goes back to the mark it holds. */
  function goToHeld(): void {
    if (samples.selected && !isHeld.value) holdOutline(samples.selected.outline);
  }
  watch(
    () => samples.selected?.sample.id,
    (id, was) => {
      if (id !== undefined && id !== was) goToHeld();
    },
  );
  // A mark that was asked for from its pile.
  watch(
    () => [route.query['sample'], store.pixels, samples.all.length] as const,
    ([id, pixels]) => {
      if (typeof id !== 'string' || !pixels) return;
      const sample = samples.all.find((one) => one.id === id);
      if (!sample) return;
      if (sample.referenceId && sample.referenceId !== store.reference?.id) return store.choose(sample.referenceId);
      looking.marks = true;
      looking.selectedId = id;
      void router.replace({ query: {} });
    },
    { immediate: true },
  );

  /** The zone and thing of the mark that is held, or of the next. */
  const zoneNow = computed({
    get: () => (isHeld.value ? samples.selected!.sample.zone : zoneOf(live.value)),
    set: (to) => {
      if (isHeld.value) void samples.change(samples.selected!.sample.id, { zone: to }, to ? `Said it is ${to}` : 'Said no zone');
      else zone.value = to;
    },
  });
  const typedThing = ref<string>();
  const thingNow = computed({
    get: () => typedThing.value ?? (isHeld.value ? samples.selected!.sample.thing : thing.value),
    set: (to) => {
      if (isHeld.value) typedThing.value = to;
      else thing.value = to;
    },
  });
  watch(isHeld, () => (typedThing.value = undefined));
  async function saveThing(to: string): Promise<void> {
    if (!isHeld.value) return;
    thing.value = to.trim();
    await samples.change(samples.selected!.sample.id, { thing: to.trim() }, `Said it belongs to ${to.trim() || 'nothing'}`);
    typedThing.value = undefined;
  }

  async function moveHeld(id: string, to: Outline): Promise<void> {
    const mark = samples.marks.find(({ sample }) => sample.id === id);
    const reading = live.value;
    if (!mark || !reading) return;
    await samples.readAnew(mark, to, reading.lab, reading.paint, reading.answer?.proposals[0]?.mixture, `Moved the mark of ${mark.name}`);
  }
  async function moveTo(id: string, place: Place): Promise<void> {
    const mark = samples.marks.find(({ sample }) => sample.id === id);
    if (!mark) return;
    const by = movedBy(mark.outline, place.x - mark.outline.x, place.y - mark.outline.y);
    holdOutline(by);
    await readThere(by);
    await moveHeld(id, by);
  }
  /** What was asked for is read once it is there. */
  const readThere = (wanted: Outline): Promise<void> =>
    new Promise((done) => {
      const stop = watch(
        live,
        (reading) => {
          if (reading?.outline !== wanted) return;
          clearTimeout(late);
          void nextTick(() => stop());
          done();
        },
        { immediate: true },
      );
      const late = setTimeout(() => {
        stop();
        done();
      }, WAIT_MS);
    });
  function moveHere(): void {
    if (samples.selected && outline.value && !isHeld.value) void moveHeld(samples.selected.sample.id, outline.value);
  }
  async function joinHere(): Promise<void> {
    const held = samples.selected;
    if (!held || !outline.value || isHeld.value) return;
    const both = joined([held.outline, outline.value]);
    holdOutline(both);
    await readThere(both);
    await moveHeld(held.sample.id, both);
  }

  return { isHeld, goToHeld, zoneNow, thingNow, saveThing, moveTo, moveHere, joinHere };
}
