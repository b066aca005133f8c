import { defineAsyncComponent } from 'vue';

const sheets = () => import('./sheets.ts');
/** A day's sheets: not before there are piles to be laid. */
const days = () => import('./daySheets.ts');

/** An open pile and the sheets of the piles' place come by themselves, so that the piles are seen sooner. */
export const OpenPile = defineAsyncComponent(() => import('../pile/OpenPile.vue'));
export const CommonHeapSheet = defineAsyncComponent(async () => (await sheets()).CommonHeapSheet);
export const LogPile = defineAsyncComponent(async () => (await sheets()).LogPile);
export const NewPile = defineAsyncComponent(async () => (await sheets()).NewPile);
export const MissingTube = defineAsyncComponent(async () => (await sheets()).MissingTube);
export const RemakeAll = defineAsyncComponent(async () => (await sheets()).RemakeAll);
export const OutingSheet = defineAsyncComponent(async () => (await sheets()).OutingSheet);
export const DaySheet = defineAsyncComponent(async () => (await days()).DaySheet);
export const PalettePhotoSheet = defineAsyncComponent(async () => (await days()).PalettePhotoSheet);
export const FieldNotes = defineAsyncComponent(async () => (await days()).FieldNotes);
export const PrintSheet = defineAsyncComponent(async () => (await sheets()).PrintSheet);
