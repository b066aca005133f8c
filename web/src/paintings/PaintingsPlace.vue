<script setup lang="ts">
import { mdiDeleteOutline, mdiPencilOutline } from '@mdi/js';
import { show } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, defineAsyncComponent, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { SMALL } from '@dusk/wire/reads';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import { newId } from '../floor/ids.ts';
import { onceTrue } from '../floor/opening.ts';
import { usePaintings } from '../stores/paintings.ts';
import { ourPicture } from '../stores/ourPicture.ts';
import { usePalettes } from '../stores/palettes.ts';
import { palettesToChoose } from '../stores/palettesToChoose.ts';
import { useTubes } from '../stores/tubes.ts';
import { GROUNDS } from './grounds.ts';

/** The first view does without them. */
const EmptyPlace = defineAsyncComponent(() => import('../controls/EmptyPlace.vue'));
const PaintingSheet = defineAsyncComponent(() => import('./PaintingSheet.vue'));
const router = useRouter();
const paintings = usePaintings();
const palettes = usePalettes();
const tubes = useTubes();
const sheet = ref(false);
const sheetAsked = onceTrue(sheet);
/** The painting that is changed; nothing while one is begun. */
const changing = shallowRef<PaintingDto>();

function begin(): void {
  changing.value = undefined;
  sheet.value = true;
}
function change(painting: PaintingDto): void {
  changing.value = painting;
  sheet.value = true;
}
const open = (paintingId: string): void => void router.push({ name: 'reference', params: { paintingId } });

/** Who only wants to look is shown a painting of the sample's picture; it is put away like any other. */
const laying = ref(false);
async function lookAtOurs(): Promise<void> {
  laying.value = true;
  try {
    const [picture, palette] = [await ourPicture(), palettesToChoose()[0]];
    if (!palette) return;
    const fields = { title: 'A workbench, to look at', paletteId: palette.id, ground: GROUNDS[0].value };
    const paintingId = await paintings.add(fields, palette.isNew ? palette : undefined);
    if (!paintingId) return;
    if (picture) await paintings.addReference(paintingId, picture, newId());
    open(paintingId);
  } finally {
    laying.value = false;
  }
}

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
      Begin with what you want to paint and the tubes you keep to: every pile you mix for it is kept with it.
      <template #step>
        <button type="button" class="main-key" @click="begin">Begin a painting</button>
        <button type="button" class="link-key" data-test="look-at-ours" :disabled="laying" @click="lookAtOurs">
          Look at one of ours first
        </button>
      </template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>On the easel</h1>
        <button type="button" class="main-key" @click="begin">Begin a painting</button>
      </header>
      <div class="cards">
        <article v-for="{ painting, picture, palette, dabs } in cards" :key="painting.id" class="card">
          <RouterLink :to="to(painting)" class="open">
            <div class="picture judging">
              <span v-if="!picture">no picture yet</span>
              <span v-else-if="isLocal(picture.pictureId)">its picture waits in this browser</span>
              <img v-else :src="`${pictureUrl(picture.pictureId)}${SMALL}`" alt="" />
            </div>
            <h2>{{ painting.title }}</h2>
          </RouterLink>
          <div class="foot">
            <p class="quiet what">{{ palette?.name }} · {{ painting.pileCount }} {{ painting.pileCount === 1 ? 'pile' : 'piles' }}</p>
            <v-btn
              :icon="mdiPencilOutline"
              :aria-label="`Change “${painting.title}”: name, palette, ground`"
              title="Name, palette, ground"
              @click="change(painting)"
            />
            <v-btn
              :icon="mdiDeleteOutline"
              :aria-label="`Put “${painting.title}” away`"
              title="Put away"
              @click="paintings.remove(painting.id)"
            />
          </div>
          <div class="dabs judging" aria-hidden="true">
            <span v-for="tube in dabs" :key="tube.id" class="dab" :style="{ background: show(tube.masstone).css }" />
            <span class="ground" :style="{ background: painting.ground }" title="the ground it is painted on" />
          </div>
        </article>
      </div>
    </template>
    <PaintingSheet v-if="sheetAsked" v-model="sheet" :painting="changing" @begun="open" />
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
  grid-template-columns: repeat(auto-fill, minmax(min(420px, 100%), 1fr));
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
  align-items: center;
}
.what {
  flex: 1;
  min-width: 0;
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
</style>
