<script setup lang="ts" generic="T extends string | number">
import { useId } from 'vue';

/** One of a few, all of them seen: a press chooses. */
const chosen = defineModel<T>({ required: true });
defineProps<{ label: string; items: readonly { readonly value: T; readonly title: string }[] }>();
const name = useId();
</script>

<template>
  <fieldset class="choice">
    <legend>{{ label }}</legend>
    <div class="wrapped-close">
      <label v-for="item in items" :key="item.value" class="key" :class="{ chosen: item.value === chosen }">
        <input type="radio" :name="name" :checked="item.value === chosen" @change="chosen = item.value" />
        <span>{{ item.title }}</span>
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
.key {
  position: relative;
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 calc(3 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 3px;
  cursor: pointer;
}
.key input {
  position: absolute;
  inset: 0;
  opacity: 0;
  margin: 0;
  cursor: pointer;
}
.key:has(:focus-visible) {
  outline: 3px solid rgb(var(--v-theme-secondary));
  outline-offset: 2px;
}
.chosen {
  background: rgb(var(--v-theme-on-surface));
  color: rgb(var(--v-theme-surface));
}
/* No colour of the studio's beside what is judged. */
.judging .chosen {
  background: var(--surround-ink);
  color: var(--on-ink);
}
/* In forced colours a chosen key would be told by its ground alone. */
@media (forced-colors: active) {
  .chosen {
    outline: 3px solid Highlight;
  }
}
</style>
