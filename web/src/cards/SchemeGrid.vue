<script setup lang="ts">
import { labToMunsell } from '@dusk/core';
import type { CardDto } from '@dusk/wire';
import { computed } from 'vue';
import { useWhite } from '../floor/white.ts';
import { useSettings } from '../stores/settings.ts';
import { readingOf } from '../stores/cards.ts';

/** Cards by hue and value: a row for each value, light above dark, a column for each family of hue, greys first. */
const props = defineProps<{ cards: readonly CardDto[] }>();
const white = useWhite();
const settings = useSettings();
const FAMILIES = ['N', 'R', 'YR', 'Y', 'GY', 'G', 'BG', 'B', 'PB', 'P', 'RP'] as const;
/** Munsell chroma below which a colour is a grey. */
const GREY = 1;
/** Hues of a family, of a hundred. */
const FAMILY = 10;

const placed = computed(() =>
  props.cards.map((card) => {
    const { lab, value } = readingOf(card);
    const { hue, chroma } = labToMunsell(lab);
    const family = chroma < GREY ? 'N' : FAMILIES[1 + (Math.floor(hue / FAMILY) % 10)]!;
    return { card, lab, value, row: Math.round(value), family };
  }),
);
const families = computed(() => FAMILIES.filter((family) => placed.value.some((one) => one.family === family)));
const rows = computed(() => [...new Set(placed.value.map(({ row }) => row))].sort((a, b) => b - a));
const at = (row: number, family: string) => placed.value.filter((one) => one.row === row && one.family === family);
</script>

<template>
  <table class="scheme figures">
    <thead>
      <tr>
        <th scope="col"><span class="for-readers">value</span></th>
        <th v-for="family in families" :key="family" scope="col">{{ family }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row">
        <th scope="row">{{ row }}</th>
        <td v-for="family in families" :key="family">
          <RouterLink
            v-for="one in at(row, family)"
            :key="one.card.id"
            class="chip"
            :to="{ name: 'cards', params: { cardId: one.card.id } }"
            :style="{ background: white.shown(one.lab).css }"
            :aria-label="`${settings.valueText(one.value)} ${one.card.name}`"
            :title="one.card.name"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.scheme {
  border-collapse: collapse;
  width: 100%;
}
th {
  font-weight: 400;
  font-size: var(--size-note);
  padding: var(--unit);
}
td {
  padding: 0;
  height: 48px;
  vertical-align: top;
}
.chip {
  display: block;
  min-height: 48px;
}
</style>
