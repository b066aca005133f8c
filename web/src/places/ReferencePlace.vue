<script setup lang="ts">
import { mdiDeleteOutline, mdiImagePlusOutline } from '@mdi/js';
import { computed, ref, toRef } from 'vue';
import { useRouter } from 'vue-router';
import { useLiveRecipe } from '../live/useLiveRecipe.ts';
import { useShortcuts } from '../live/useShortcuts.ts';
import { firstName } from '../live/words.ts';
import EmptyPlace from '../parts/EmptyPlace.vue';
import LiveRecipe from '../parts/LiveRecipe.vue';
import PictureSampler from '../parts/PictureSampler.vue';
import { useBook } from '../stores/book.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { sentMeasures } from '../workers/recipe.ts';
import { useReference } from '../stores/reference.ts';

const AMOUNT_ML = 4;

const router = useRouter();
const paintings = usePaintings();
const piles = usePiles();
const book = useBook();
const store = useReference();
const { place, live, pointAt } = useLiveRecipe(
  computed(() => store.pixels),
  toRef(store, 'radius'),
);
const bringing = ref(false);
const chooser = ref<HTMLInputElement>();
const basis = computed(() => (book.paletteTubes.some((t) => t.basis === 'typical') ? 'typical' : 'fitted'));

async function keep(): Promise<void> {
  const now = live.value;
  const recipe = now?.answer?.recipes[0];
  if (!now || !recipe || !store.reference) return;
  const [L, a, b] = now.lab;
  await piles.keep({
    name: firstName(now.lab),
    target: { L, a, b },
    sampled: { referenceId: store.reference.id, x: now.place.x, y: now.place.y, radius: now.radius },
    measures: sentMeasures(recipe.measures),
    amountMl: AMOUNT_ML,
  });
}

async function bring(files: FileList | null | undefined): Promise<void> {
  const file = files?.[0];
  if (!file || !paintings.open) return;
  bringing.value = true;
  if (await paintings.addReference(paintings.open.id, file)) store.chosenId = undefined;
  bringing.value = false;
  if (chooser.value) chooser.value.value = '';
}

useShortcuts(() => [
  { key: 'k', run: () => void keep() },
  { key: '+', run: () => store.resize(1.25) },
  { key: '=', run: () => store.resize(1.25) },
  { key: '-', run: () => store.resize(0.8) },
]);
</script>

<template>
  <div v-if="paintings.open" class="reference" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files)">
    <input
      ref="chooser"
      class="chooser"
      type="file"
      accept="image/jpeg,image/png"
      aria-label="Bring a picture"
      tabindex="-1"
      @change="bring(chooser?.files)"
    />
    <section class="stage judging" aria-label="Reference picture">
      <PictureSampler
        v-if="store.pixels && store.reference"
        :picture="store.pixels"
        :name="store.reference.name"
        :radius="store.radius"
        :place="place"
        @point="pointAt"
        @resize="store.resize"
        @keep="keep"
      />
      <EmptyPlace v-else-if="!store.reference" title="Bring a picture to paint from">
        A JPEG or PNG of your subject. It stays on this machine, is turned upright and stripped of what the camera wrote into it. Then point
        at any colour in it and read what to mix.
        <template #step
          ><v-btn variant="outlined" :prepend-icon="mdiImagePlusOutline" @click="chooser?.click()">Choose a picture</v-btn></template
        >
      </EmptyPlace>
      <p v-else-if="store.trouble" class="trouble">{{ store.trouble }}</p>
      <v-progress-linear v-if="bringing" indeterminate class="working" aria-label="Bringing the picture" />
    </section>
    <aside class="panel judging" aria-label="What is under the point">
      <div class="bar">
        <RouterLink class="palette-link" :to="{ name: 'palettes', params: { paletteId: book.palette?.id } }">{{
          book.palette?.name
        }}</RouterLink>
        <v-btn :icon="mdiImagePlusOutline" aria-label="Bring another picture" title="Bring another picture" @click="chooser?.click()" />
        <v-btn
          v-if="store.reference"
          :icon="mdiDeleteOutline"
          aria-label="Put this picture away"
          title="Put this picture away"
          @click="paintings.removeReference(paintings.open.id, store.reference.id)"
        />
      </div>
      <template v-if="book.trouble">
        <p class="trouble">{{ book.trouble }}</p>
        <v-btn variant="outlined" @click="router.push({ name: 'palettes', params: { paletteId: book.palette?.id } })"
          >Change the palette</v-btn
        >
      </template>
      <div v-else-if="!book.ready" class="making">
        <p>Working out every recipe of this palette…</p>
        <v-progress-linear :model-value="book.progress * 100" aria-label="Making the book of recipes" />
      </div>
      <LiveRecipe :live="live" :basis="basis" :amount-ml="AMOUNT_ML" @keep="keep" />
    </aside>
  </div>
</template>

<style scoped>
.reference {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  height: 100%;
}
.stage {
  position: relative;
  padding: 22px;
  min-height: 0;
}
.panel {
  padding: 8px 22px 18px;
  overflow-y: auto;
  border-left: 1px solid var(--surround-line);
}
.bar {
  display: flex;
  align-items: center;
}
.palette-link {
  flex: 1;
  color: inherit;
}
.chooser {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
  pointer-events: none;
}
.working {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
}
.making {
  margin-bottom: 14px;
}
@media (max-width: 900px) {
  .reference {
    grid-template: minmax(0, 1fr) minmax(0, 1fr) / 1fr;
  }
}
</style>
