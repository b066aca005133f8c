import { temperature, writeValue, type Lab } from '@dusk/core';
import type { SettingsChange, SettingsDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api.ts';
import { useNotices } from './notices.ts';

const USUAL: SettingsDto = { version: 0, valueScale: 'munsell', warmBlue: 'red-leaning', surround: 'N5', room: 'dark' };

/** How this painter thinks: value scale, which blue is warm, grey around colours, light of the room. */
export const useSettings = defineStore('settings', () => {
  const settings = ref<SettingsDto>(USUAL);

  async function load(): Promise<void> {
    settings.value = await api.settings();
  }

  async function change(part: Omit<SettingsChange, 'version'>): Promise<void> {
    const notices = useNotices();
    const before = settings.value;
    settings.value = { ...before, ...part };
    const saved = await notices.attempt(() => api.changeSettings({ ...part, version: before.version }));
    if (saved) settings.value = saved;
    else await notices.attempt(load);
  }

  const valueText = (value: number): string => writeValue(value, settings.value.valueScale);
  const temperatureOf = (lab: Lab): number => temperature(lab, settings.value.warmBlue);

  return { settings, load, change, valueText, temperatureOf };
});
