import { sheetOpens } from '../floor/opening.ts';
import { defineAsyncComponent, ref, watch, type Ref } from 'vue';

const load = {
  ledge: () => import('./ledge/Ledge.vue'),
  settings: () => import('./SettingsSheet.vue'),
  shortcuts: () => import('./ShortcutsSheet.vue'),
  waiting: () => import('../waiting/WaitingSheet.vue'),
};

/** Parts of the window that the first view does without. */
export const Ledge = defineAsyncComponent(load.ledge);
export const SettingsSheet = defineAsyncComponent(load.settings);
export const ShortcutsSheet = defineAsyncComponent(load.shortcuts);
export const WaitingSheet = defineAsyncComponent(load.waiting);

/** Fetches them all, so that they are there while the studio is away. */
export const fetchParts = (): Promise<unknown> => Promise.allSettled(Object.values(load).map((part) => part()));

/** Whether something was ever true. */
export function onceTrue(now: Readonly<Ref<boolean>>): Readonly<Ref<boolean>> {
  const once = ref(now.value);
  watch(
    now,
    (is) => {
      if (is) sheetOpens();
      if (is) once.value = true;
    },
    { flush: 'sync' },
  );
  return once;
}
