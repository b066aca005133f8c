import { KNIFE, USUAL_AMOUNT_ML, temperature, writeValue, type Lab } from '@dusk/core';
import type { Needs, SettingsDto } from '@dusk/wire';
import { COPIES_KEPT } from '@dusk/wire/limits';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useStudio } from '../studio/useStudio.ts';

const ONLY = '1';
const USUAL: SettingsDto = {
  id: ONLY,
  version: 0,
  valueScale: 'munsell',
  warmBlue: 'red-leaning',
  surround: 'N5',
  room: 'dark',
  knife: KNIFE,
  dulling: 'any',
  measure: 'parts',
  amountMl: USUAL_AMOUNT_ML,
  stepLeast: 1,
  stepMost: 12,
  copiesFolder: '',
  copiesKept: COPIES_KEPT,
  temperatureC: null,
  finishing: [],
};

/** How this painter thinks: value scale, which blue is warm, grey around colours, light of the room. */
export const useSettings = defineStore('settings', () => {
  const studio = useStudio();
  const settings = computed(() => studio.rows.settings.get(ONLY) ?? USUAL);

  const change = (part: Omit<Needs<'settings.change'>, 'version'>): Promise<boolean> =>
    studio.make([{ do: 'settings.change', ...part, version: settings.value.version }], 'Changed how you see');

  const valueText = (value: number): string => writeValue(value, settings.value.valueScale);
  const temperatureOf = (lab: Lab): number => temperature(lab, settings.value.warmBlue);

  return { settings, change, valueText, temperatureOf };
});
