// Sheets of the piles' place, fetched together once the place has opened.
export { default as CommonHeapSheet } from '../kin/CommonHeapSheet.vue';
export { default as LogPile } from './LogPile.vue';
export { default as NewPile } from './NewPile.vue';
export { default as MissingTube } from './MissingTube.vue';
export { default as RemakeAll } from '../remaking/RemakeAll.vue';
export { default as OutingSheet } from '../outing/OutingSheet.vue';
export { default as PrintSheet } from '../printing/PrintSheet.vue';
