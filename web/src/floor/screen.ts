import { useLocalStorage } from '@vueuse/core';
import { watchEffect } from 'vue';

/** Pixels of a screen to a millimetre by the browser's own reckoning: 96 to the inch. */
export const USUAL_PX_PER_MM = 96 / 25.4;

/** How many pixels come to a millimetre on this very screen, once it was checked; kept in this browser alone. */
export const useScreen = () => useLocalStorage('dusk.pxPerMm', 0);

/** Tells the whole page the size of a millimetre. */
export function useTrueSize(): void {
  const pxPerMm = useScreen();
  watchEffect(() => document.documentElement.style.setProperty('--mm', `${pxPerMm.value || USUAL_PX_PER_MM}px`));
}
