<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue';
import { sheetIsThere, sheetOpens } from '../floor/opening.ts';
import { useSight } from '../floor/sight.ts';

/** A sheet laid over the studio: the browser's own dialog, which keeps the focus and gives it back. Esc and a press beside it close it. */
const open = defineModel<boolean>({ required: true });
defineProps<{ label: string; wide?: boolean; judging?: boolean }>();
const sight = useSight();
const dialog = useTemplateRef('dialog');
/** A press beside it, not the end of a drag that began in it. */
let beganBeside = false;
const onDown = (event: PointerEvent): void => void (beganBeside = event.target === dialog.value);
const onBeside = (): void => {
  if (beganBeside) open.value = false;
};

watch(open, (now) => (now ? sheetOpens() : sheetIsThere()), { flush: 'sync', immediate: open.value });
watch(
  open,
  async (now) => {
    await nextTick();
    if (now && !dialog.value?.open) {
      dialog.value?.showModal();
      // By hand, each time: a browser minds `autofocus` once. Where nothing is to be written it begins at its top, not at its last key.
      (dialog.value?.querySelector<HTMLElement>('[autofocus]') ?? dialog.value)?.focus();
      dialog.value?.scrollTo({ top: 0 });
      sheetIsThere();
    }
    if (!now) dialog.value?.close();
  },
  { immediate: true },
);
</script>

<template>
  <dialog
    ref="dialog"
    tabindex="-1"
    class="sheet"
    :class="{ wide, judging, 'sight-grey': sight.grey, 'sight-squint': sight.squint }"
    :aria-label="label"
    @close="open = false"
    @pointerdown="onDown"
    @click.self="onBeside"
  >
    <div v-if="open" class="inside"><slot /></div>
  </dialog>
</template>

<style scoped>
.sheet {
  width: min(560px, 94vw);
  max-width: none;
  max-height: 92dvh;
  margin: auto;
  padding: 0;
  border: 0;
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
.wide {
  width: min(760px, 94vw);
}
.sheet::backdrop {
  background: rgb(0 0 0 / 55%);
}
.inside {
  display: grid;
  gap: calc(4 * var(--unit));
  padding: calc(6 * var(--unit));
}
@media (max-width: 600px) {
  .inside {
    padding: calc(4 * var(--unit));
  }
}
</style>
