import { defineAsyncComponent } from 'vue';

/** Parts of the window that the first view does without. */
export const Ledge = defineAsyncComponent(() => import('./ledge/Ledge.vue'));
export const SettingsSheet = defineAsyncComponent(() => import('./SettingsSheet.vue'));
export const ShortcutsSheet = defineAsyncComponent(() => import('./ShortcutsSheet.vue'));
export const WaitingSheet = defineAsyncComponent(() => import('../waiting/WaitingSheet.vue'));
