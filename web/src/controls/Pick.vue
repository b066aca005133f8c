<script setup lang="ts" generic="T">
import { computed, useId } from 'vue';

/** One of several, its name before it; where no name is seen, `aria-label` says it. */
defineOptions({ inheritAttrs: false });
const value = defineModel<T>();
const props = defineProps<{
  options: readonly { readonly value: T; readonly title: string; readonly disabled?: boolean }[];
  label?: string;
  /** On a line of its own, where words stand before it. */
  alone?: boolean;
}>();
const id = useId();
// By place, so that nothing chosen is a choice like any other.
const items = computed(() => props.options.map(({ title, disabled = false }, at) => ({ value: at, title, props: { disabled } })));
const chosen = computed(() => {
  const at = props.options.findIndex((one) => one.value === value.value);
  return at < 0 ? null : at;
});
/** What was chosen is done with: letters are the place's again, and do not choose another. */
function choose(at: number): void {
  value.value = props.options[at]!.value;
  chosenAt = performance.now();
}
let chosenAt = -Infinity;
const COMES_BACK_MS = 500;
/** A list that has gone gives the focus back to its field. */
function onFocusIn({ target }: FocusEvent): void {
  if (performance.now() - chosenAt < COMES_BACK_MS) (target as HTMLElement).blur();
  chosenAt = -Infinity;
}
const MOST_LETTERS = 30;
const letters = computed(() => Math.min(MOST_LETTERS, Math.max(...props.options.map(({ title }) => title.length), 4)));
</script>

<template>
  <div class="pick" :class="{ alone }" @focusin="onFocusIn">
    <label v-if="label" :for="id">{{ label }}</label>
    <v-select
      :id="id"
      :model-value="chosen"
      :items="items"
      :style="{ '--letters': letters }"
      v-bind="$attrs"
      @update:model-value="choose"
    />
  </div>
</template>

<style scoped>
.pick {
  display: inline-flex;
  align-items: baseline;
  gap: calc(2 * var(--unit));
  min-height: 44px;
  min-width: 0;
  max-width: 100%;
}
.alone {
  display: flex;
}
label {
  flex: none;
  min-width: var(--pick-name, 0);
  font-size: var(--size-note);
}
.v-input {
  flex: 0 1 auto;
  width: calc(var(--letters) * 0.5em + 44px);
  min-width: 0;
}
</style>
