import { defineStore } from 'pinia';
import { ref } from 'vue';

/** How the painter looks: everything grey (value alone), or squinting (blurred). */
export const useSight = defineStore('sight', () => {
  const grey = ref(false);
  const squint = ref(false);
  return { grey, squint };
});
