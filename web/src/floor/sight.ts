import { useLocalStorage } from '@vueuse/core';
import type { COMPARED_LIGHTS } from '@dusk/core';
import { defineStore } from 'pinia';

/** How the painter looks: everything grey (value alone), or squinting (pictures and chips blurred). Shared by the windows of this browser. */
export const useSight = defineStore('sight', () => {
  const grey = useLocalStorage('dusk.grey', false);
  const squint = useLocalStorage('dusk.squinting', false);
  /** The lamp that chips are seen by, where it is not day. */
  const lamp = useLocalStorage<(typeof COMPARED_LIGHTS)[number]>('dusk.lamp', 'D65');
  return { grey, squint, lamp };
});
