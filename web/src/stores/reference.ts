import { valueRange, type Pixels, type ValueRange } from '@dusk/core';
import type { ReferenceDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { pictureUrl } from '../api.ts';
import { usePaintings } from './paintings.ts';

/** A picture decoded once, so that areas of it can be read at any time. */
export interface Picture extends Pixels {
  readonly image: ImageBitmap;
}

const RADIUS = 'dusk.areaRadius';
const LEAST_RADIUS = 1;
const MOST_RADIUS = 60;

/** The reference picture of the open painting, its darkest and lightest, and the size of area that is sampled. */
export const useReference = defineStore('reference', () => {
  const paintings = usePaintings();
  const chosenId = ref<string>();
  const pixels = shallowRef<Picture>();
  const range = ref<ValueRange>();
  const trouble = ref('');
  const radius = ref(Number(localStorage.getItem(RADIUS)) || 8);

  /** The picture asked for, or else the newest. */
  const reference = computed<ReferenceDto | undefined>(() => {
    const all = paintings.open?.references ?? [];
    return all.find((r) => r.id === chosenId.value) ?? all.at(-1);
  });

  watch(
    () => reference.value?.pictureId,
    async (id) => {
      pixels.value = undefined;
      range.value = undefined;
      trouble.value = '';
      if (!id) return;
      try {
        const decoded = await decode(id);
        if (reference.value?.pictureId !== id) return;
        pixels.value = decoded;
        range.value = valueRange(decoded);
      } catch {
        trouble.value = 'The picture cannot be shown. Reload the page, or bring the picture again.';
      }
    },
    { immediate: true },
  );

  function resize(factor: number): void {
    radius.value = Math.min(MOST_RADIUS, Math.max(LEAST_RADIUS, Math.round(radius.value * factor) + (factor > 1 ? 1 : -1)));
    localStorage.setItem(RADIUS, String(radius.value));
  }

  return { reference, chosenId, pixels, range, trouble, radius, resize };
});

/** The server keeps pictures upright and in sRGB, so nothing is to be converted here. */
async function decode(id: string): Promise<Picture> {
  const response = await fetch(pictureUrl(id));
  if (!response.ok) throw new Error(`picture ${id}: ${response.status}`);
  const image = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
  const canvas = new OffscreenCanvas(image.width, image.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, image.width, image.height);
  return { data, width, height, image };
}
