<script setup lang="ts">
import { computed } from 'vue';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { useAlike } from './useAlike.ts';

/** Which tubes of a rack are alike, and which two others make: what a painter could do without. */
const props = defineProps<{ rack: readonly Tube[] }>();
const tubes = useTubes();
const found = useAlike(() => props.rack);
const MOST = 6;
const tubeOf = (id: string): Tube => tubes.byId.get(id)!;
const called = (id: string): string => {
  const { name, maker } = tubeOf(id);
  return props.rack.some((one) => one.id !== id && one.name === name) && maker ? `${name}, ${maker}` : name;
};
const pairs = computed(() => (found.value?.alike ?? []).filter(({ ids }) => ids.every((id) => tubes.byId.has(id))).slice(0, MOST));
const inPair = computed(() => new Set(pairs.value.flatMap(({ ids }) => ids)));
const made = computed(() =>
  (found.value?.readyMade ?? [])
    // What has a twin is told as such.
    .filter(({ id, of }) => !inPair.value.has(id) && [id, ...of.map((one) => one.id)].every((one) => tubes.byId.has(one)))
    .slice(0, MOST),
);
</script>

<template>
  <ul v-if="pairs.length + made.length > 0" class="alike" data-test="alike">
    <li v-for="{ ids, apart, isOnePigment } in pairs" :key="ids.join()">
      <RouterLink :to="{ name: 'tube', params: { tubeId: ids[0] } }">{{ called(ids[0]) }}</RouterLink> and
      <RouterLink :to="{ name: 'tube', params: { tubeId: ids[1] } }">{{ called(ids[1]) }}</RouterLink>
      {{ isOnePigment ? 'are one pigment' : 'look the same'
      }}{{ apart < 1.5 ? ', alike within what an eye sees' : ', told apart side by side' }}.
    </li>
    <li v-for="one in made" :key="one.id">
      <RouterLink :to="{ name: 'tube', params: { tubeId: one.id } }">{{ called(one.id) }}</RouterLink> is
      {{ one.of.map(({ id, parts }) => `${parts} ${called(id).toLowerCase()}`).join(' and ') }}{{ one.apart < 1 ? '' : ', nearly' }}.
    </li>
  </ul>
</template>

<style scoped>
.alike {
  display: grid;
  gap: var(--unit);
  margin: calc(3 * var(--unit)) 0 0;
  padding: 0;
  list-style: none;
}
a {
  color: inherit;
}
</style>
