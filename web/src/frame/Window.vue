<script setup lang="ts">
import { MEASURES } from '@dusk/core';
import { computed, nextTick, ref, useTemplateRef, watch, watchEffect } from 'vue';
import { useRoute } from 'vue-router';
import { useTheme } from 'vuetify';
import { surroundStyle } from '../chips/surround.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useStudio } from '../studio/useStudio.ts';
import HeadLine from './HeadLine.vue';
import Rail from './Rail.vue';
import { useNotices } from '../floor/notices.ts';
import { useSettings } from '../stores/settings.ts';
import { onceTrue } from '../floor/opening.ts';
import { Ledge, ShortcutsSheet } from './sheets.ts';
import { useSight } from '../floor/sight.ts';
import SightFilters from './SightFilters.vue';
import { useShortcuts } from '../floor/useShortcuts.ts';

const route = useRoute();
const theme = useTheme();
const store = useSettings();
const paintings = usePaintings();
const studio = useStudio();
const notices = useNotices();
const sight = useSight();
const sheet = ref(false);
const sheetAsked = onceTrue(sheet);

watch(
  () => store.settings.room,
  (room) => theme.change(room),
  { immediate: true },
);
watch(
  () => paintings.onEasel?.id,
  (id) => id && void notices.attempt(() => studio.load('painting', id)),
  { immediate: true },
);

/** A place that was gone to has the focus, so that keys and readers begin there. */
const main = useTemplateRef('main');
watch(
  // Each by itself: another palette or card in the same place leaves the focus where the hand put it.
  [() => route.name, () => route.params['pileId']],
  async (_, [before]) => {
    if (before === undefined) return;
    await nextTick();
    main.value?.focus({ preventScroll: true });
  },
);

/** What had the focus may be gone with what was taken back. */
async function turnBack(how: () => Promise<void>): Promise<void> {
  await how();
  await nextTick();
  if (document.activeElement === document.body) main.value?.focus({ preventScroll: true });
}

/** Places that have the whole window to themselves. */
const atEasel = computed(() => route.name === 'easel' || route.name === 'easel-plan' || route.name === 'picture');
const hasLedge = computed(() => paintings.onEasel !== undefined && !atEasel.value);

/** Dialogs lie outside the frame, so the surround is the whole page's. */
const surround = computed(() => surroundStyle(store.settings.surround, paintings.onEasel?.ground ?? '#7b7b7b'));
watchEffect(() => {
  for (const [name, value] of Object.entries(surround.value)) document.documentElement.style.setProperty(name, value);
});

/** By eye, in parts, as beads, by scale, and round again. */
function nextMeasure(): Promise<boolean> {
  const at = MEASURES.indexOf(store.settings.measure);
  return store.change({ measure: MEASURES[(at + 1) % MEASURES.length]! });
}
/** From the place to its ledge, to the rail, and round again: what has the focus in each is its first thing. */
const REGIONS = ['main', '.ledge', 'nav.rail'] as const;
const FIRST = 'a[href], button:not(:disabled)';
function nextRegion(): void {
  const at = REGIONS.findIndex((region) => document.activeElement?.closest(region));
  for (let i = 1; i <= REGIONS.length; i++) {
    const region = document.querySelector<HTMLElement>(REGIONS[(at + i + REGIONS.length) % REGIONS.length]!);
    // A place itself has the focus, so that keys are its own; in Reference it is the picture, over which they move.
    const own = region === main.value ? (region?.querySelector<HTMLElement>('.stage [role=application]') ?? region) : null;
    const first = own ?? region?.querySelector<HTMLElement>(FIRST);
    if (!first) continue;
    first.focus();
    return;
  }
}
useShortcuts(() => [
  { key: 'F6', run: nextRegion },
  { key: 'g', run: () => (sight.grey = !sight.grey) },
  { key: 's', run: () => (sight.squint = !sight.squint) },
  { key: 'y', run: () => void nextMeasure() },
  { key: '?', run: () => (sheet.value = true) },
  { key: 'mod+z', run: () => void turnBack(studio.undo) },
  { key: 'mod+shift+z', run: () => void turnBack(studio.redo) },
]);
</script>

<template>
  <v-app>
    <SightFilters />
    <div class="frame" :class="{ 'sight-grey': sight.grey, 'sight-squint': sight.squint, 'with-ledge': hasLedge, 'at-easel': atEasel }">
      <Rail v-if="!atEasel" />
      <HeadLine v-if="!atEasel" @shortcuts="sheet = true" />
      <main ref="main" tabindex="-1">
        <RouterView />
      </main>
      <Ledge v-if="hasLedge" />
    </div>
    <ShortcutsSheet v-if="sheetAsked" v-model="sheet" />
  </v-app>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template:
    'rail head' auto
    'rail main' minmax(0, 1fr) / var(--rail-width) minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
}
.with-ledge {
  grid-template:
    'rail head' auto
    'rail main' minmax(0, 1fr)
    'ledge ledge' auto / var(--rail-width) minmax(0, 1fr);
}
.at-easel {
  grid-template: 'main' 1fr / 1fr;
}
main {
  grid-area: main;
  min-width: 0;
  min-height: 0;
}
main:focus-visible {
  outline: none;
}
@media (orientation: portrait) {
  .frame {
    grid-template:
      'head' auto
      'main' minmax(0, 1fr)
      'rail' auto / minmax(0, 1fr);
  }
  .with-ledge {
    grid-template:
      'head' auto
      'main' minmax(0, 1fr)
      'ledge' auto
      'rail' auto / minmax(0, 1fr);
  }
  .at-easel {
    grid-template: 'main' 1fr / 1fr;
  }
}
</style>
