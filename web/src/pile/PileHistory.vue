<script setup lang="ts">
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { usePiles } from '../stores/piles.ts';
import { historyOf } from './story.ts';
import Sheet from '../controls/Sheet.vue';

/** A pile's history, a sentence a line, with times. */
const props = defineProps<{ pile: PileDto }>();
const open = defineModel<boolean>({ required: true });
const tubes = useTubes();
const piles = usePiles();
const settings = useSettings();

const pileOfStage = (stageId: string): string => piles.list.find((p) => p.stages.some((s) => s.id === stageId))?.name ?? 'another pile';
const lines = computed(() => historyOf(props.pile, { tubes: tubes.byId, pileOfStage, valueText: settings.valueText }));
</script>

<template>
  <Sheet v-model="open" :label="`History of ${pile.name}`" wide>
    <h2>{{ pile.name }}</h2>
    <dl class="lines figures">
      <template v-for="(line, i) in lines" :key="i">
        <dt>{{ line.at }}</dt>
        <dd data-test="history-line">{{ line.text }}</dd>
      </template>
    </dl>
    <div class="foot-keys"><v-btn @click="open = false">Done</v-btn></div>
  </Sheet>
</template>

<style scoped>
.lines {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: calc(2 * var(--unit)) calc(4 * var(--unit));
  margin: calc(4 * var(--unit)) 0;
}
.lines dd {
  margin: 0;
}
</style>
