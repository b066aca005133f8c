<script setup lang="ts">
import { heapTitle, type HeapSteps } from '@dusk/core';
import { computed } from 'vue';
import MeasureSwitch from '../chips/MeasureSwitch.vue';
import { useSettings } from '../stores/settings.ts';
import { useTemplateRef } from 'vue';
import { useBeads } from '../chips/beads.ts';
import { useWhite } from '../floor/white.ts';

/** A card's recipe with its own tubes: beads in the order of mixing, let-downs first. */
const props = defineProps<{ heaps: readonly HeapSteps[] }>();
const white = useWhite();
const settings = useSettings();
const measure = computed(() => settings.settings.measure);
const recipe = useTemplateRef('recipe');
const { widthOf, says } = useBeads(recipe, 12, () => props.heaps.flatMap(({ steps }) => steps.map(({ beadMm }) => beadMm)));
</script>

<template>
  <section ref="recipe" class="card-recipe figures" aria-label="Recipe">
    <MeasureSwitch />
    <p v-if="measure === 'beads'" class="note">{{ says }}</p>
    <template v-for="(heap, at) in heaps" :key="heap.name">
      <p v-if="heaps.length > 1" class="first">{{ heapTitle(heaps, at) }}:</p>
      <ol class="bare">
        <li v-for="step in heap.steps" :key="step.name">
          <b>{{ step.told[measure] }}</b>
          <span
            >{{ step.name }}<span v-if="step.caution !== 'none'" class="quiet"> · {{ step.caution }}: see its label</span></span
          >
          <span class="quiet">{{ measure === 'parts' ? step.told.eye : '' }}</span>
          <span v-if="measure === 'beads'" class="bead" :style="{ width: widthOf(step.beadMm), background: white.shown(step.paint).css }" />
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(52px, auto) minmax(0, 1fr) auto;
  column-gap: calc(2 * var(--unit));
  line-height: 1.2;
  padding-bottom: var(--unit);
}
.bead {
  grid-column: 1 / -1;
  height: 12px;
}
.first {
  margin-top: var(--unit);
  font-weight: 700;
}
.note {
  font-size: var(--size-note);
}
</style>
