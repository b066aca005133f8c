<script setup lang="ts">
import { mdiCheckboxBlankOutline, mdiCheckboxMarkedOutline } from '@mdi/js';
import { type Mixture, mlText } from '@dusk/core';
import { computed, useTemplateRef } from 'vue';
import { useWhite } from '../floor/white.ts';
import { useBeads } from '../chips/beads.ts';
import { useSettings } from '../stores/settings.ts';
import type { Step } from './steps.ts';
import { useKnown } from './useKnown.ts';

/** A recipe in the painter's way of measuring, mix by mix, in the order of mixing. */
const white = useWhite();
const settings = useSettings();
const props = defineProps<{
  mixture: Mixture;
  amountMl: number;
  chips?: boolean;
  beads?: boolean;
  /** Steps that were ticked, heaps first; left out where nothing is to be ticked. */
  done?: readonly number[];
}>();
const emit = defineEmits<{ tick: [step: number] }>();
const isDone = (step: number): boolean => props.done?.includes(step) ?? false;
const boxOf = (step: number): string => (isDone(step) ? mdiCheckboxMarkedOutline : mdiCheckboxBlankOutline);
/** What stands beside a bead, px. */
const BESIDE_PX = 60;
const { heapsOf } = useKnown();

const heaps = computed(() => heapsOf(props.mixture, props.amountMl));
const first = computed(() => heaps.value.slice(0, -1));
const pile = computed(() => heaps.value.at(-1)!);

const measure = computed(() => settings.settings.measure);
/** Beads are drawn where they are the measure and have room. */
const drawn = computed(() => props.beads && measure.value === 'beads');
/** Beside parts stands their word, small. */
const besideParts = ({ told }: Step): string => (measure.value === 'parts' && told.eye !== told.parts ? told.eye : '');
const says = computed(() => (drawn.value ? scale.value : ''));

const recipe = useTemplateRef('recipe');
const { widthOf, says: scale } = useBeads(recipe, BESIDE_PX, () => heaps.value.flatMap((heap) => heap.steps.map((step) => step.beadMm)));
</script>

<template>
  <div ref="recipe" class="recipe figures">
    <p v-if="drawn" class="scale" data-test="bead-scale">{{ says }}</p>
    <section v-for="(heap, at) in first" :key="heap.name" class="letdown" :aria-label="`First mix ${heap.name}`">
      <p class="first" :class="{ done: isDone(at) }">
        <v-btn
          v-if="props.done"
          class="tick"
          :icon="boxOf(at)"
          :aria-pressed="isDone(at)"
          :aria-label="`${heap.name}: I’ve done this`"
          @click="emit('tick', at)"
        />
        {{ at === 0 ? 'First' : 'Then' }}, {{ heap.name }}<span v-if="beads" class="quiet">, {{ mlText(heap.ml) }}</span
        ><span v-if="beads && heap.batch > 1.05" class="quiet"> ({{ mlText(heap.ml * (1 - 1 / heap.batch)) }} will be left over)</span>:
      </p>
      <ul v-if="beads" class="bare">
        <li v-for="part in heap.steps" :key="part.name" class="step">
          <span v-if="chips" class="after" :style="{ background: white.shown(part.after).css }" />
          <span class="parts">{{ part.told[measure] }}</span>
          <span class="name"
            >{{ part.name }} <small class="quiet">{{ besideParts(part) }}</small></span
          >
          <span
            v-if="drawn"
            class="bead"
            :class="{ tip: part.touches !== undefined }"
            :style="{ width: widthOf(part.beadMm), background: white.shown(part.paint).css }"
          />
        </li>
      </ul>
      <p v-else class="inline">
        <template v-for="(part, i) in heap.steps" :key="part.name"
          ><template v-if="i > 0"> · </template><strong>{{ part.told[measure] }}</strong> {{ part.name }}</template
        >
      </p>
    </section>
    <ol class="bare">
      <li v-for="(step, i) in pile.steps" :key="step.name" class="step" :class="{ done: isDone(first.length + i), ticked: props.done }">
        <v-btn
          v-if="props.done"
          class="tick"
          :icon="boxOf(first.length + i)"
          :aria-pressed="isDone(first.length + i)"
          :aria-label="`${step.name}: I’ve done this`"
          @click="emit('tick', first.length + i)"
        />
        <span v-if="chips" class="after" :style="{ background: white.shown(step.after).css }" title="the pile after this addition" />
        <span class="parts">{{ step.told[measure] }}</span>
        <span class="name"
          >{{ step.name }} <small class="quiet">{{ besideParts(step) }}</small><span
            v-if="step.caution !== 'none' && beads"
            class="caution quiet"
          >
            · {{ step.caution }}: see its label</span
          ></span
        >
        <span
          v-if="drawn"
          class="bead"
          :class="{ tip: step.touches !== undefined }"
          :style="{ width: widthOf(step.beadMm), background: white.shown(step.paint).css }"
        />
        <span v-else-if="!chips" class="swatch" :style="{ background: white.shown(step.paint).css }" />
      </li>
    </ol>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: auto minmax(34px, auto) minmax(0, 1fr) auto;
  grid-auto-flow: row;
  align-items: center;
  column-gap: calc(2 * var(--unit));
  min-height: 33px;
}
.ticked {
  grid-template-columns: 44px auto minmax(34px, auto) minmax(0, 1fr) auto;
}
.ticked .bead {
  grid-column: 2 / -1;
}
.done .name,
.done.first {
  color: var(--surround-soft);
  text-decoration: line-through;
}
.tick {
  margin-left: -10px;
}
.step > .parts:first-child {
  grid-column: 1 / 3;
}
.parts {
  font-size: var(--size-lead);
  font-weight: 700;
  text-align: right;
  min-width: 34px;
}
.name {
  line-height: 1.15;
  overflow-wrap: anywhere;
}
.swatch {
  width: 44px;
  height: 26px;
}
.after {
  width: 44px;
  height: 38px;
}
.bead {
  grid-column: 1 / -1;
  height: 13px;
  border-radius: 7px;
  margin-bottom: calc(2 * var(--unit));
}
/* What the knife's tip takes up is no bead. */
.tip {
  height: 6px;
}
small {
  font-size: var(--size-note);
}
.scale {
  font-size: var(--size-note);
}
.inline {
  margin: var(--unit) 0 0;
}
.letdown {
  border-bottom: 1px solid var(--surround-line);
  margin-bottom: calc(2 * var(--unit));
  padding-bottom: var(--unit);
}
.first {
  font-weight: 500;
}
.caution {
  font-size: var(--size-note);
}
@media (max-width: 600px), (max-height: 520px) {
  .step {
    min-height: 30px;
  }
}
</style>
