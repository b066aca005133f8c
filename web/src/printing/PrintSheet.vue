<script setup lang="ts">
import type { Lab } from '@dusk/core';
import type { Sent, SheetKind, SheetWanted, PaperSize } from '@dusk/wire';
import { useLocalStorage } from '@vueuse/core';
import { ref } from 'vue';
import PaintKey from '../chips/PaintKey.vue';
import Sheet from '../controls/Sheet.vue';
import { sheetUrl } from '../studio/api.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';

/** Which sheet, on which paper: a press opens it, at its true size. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  title: string;
  of: Omit<Sent<SheetWanted>, 'sheet' | 'paper'>;
  sheets: readonly SheetKind[];
  /** Piles that may be chosen among; all where none is. */
  piles?: readonly { readonly id: string; readonly name: string; readonly lab: Lab }[];
  /** Palettes a lesson's readers may have. */
  palettes?: readonly { readonly id: string; readonly name: string }[];
}>();
const PAPERS: Readonly<Record<SheetKind, readonly PaperSize[]>> = {
  cards: ['A6', 'A4', 'Letter'],
  row: ['A4', 'Letter'],
  kit: ['A4', 'Letter'],
  chart: ['A4', 'Letter'],
  painting: ['A4', 'Letter'],
  order: ['A4', 'Letter', 'A6'],
  day: ['A4', 'Letter'],
  'painting-kit': ['A4', 'Letter'],
  lesson: ['A4', 'Letter'],
  drying: ['A4', 'Letter'],
};
const NAMES: Readonly<Record<SheetKind, readonly [title: string, says: string]>> = {
  cards: ['Card', 'Beads to squeeze along, a square for your dab'],
  row: ['In a row', 'All of them touching, then one after the other'],
  kit: ['To take along', 'Which tubes, how many beads, on one page'],
  chart: ['Chart', 'Every pair of the palette in steps that look even'],
  painting: ['The painting', 'Picture, piles from dark to light, then each with its beads'],
  day: ['The day', 'Piles in their turn, on one page'],
  order: ['To mix', 'What is planned, in the order to mix it'],
  'painting-kit': ['To take along', 'Which tubes, how many beads, on one page'],
  drying: ['What dries when', 'Each passage, from when it may be dry to when it surely is'],
  lesson: ['A lesson', 'Piles, stages and pictures, with a column for readers’ own tubes'],
};
const last = useLocalStorage<string>('dusk.paper', '');
const paletteId = ref('');
const chosen = ref<string[]>([]);
const choose = (id: string): void =>
  void (chosen.value = chosen.value.includes(id) ? chosen.value.filter((one) => one !== id) : [...chosen.value, id]);
function print(sheet: SheetKind, paper: PaperSize): void {
  last.value = `${sheet} ${paper}`;
  const wanted = {
    ...props.of,
    sheet,
    paper,
    ...(chosen.value.length > 0 && { pileIds: [...chosen.value] }),
    ...(sheet === 'painting' && { pictures: true }),
    ...(sheet === 'lesson' && paletteId.value && { paletteId: paletteId.value }),
  };
  window.open(sheetUrl(wanted), '_blank', 'noopener');
  open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`Print ${title}`" judging>
    <h2>Print {{ title }}</h2>
    <div v-for="sheet in sheets" :key="sheet" class="sheet-kind">
      <div>
        <b>{{ NAMES[sheet][0] }}</b><br /><span class="quiet">{{ NAMES[sheet][1] }}</span>
        <Pick
          v-if="sheet === 'lesson' && palettes"
          v-model="paletteId"
          :options="[{ value: '', title: 'left empty' }, ...named(palettes)]"
          alone
          label="their tubes"
          data-test="their-tubes"
        />
      </div>
      <div class="papers">
        <v-btn
          v-for="paper in PAPERS[sheet]"
          :key="paper"
          :variant="last === `${sheet} ${paper}` ? 'flat' : 'outlined'"
          :aria-label="`${NAMES[sheet][0]} on ${paper}`"
          @click="print(sheet, paper)"
          >{{ paper }}</v-btn
        >
      </div>
    </div>
    <details v-if="piles && piles.length > 1">
      <summary>{{ chosen.length === 0 ? 'all piles; choose some' : `${chosen.length} of ${piles.length} piles` }}</summary>
      <div class="piles">
        <PaintKey v-for="pile in piles" :key="pile.id" :lab="pile.lab" :pressed="chosen.includes(pile.id)" @click="choose(pile.id)">{{
          pile.name
        }}</PaintKey>
      </div>
    </details>
    <p class="quiet">Print at 100 %, not fitted to the page: a line on each sheet is 100 mm long.</p>
    <div class="foot-keys"><v-btn @click="open = false">Not now</v-btn></div>
  </Sheet>
</template>

<style scoped>
.piles {
  display: grid;
  grid-template-columns: 1fr 1fr;
  max-height: 30vh;
  overflow-y: auto;
}
.sheet-kind {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: center;
  line-height: 1.2;
}
.papers {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: calc(2 * var(--unit));
}
</style>
