<script setup lang="ts">
import { inShort, stepsOfCard } from '@dusk/core';
import type { CardDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { useSettings } from '../stores/settings.ts';
import { paintedCard, readingOf } from '../stores/cards.ts';

/** A card in its box: what was meant beside what it is, its value and name; what it is made of is told when a hand is over it. */
const props = defineProps<{ card: CardDto; open: boolean }>();
const settings = useSettings();
const reading = computed(() => readingOf(props.card));
const recipe = computed(() => inShort(stepsOfCard(paintedCard(props.card), props.card.ml), settings.settings.measure));
</script>

<template>
  <RouterLink
    class="card figures"
    :class="{ open }"
    :to="{ name: 'cards', params: { cardId: card.id } }"
    :aria-current="open ? 'true' : undefined"
    :title="recipe"
    data-test="card"
  >
    <ColourPair :target="card.target ? labOfDto(card.target) : null" :mixed="reading.lab" :height="78" />
    <span class="name"
      ><b>{{ settings.valueText(reading.value) }}</b> {{ card.name }}</span
    >
  </RouterLink>
</template>

<style scoped>
.card {
  display: block;
  color: inherit;
  text-decoration: none;
  line-height: 1.15;
}
/* A gap of the surround, then a line: no border touches what is judged. */
.open {
  outline: 2px solid var(--surround-ink);
  outline-offset: 4px;
}
.name {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  margin-top: var(--unit);
}
</style>
