<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { computed, ref, useTemplateRef } from 'vue';
import PaintKey from '../chips/PaintKey.vue';
import { grey } from '../chips/surround.ts';
import Choice from '../controls/Choice.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import { useDesk } from '../stores/useDesk.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { useCards } from '../stores/cards.ts';
import { useFinding } from '../stores/finding.ts';
import KeepTogether from './KeepTogether.vue';

/** What cards are looked for by: one line of words, a strip of values; what is asked less often is behind a key. */
const emit = defineEmits<{ bring: [] }>();
const finding = useFinding();
const cards = useCards();
const paintings = usePaintings();
const piles = usePiles();
const tubes = useTubes();
const desk = useDesk();
const settings = useSettings();
const field = useTemplateRef('field');
defineExpose({ focus: () => field.value?.focus() });

const value = (v: number): string => settings.valueText(v);
const range = computed({
  get: () => [finding.by.darkest, finding.by.lightest],
  set: ([darkest, lightest]) => Object.assign(finding.by, { darkest, lightest }),
});
const GREYS = Array.from({ length: 11 }, (_, i) => i);
const greys = computed(() => `linear-gradient(90deg, ${GREYS.map(grey).join(', ')})`);
const TEMPERATURES = [
  { value: 'any' as const, title: 'any' },
  { value: 'warm' as const, title: 'warm' },
  { value: 'neutral' as const, title: 'neutral' },
  { value: 'cool' as const, title: 'cool' },
];
const REACHES = [
  { value: 'any' as const, title: 'any tubes' },
  { value: 'mixable' as const, title: 'mixable' },
  { value: 'nearly' as const, title: 'but for one' },
];

/** Pigments that are asked about: those of the palette on the easel, and those that are asked about already. */
const pigments = computed(() => {
  const asked = [...finding.by.within, ...finding.by.without];
  const shown = [...desk.paletteTubes.map(({ pigment }) => pigment), ...asked];
  const all = shown.length > 0 ? shown : tubes.all.filter(({ maker }) => maker !== '').map(({ pigment }) => pigment);
  return [...new Set(all)].flatMap((pigment) => tubes.all.find((tube) => tube.pigment === pigment) ?? []);
});
const wanted = (pigment: string): 'in' | 'out' | undefined =>
  finding.by.within.includes(pigment) ? 'in' : finding.by.without.includes(pigment) ? 'out' : undefined;
/** A press asks for it, one more against it, a third lets it be. */
function turn(pigment: string): void {
  const was = wanted(pigment);
  const { by } = finding;
  by.within = by.within.filter((one) => one !== pigment);
  by.without = by.without.filter((one) => one !== pigment);
  if (was === undefined) by.within.push(pigment);
  else if (was === 'in') by.without.push(pigment);
}
const TURNS = { any: '', in: 'with ', out: 'without ' } as const;
const called = ({ pigment, name }: Tube): string => `${TURNS[wanted(pigment) ?? 'any']}${name}`;
const narrowing = ref(false);
const seldom = computed(() => [
  { title: narrowing.value ? 'Fewer ways to find' : 'More ways to find', run: () => (narrowing.value = !narrowing.value) },
  { title: 'Bring cards', key: 'b', run: () => emit('bring') },
]);
</script>

<template>
  <div class="finder" role="search" aria-label="Find cards">
    <div class="line">
      <h1 class="for-readers">Cards</h1>
      <v-text-field
        ref="field"
        v-model="finding.by.words"
        class="words"
        clearable
        aria-label="Find cards by words, value, colour or tube"
        placeholder="copper, value 3, like olive green, without cadmium"
        data-test="find-words"
        @update:model-value="finding.by.words ??= ''"
      />
      <button
        v-if="paintings.onEasel"
        type="button"
        class="text link-key"
        :aria-pressed="finding.by.reach === 'mixable'"
        @click="finding.by.reach = finding.by.reach === 'mixable' ? 'any' : 'mixable'"
      >
        mixable today
      </button>
      <MoreKeys :keys="seldom" label="More with these cards" />
    </div>
    <div class="line">
      <div class="strip">
        <div class="greys" :style="{ background: greys }" aria-hidden="true" />
        <v-range-slider v-model="range" :min="0" :max="10" :step="0.1" aria-label="values" data-test="values" :thumb-label="false" />
      </div>
      <span class="figures between" data-test="between">{{ value(finding.by.darkest) }} to {{ value(finding.by.lightest) }}</span>
    </div>
    <div v-if="finding.nearest || cards.sets.length > 0 || finding.isNarrowed" class="line sets">
      <span v-if="finding.nearest" class="near">
        <PaintKey :lab="finding.nearest.lab" data-test="near" @click="finding.nearNothing()">near {{ finding.nearest.says }}</PaintKey>
        <v-btn :icon="mdiClose" aria-label="Near no colour" title="Near no colour" @click="finding.nearNothing()" />
      </span>
      <button
        v-for="set in cards.sets"
        :key="set.id"
        type="button"
        class="text link-key"
        :aria-pressed="set.id === finding.setId"
        @click="finding.setId = set.id === finding.setId ? undefined : set.id"
      >
        {{ set.name }} <span class="figures">{{ set.cardIds.length }}</span>
      </button>
      <button v-if="finding.isNarrowed" type="button" class="text all link-key" @click="finding.clear()">Look at all of them</button>
    </div>
    <KeepTogether v-if="finding.isNarrowed && !finding.setId && finding.found && finding.found.total > 1" />
    <div v-if="narrowing" class="narrowing">
      <Choice v-model="finding.by.temperature" label="Temperature" :items="TEMPERATURES" />
      <Choice v-if="paintings.onEasel" v-model="finding.by.reach" label="From the palette on the easel" :items="REACHES" />
      <details>
        <summary>tubes in and out</summary>
        <PaintKey
          v-for="tube in pigments"
          :key="tube.pigment"
          :lab="tube.masstone"
          :pressed="wanted(tube.pigment) !== undefined"
          :class="wanted(tube.pigment)"
          @click="turn(tube.pigment)"
          >{{ called(tube) }}</PaintKey
        >
      </details>
      <details v-if="piles.ofRank.length > 0 && !finding.nearest">
        <summary>near a pile of this painting</summary>
        <PaintKey
          v-for="pile in piles.ofRank"
          :key="pile.id"
          :lab="lookNow(pile)"
          @click="finding.near = { lab: lookNow(pile), says: pile.name }"
          >{{ pile.name }}</PaintKey
        >
      </details>
      <details>
        <summary>thing, zone, painting, day</summary>
        <v-text-field v-model="finding.by.thing" placeholder="Thing" aria-label="Thing" />
        <v-text-field v-model="finding.by.zone" placeholder="Zone" aria-label="Zone" />
        <v-text-field v-model="finding.by.painting" placeholder="Painting" aria-label="Painting" />
        <v-text-field v-model="finding.by.since" type="date" aria-label="Made since" />
      </details>
    </div>
  </div>
</template>

<style scoped>
.finder {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--unit);
  align-content: start;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 calc(4 * var(--unit));
}
.words {
  flex: 1 1 260px;
}
.strip {
  position: relative;
  flex: 1;
  min-width: 0;
}
.greys {
  height: 26px;
}
.strip :deep(.v-input) {
  position: absolute;
  inset: -3px 0 auto;
  margin: 0;
}
/* The handles are what is taken hold of; the greys are their track. */
.strip :deep(.v-slider-track) {
  opacity: 0;
}
.strip :deep(.v-slider-thumb__surface) {
  width: 12px;
  height: 40px;
  border-radius: 2px;
  background: var(--surround-ink);
  outline: 2px solid var(--surround);
}
.strip :deep(.v-slider-thumb__surface)::after {
  display: none;
}
.between {
  min-width: 84px;
  text-align: right;
}
.near {
  display: flex;
  align-items: center;
}
.text[aria-pressed='true'] {
  font-weight: 700;
}
.narrowing {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
  align-items: start;
  padding: calc(2 * var(--unit)) 0;
}
details[open] {
  display: grid;
}
.out {
  text-decoration: line-through;
}
</style>
