<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useTheme } from 'vuetify';
import Ledge from './parts/Ledge.vue';
import NoticeBar from './parts/NoticeBar.vue';
import Rail from './parts/Rail.vue';
import ShortcutsSheet from './parts/ShortcutsSheet.vue';
import SightFilters from './parts/SightFilters.vue';
import { surroundStyle } from './live/surround.ts';
import { useShortcuts } from './live/useShortcuts.ts';
import { usePaintings } from './stores/paintings.ts';
import { usePiles } from './stores/piles.ts';
import { useSettings } from './stores/settings.ts';
import { useSight } from './stores/sight.ts';

const route = useRoute();
const theme = useTheme();
const store = useSettings();
const paintings = usePaintings();
const piles = usePiles();
const sight = useSight();
const sheet = ref(false);

watch(
  () => store.settings.room,
  (room) => theme.change(room),
  { immediate: true },
);
watch(
  () => paintings.open?.id,
  (id) => id && void piles.load(id),
  { immediate: true },
);

const atEasel = computed(() => route.name === 'easel');
const hasLedge = computed(() => paintings.open !== undefined && !atEasel.value);

const surround = computed(() => surroundStyle(store.settings.surround, paintings.open?.ground ?? '#7b7b7b'));

useShortcuts(() => [
  { key: 'g', run: () => (sight.grey = !sight.grey) },
  { key: 's', run: () => (sight.squint = !sight.squint) },
  { key: '?', run: () => (sheet.value = !sheet.value) },
]);
</script>

<template>
  <v-app>
    <SightFilters />
    <div
      class="frame"
      :class="{ 'sight-grey': sight.grey, 'sight-squint': sight.squint, 'with-ledge': hasLedge, 'at-easel': atEasel }"
      :style="surround"
    >
      <Rail v-if="!atEasel" @shortcuts="sheet = true" />
      <main>
        <RouterView />
      </main>
      <Ledge v-if="hasLedge" />
      <NoticeBar />
    </div>
    <ShortcutsSheet v-model="sheet" />
  </v-app>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 'rail main' minmax(0, 1fr) / var(--rail-width) minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
}
.with-ledge {
  grid-template:
    'rail main' minmax(0, 1fr)
    'ledge ledge' var(--ledge-height) / var(--rail-width) minmax(0, 1fr);
}
.at-easel {
  grid-template: 'main' 1fr / 1fr;
}
main {
  grid-area: main;
  min-width: 0;
  min-height: 0;
}
</style>
