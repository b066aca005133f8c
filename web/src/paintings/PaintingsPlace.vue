<script setup lang="ts">
import { mdiDeleteOutline, mdiPlus } from '@mdi/js';
import { show } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import EmptyPlace from '../shell/EmptyPlace.vue';
import { usePaintings } from './paintings.ts';
import { usePalettes } from '../palettes/palettes.ts';
import { useTubes } from '../tubes/tubes.ts';

const router = useRouter();
const paintings = usePaintings();
const palettes = usePalettes();
const tubes = useTubes();
const making = ref(false);
const title = ref('');
const paletteId = ref<string>();

/** A first palette for a studio that has none: white and the three broad ways to go from it. */
const STARTER = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'burnt-umber'];

async function begin(): Promise<void> {
  if (palettes.all.length === 0) {
    const ids = STARTER.flatMap((pigment) => tubes.all.find((t) => t.pigment === pigment)?.id ?? []);
    await palettes.add('First palette, five tubes', ids);
  }
  title.value = '';
  paletteId.value = palettes.all[0]?.id;
  making.value = true;
}
async function add(): Promise<void> {
  if (title.value.trim() === '' || !paletteId.value) return;
  const paintingId = await paintings.add({ title: title.value.trim(), paletteId: paletteId.value });
  if (!paintingId) return;
  making.value = false;
  await router.push({ name: 'reference', params: { paintingId } });
}

const choices = computed(() => palettes.all.map((p) => ({ value: p.id, title: p.name })));
const cards = computed(() =>
  paintings.all.map((painting) => ({
    painting,
    picture: paintings.referencesOf(painting.id).at(-1),
    palette: palettes.byId.get(painting.paletteId),
    dabs: palettes.byId.get(painting.paletteId)?.tubeIds.flatMap((id) => tubes.byId.get(id) ?? []) ?? [],
  })),
);
const to = (painting: PaintingDto) => ({ name: 'reference', params: { paintingId: painting.id } });
</script>

<template>
  <div class="place">
    <EmptyPlace v-if="paintings.all.length === 0" title="Nothing on the easel yet">
      A painting holds its reference pictures, the tubes you limit yourself to, and every pile you mix for it. Begin one, or stop the
      program and start it with
      <code>npm run demo</code> to see a studio at work.
      <template #step><v-btn variant="outlined" color="primary" :prepend-icon="mdiPlus" @click="begin">Begin a painting</v-btn></template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>On the easel</h1>
        <v-btn variant="outlined" color="primary" :prepend-icon="mdiPlus" @click="begin">Begin a painting</v-btn>
      </header>
      <div class="cards">
        <article v-for="{ painting, picture, palette, dabs } in cards" :key="painting.id" class="card">
          <RouterLink :to="to(painting)" class="open">
            <div class="picture judging">
              <span v-if="!picture">no picture yet</span>
              <span v-else-if="isLocal(picture.pictureId)">its picture waits in this browser</span>
              <img v-else :src="pictureUrl(picture.pictureId)" alt="" />
            </div>
            <h2>{{ painting.title }}</h2>
          </RouterLink>
          <div class="foot">
            <p class="quiet">{{ palette?.name }} · {{ painting.pileCount }} {{ painting.pileCount === 1 ? 'pile' : 'piles' }}</p>
            <v-btn
              :icon="mdiDeleteOutline"
              :aria-label="`Put “${painting.title}” away`"
              title="Put away"
              @click="paintings.remove(painting.id)"
            />
          </div>
          <div class="dabs judging" aria-hidden="true">
            <span v-for="tube in dabs" :key="tube.id" class="dab" :style="{ background: show(tube.masstone).css }" />
            <span class="ground" :style="{ background: painting.ground }" title="ground" />
          </div>
        </article>
      </div>
    </template>
    <v-dialog v-model="making" aria-label="Begin a painting">
      <v-card class="pa-6">
        <form class="form" @submit.prevent="add">
          <h2>Begin a painting</h2>
          <v-text-field v-model="title" label="Title" :maxlength="120" autofocus />
          <v-select v-model="paletteId" label="Palette" :items="choices" />
          <div class="d-flex justify-end ga-2">
            <v-btn @click="making = false">Not now</v-btn>
            <v-btn type="submit" variant="outlined" color="primary" :disabled="title.trim() === '' || !paletteId">Begin</v-btn>
          </div>
        </form>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: calc(6 * var(--unit));
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(420px, 1fr));
  gap: calc(8 * var(--unit));
}
.open {
  color: inherit;
  text-decoration: none;
}
.picture {
  display: grid;
  place-items: center;
  aspect-ratio: 3 / 2;
  padding: calc(4 * var(--unit));
  margin-bottom: calc(3 * var(--unit));
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: contain;
  min-height: 0;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.dabs {
  display: flex;
  gap: calc(2 * var(--unit));
  padding: calc(2 * var(--unit));
}
.dab {
  width: 34px;
  height: 26px;
}
.ground {
  margin-left: auto;
  width: 68px;
  height: 26px;
}
.form {
  display: grid;
  gap: calc(4 * var(--unit));
}
</style>
