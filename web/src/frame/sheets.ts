import { defineAsyncComponent } from 'vue';

const load = {
  ledge: () => import('./ledge/Ledge.vue'),
  settings: () => import('./SettingsSheet.vue'),
  shortcuts: () => import('./ShortcutsSheet.vue'),
  waiting: () => import('../waiting/WaitingSheet.vue'),
  painting: () => import('../paintings/PaintingSheet.vue'),
  empty: () => import('../controls/EmptyPlace.vue'),
};

/** Parts of the window that the first view does without. */
export const Ledge = defineAsyncComponent(load.ledge);
export const SettingsSheet = defineAsyncComponent(load.settings);
export const ShortcutsSheet = defineAsyncComponent(load.shortcuts);
export const WaitingSheet = defineAsyncComponent(load.waiting);

/** Fetches them all, and an open pile and the piles' sheets, so that they are there while the studio is away. */
export async function fetchParts(): Promise<void> {
  const { LATER } = await import('../piles/later.ts');
  await Promise.allSettled([...LATER, ...Object.values(load)].map((part) => part()));
}
