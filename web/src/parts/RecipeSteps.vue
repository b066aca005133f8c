<script setup lang="ts">
import { show } from '@dusk/core';
import { computed } from 'vue';
import { stepsOf } from '../live/measures.ts';
import { useTubes } from '../stores/tubes.ts';
import type { RecipeMeasure } from '../workers/recipe.ts';

/** A recipe as parts and beads of paint at true length, in the order of mixing. */
const props = defineProps<{ measures: readonly RecipeMeasure[]; amountMl: number; chips?: boolean; beads?: boolean }>();
const tubes = useTubes();

const steps = computed(() => stepsOf(props.measures, tubes.byId, props.amountMl));
const letdowns = computed(() => steps.value.filter((step) => step.letdown));
const parts = (n: number): string => String(Math.round(n * 100) / 100);
const mm = (v: number): string => (v < 10 ? v.toFixed(1) : v.toFixed(0));
</script>

<template>
  <div class="recipe figures">
    <section v-for="step in letdowns" :key="step.name" class="letdown" :aria-label="`First mix ${step.name}`">
      <p class="first">First, {{ step.name }}<span v-if="beads && step.batch! > 1.05" class="quiet"> (more than this pile needs)</span>:</p>
      <ul>
        <li v-for="part in step.letdown" :key="part.name" class="step">
          <span class="parts">{{ parts(part.parts) }}</span>
          <span class="name">{{ part.name }}</span>
          <template v-if="beads">
            <span class="mm">{{ mm(part.beadMm) }} mm</span>
            <span class="bead" :style="{ width: `${part.beadMm}mm`, background: show(part.paint).css }" />
          </template>
        </li>
      </ul>
    </section>
    <ol>
      <li v-for="step in steps" :key="step.name" class="step">
        <span v-if="chips" class="after" :style="{ background: show(step.pileAfter).css }" title="the pile after this addition" />
        <span class="parts">{{ parts(step.parts) }}</span>
        <span class="name"
          >{{ step.name
          }}<span v-if="step.caution !== 'none' && beads" class="caution quiet"> · {{ step.caution }}: see its label</span></span
        >
        <template v-if="beads">
          <span class="mm">{{ mm(step.beadMm) }} mm</span>
          <span class="bead" :style="{ width: `${step.beadMm}mm`, background: show(step.paint).css }" />
        </template>
        <span v-else class="swatch" :style="{ background: show(step.paint).css }" />
      </li>
    </ol>
  </div>
</template>

<style scoped>
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.step {
  display: grid;
  grid-template-columns: auto 34px minmax(0, 1fr) auto;
  grid-auto-flow: row;
  align-items: center;
  column-gap: 8px;
  min-height: 38px;
}
.step > .parts:first-child {
  grid-column: 1 / 3;
}
.parts {
  font-size: 22px;
  font-weight: 700;
  text-align: right;
  min-width: 34px;
}
.name {
  line-height: 1.15;
}
.swatch {
  width: 44px;
  height: 26px;
}
.after {
  width: 44px;
  height: 38px;
}
.mm {
  min-width: 62px;
  text-align: right;
}
.bead {
  grid-column: 3 / 5;
  height: 13px;
  max-width: 100%;
  border-radius: 7px;
  margin-bottom: 8px;
}
.letdown {
  border-bottom: 1px solid var(--surround-line);
  margin-bottom: 6px;
  padding-bottom: 4px;
}
.first {
  font-weight: 500;
}
.caution {
  font-size: 14px;
}
</style>
