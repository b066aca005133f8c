<script setup lang="ts">
import type { CardForm, CardsOut, Sent } from '@dusk/wire';
import { computed, ref } from 'vue';
import Sheet from '../controls/Sheet.vue';
import { useDesk } from '../stores/useDesk.ts';
import { cardsOutUrl } from '../studio/api.ts';

/** Cards to a file: one, a set, or all of the studio's. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ title: string; of: Sent<CardsOut> }>();
const desk = useDesk();
const withPalette = ref(false);
const FORMS: readonly (readonly [form: CardForm, title: string, says: string])[] = [
  ['json', 'Cards', 'For another studio; how it is written is published with the program'],
  ['csv', 'Table', 'For a spreadsheet: value, words, recipe'],
  ['cgats', 'Spectra', 'CGATS.17, reflectance from 380 to 730 nm'],
];
const all = ref(false);
const chosen = computed(() =>
  all.value ? { all: true } : { ...props.of, ...(withPalette.value && desk.palette && { paletteIds: [desk.palette.id] }) },
);
</script>

<template>
  <Sheet v-model="open" :label="`${title} to a file`" judging>
    <h2>{{ all ? 'All cards' : title }}, to a file</h2>
    <label v-if="desk.palette && !all" class="tick"
      ><input v-model="withPalette" type="checkbox" /> with the palette “{{ desk.palette.name }}”</label
    >
    <label class="tick"><input v-model="all" type="checkbox" /> every card, set and palette of the studio</label>
    <div v-for="[form, name, says] in FORMS" :key="form" class="form">
      <div>
        <b>{{ name }}</b><br /><span class="quiet">{{ says }}</span>
      </div>
      <v-btn variant="outlined" :href="cardsOutUrl(chosen, form)" download :aria-label="`${name}, to a file`" @click="open = false">{{
        form === 'cgats' ? 'txt' : form
      }}</v-btn>
    </div>
    <div class="foot-keys"><v-btn @click="open = false">Not now</v-btn></div>
  </Sheet>
</template>

<style scoped>
.tick {
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 44px;
}
.form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: center;
  line-height: 1.2;
}
</style>
