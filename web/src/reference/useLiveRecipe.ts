import { readArea, type AreaReading, type Pixels, type Trust } from '@dusk/core';
import { nextTick, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { engine } from '../engine/engine.ts';
import type { Proposed } from '../engine/proposal.ts';
import { useDesk } from '../engine/useDesk.ts';
import { useSettings } from '../shell/settings.ts';

/** A place in a picture, in its pixels. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is under the pointer, and the best recipe for it. */
export interface LiveReading extends AreaReading {
  readonly place: Place;
  readonly radius: number;
  readonly answer: Proposed | undefined;
}

/** The hand is still once it has not moved for so long; how sure a recipe is, is then asked. */
const STILL_MS = 120;

/**
 * Follows a place in a picture: reads the area and asks for the recipe, of which only the newest is
 * answered; how far it can be trusted comes a moment later.
 */
export function useLiveRecipe(pixels: ShallowRef<Pixels | undefined>, radius: Ref<number>) {
  const store = useDesk();
  const settings = useSettings();
  const place = ref<Place>();
  const live = shallowRef<LiveReading>();
  const trust = shallowRef<Trust>();
  let asking: AbortController | undefined;
  let still: ReturnType<typeof setTimeout> | undefined;

  function askTrust(reading: LiveReading): void {
    asking?.abort();
    clearTimeout(still);
    const mixture = reading.answer?.proposals[0]?.mixture;
    if (!mixture) return;
    still = setTimeout(async () => {
      const own = (asking = new AbortController());
      const found = await store.trust(mixture, own.signal);
      if (live.value === reading) trust.value = found;
    }, STILL_MS);
  }

  /** @param since when the painter moved, to measure how closely the recipe follows */
  async function follow(since: number): Promise<void> {
    const picture = pixels.value;
    const at = place.value;
    if (!picture || !at) return;
    const size = radius.value;
    const reading = readArea(picture, at.x, at.y, size);
    const { desk } = store;
    const answer = desk && (await engine().follow(desk, reading.lab, { dulling: settings.settings.dulling }));
    // A newer place answers for itself.
    if (at !== place.value || size !== radius.value || desk !== store.desk || (desk && !answer)) return;
    live.value = { ...reading, place: at, radius: size, answer };
    trust.value = undefined;
    await nextTick();
    performance.measure('recipe follows', { start: since, end: performance.now() });
    askTrust(live.value);
  }

  function pointAt(next: Place, since: number = performance.now()): void {
    place.value = next;
    void follow(since);
  }

  watch([radius, () => store.desk, pixels, () => settings.settings.dulling], () => void follow(performance.now()));
  return { place, live, trust, pointAt };
}
