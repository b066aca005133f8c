<script setup lang="ts">
import { mdiDeleteOutline } from '@mdi/js';
import { recipeLine, temperatureWord } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import ColourPair from '../chips/ColourPair.vue';
import { moment } from '../chips/words.ts';
import Field from '../controls/Field.vue';
import Slider from '../controls/Slider.vue';
import { usePaintings } from '../paintings/paintings.ts';
import EmptyPlace from '../shell/EmptyPlace.vue';
import { useNotices } from '../shell/notices.ts';
import { useSettings } from '../shell/settings.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useCards, type CardSeen } from './cards.ts';

/** Mixtures that were kept: found by value first, then by words; used again from today's tubes. */
const router = useRouter();
const cards = useCards();
const paintings = usePaintings();
const settings = useSettings();
const studio = useStudio();
const notices = useNotices();
const isRead = ref(false);
onMounted(async () => {
  await notices.attempt(() => studio.load('cards', ''));
  isRead.value = true;
});

const words = ref('');
const darkest = ref(0);
const lightest = ref(10);
const SHOWN = 60;
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean);
  const [low, high] = [Math.min(darkest.value, lightest.value), Math.max(darkest.value, lightest.value)];
  return cards.all.filter((one) => one.value >= low && one.value <= high && wanted.every((word) => one.words.includes(word)));
});
const stands = ({ card }: CardSeen): string => {
  const own = cards.standIns(card);
  const other = card.tubes.filter(({ key }) => own.get(key)?.by === 'colour');
  return other.length === 0 ? '' : `${other.map(({ name }) => name).join(', ')}: only a like colour among today’s tubes`;
};
async function use({ card }: CardSeen): Promise<void> {
  const pileId = await cards.use(card);
  if (pileId) await router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId } });
}
const value = (v: number): string => settings.valueText(v);
</script>

<template>
  <div class="cards judging">
    <EmptyPlace v-if="isRead && cards.all.length === 0" title="No cards yet">
      A card is a mixture that stands for itself: its recipe, its tubes as they were, how it looked. It outlives its painting and never
      changes with the tubes. Open a pile and press <kbd>c</kbd>.
      <template v-if="paintings.onEasel" #step>
        <v-btn variant="outlined" :to="{ name: 'mixing', params: { paintingId: paintings.onEasel.id } }">To the piles</v-btn>
      </template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>Cards, dark to light</h1>
        <div class="words"><Field v-model="words" label="Words, tubes, pigments, a painting" clearable data-test="find-words" /></div>
        <Slider v-model="darkest" label="value from" :min="0" :max="10" :step="0.1" :says="value(darkest)" />
        <Slider v-model="lightest" label="to" :min="0" :max="10" :step="0.1" :says="value(lightest)" />
      </header>
      <p class="quiet figures" role="status" data-test="found">{{ found.length }} of {{ cards.all.length }}</p>
      <ul>
        <li v-for="one in found.slice(0, SHOWN)" :key="one.card.id" class="card" data-test="card">
          <ColourPair :target="one.card.target ? labOfDto(one.card.target) : null" :mixed="one.lab" :height="88" />
          <div>
            <h2 class="figures">
              <b>{{ value(one.value) }}</b> {{ one.card.name }}
            </h2>
            <p class="figures">
              {{ temperatureWord(one.temperature) }}, {{ one.munsell
              }}<template v-if="one.card.thing">, {{ one.card.zone }} {{ one.card.thing }}</template>
            </p>
            <p class="figures recipe">{{ recipeLine({ recipe: one.card.recipe, tubes: one.card.tubes as never }) }}</p>
            <p class="quiet figures">
              {{ cards.tubeShares(one.card) }}<br />
              <template v-if="one.card.painting">{{ one.card.painting }}, </template>{{ moment(one.card.createdAt) }}
            </p>
            <p v-if="stands(one)" class="strong">{{ stands(one) }}</p>
          </div>
          <div class="deeds">
            <v-btn
              variant="outlined"
              :disabled="!paintings.onEasel"
              :aria-label="`Use ${one.card.name} in the painting on the easel`"
              @click="use(one)"
              >Use</v-btn
            >
            <v-btn
              :icon="mdiDeleteOutline"
              :aria-label="`Put the card ${one.card.name} away`"
              title="Put it away"
              @click="cards.remove(one.card)"
            />
          </div>
        </li>
      </ul>
      <p v-if="found.length > SHOWN" class="quiet">And {{ found.length - SHOWN }} more: narrow the values, or say a word.</p>
    </template>
  </div>
</template>

<style scoped>
.cards {
  height: 100%;
  overflow-y: auto;
  padding: calc(4 * var(--unit)) calc(7 * var(--unit)) calc(7 * var(--unit));
}
header {
  display: grid;
  grid-template-columns: auto minmax(180px, 2fr) minmax(140px, 1fr) minmax(140px, 1fr);
  gap: calc(6 * var(--unit));
  align-items: end;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.card {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr) auto;
  gap: calc(5 * var(--unit));
  align-items: start;
  padding: calc(3 * var(--unit)) 0;
  border-top: 1px solid var(--surround-line);
  line-height: 1.25;
}
.recipe {
  margin-top: var(--unit);
}
.strong {
  font-weight: 700;
}
.deeds {
  display: grid;
  gap: calc(2 * var(--unit));
  justify-items: end;
}
@media (orientation: portrait), (max-width: 800px) {
  header {
    grid-template-columns: 1fr 1fr;
    gap: calc(3 * var(--unit)) calc(6 * var(--unit));
  }
  h1,
  .words {
    grid-column: 1 / -1;
  }
  .card {
    grid-template-columns: 112px minmax(0, 1fr) auto;
  }
}
</style>
