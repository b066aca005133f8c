<script setup lang="ts">
import { valueOfLightness, type Lab } from '@dusk/core';
import { computed } from 'vue';
import { describe } from '../floor/words.ts';
import { useSettings } from '../stores/settings.ts';

/** A colour in figures and words, value first. */
const props = defineProps<{ lab: Lab; large?: boolean }>();
const settings = useSettings();

const value = computed(() => settings.valueText(valueOfLightness(props.lab[0])));
const words = computed(() => describe(props.lab, settings.temperatureOf(props.lab)));
</script>

<template>
  <p class="line figures" :class="{ large }">
    <span class="label">value</span> <strong>{{ value }}</strong> <span class="words">{{ words }}</span>
  </p>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  gap: calc(2 * var(--unit));
  flex-wrap: wrap;
}
strong {
  font-size: var(--size-lead);
  font-weight: 700;
}
.large strong {
  font-size: var(--size-figure);
  line-height: 1;
}
.large .words {
  font-size: var(--size-lead);
}
</style>
