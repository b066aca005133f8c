<script setup lang="ts">
import { MEASURES, type Measure } from '@dusk/core';
import { useSettings } from '../stores/settings.ts';

/** In which way recipes are told, everywhere: by eye, in parts, as beads, by scale. */
const store = useSettings();
const WORDS: Readonly<Record<Measure, string>> = { eye: 'by eye', parts: 'in parts', beads: 'beads', scale: 'by scale' };
</script>

<template>
  <v-btn-toggle
    class="measures"
    :model-value="store.settings.measure"
    mandatory
    density="compact"
    aria-label="How amounts are told (y)"
    title="How amounts are told (y)"
    data-test="measures"
    @update:model-value="store.change({ measure: $event })"
  >
    <v-btn v-for="measure in MEASURES" :key="measure" :value="measure" :data-test="`measure-${measure}`" size="small">{{
      WORDS[measure]
    }}</v-btn>
  </v-btn-toggle>
</template>

<style scoped>
.measures {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  height: 44px;
  border: 1px solid var(--surround-line);
  border-radius: 4px;
  background: transparent;
  color: inherit;
}
.measures :deep(.v-btn) {
  min-width: 0;
  height: 42px;
  padding: 0 2px;
  border-radius: 0;
  background: transparent;
  color: inherit;
  font-size: var(--size-note);
  font-weight: 400;
  letter-spacing: 0;
  text-transform: none;
}
.measures :deep(.v-btn--active) {
  font-weight: 700;
  box-shadow: inset 0 -3px 0 currentColor;
}
.measures :deep(.v-btn--active > .v-btn__overlay) {
  opacity: 0;
}
</style>
