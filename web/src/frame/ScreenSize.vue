<script setup lang="ts">
import { ref } from 'vue';
import { USUAL_PX_PER_MM, useScreen } from '../floor/screen.ts';

/** A bar that is made as long as a ruler or a card held against the screen: from then on beads are true. */
const LONG_MM = 85.6;
const pxPerMm = useScreen();
const length = ref((pxPerMm.value || USUAL_PX_PER_MM) * LONG_MM);
const keep = (): void => void (pxPerMm.value = length.value / LONG_MM);
</script>

<template>
  <section class="screen" aria-label="Size of this screen">
    <h3>True size</h3>
    <p>
      Hold a bank card, 85.6 mm long, or a ruler against the bar and move its end until both are as long.
      {{ pxPerMm ? 'This screen was checked.' : 'This screen was not checked yet: beads may be off by a tenth or two.' }}
    </p>
    <div class="bar" :style="{ width: `${length}px` }" />
    <label class="slide">
      <span class="for-readers">Length of the bar</span>
      <input v-model.number="length" type="range" min="160" max="700" step="1" @change="keep" />
    </label>
  </section>
</template>

<style scoped>
.screen {
  display: grid;
  gap: calc(2 * var(--unit));
  min-width: 0;
  overflow: hidden;
}
.bar {
  height: calc(6 * var(--unit));
  background: currentColor;
}
.slide input {
  width: 100%;
  min-height: 44px;
  accent-color: rgb(var(--v-theme-secondary));
}
</style>
