import type { Pixels, ValueRange } from '@dusk/core';
import type { ReferenceDto } from '@dusk/wire';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { usePaintings } from '../paintings/paintings.ts';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import { useStudio } from '../studio/useStudio.ts';

/** A picture decoded once, so that areas of it can be read at any time. */
export interface Picture extends Pixels {
  readonly image: ImageBitmap;
}

const LEAST_RADIUS = 1;
const MOST_RADIUS = 60;
const USUAL_RADIUS = 8;

/** The reference picture of the painting on the easel, its darkest and lightest, and the size of area that is sampled. */
export const useReference = defineStore('reference', () => {
  const paintings = usePaintings();
  const studio = useStudio();
  const chosenId = ref<string>();
  const pixels = shallowRef<Picture>();
  const range = ref<ValueRange>();
  const failure = ref('');
  const radius = useLocalStorage('dusk.areaRadius', USUAL_RADIUS);

  /** The picture asked for, or else the newest. */
  const reference = computed<ReferenceDto | undefined>(() => {
    const all = paintings.onEasel ? paintings.referencesOf(paintings.onEasel.id) : [];
    return all.find((r) => r.id === chosenId.value) ?? all.at(-1);
  });

  let decoding: AbortController | undefined;
  watch(
    () => ({ of: reference.value?.id, id: reference.value?.pictureId }),
    async ({ of, id }, before) => {
      if (before && id === before.id && of === before.of) return;
      // A picture that has gone to the studio is the one that is shown already.
      if (before?.id && isLocal(before.id) && of === before.of && pixels.value) return;
      decoding?.abort();
      pixels.value = undefined;
      range.value = undefined;
      failure.value = '';
      if (!id) return;
      const own = (decoding = new AbortController());
      try {
        const file = await studio.heldPicture(id);
        const decoded = await unlessGivenUp(engine().ask('picture', file ? { file } : { url: pictureUrl(id) }, { signal: own.signal }));
        if (!decoded || own.signal.aborted) return;
        pixels.value = decoded;
        range.value = decoded.range;
      } catch {
        if (!own.signal.aborted) failure.value = 'The picture cannot be shown. Reload the page, or bring the picture again.';
      }
    },
    { immediate: true },
  );

  function resize(factor: number): void {
    radius.value = Math.min(MOST_RADIUS, Math.max(LEAST_RADIUS, Math.round(radius.value * factor) + (factor > 1 ? 1 : -1)));
  }

  return { reference, chosenId, pixels, range, failure, radius, resize };
});
