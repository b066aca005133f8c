<script setup lang="ts" generic="T extends string">
import { nextTick, useTemplateRef } from 'vue';

/** What is beside what is worked on, one at a time: a press or the arrow keys choose. */
const chosen = defineModel<T>({ required: true });
const props = defineProps<{ label: string; tabs: readonly { readonly id: T; readonly title: string; readonly key?: string }[] }>();
const bar = useTemplateRef('bar');

async function go(by: 1 | -1): Promise<void> {
  const at = props.tabs.findIndex(({ id }) => id === chosen.value);
  chosen.value = props.tabs[(at + by + props.tabs.length) % props.tabs.length]!.id;
  await nextTick();
  bar.value?.querySelector<HTMLElement>('[aria-selected=true]')?.focus();
}
</script>

<template>
  <div ref="bar" class="tabs" role="tablist" :aria-label="label" @keydown.left.stop.prevent="go(-1)" @keydown.right.stop.prevent="go(1)">
    <button
      v-for="tab in tabs"
      :key="tab.id"
      type="button"
      role="tab"
      :aria-selected="tab.id === chosen"
      :tabindex="tab.id === chosen ? 0 : -1"
      @click="chosen = tab.id"
    >
      {{ tab.title }}<kbd v-if="tab.key">{{ tab.key }}</kbd>
    </button>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: calc(4 * var(--unit));
  border-bottom: 1px solid var(--surround-line);
  margin-bottom: calc(3 * var(--unit));
}
button {
  min-height: 44px;
  min-width: 44px;
  padding: 0;
  color: var(--surround-soft);
  border-bottom: 3px solid transparent;
}
button[aria-selected='true'] {
  color: var(--surround-ink);
  font-weight: 700;
  border-bottom-color: currentColor;
}
kbd {
  border: 0;
  padding: 0 0 0 var(--unit);
  font-size: var(--size-note);
  font-weight: 400;
}
@media (pointer: coarse) {
  kbd {
    display: none;
  }
}
</style>
