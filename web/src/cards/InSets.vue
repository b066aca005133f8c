<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import type { CardDto } from '@dusk/wire';
import { computed } from 'vue';
import { useCards } from '../stores/cards.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';

/** The sets a card lies in, and those it may be put into. */
const props = defineProps<{ card: CardDto }>();
const cards = useCards();
const within = computed(() => cards.sets.filter(({ cardIds }) => cardIds.includes(props.card.id)));
const others = computed(() => cards.sets.filter(({ cardIds }) => !cardIds.includes(props.card.id)));

function putInto(id: string): void {
  const set = cards.sets.find((one) => one.id === id);
  if (set) void cards.changeSet(set, { cardIds: [...set.cardIds, props.card.id] }, `“${props.card.name}” lies in “${set.name}”`);
}
function takeOut(id: string): void {
  const set = cards.sets.find((one) => one.id === id)!;
  const cardIds = set.cardIds.filter((one) => one !== props.card.id);
  // A set without a card is none.
  if (cardIds.length === 0) void cards.removeSet(set);
  else void cards.changeSet(set, { cardIds }, `“${props.card.name}” is out of “${set.name}”`);
}
</script>

<template>
  <section v-if="cards.sets.length > 0" class="in-sets" aria-label="Sets it lies in">
    <span v-for="set in within" :key="set.id" class="set"
      >in {{ set.name }}
      <v-btn :icon="mdiClose" :aria-label="`Take it out of ${set.name}`" :title="`Take it out of ${set.name}`" @click="takeOut(set.id)"
    /></span>
    <Pick
      v-if="others.length > 0"
      :model-value="undefined"
      :options="named(others)"
      aria-label="Put it into a set"
      placeholder="into a set…"
      data-test="into-set"
      @update:model-value="putInto($event!)"
    />
  </section>
</template>

<style scoped>
.in-sets {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
  align-items: center;
}
.set {
  display: inline-flex;
  align-items: center;
}
</style>
