import type { Operation } from '@dusk/wire';
import { joined, movedBy, type Lab, type Outline } from '@dusk/core';
import { computed, nextTick, ref, watch, type Ref, type ShallowRef } from 'vue';
import { labOfDto } from '@dusk/wire/written';
import { useRoute, useRouter } from 'vue-router';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';
import { usePaintings } from '../stores/paintings.ts';
import { placeName, useSamples } from '../stores/samples.ts';
import { useStudio } from '../studio/useStudio.ts';
import type { LiveReading, Place } from '../picture/useLiveRecipe.ts';

interface Hand {
  readonly live: ShallowRef<LiveReading | undefined>;
  readonly outline: Readonly<Ref<Outline | undefined>>;
  readonly holdOutline: (outline: Outline) => void;
  /** Whether only the value of what is read counts, and whose hue it then has. */
  readonly valueOnly: Ref<boolean>;
  readonly hueOf: Ref<Lab>;
  /** What piles were called when they were kept, by nobody's choice. */
  readonly firstNames: Map<string, string>;
  /** Whether a sample was kept just now, and not gone to by a hand. */
  readonly isNew: (sampleId: string) => boolean;
}

const GREY: Lab = [50, 0, 0];

/** A reading that has not come by then is not waited for. */
const WAIT_MS = 8000;

/** The mark that is held: gone back to, told of, moved, joined with another place. */
export function useHeld({ live, outline, holdOutline, valueOnly, hueOf, firstNames, isNew }: Hand) {
  const studio = useStudio();
  const store = useReference();
  const looking = useLooking();
  const samples = useSamples();
  const paintings = usePaintings();
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
      if (id !== undefined && id !== was && !isNew(id)) goToHeld();
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

  /** The zone and thing of the mark that is held. */
  const zoneNow = computed({
    get: () => (isHeld.value ? samples.selected!.sample.zone : ''),
    set: (to) => void (isHeld.value && samples.change(samples.selected!.sample.id, { zone: to }, to ? `Said it is ${to}` : 'Said no zone')),
  });
  const typedThing = ref<string>();
  const thingNow = computed({
    get: () => typedThing.value ?? (isHeld.value ? samples.selected!.sample.thing : ''),
    set: (to) => (typedThing.value = to),
  });
  watch(isHeld, () => (typedThing.value = undefined));
  async function saveThing(to: string): Promise<void> {
    if (!isHeld.value) return;
    const { sample, pile } = samples.selected!;
    const thing = to.trim();
    const says = `Said it belongs to ${thing || 'nothing'}`;
    // A pile that nobody has named is called after its thing.
    const isOwnName = pile && pile.name !== firstNames.get(pile.id) && pile.name !== placeName(sample.zone, sample.thing);
    if (!pile || isOwnName || thing === '') await samples.change(sample.id, { thing }, says);
    else {
      const name = placeName(sample.zone, thing);
      const ops: Operation[] = [
        { do: 'sample.change', id: sample.id, version: sample.version, thing },
        { do: 'pile.change', id: pile.id, version: pile.version, name },
      ];
      if (await studio.make(ops, says)) firstNames.set(pile.id, name);
    }
    typedThing.value = undefined;
  }

  // A mark that is held says of itself whether only its value counts; the next place is as the painting has it.
  watch(
    [() => (isHeld.value ? samples.selected!.sample : undefined), () => paintings.onEasel?.valueOnly ?? false] as const,
    ([sample, isUsual]) => {
      valueOnly.value = sample?.valueOnly ?? isUsual;
      hueOf.value = sample?.valueOnly ? labOfDto(sample.paint) : GREY;
    },
    { immediate: true },
  );
  /** Only its value counts, or its colour again: of the mark that is held, whose pile goes along, or of the next. */
  async function toggleValueOnly(): Promise<void> {
    const to = !valueOnly.value;
    const held = isHeld.value ? samples.selected : undefined;
    hueOf.value = samples.selected && !held ? samples.selected.lab : GREY;
    valueOnly.value = to;
    if (!held) return;
    const reading = await readAgain((next) => next.valueOnly === to);
    if (!reading || samples.selected?.sample.id !== held.sample.id) return;
    const plan = reading.answer?.proposals[0]?.mixture;
    const says = to ? `Only the value of ${held.name} counts` : `The colour of ${held.name} counts again`;
    await samples.readAnew(held, { outline: held.outline, seen: reading.lab, paint: reading.paint, plan, valueOnly: to }, says);
  }
  /** The next reading that is as is wanted: one under way may still be of the other kind. */
  function readAgain(isWanted: (reading: LiveReading) => boolean): Promise<LiveReading | undefined> {
    return new Promise((done) => {
      const late = setTimeout(() => end(undefined), WAIT_MS);
      const stop = watch(live, (reading) => reading && isWanted(reading) && end(reading));
      function end(reading: LiveReading | undefined): void {
        clearTimeout(late);
        stop();
        done(reading);
      }
    });
  }

  async function moveHeld(id: string, to: Outline): Promise<void> {
    const mark = samples.marks.find(({ sample }) => sample.id === id);
    const reading = live.value;
    if (!mark || !reading) return;
    const plan = reading.answer?.proposals[0]?.mixture;
    await samples.readAnew(mark, { outline: to, seen: reading.lab, paint: reading.paint, plan }, `Moved the mark of ${mark.name}`);
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

  return { isHeld, toggleValueOnly, zoneNow, thingNow, saveThing, moveTo, moveHere, joinHere };
}
