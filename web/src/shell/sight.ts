import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** How the painter looks: everything grey (value alone), or squinting (pictures and chips blurred). Shared by the windows of this browser. */
export const useSight = defineStore('sight', () => {
  const grey = useLocalStorage('dusk.grey', false);
  const squint = useLocalStorage('dusk.squinting', false);
  return { grey, squint };
});
