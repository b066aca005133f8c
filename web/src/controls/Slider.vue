<script setup lang="ts">
/** An amount between two ends, its name and what it comes to above it: heard while a hand moves it, and once more when it is let go of. */
defineProps<{ label: string; min: number; max: number; step: number; says: string; modelValue: number }>();
const emit = defineEmits<{ 'update:modelValue': [value: number]; done: [value: number] }>();
/** By key it is moved step by step: what it comes to is told when the key is let go of. */
let last: number | undefined;
function moved(value: number): void {
  last = value;
  emit('update:modelValue', value);
}
function letGo(): void {
  if (last === undefined) return;
  emit('done', last);
  last = undefined;
}
</script>

<template>
  <div class="slider figures">
    <span>{{ label }}</span>
    <output>{{ says }}</output>
    <v-slider
      class="line"
      :model-value="modelValue"
      :min="min"
      :max="max"
      :step="step"
      :aria-label="label"
      :aria-valuetext="says"
      @update:model-value="moved"
      @end="letGo"
      @keyup="letGo"
    />
  </div>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  font-size: var(--size-note);
}
.line {
  grid-column: 1 / -1;
}
</style>
