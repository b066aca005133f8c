<script setup lang="ts">
import { mdiDeleteOutline, mdiImagePlusOutline } from '@mdi/js';
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue';
import { useDesk } from '../engine/useDesk.ts';
import { usePaintings } from '../paintings/paintings.ts';
import EmptyPlace from '../shell/EmptyPlace.vue';
import { useShortcuts } from '../shell/useShortcuts.ts';
import LiveRecipe from './LiveRecipe.vue';
import PictureSampler from './PictureSampler.vue';
import { useReference } from './reference.ts';
import { useKeeping } from './useKeeping.ts';
import { useLiveRecipe } from './useLiveRecipe.ts';

const paintings = usePaintings();
const desk = useDesk();
const store = useReference();
const { place, live, trust, pointAt } = useLiveRecipe(
  computed(() => store.pixels),
  toRef(store, 'radius'),
);
const { keep, amountMl } = useKeeping(live, place);
const bringing = ref(false);
/** A picture that was brought has the focus once it is there, so that the arrow keys move over it. */
const arrives = ref(false);
const whole = useTemplateRef('whole');
watch(
  () => store.pixels,
  async (pixels) => {
    if (!pixels || !arrives.value) return;
    arrives.value = false;
    await nextTick();
    whole.value?.querySelector<HTMLElement>('[role=application]')?.focus({ preventScroll: true });
  },
);
const chooser = useTemplateRef('chooser');

async function bring(files: FileList | null | undefined): Promise<void> {
  const file = files?.[0];
  if (!file || !paintings.onEasel) return;
  bringing.value = true;
  if (await paintings.addReference(paintings.onEasel.id, file)) {
    store.chosenId = undefined;
    arrives.value = true;
  }
  bringing.value = false;
  if (chooser.value) chooser.value.value = '';
}

useShortcuts(() => [
  { key: 'k', run: () => void keep() },
  { key: '+', run: () => store.resize(1.25), repeats: true },
  { key: '=', run: () => store.resize(1.25), repeats: true },
  { key: '-', run: () => store.resize(0.8), repeats: true },
]);
</script>

<template>
  <div v-if="paintings.onEasel" ref="whole" class="reference" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files)">
    <input
      ref="chooser"
      class="chooser"
      type="file"
      accept="image/jpeg,image/png"
      aria-label="Bring a picture"
      tabindex="-1"
      @change="bring(chooser?.files)"
    />
    <h1 class="for-readers">Reference of {{ paintings.onEasel.title }}</h1>
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
      <p v-else-if="store.failure" class="failure">{{ store.failure }}</p>
      <v-progress-linear v-if="bringing" indeterminate class="working" aria-label="Bringing the picture" />
    </section>
    <aside class="panel judging" aria-label="What is under the point">
      <div class="bar">
        <RouterLink class="palette-link" :to="{ name: 'palettes', params: { paletteId: desk.palette?.id } }">{{
          desk.palette?.name
        }}</RouterLink>
        <v-btn :icon="mdiImagePlusOutline" aria-label="Bring another picture" title="Bring another picture" @click="chooser?.click()" />
        <v-btn
          v-if="store.reference"
          :icon="mdiDeleteOutline"
          aria-label="Put this picture away"
          title="Put this picture away"
          @click="paintings.removeReference(store.reference.id)"
        />
      </div>
      <template v-if="desk.failure">
        <p class="failure">{{ desk.failure }}</p>
        <v-btn variant="outlined" :to="{ name: 'palettes', params: { paletteId: desk.palette?.id } }">Change the palette</v-btn>
      </template>
      <div v-else-if="!desk.desk" class="making">
        <p>Laying the palette out…</p>
        <v-progress-linear indeterminate aria-label="Laying the palette out" />
      </div>
      <LiveRecipe :live="live" :trust="trust" :amount-ml="amountMl" @keep="keep" />
    </aside>
  </div>
</template>

<style scoped>
.reference {
  display: grid;
  grid-template-columns: minmax(0, 1fr) clamp(372px, 26vw, 520px);
  height: 100%;
}
.stage {
  position: relative;
  padding: calc(6 * var(--unit));
  min-height: 0;
}
.panel {
  padding: calc(2 * var(--unit)) calc(6 * var(--unit)) calc(4 * var(--unit));
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
  margin-bottom: calc(4 * var(--unit));
}
/* A wide window gives its room to the picture; a small one keeps half of it for the recipe. */
@media (max-width: 1000px) and (orientation: landscape) {
  .reference {
    grid-template-columns: minmax(0, 1fr) minmax(260px, 42%);
  }
  .stage {
    padding: calc(3 * var(--unit));
  }
}
@media (orientation: portrait) {
  .reference {
    grid-template: minmax(0, 42fr) minmax(0, 58fr) / minmax(0, 1fr);
  }
  .stage {
    padding: calc(2 * var(--unit));
  }
  .panel {
    padding: 0 calc(4 * var(--unit)) calc(3 * var(--unit));
    border-left: 0;
    border-top: 1px solid var(--surround-line);
  }
}
@media (orientation: portrait) and (min-width: 601px) {
  .reference {
    grid-template: minmax(0, 1fr) 392px / minmax(0, 1fr);
  }
}
/* On a phone what is asked less often stands last. */
@media (max-width: 600px) and (orientation: portrait), (max-height: 520px) {
  .panel {
    display: flex;
    flex-direction: column;
    padding-top: calc(2 * var(--unit));
  }
  .bar {
    order: 1;
  }
}
</style>
