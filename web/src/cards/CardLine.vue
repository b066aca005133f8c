<script setup lang="ts">
import { inShort, stepsOfCard, temperatureWord } from '@dusk/core';
import type { CardDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { useSettings } from '../stores/settings.ts';
import { paintedCard, readingOf } from '../stores/cards.ts';

/** A card in the list: what was meant beside what it is, value first, its recipe in a line. */
const props = defineProps<{ card: CardDto; open: boolean }>();
const settings = useSettings();
const reading = computed(() => readingOf(props.card));
const recipe = computed(() => inShort(stepsOfCard(paintedCard(props.card), props.card.ml), settings.settings.measure));
const where = computed(() => [props.card.thing, props.card.zone].filter(Boolean).join(', '));
</script>

<template>
  <RouterLink
    class="card figures"
    :class="{ open }"
    :to="{ name: 'cards', params: { cardId: card.id } }"
    :aria-current="open ? 'true' : undefined"
    data-test="card"
  >
    <ColourPair :target="card.target ? labOfDto(card.target) : null" :mixed="reading.lab" :height="52" />
    <span>
      <span class="name"
        ><b>{{ settings.valueText(reading.value) }}</b> {{ card.name }}</span
      ><br />
      <span class="small"
        >{{ temperatureWord(settings.temperatureOf(reading.lab)) }}, {{ reading.munsell
        }}<template v-if="where">, {{ where }}</template></span
      ><br />
      <span class="small recipe">{{ recipe }}</span>
    </span>
  </RouterLink>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: calc(3 * var(--unit));
  align-items: start;
  padding: calc(2 * var(--unit)) 0 calc(2 * var(--unit)) calc(2 * var(--unit));
  margin-left: calc(-2 * var(--unit) - 3px);
  border-top: 1px solid var(--surround-line);
  border-left: 3px solid transparent;
  color: inherit;
  text-decoration: none;
  line-height: 1.2;
}
.card.open {
  border-left-color: var(--surround-ink);
}
.name {
  font-size: var(--size-lead);
}
.small {
  font-size: var(--size-note);
}
.recipe {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
