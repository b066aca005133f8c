<script setup lang="ts">
import { mdiCheckboxBlankOutline, mdiCheckboxMarkedOutline } from '@mdi/js';
import { type Mixture, mlText, mmText, partsText } from '@dusk/core';
import { computed, useTemplateRef } from 'vue';
import { useWhite } from './white.ts';
import { useBeads } from '../chips/beads.ts';
import { useKnown } from './useKnown.ts';

/** A recipe as parts and beads of paint at true length, heap by heap, in the order of mixing. */
const white = useWhite();
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
const BESIDE_PX = 104;
const { heapsOf } = useKnown();

const heaps = computed(() => heapsOf(props.mixture, props.amountMl));
const first = computed(() => heaps.value.slice(0, -1));
const pile = computed(() => heaps.value.at(-1)!);

const recipe = useTemplateRef('recipe');
const { widthOf, says } = useBeads(recipe, BESIDE_PX, () => heaps.value.flatMap((heap) => heap.steps.map((step) => step.beadMm)));
</script>

<template>
  <div ref="recipe" class="recipe figures">
    <p v-if="beads" class="scale" data-test="bead-scale">{{ says }}</p>
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
        ><span v-if="beads && heap.batch > 1.05" class="quiet"> (more than this pile needs)</span>:
      </p>
      <ul v-if="beads">
        <li v-for="part in heap.steps" :key="part.name" class="step">
          <span class="parts">{{ partsText(part.parts) }}</span>
          <span class="name">{{ part.name }}</span>
          <span class="mm">{{ mmText(part.beadMm) }}</span>
          <span class="bead" :style="{ width: widthOf(part.beadMm), background: white.shown(part.paint).css }" />
        </li>
      </ul>
      <p v-else class="inline">
        <template v-for="(part, i) in heap.steps" :key="part.name"
          ><template v-if="i > 0"> · </template><strong>{{ partsText(part.parts) }}</strong> {{ part.name }}</template
        >
      </p>
    </section>
    <ol>
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
        <span class="parts">{{ partsText(step.parts) }}</span>
        <span class="name"
          >{{ step.name
          }}<span v-if="step.caution !== 'none' && beads" class="caution quiet"> · {{ step.caution }}: see its label</span></span
        >
        <template v-if="beads">
          <span class="mm">{{ mmText(step.beadMm) }}</span>
          <span class="bead" :style="{ width: widthOf(step.beadMm), background: white.shown(step.paint).css }" />
        </template>
        <span v-else class="swatch" :style="{ background: white.shown(step.paint).css }" />
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
  column-gap: calc(2 * var(--unit));
  min-height: 33px;
}
.ticked {
  grid-template-columns: 44px auto 34px minmax(0, 1fr) auto;
}
.ticked .bead {
  grid-column: 4 / 6;
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
.mm {
  min-width: 62px;
  text-align: right;
}
.bead {
  grid-column: 3 / 5;
  height: 13px;
  border-radius: 7px;
  margin-bottom: calc(2 * var(--unit));
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
