<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue';
import { useLocalStorage } from '@vueuse/core';
import EmptyPlace from '../controls/EmptyPlace.vue';
import { onceTrue } from '../floor/opening.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useLog } from '../stores/log.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useStudio } from '../studio/useStudio.ts';
import Passages from './Passages.vue';

/** What may be painted today, what dries when, what was done on which day, and what is still to come. */
const AllPaintings = defineAsyncComponent(() => import('./AllPaintings.vue'));
const Days = defineAsyncComponent(() => import('./Days.vue'));
const ToTheEnd = defineAsyncComponent(() => import('./ToTheEnd.vue'));
const DayEnd = defineAsyncComponent(() => import('./DayEnd.vue'));
const log = useLog();
const paintings = usePaintings();
const studio = useStudio();

const TABS = [
  { value: 'may', title: 'May I paint?' },
  { value: 'all', title: 'All paintings' },
  { value: 'days', title: 'Days' },
  { value: 'end', title: 'To the end' },
] as const;
const tab = useLocalStorage<(typeof TABS)[number]['value']>('dusk.log', 'may');
const ending = ref(false);
const endingAsked = onceTrue(ending);
const painting = computed(() => paintings.onEasel);
onMounted(() => void log.load());
// What is done, here or elsewhere, or taken back, is heard of by its areas; the studio opens what was laid to tubes.
watch(
  () =>
    log.isLoaded ? [...studio.rows.areas.values()].reduce((sum, { deeds, version }) => sum + deeds.length * 1000 + version, 0) : undefined,
  (_, was) => void (was !== undefined && log.load()),
);
useShortcuts(() => [
  ...TABS.map(({ value }, i) => ({ key: String(i + 1), run: () => (tab.value = value) })),
  { key: 'e', run: () => (ending.value = true) },
]);
</script>

<template>
  <div class="place log">
    <EmptyPlace v-if="!painting" title="No painting is open">
      Open a painting first: the log says what may be painted over, and keeps what was done on which day.
      <template #step><RouterLink class="main-key" :to="{ name: 'paintings' }">To the paintings</RouterLink></template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>{{ tab === 'all' ? 'All paintings' : painting.title }}</h1>
        <v-tabs v-model="tab" :aria-label="'What the log tells'" class="tabs">
          <v-tab v-for="one in TABS" :key="one.value" :value="one.value" :data-test="`log-${one.value}`">{{ one.title }}</v-tab>
        </v-tabs>
        <v-btn variant="outlined" title="What is left, what is next, the rags (e)" data-test="end-day" @click="ending = true"
          >End the day</v-btn
        >
      </header>
      <p v-if="!log.isLoaded" class="quiet">Reading the log…</p>
      <template v-else>
        <Passages v-if="tab === 'may'" :painting="painting" />
        <AllPaintings v-else-if="tab === 'all'" @open="tab = 'may'" />
        <Days v-else-if="tab === 'days'" />
        <ToTheEnd v-else :painting="painting" />
      </template>
      <DayEnd v-if="endingAsked" v-model="ending" :painting="painting" />
    </template>
  </div>
</template>

<style scoped>
.log {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  gap: calc(4 * var(--unit));
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
}
h1 {
  flex: 1 1 200px;
  min-width: 0;
}
.tabs {
  flex: 0 1 auto;
  max-width: 100%;
}
@media (orientation: portrait) {
  .log {
    grid-template: auto auto / minmax(0, 1fr);
    align-content: start;
  }
  .tabs {
    order: 3;
    flex-basis: 100%;
  }
}
/* All four in the width of a hand. */
@media (max-width: 480px) {
  .tabs :deep(.v-tab) {
    min-width: 0;
    padding: 0 calc(2 * var(--unit));
  }
}
</style>
