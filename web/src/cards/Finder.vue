<script setup lang="ts">
import { mdiClose, mdiTrayArrowDown } from '@mdi/js';
import { colourFromText, colourFromWords, CraftError, type Lab } from '@dusk/core';
import { computed, ref, useTemplateRef } from 'vue';
import PaintKey from '../chips/PaintKey.vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import Slider from '../controls/Slider.vue';
import { useDesk } from '../stores/useDesk.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { useCards } from '../stores/cards.ts';
import { useFinding } from '../stores/finding.ts';
import KeepTogether from './KeepTogether.vue';

/** What cards are looked for by: value first, then a colour, words, tubes in and out. */
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

const written = ref('');
const says = ref('');
/** A colour as it is said or written. */
function nearWritten(): void {
  const text = written.value.trim();
  if (text === '') return;
  try {
    finding.near = { lab: read(text), says: text };
    says.value = '';
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    says.value = cause.message;
  }
}
function read(text: string): Lab {
  try {
    return colourFromText(text);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    return colourFromWords(text);
  }
}

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
</script>

<template>
  <aside class="finder" aria-label="Find cards">
    <h1>Cards</h1>
    <div class="pair">
      <Slider v-model="finding.by.darkest" label="value from" :min="0" :max="10" :step="0.1" :says="value(finding.by.darkest)" />
      <Slider v-model="finding.by.lightest" label="to" :min="0" :max="10" :step="0.1" :says="value(finding.by.lightest)" />
    </div>
    <Field ref="field" v-model="finding.by.words" label="Words, tubes, a painting" clearable data-test="find-words" />
    <section aria-label="Near a colour">
      <div v-if="finding.near" class="near">
        <PaintKey :lab="finding.near.lab" data-test="near" @click="finding.near = undefined">near {{ finding.near.says }}</PaintKey>
        <v-btn :icon="mdiClose" aria-label="Near no colour" title="Near no colour" @click="finding.near = undefined" />
      </div>
      <Field
        v-else
        v-model="written"
        label="Near a colour: words, #hex, 5YR 6/4"
        data-test="near-written"
        @keydown.enter="nearWritten"
        @blur="nearWritten"
      />
      <p v-if="says && !finding.near" class="note" role="alert">{{ says }}</p>
      <details v-if="piles.ofRank.length > 0 && !finding.near">
        <summary>or near a pile of this painting</summary>
        <PaintKey
          v-for="pile in piles.ofRank"
          :key="pile.id"
          :lab="lookNow(pile)"
          @click="finding.near = { lab: lookNow(pile), says: pile.name }"
          >{{ pile.name }}</PaintKey
        >
      </details>
    </section>
    <section v-if="cards.sets.length > 0" aria-label="Sets">
      <h2>Sets</h2>
      <button
        v-for="set in cards.sets"
        :key="set.id"
        type="button"
        class="set"
        :aria-pressed="set.id === finding.setId"
        @click="finding.setId = set.id === finding.setId ? undefined : set.id"
      >
        {{ set.name }} <span class="quiet figures">{{ set.cardIds.length }}</span>
      </button>
    </section>
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
    <details>
      <summary>thing, zone, painting, day</summary>
      <Field v-model="finding.by.thing" label="Thing" />
      <Field v-model="finding.by.zone" label="Zone" />
      <Field v-model="finding.by.painting" label="Painting" />
      <label class="day">made since <input v-model="finding.by.since" type="date" /></label>
    </details>
    <KeepTogether v-if="finding.isNarrowed && !finding.setId && finding.found && finding.found.total > 1" />
    <button v-if="finding.isNarrowed" type="button" class="text" @click="finding.clear()">Look at all of them</button>
    <v-btn variant="outlined" :prepend-icon="mdiTrayArrowDown" @click="emit('bring')">Bring cards&ensp;<kbd>b</kbd></v-btn>
  </aside>
</template>

<style scoped>
.finder {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: calc(4 * var(--unit));
  align-content: start;
}
.pair {
  display: grid;
  gap: calc(2 * var(--unit));
}
.near {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
}
details[open] {
  display: grid;
}
.out {
  text-decoration: line-through;
}
.set,
.text {
  min-height: 44px;
  text-align: left;
}
.set {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: calc(2 * var(--unit));
  width: 100%;
  line-height: 1.15;
}
.set[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.text {
  text-decoration: underline;
}
.day {
  display: grid;
  font-size: var(--size-note);
}
.day input {
  min-height: 44px;
  font-size: var(--size-lead);
}
.note {
  font-size: var(--size-note);
}
@media (orientation: portrait), (max-width: 1000px) {
  .finder {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    align-items: start;
    gap: calc(3 * var(--unit)) calc(6 * var(--unit));
  }
  h1 {
    grid-column: 1 / -1;
  }
}
</style>
