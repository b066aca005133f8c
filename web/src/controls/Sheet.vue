<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue';
import { sheetIsThere, sheetOpens } from '../floor/opening.ts';
import { useSight } from '../floor/sight.ts';

/** A sheet laid over the studio. Esc and a press beside it close it; the focus goes where the hand writes first, and back to where it was. */
const open = defineModel<boolean>({ required: true });
defineProps<{ label: string; wide?: boolean; judging?: boolean }>();
const sight = useSight();
const sheet = useTemplateRef('sheet');
let before: Element | null = null;

watch(open, (now) => (now ? sheetOpens() : sheetIsThere()), { flush: 'sync', immediate: open.value });
watch(
  open,
  async (now) => {
    if (now) before = document.activeElement;
    await nextTick();
    if (now) {
      // Where nothing is to be written it begins at its top, not at its last key.
      (sheet.value?.querySelector<HTMLElement>('input[autofocus], textarea[autofocus], [autofocus] input') ?? sheet.value)?.focus();
      sheet.value?.scrollTo({ top: 0 });
      sheetIsThere();
    } else if (before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true });
  },
  { immediate: true },
);
</script>

<template>
  <v-dialog v-model="open" :aria-label="label" :width="wide ? 760 : 560" max-width="94vw">
    <div ref="sheet" tabindex="-1" class="sheet" data-sheet :class="{ judging, 'sight-grey': sight.grey, 'sight-squint': sight.squint }">
      <slot />
    </div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: calc(4 * var(--unit));
  max-height: 92dvh;
  padding: calc(6 * var(--unit));
  border-top: var(--unit) solid rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-surface));
  overflow-y: auto;
  overscroll-behavior: contain;
}
/* It takes the focus only until something in it has it: no coloured frame beside what is judged. */
.sheet:focus-visible {
  outline: none;
}
/* No colour near what is judged. */
.judging {
  border-top: 0;
  background: var(--surround);
  color: var(--surround-ink);
}
@media (max-width: 600px) {
  .sheet {
    padding: calc(4 * var(--unit));
  }
}
</style>
