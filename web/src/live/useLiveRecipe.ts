import { readArea, type AreaReading, type Pixels } from '@dusk/core';
import { nextTick, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { useBook } from '../stores/book.ts';
import type { PlainAnswer } from '../workers/recipe.ts';

/** A place in a picture, in its pixels. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is under the pointer, and the best recipe for it. */
export interface LiveReading extends AreaReading {
  readonly place: Place;
  readonly radius: number;
  readonly answer: PlainAnswer | undefined;
}

/**
 * Follows a place in a picture: reads the area and looks the recipe up. While one look-up is under
 * way only the newest place waits, so that a fast pointer never builds a queue.
 */
export function useLiveRecipe(pixels: ShallowRef<Pixels | undefined>, radius: Ref<number>) {
  const book = useBook();
  const place = ref<Place>();
  const live = shallowRef<LiveReading>();
  let busy = false;
  let waiting: number | undefined;

  /** @param since when the painter moved, to measure how closely the recipe follows */
  async function follow(since: number): Promise<void> {
    if (busy) {
      waiting = since;
      return;
    }
    const picture = pixels.value;
    const at = place.value;
    if (!picture || !at) return;
    busy = true;
    try {
      const reading = readArea(picture, at.x, at.y, radius.value);
      const answer = await book.lookUp(reading.lab);
      live.value = { ...reading, place: at, radius: radius.value, answer };
      await nextTick();
      performance.measure('recipe follows', { start: since, end: performance.now() });
    } finally {
      busy = false;
    }
    if (waiting !== undefined) {
      const next = waiting;
      waiting = undefined;
      void follow(next);
    }
  }

  function pointAt(next: Place, since: number = performance.now()): void {
    place.value = next;
    void follow(since);
  }

  watch([radius, () => book.edition, () => book.ready, pixels], () => void follow(performance.now()));
  return { place, live, pointAt };
}
