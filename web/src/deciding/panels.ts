// What stands behind the keys over a picture, fetched when it is first asked for.
export { default as ProposePanel } from './ProposePanel.vue';
export { default as ProposedMarks } from './ProposedMarks.vue';
export { default as PlanPanel } from './PlanPanel.vue';
export { default as CanvasPanel } from './CanvasPanel.vue';
export { default as CanvasOver } from './CanvasOver.vue';
export { default as TryPanel } from './TryPanel.vue';
export { default as DressLine } from './DressLine.vue';
