<script setup lang="ts">
import { mdiCardPlusOutline, mdiDeleteOutline, mdiPlus, mdiPrinterOutline } from '@mdi/js';
import { PALETTE_MOST_TUBES } from '@dusk/wire/limits';
import { computed, defineAsyncComponent, nextTick, ref, shallowRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { mixtureOf, pairSteps, show } from '@dusk/core';
import { useCards } from '../stores/cards.ts';
import { useFinding } from '../stores/finding.ts';
import PrintSheet from '../printing/PrintSheet.vue';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import EditableName from '../controls/EditableName.vue';
import { inSteps } from '../floor/inSteps.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { usePalettes } from '../stores/palettes.ts';
import LaidOut from './LaidOut.vue';
import { filledFrom, STARTING, type Filled } from './starting.ts';

const WhatTheyMake = defineAsyncComponent(() => import('./WhatTheyMake.vue'));
const ForPicture = defineAsyncComponent(() => import('./ForPicture.vue'));
const BesideAnother = defineAsyncComponent(() => import('./BesideAnother.vue'));

const route = useRoute();
const router = useRouter();
const palettes = usePalettes();
const paintings = usePaintings();
const tubes = useTubes();
const desk = useDesk();
const cards = useCards();
const finding = useFinding();
const laid = useTemplateRef('laid');

const opened = computed(
  () =>
    palettes.byId.get(String(route.params['paletteId'] ?? '')) ??
    (route.params['paletteId'] ? undefined : (desk.palette ?? palettes.all[0])),
);
const tubesOf = (ids: readonly string[]): Tube[] => ids.flatMap((id) => tubes.byId.get(id) ?? []);
const laidOut = computed(() => tubesOf(opened.value?.tubeIds ?? []));
const full = computed(() => laidOut.value.length >= PALETTE_MOST_TUBES);
const inUse = computed(() => paintings.onEasel !== undefined && opened.value?.id === paintings.onEasel.paletteId);

const change = (tubeIds: string[]): Promise<boolean> => palettes.change(opened.value!.id, { tubeIds });
/** A new palette on its way: what is added goes onto it. */
const making = shallowRef<Promise<void>>();
const VIEWS = [
  { value: 'laid', title: 'laid out' },
  { value: 'made', title: 'what they make' },
  { value: 'picture', title: 'for this picture' },
  { value: 'beside', title: 'beside another' },
] as const;
const view = ref<(typeof VIEWS)[number]['value']>('laid');
const add = (tube: Tube): Promise<boolean> => change([...opened.value!.tubeIds, tube.id]);
const takeAway = (tube: Tube): Promise<boolean> => change(opened.value!.tubeIds.filter((id) => id !== tube.id));

/** A new palette starts with a white, since nearly all do. */
async function lay(): Promise<void> {
  const white = tubes.all.find((t) => t.pigment === 'titanium-white')!;
  const paletteId = await palettes.add(palettes.freeName('New palette'), [white.id]);
  if (!paletteId) return;
  await router.push({ name: 'palettes', params: { paletteId } });
  await nextTick();
  await laid.value?.lookFor();
}
async function make(): Promise<void> {
  if (making.value) return;
  view.value = 'laid';
  making.value = lay();
  // What is typed at once is a tube's name, and no key of the place.
  if (opened.value) await nextTick().then(() => laid.value?.lookFor());
  await making.value.finally(() => (making.value = undefined));
}
/** A palette for a common way of working, from the rack. */
const starts = computed(() => STARTING.map((start) => filledFrom(tubes.all, start)));
async function begin({ start, tubes: of, missing }: Filled): Promise<void> {
  const paletteId = await palettes.add(
    palettes.freeName(start.name),
    of.map(({ id }) => id),
    start.mixedDarks,
  );
  if (!paletteId) return;
  view.value = 'laid';
  missingFor.value = { paletteId, missing };
  await router.push({ name: 'palettes', params: { paletteId } });
}
const missingFor = ref<{ readonly paletteId: string; readonly missing: readonly string[] }>();
async function remove(): Promise<void> {
  if (await palettes.remove(opened.value!.id)) await router.replace({ name: 'palettes', params: {} });
}
/** The palettes and the name of the one that is open; then what is looked at. */
const steps = inSteps(1);
const printing = ref(false);
const CARD_ML = 2;
/** Cards of every pair, half way from the one to the other as an eye sees it. */
async function makeCards(): Promise<void> {
  const tubesHere = laidOut.value;
  const recipes = tubesHere.flatMap((one, i) =>
    tubesHere.slice(i + 1).map((other) => {
      const { parts } = pairSteps(one.paint, other.paint, 1)[0]!;
      const mixture = mixtureOf([
        { tube: one.id, parts: parts[0] },
        { tube: other.id, parts: parts[1] },
      ]);
      return { name: `${one.name} and ${other.name}`, mixture, ml: CARD_ML };
    }),
  );
  if (recipes.length === 0) return;
  const set = await cards.makeOf(recipes.slice(0, MOST_PAIRS), 'palette', opened.value!.name);
  if (!set) return;
  finding.clear();
  finding.setId = set;
  await router.push({ name: 'cards' });
}
/** Pairs of fifteen tubes: one change holds no more. */
const MOST_PAIRS = 105;
useShortcuts(() => [
  { key: 'c', run: () => void makeCards() },
  { key: 'p', run: () => (printing.value = true) },
]);
const use = (): Promise<boolean> => paintings.change(paintings.onEasel!.id, { paletteId: opened.value!.id });
</script>

<template>
  <div class="palettes">
    <nav class="list" aria-label="Palettes">
      <h1>Palettes</h1>
      <RouterLink
        v-for="palette in palettes.all"
        :key="palette.id"
        class="palette"
        :class="{ open: palette.id === opened?.id }"
        :to="{ name: 'palettes', params: { paletteId: palette.id } }"
      >
        <span>{{ palette.name }}</span>
        <span class="row judging"
          ><span v-for="tube in tubesOf(palette.tubeIds)" :key="tube.id" class="dab" :style="{ background: show(tube.masstone).css }"
        /></span>
      </RouterLink>
      <v-btn variant="outlined" class="new" :prepend-icon="mdiPlus" @click="make">New palette</v-btn>
      <v-menu>
        <template #activator="{ props: opens }">
          <v-btn v-bind="opens" variant="text" class="new" data-test="start-from">Begin with a usual one</v-btn>
        </template>
        <v-list aria-label="Usual palettes">
          <v-list-item
            v-for="one in starts"
            :key="one.start.name"
            :title="one.start.name"
            :subtitle="`${one.start.says}: ${one.tubes.length} tubes`"
            @click="begin(one)"
          />
        </v-list>
      </v-menu>
    </nav>
    <section v-if="opened" class="open" :aria-label="`Palette ${opened.name}`">
      <header>
        <EditableName
          :name="opened.name"
          label="Name of the palette"
          :most="80"
          :on-rename="(name, meanwhile) => palettes.change(opened!.id, { name }, meanwhile)"
        />
        <v-btn v-if="paintings.onEasel && !inUse" variant="outlined" class="use" @click="use"
          >Paint “{{ paintings.onEasel.title }}” with it</v-btn
        >
        <v-btn :icon="mdiCardPlusOutline" aria-label="Cards of every pair" title="Cards of every pair (c)" @click="makeCards" />
        <v-btn :icon="mdiPrinterOutline" aria-label="Print its chart" title="Print its chart (p)" @click="printing = true" />
        <v-btn :icon="mdiDeleteOutline" aria-label="Put this palette away" title="Put this palette away" @click="remove" />
      </header>
      <PrintSheet v-model="printing" :title="opened.name" :of="{ paletteId: opened.id }" :sheets="['chart']" />
      <p v-if="view === 'laid'" class="quiet">
        {{ laidOut.length }} {{ laidOut.length === 1 ? 'tube' : 'tubes'
        }}<template v-if="inUse">, on the table for “{{ paintings.onEasel!.title }}”</template>. Straight from the tube, then one part in
        nine of titanium white.
      </p>
      <v-tabs v-model="view" class="views" aria-label="What is looked at">
        <v-tab v-for="one in VIEWS" :key="one.value" :value="one.value" :data-test="`view-${one.value}`">{{ one.title }}</v-tab>
      </v-tabs>
      <p v-if="missingFor?.paletteId === opened.id && missingFor.missing.length > 0" role="status" data-test="missing">
        Your rack has no tube for {{ missingFor.missing.join(', ') }}: typical ones stand for them.
      </p>
      <template v-if="steps < 1" />
      <LaidOut v-else-if="view === 'laid'" ref="laid" v-model:before="making" :palette="opened" />
      <WhatTheyMake v-else-if="view === 'made'" :key="opened.id" :tubes="laidOut" />
      <ForPicture v-else-if="view === 'picture'" :tubes="laidOut" :full="full" @add="add" @take-away="takeAway" />
      <BesideAnother v-else :palette-id="opened.id" :tubes="laidOut" />
    </section>
    <section v-else class="open">
      <h2>Choose few tubes</h2>
      <p>Four to eight, white included, tie a picture together and are learnt by heart.</p>
    </section>
  </div>
</template>

<style scoped>
.palettes {
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  height: 100%;
}
.list {
  overflow-y: auto;
  padding: calc(6 * var(--unit)) 0;
}
.list h1 {
  padding: 0 calc(6 * var(--unit)) calc(3 * var(--unit));
}
.palette {
  display: grid;
  gap: calc(2 * var(--unit));
  padding: calc(2 * var(--unit)) calc(6 * var(--unit)) calc(3 * var(--unit)) calc(5 * var(--unit));
  color: inherit;
  text-decoration: none;
  border-left: 3px solid transparent;
}
.palette.open {
  border-left-color: rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-surface));
}
.new {
  margin: calc(3 * var(--unit)) calc(6 * var(--unit));
}
.row {
  display: flex;
  gap: calc(2 * var(--unit));
  padding: calc(2 * var(--unit));
}
.dab {
  flex: 1;
  max-width: 34px;
  height: 26px;
}
.open:is(section) {
  overflow-y: auto;
  padding: calc(5 * var(--unit)) calc(8 * var(--unit)) calc(8 * var(--unit));
}
header {
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
  margin-bottom: calc(2 * var(--unit));
}
.use {
  flex: none;
}
/* Upright the palettes lie in a row above the one that is open. */
@media (orientation: portrait), (max-width: 800px) {
  .palettes {
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  }
  .list {
    display: flex;
    align-items: stretch;
    gap: calc(2 * var(--unit));
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
    overflow-x: auto;
  }
  .list h1 {
    display: none;
  }
  .palette {
    flex: none;
    width: 210px;
    padding: calc(2 * var(--unit));
    border-left: 0;
    border-top: 3px solid transparent;
  }
  .palette.open {
    border-top-color: rgb(var(--v-theme-on-surface));
  }
  .new {
    flex: none;
    align-self: center;
    margin: 0;
  }
  .open:is(section) {
    padding: calc(3 * var(--unit)) calc(4 * var(--unit));
  }
}
</style>
