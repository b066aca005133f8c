<script setup lang="ts">
import { useId } from 'vue';

/** An amount between two ends: heard while a hand moves it, and once more when it is let go of. */
defineProps<{ label: string; min: number; max: number; step: number; says: string; modelValue: number }>();
const emit = defineEmits<{ 'update:modelValue': [value: number]; done: [value: number] }>();
const id = useId();
const valueOf = (event: Event): number => Number((event.target as HTMLInputElement).value);
</script>

<template>
  <div class="slider figures">
    <label :for="id">{{ label }}</label>
    <output :for="id">{{ says }}</output>
    <input
      :id="id"
      type="range"
      :min="min"
      :max="max"
      :step="step"
      :value="modelValue"
      :aria-valuetext="says"
      @input="emit('update:modelValue', valueOf($event))"
      @change="emit('done', valueOf($event))"
    />
  </div>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  font-size: var(--size-note);
}
input {
  grid-column: 1 / -1;
  width: 100%;
  min-height: 36px;
  margin: 0;
  appearance: none;
  background: none;
  color: inherit;
  cursor: pointer;
}
input::-webkit-slider-runnable-track {
  height: 2px;
  background: currentColor;
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 12px;
  height: 28px;
  margin-top: -13px;
  background: currentColor;
  border-radius: 2px;
}
input::-moz-range-track {
  height: 2px;
  background: currentColor;
}
input::-moz-range-thumb {
  width: 12px;
  height: 28px;
  border: 0;
  border-radius: 2px;
  background: currentColor;
}
</style>
