import type { Lab, Outline } from '@dusk/core';
import { mixtureDto } from '@dusk/wire/written';
import { computed, watch, type Ref, type ShallowRef } from 'vue';
import { firstName } from '../floor/words.ts';
import { usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import type { LiveReading, StillReading } from '../picture/useLiveRecipe.ts';

/** A recipe that has not come by then was not on its way. */
const WAIT_MS = 5000;

const isAt = (reading: LiveReading | undefined, outline: Outline): boolean =>
  reading !== undefined && spotOf(reading.outline) === spotOf(outline);
const spotOf = ({ x, y, radius, points, more }: Outline): string => [x, y, radius, points?.length, more?.length].join(' ');

interface Hand {
  readonly live: ShallowRef<LiveReading | undefined>;
  readonly still: ShallowRef<StillReading | undefined>;
  readonly outline: Readonly<Ref<Outline | undefined>>;
  readonly valueOnly: Readonly<Ref<boolean>>;
}

/**
 * Keeps piles: what was pointed at when it was pressed, once. A recipe that is still on its way is
 * waited for; a press at the spot that is being kept, or was kept last, keeps nothing more.
 */
export function useKeeping({ live, still, outline, valueOnly }: Hand) {
  const piles = usePiles();
  const store = useReference();
  const samples = useSamples();
  const looking = useLooking();
  const settings = useSettings();
  /** What piles were called when they were kept, by nobody's choice. */
  const firstNames = new Map<string, string>();
  const beingKept = new Set<string>();
  let last = '';
  /** The sample that was kept last, until it is held: a hand that has gone on meanwhile stays where it is. */
  let newest: string | undefined;
  function isNew(sampleId: string): boolean {
    const is = sampleId === newest;
    newest = undefined;
    return is;
  }

  /** The reading of where the hand is now, once it is there. */
  function readingOf(wanted: Outline): Promise<LiveReading | undefined> {
    if (isAt(live.value, wanted) && live.value!.answer) return Promise.resolve(live.value);
    return new Promise((resolve) => {
      const stop = watch(live, (reading) => {
        if (isAt(reading, wanted) && reading!.answer) done(reading);
      });
      const timer = setTimeout(() => done(undefined), WAIT_MS);
      function done(reading: LiveReading | undefined): void {
        clearTimeout(timer);
        stop();
        resolve(reading);
      }
    });
  }

  /** The zone that is proposed for this very reading. */
  const zoneOf = (reading: LiveReading): string => (still.value?.of === reading ? (still.value.zone ?? '') : '');

  async function keep(): Promise<void> {
    const wanted = outline.value;
    const { reference } = store;
    if (!wanted || !reference) return;
    const spot = `${reference.id} ${spotOf(wanted)} ${valueOnly.value}`;
    if (beingKept.has(spot) || spot === last) return;
    beingKept.add(spot);
    try {
      const reading = await readingOf(wanted);
      const proposal = reading?.answer?.proposals[0];
      if (!reading || !proposal) return;
      const name = firstName(reading.paint, piles.names);
      const kept = await piles.keep({
        name,
        lab: reading.paint,
        plan: mixtureDto(proposal.mixture),
        ml: settings.settings.amountMl,
        sample: {
          referenceId: reference.id,
          outline: samples.sent(reading.outline),
          seen: reading.lab as Lab,
          zone: zoneOf(reading),
          thing: '',
          valueOnly: valueOnly.value,
        },
      });
      if (!kept) return;
      last = spot;
      firstNames.set(kept.pileId, name);
      looking.selectedId = newest = kept.sampleId;
    } finally {
      beingKept.delete(spot);
    }
  }

  return { keep, firstNames, isNew, amountMl: computed(() => settings.settings.amountMl) };
}
