<script setup lang="ts">
import { VALUE_SCALES, valueScaleName } from '@dusk/core';
import type { SettingsDto } from '@dusk/wire';
import { ROOMS, SURROUNDS } from '@dusk/wire/limits';
import Choice from '../controls/Choice.vue';
import Sheet from '../controls/Sheet.vue';
import CopiesPart from './CopiesPart.vue';
import ScreenSize from './ScreenSize.vue';
import { useSettings } from '../stores/settings.ts';

const open = defineModel<boolean>({ required: true });
const store = useSettings();

type Field = 'valueScale' | 'surround' | 'warmBlue' | 'room' | 'dulling' | 'knife' | 'amountMl' | 'measure';
const titled = <T extends string | number>(...items: readonly (readonly [value: T, title: string])[]) =>
  items.map(([value, title]) => ({ value, title }));

const SURROUND_NAMES = { white: 'white', N7: 'light', N5: 'middle', N3: 'dark', ground: 'the painting’s ground' } as const;
const FIELDS: readonly {
  readonly field: Field;
  readonly label: string;
  readonly items: readonly { value: string | number; title: string }[];
}[] = [
  { field: 'room', label: 'The room', items: ROOMS.map((value) => ({ value, title: value === 'light' ? 'by day' : 'at dusk' })) },
  { field: 'surround', label: 'Grey around colours', items: SURROUNDS.map((value) => ({ value, title: SURROUND_NAMES[value] })) },
  { field: 'valueScale', label: 'Value scale', items: VALUE_SCALES.map((value) => ({ value, title: valueScaleName(value) })) },
  {
    field: 'warmBlue',
    label: 'Of two blues the warm one',
    items: titled(['red-leaning', 'leans to red'], ['green-leaning', 'leans to green']),
  },
  {
    field: 'dulling',
    label: 'You dull colours',
    items: titled(
      ['any', 'whatever serves'],
      ['opposites', 'by their opposites'],
      ['earths', 'by earths and black'],
      ['grey', 'by a grey of their value'],
    ),
  },
  {
    field: 'measure',
    label: 'Amounts are told',
    items: titled(['eye', 'by eye, in words'], ['parts', 'in parts'], ['beads', 'as beads'], ['scale', 'by scale']),
  },
  { field: 'amountMl', label: 'A pile is', items: [1.5, 2, 3, 4, 6, 8, 12].map((value) => ({ value, title: `${value} ml` })) },
  {
    field: 'knife',
    label: 'Your knife measures',
    items: titled([0.05, 'by a scale, ± 5 %'], [0.1, '± 10 %'], [0.25, '± 25 %'], [0.4, 'by feel']),
  },
];
const change = (field: Field, value: string | number): Promise<boolean> => store.change({ [field]: value } as Partial<SettingsDto>);
</script>

<template>
  <Sheet v-model="open" label="How you see" wide>
    <h2>How you see and measure</h2>
    <Choice
      v-for="{ field, label, items } in FIELDS"
      :key="field"
      :label="label"
      :items="items"
      :model-value="store.settings[field]"
      @update:model-value="change(field, $event)"
    />
    <ScreenSize />
    <CopiesPart />
    <div class="foot-keys">
      <v-btn href="/licences.txt" target="_blank" rel="noopener">Letters and icons, and their licences</v-btn>
      <v-btn @click="open = false">Done</v-btn>
    </div>
  </Sheet>
</template>
