<script setup lang="ts">
import { nudged, type Lab, type Nudge, type Sight } from '@dusk/core';
import type { CardDto } from '@dusk/wire';
import { labDto, labOfDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import Sheet from '../controls/Sheet.vue';
import SaidKeys from '../correcting/SaidKeys.vue';
import PhotoLook from '../correcting/PhotoLook.vue';
import { useWhite } from '../floor/white.ts';
import { readingOf, useCards } from '../stores/cards.ts';

/** How the real dab on a card looks: nudged beside what was reckoned, or read from a photo with a white patch. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ card: CardDto }>();
const cards = useCards();
const white = useWhite();
const photo = ref(false);
const draft = shallowRef<{ readonly lab: Lab; readonly sight: Sight }>();
const lab = computed(() => draft.value?.lab ?? readingOf(props.card).lab);
watch(open, () => (draft.value = undefined));

const COARSE = 5;
const VERY = 2;
const byEye = (): Sight => (white.isSet ? 'eye' : 'words');
const nudge = (by: Nudge, steps: number): void => void (draft.value = { lab: nudged(lab.value, by, steps), sight: byEye() });
const say = (_: string, by: Nudge, way: 1 | -1, much: boolean): void =>
  void (draft.value = { lab: nudged(lab.value, by, way * COARSE * (much ? VERY : 1)), sight: 'words' });
const read = (colour: Lab): void => void (draft.value = { lab: colour, sight: 'photo' });

const KEYS: Readonly<Record<string, readonly [by: Nudge, way: 1 | -1]>> = {
  ArrowUp: ['value', 1],
  ArrowDown: ['value', -1],
  ArrowRight: ['hue', 1],
  ArrowLeft: ['hue', -1],
  '+': ['chroma', 1],
  '-': ['chroma', -1],
};
function onKey(event: KeyboardEvent): void {
  const known = KEYS[event.key];
  if (!known) return;
  event.preventDefault();
  nudge(known[0], known[1] * (event.shiftKey ? COARSE : 1));
}

async function keep(): Promise<void> {
  const { lab: seen, sight } = draft.value ?? { lab: lab.value, sight: byEye() };
  const [L, a, b] = seen;
  const dab = { lab: labDto([Math.min(100, Math.max(0, L)), a, b]), sight, at: new Date().toISOString() };
  if (await cards.change(props.card, { dab }, 'The dab is on the card')) open.value = false;
}
async function takeOff(): Promise<void> {
  if (await cards.change(props.card, { dab: null }, 'The dab is off the card')) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`Your dab of ${card.name}`" wide judging>
    <h2>Your dab of {{ card.name }}</h2>
    <p>On the left what was reckoned. Turn the right half until it looks like the paint on the card.</p>
    <div class="turn" @keydown="onKey">
      <ColourPair :target="labOfDto(card.predicted)" :mixed="lab" :height="132" />
      <SaidKeys :lab="lab" @nudge="nudge" @say="say" />
    </div>
    <div class="foot-keys">
      <v-btn variant="outlined" @click="keep">That is it</v-btn>
      <v-btn @click="photo = true">From a photo</v-btn>
      <v-btn v-if="card.dab" @click="takeOff">Take it off the card</v-btn>
      <v-btn @click="open = false">Not now</v-btn>
    </div>
    <PhotoLook v-model="photo" @read="read" />
  </Sheet>
</template>

<style scoped>
.turn {
  display: grid;
  gap: calc(4 * var(--unit));
}
</style>
