<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import type { CardDto } from '@dusk/wire';
import { computed } from 'vue';
import { useCards } from '../stores/cards.ts';

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
    <select
      v-if="others.length > 0"
      aria-label="Put it into a set"
      :value="''"
      @change="putInto(($event.target as HTMLSelectElement).value)"
    >
      <option value="" disabled>into a set…</option>
      <option v-for="set in others" :key="set.id" :value="set.id">{{ set.name }}</option>
    </select>
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
select {
  min-height: 44px;
  max-width: 220px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
}
</style>
