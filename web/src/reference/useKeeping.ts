import { mixtureDto } from '@dusk/wire/written';
import { watch, type Ref, type ShallowRef } from 'vue';
import { firstName } from '../chips/words.ts';
import { usePiles } from '../mixing/piles.ts';
import { useReference } from './reference.ts';
import type { LiveReading, Place } from './useLiveRecipe.ts';

const AMOUNT_ML = 4;
/** A recipe that has not come by then was not on its way. */
const WAIT_MS = 2000;

const isAt = (reading: LiveReading | undefined, place: Place | undefined): boolean =>
  reading !== undefined && place !== undefined && reading.place.x === place.x && reading.place.y === place.y;

/**
 * Keeps piles: what was pointed at when it was pressed, once. A recipe that is still on its way is
 * waited for; a press at the spot that is being kept, or was kept last, keeps nothing more.
 */
export function useKeeping(live: ShallowRef<LiveReading | undefined>, place: Ref<Place | undefined>) {
  const piles = usePiles();
  const store = useReference();
  const beingKept = new Set<string>();
  let last: LiveReading | undefined;

  /** The reading of where the hand is now, once it is there. */
  function readingOf(wanted: Place): Promise<LiveReading | undefined> {
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

  async function keep(): Promise<void> {
    const wanted = place.value;
    const { reference } = store;
    if (!wanted || !reference) return;
    const spot = `${wanted.x} ${wanted.y} ${store.radius}`;
    if (beingKept.has(spot)) return;
    if (last && isAt(last, wanted) && last.radius === store.radius) return;
    beingKept.add(spot);
    try {
      const reading = await readingOf(wanted);
      const proposal = reading?.answer?.proposals[0];
      if (!reading || !proposal) return;
      const kept = await piles.keep({
        name: firstName(reading.lab),
        lab: reading.lab,
        plan: mixtureDto(proposal.mixture),
        ml: AMOUNT_ML,
        sample: { referenceId: reference.id, outline: { ...reading.place, radius: reading.radius } },
      });
      if (kept) last = reading;
    } finally {
      beingKept.delete(spot);
    }
  }

  return { keep, amountMl: AMOUNT_ML };
}
