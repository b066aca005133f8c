// The last point of each reference picture, in its own pixels: it outlives a reload, and other windows hear of it.
import { useLocalStorage } from '@vueuse/core';
import type { Place } from './useLiveRecipe.ts';

export const usePoints = () => useLocalStorage<Record<string, Place>>('dusk.points', {});
