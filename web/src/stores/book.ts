import { CraftError, USUAL_LIMITS, type Lab } from '@dusk/core';
import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { Desk } from '../workers/book.worker.ts';
import type { PlainAnswer, PlainNearest } from '../workers/recipe.ts';
import { usePaintings } from './paintings.ts';
import { usePalettes } from './palettes.ts';
import { useTubes, type Tube } from './tubes.ts';

/**
 * The book of the open painting's palette. It is made anew, in a worker of its own, when the palette
 * or a tube on it changes; a book that is no longer wanted is given up by ending its worker.
 */
export const useBook = defineStore('book', () => {
  const paintings = usePaintings();
  const palettes = usePalettes();
  const tubes = useTubes();
  const progress = ref(0);
  const count = ref(0);
  const trouble = ref('');
  /** Counts books, so that what depends on one can be asked again. */
  const edition = ref(0);
  const ready = computed(() => edition.value > 0 && progress.value === 1);

  const palette = computed(() => (paintings.open ? palettes.byId.get(paintings.open.paletteId) : undefined));
  const paletteTubes = computed(() => palette.value?.tubeIds.flatMap((id) => tubes.byId.get(id) ?? []) ?? []);

  let worker: Worker | undefined;
  let desk: Remote<Desk> | undefined;

  function close(): void {
    desk?.[releaseProxy]();
    worker?.terminate();
    worker = desk = undefined;
  }

  async function make(chosen: readonly Tube[]): Promise<void> {
    close();
    progress.value = 0;
    trouble.value = '';
    const own = new Worker(new URL('../workers/book.worker.ts', import.meta.url), { type: 'module' });
    worker = own;
    desk = wrap<Desk>(own);
    const paints = chosen.map(({ id, paint, basis }) => ({ id, K: paint.K, S: paint.S, basis }));
    const told = proxy((done: number) => {
      if (worker === own && done < 1) progress.value = done;
    });
    try {
      const recipes = await desk.open(paints, USUAL_LIMITS, told);
      if (worker !== own) return;
      count.value = recipes;
      progress.value = 1;
      edition.value++;
    } catch (cause) {
      if (worker === own) trouble.value = cause instanceof CraftError || cause instanceof Error ? cause.message : String(cause);
    }
  }

  watch(
    () => paletteTubes.value.map((t) => `${t.id} ${t.stateId}`).join(),
    (key) => {
      if (key === '') close();
      else void make(paletteTubes.value);
    },
    { immediate: true },
  );

  const lookUp = async (target: Lab): Promise<PlainAnswer | undefined> => (ready.value ? desk?.lookUp(target) : undefined);
  const solve = async (target: Lab): Promise<PlainAnswer | undefined> => (ready.value ? desk?.solve(target) : undefined);

  /** The rack is every tube of the studio that is not on the palette, each pigment once. */
  async function nearest(target: Lab): Promise<PlainNearest | undefined> {
    const pigments = new Set(paletteTubes.value.map((t) => t.pigment));
    const rack = tubes.all
      .filter((t) => !pigments.has(t.pigment) && pigments.add(t.pigment))
      .map(({ id, paint }) => ({ id, K: paint.K, S: paint.S }));
    return ready.value ? desk?.nearest(target, rack) : undefined;
  }

  return { palette, paletteTubes, progress, count, trouble, edition, ready, lookUp, solve, nearest };
});
