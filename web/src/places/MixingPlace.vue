<script setup lang="ts">
import { temperatureWord } from '@dusk/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { inShort, stepsOf } from '../live/measures.ts';
import ColourPair from '../parts/ColourPair.vue';
import EmptyPlace from '../parts/EmptyPlace.vue';
import OpenPile from '../parts/OpenPile.vue';
import { usePaintings } from '../stores/paintings.ts';
import { labOfDto, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';

const route = useRoute();
const paintings = usePaintings();
const piles = usePiles();
const settings = useSettings();
const tubes = useTubes();

const open = computed(() => piles.byId.get(String(route.params['pileId'] ?? '')));
const paintingId = computed(() => paintings.open?.id ?? '');
const short = (pile: (typeof piles.list)[number]): string => inShort(stepsOf(pile.measures, tubes.byId, pile.amountMl));
</script>

<template>
  <EmptyPlace v-if="piles.list.length === 0" title="No piles yet">
    Here lie the piles of this painting, dark to light, each with its recipe. Point at a colour in the reference and keep it: it will be
    here tomorrow.
    <template #step>
      <v-btn color="primary" variant="outlined" :to="{ name: 'reference', params: { paintingId } }">Point at a colour</v-btn>
    </template>
  </EmptyPlace>
  <div v-else class="mixing">
    <nav class="piles" aria-label="Piles of this painting, dark to light">
      <h1>Piles</h1>
      <RouterLink
        v-for="pile in piles.byValue"
        :key="pile.id"
        class="pile"
        :class="{ open: pile.id === open?.id }"
        :to="{ name: 'mixing', params: { paintingId, pileId: pile.id } }"
      >
        <div class="chips judging">
          <ColourPair :target="pile.target && labOfDto(pile.target)" :mixed="labOfDto(pile.predicted)" :height="52" />
        </div>
        <div>
          <p class="figures">
            <strong>{{ settings.valueText(pile.value) }}</strong>&ensp;{{ pile.name
            }}<span class="quiet">, {{ temperatureWord(settings.temperatureOf(labOfDto(pile.predicted))) }}</span>
          </p>
          <p class="quiet recipe figures">{{ short(pile) }}</p>
        </div>
      </RouterLink>
    </nav>
    <OpenPile v-if="open" :key="open.id" :pile="open" />
    <section v-else class="choose judging"><p>Choose a pile, here or on the ledge.</p></section>
  </div>
</template>

<style scoped>
.mixing {
  display: grid;
  grid-template-columns: 380px minmax(0, 1fr);
  height: 100%;
}
.piles {
  overflow-y: auto;
  padding: 22px 0;
}
.piles h1 {
  padding: 0 24px 12px;
}
.pile {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 14px;
  align-items: center;
  padding: 9px 20px 9px 21px;
  color: inherit;
  text-decoration: none;
  border-left: 3px solid transparent;
}
.chips {
  padding: 6px;
}
.pile.open {
  border-left-color: rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-surface));
}
.recipe {
  font-size: 15px;
  line-height: 1.2;
}
.choose {
  display: grid;
  place-items: center;
}
@media (max-width: 900px) {
  .mixing {
    grid-template-columns: 1fr;
  }
}
</style>
