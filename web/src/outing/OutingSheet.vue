<script setup lang="ts">
import { CraftError, readReturn, type OutingReturn } from '@dusk/core';
import { MOST_OPERATIONS } from '@dusk/wire/limits';
import { computed, ref, shallowRef, watch } from 'vue';
import { counted } from '../floor/words.ts';
import FileDrop from '../controls/FileDrop.vue';
import Sheet from '../controls/Sheet.vue';
import { usePaintings } from '../stores/paintings.ts';
import { outingUrl } from '../studio/api.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { meetHome } from './comingHome.ts';
import { useDone } from '../recipe/done.ts';
import { usePiles } from '../stores/piles.ts';

/** The painting out of doors: one page to take along, and what comes home of it, looked at before it is kept. */
const open = defineModel<boolean>({ required: true });
const paintings = usePaintings();
const piles = usePiles();
const tubes = useTubes();
const settings = useSettings();
const done = useDone();
const home = shallowRef<OutingReturn>();
const failure = ref('');
watch(open, () => {
  home.value = undefined;
  failure.value = '';
});

async function look(file: File): Promise<void> {
  failure.value = '';
  home.value = undefined;
  try {
    const read = readReturn(await file.text());
    if (read.paintingId === paintings.onEasel?.id) home.value = read;
    else failure.value = `This file is of “${read.title}”: put that painting on the easel first.`;
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    failure.value = cause.message;
  }
}
const news = computed(() => (home.value ? meetHome(home.value, settings.settings.measure, tubes.byId, piles.byId) : []));
const told = computed(() => news.value.filter(({ says }) => says.length > 0));
const ops = computed(() => news.value.flatMap((one) => one.ops));
const ticks = computed(() => news.value.filter(({ ticked }) => ticked.length > 0));

async function keep(): Promise<void> {
  const merged = news.value;
  if (ops.value.length > 0 && !(await piles.make(ops.value, `${counted(told.value.length, 'pile')} came home`))) return;
  for (const { pileId, ticked } of merged) {
    const pile = piles.byId.get(pileId);
    if (pile && pile.stages.length === 0) for (const step of ticked) if (!done.stepsOf(pile).includes(step)) done.tick(pile, step);
  }
  open.value = false;
}
</script>

<template>
  <Sheet v-model="open" label="Out of doors" wide>
    <h2>Out of doors</h2>
    <p>
      One file with the reference, the ledge and every pile in the order to mix it. It opens in a phone’s browser without a network; steps
      are ticked there, looks said and notes made, and it writes a file to bring home.
    </p>
    <div>
      <v-btn v-if="paintings.onEasel" variant="outlined" :href="outingUrl(paintings.onEasel.id)" download>Take it along</v-btn>
    </div>
    <FileDrop label="File from out of doors" accept=".json,application/json" @file="look"
      >Bring home: choose the file, or drop it here</FileDrop
    >
    <p v-if="failure" role="alert" class="strong">{{ failure }}</p>
    <template v-if="home">
      <ul v-if="told.length > 0" class="figures" data-test="home-news">
        <li v-for="one in told" :key="one.pileId">
          <b>{{ one.name }}</b>: {{ one.says.join('; ') }}
        </li>
      </ul>
      <p v-else>All of it is here already.</p>
      <p v-if="ops.length > MOST_OPERATIONS" role="alert">That is more than is kept in one step; bring home fewer piles at a time.</p>
    </template>
    <div class="foot-keys">
      <v-btn v-if="home && (ops.length > 0 || ticks.length > 0)" variant="outlined" :disabled="ops.length > MOST_OPERATIONS" @click="keep"
        >Keep it</v-btn
      >
      <v-btn @click="open = false">Not now</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: calc(5 * var(--unit));
}
.strong {
  font-weight: 700;
}
</style>
