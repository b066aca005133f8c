<script setup lang="ts">
import { VALUE_SCALES, valueScaleName } from '@dusk/core';
import { ROOMS, SURROUNDS } from '@dusk/wire/limits';
import CopiesPart from './CopiesPart.vue';
import { useSettings } from './settings.ts';

const open = defineModel<boolean>({ required: true });
const store = useSettings();

const scales = VALUE_SCALES.map((value) => ({ value, title: valueScaleName(value) }));
const SURROUND_NAMES = {
  white: 'white',
  N7: 'N7, light grey',
  N5: 'N5, middle grey',
  N3: 'N3, dark grey',
  ground: 'the painting’s ground',
} as const;
const surrounds = SURROUNDS.map((value) => ({ value, title: SURROUND_NAMES[value] }));
const rooms = ROOMS.map((value) => ({ value, title: value === 'light' ? 'by day' : 'at dusk' }));
const blues = [
  { value: 'red-leaning', title: 'the red-leaning blue is warm' },
  { value: 'green-leaning', title: 'the green-leaning blue is warm' },
];
const schools = [
  { value: 'any', title: 'whatever serves' },
  { value: 'opposites', title: 'by their opposites' },
  { value: 'earths', title: 'by earths and black' },
  { value: 'grey', title: 'by a grey of their value' },
];
const knives = [
  { value: 0.05, title: 'a scale: within a twentieth' },
  { value: 0.1, title: 'within a tenth' },
  { value: 0.25, title: 'within a quarter' },
  { value: 0.4, title: 'by feel: it may be off by almost half' },
];
</script>

<template>
  <v-dialog v-model="open" aria-label="How you see" max-width="760">
    <v-card class="pa-6">
      <h2>How you see and measure</h2>
      <div class="fields">
        <v-select
          label="Value scale"
          :items="scales"
          :model-value="store.settings.valueScale"
          @update:model-value="store.change({ valueScale: $event })"
        />
        <v-select
          label="Grey around colours"
          :items="surrounds"
          :model-value="store.settings.surround"
          @update:model-value="store.change({ surround: $event })"
        />
        <v-select
          label="Of two blues"
          :items="blues"
          :model-value="store.settings.warmBlue"
          @update:model-value="store.change({ warmBlue: $event })"
        />
        <v-select label="The room" :items="rooms" :model-value="store.settings.room" @update:model-value="store.change({ room: $event })" />
        <v-select
          label="You dull colours"
          :items="schools"
          :model-value="store.settings.dulling"
          @update:model-value="store.change({ dulling: $event })"
        />
        <v-select
          label="Your knife measures"
          :items="knives"
          :model-value="store.settings.knife"
          @update:model-value="store.change({ knife: $event })"
        />
      </div>
      <CopiesPart />
      <div class="d-flex justify-end"><v-btn color="primary" @click="open = false">Done</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: calc(4 * var(--unit));
  margin: calc(5 * var(--unit)) 0;
}
</style>
