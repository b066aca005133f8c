<script setup lang="ts">
import { AIDS, valueOfLightness } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, toRef } from 'vue';
import Choice from '../controls/Choice.vue';
import Sheet from '../controls/Sheet.vue';
import { counted } from '../floor/words.ts';
import { usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useFamily } from './useFamily.ts';

/** Relatives of a pile by what is known of light, faces, distance and reflections: changed where yours differ, then made. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const settings = useSettings();
const { chosen, aid, base, members, remarks, taken, nudge, asItWas, toggle, keep, isKeeping } = useFamily(toRef(props, 'pile'));

const families = AIDS.map(({ id, name }) => ({ value: id, title: name }));
const valueOf = (lab: readonly [number, number, number]): string => settings.valueText(valueOfLightness(lab[0]));
const isAnyOwn = computed(() => members.value.some(({ isOwn }) => isOwn));
const STEPS = [
  { by: 'value', step: -0.25, word: 'darker' },
  { by: 'value', step: 0.25, word: 'lighter' },
  { by: 'temperature', step: -1.5, word: 'cooler' },
  { by: 'temperature', step: 1.5, word: 'warmer' },
  { by: 'chroma', step: -0.5, word: 'duller' },
  { by: 'chroma', step: 0.5, word: 'brighter' },
] as const;
async function make(): Promise<void> {
  if (await keep()) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`A family of ${pile.name}`" wide judging>
    <div class="figures stack">
      <h2>A family of {{ pile.name }}</h2>
      <Choice v-model="chosen" label="What it is for" :items="families" />
      <p class="quiet">{{ aid.rests }}</p>
      <div class="strip squints" aria-hidden="true">
        <span :style="{ background: piles.shown(base) }" />
        <span v-for="one in members" :key="one.relative.name" :class="{ out: one.isOut }" :style="{ background: piles.shown(one.lab) }" />
      </div>
      <p v-for="said in remarks" :key="said" role="status" class="strong" data-test="family-said">{{ said }}</p>
      <ul class="rows bare">
        <li v-for="one in members" :key="one.relative.name" :class="{ out: one.isOut }">
          <button
            type="button"
            class="name"
            :aria-pressed="!one.isOut"
            :title="one.isOut ? 'take it after all' : 'not this one'"
            data-test="relative"
            @click="toggle(one.relative.name)"
          >
            <span class="chip" :style="{ background: piles.shown(one.lab) }" />
            <span>{{ one.relative.name }}</span>
            <b>{{ valueOf(one.lab) }}</b>
          </button>
          <span class="steps">
            <button
              v-for="{ by, step, word } in STEPS"
              :key="word"
              type="button"
              :aria-label="`${one.relative.name}: ${word}`"
              @click="nudge(one.relative.name, by, step)"
            >
              {{ word }}
            </button>
          </span>
        </li>
      </ul>
      <div class="foot-keys">
        <v-btn v-if="isAnyOwn" @click="asItWas">As it was</v-btn>
        <v-btn @click="open = false">Not now</v-btn>
        <button type="button" class="main-key" data-test="keep-family" :disabled="taken.length === 0 || isKeeping" @click="make">
          {{ isKeeping ? 'Finding how to mix them…' : `Make ${counted(taken.length, 'pile')} of it` }}
        </button>
      </div>
    </div>
  </Sheet>
</template>

<style scoped>
.strip {
  display: flex;
  height: 84px;
}
.strip span {
  flex: 1;
}
.strip .out {
  flex: 0.2;
}
.rows li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 calc(4 * var(--unit));
  border-top: 1px solid var(--surround-line);
}
.name {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  flex: 1 1 260px;
  min-height: 44px;
  text-align: left;
}
.chip {
  align-self: stretch;
}
.out .name span:nth-child(2) {
  text-decoration: line-through;
}
.steps {
  display: flex;
  flex-wrap: wrap;
}
.steps button {
  min-height: 44px;
  min-width: 44px;
  padding: 0 calc(2 * var(--unit));
  text-decoration: underline;
  font-size: var(--size-note);
}
.strong {
  font-weight: 700;
}
</style>
