<script setup lang="ts">
import { mdiCameraOutline } from '@mdi/js';
import { SMALL } from '@dusk/wire/reads';
import { computed, defineAsyncComponent, onUnmounted, ref, useTemplateRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import { counted, moment } from '../floor/words.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { isLocal } from '../studio/queue.ts';
import { pictureUrl } from '../studio/api.ts';
import { useCanvas } from './useCanvas.ts';

/** The painting in progress beside its reference: what is off, the largest first, and the one thing that would mend it. */
const canvas = useCanvas();
onUnmounted(canvas.open());
const CanvasCorners = defineAsyncComponent(() => import('./CanvasCorners.vue'));
const cornering = ref(false);

watch(
  () => canvas.needsCorners && canvas.seen !== undefined,
  (needs) => needs && (cornering.value = true),
);

const field = useTemplateRef('field');
async function bringChosen(): Promise<void> {
  const [file] = [...(field.value?.files ?? [])];
  if (file) await canvas.bring(file);
  if (field.value) field.value.value = '';
}
const LIT = {
  given: 'Its light is taken from the white that was pressed.',
  found: 'Its light is taken from the white beside it.',
  fitted: 'No white was found: its light is taken from the canvas itself, so that what is off everywhere is not seen. Press what is white.',
} as const;
const MOST = 9;
const misses = computed(() =>
  (canvas.seen?.misses ?? []).slice(0, MOST + 6).map((miss, i) => ({
    miss,
    k: miss.isMeant ? undefined : i + 1,
    says: miss.compared.words.slice(0, 3).join(', '),
    mend: canvas.mendOf(miss),
  })),
);
const edges = computed(() => {
  const all = canvas.seen?.edges ?? [];
  const of = (is: 'harder' | 'softer'): number => all.filter((edge) => edge.is === is).length;
  const said = [
    ...(of('softer') > 0 ? [`${counted(of('softer'), 'edge')} softer than in the picture`] : []),
    ...(of('harder') > 0 ? [`${counted(of('harder'), 'edge')} harder`] : []),
  ];
  return said.join(', ');
});
const thumbs = computed(() =>
  canvas.photos.map((one) => ({
    id: one.id,
    says: moment(one.createdAt),
    src: isLocal(one.pictureId) ? undefined : `${pictureUrl(one.pictureId)}${SMALL}`,
  })),
);
const more = [
  { title: 'Another photo', test: 'another-canvas', run: () => field.value?.click() },
  { title: 'Its corners, and what is white', test: 'corners', run: () => (cornering.value = true) },
  { title: 'The stand-in camera', test: 'stand-in', run: () => canvas.standIn() },
];
useShortcuts(() => [{ key: ' ', run: () => (canvas.isFlipped = !canvas.isFlipped) }]);
</script>

<template>
  <div class="figures stack">
    <input
      ref="field"
      class="chooser"
      type="file"
      accept="image/*"
      aria-label="A photo of the canvas"
      tabindex="-1"
      @change="bringChosen"
    />
    <p v-if="canvas.photos.length === 0">
      Photograph your painting as it stands, whole, before a wall, with a sheet of white paper beside it. Values, colours and edges are held
      against the picture, place by place.
    </p>
    <div class="in-line">
      <template v-if="canvas.photos.length === 0">
        <button type="button" class="main-key" data-test="bring-canvas" @click="field?.click()">
          <v-icon :icon="mdiCameraOutline" aria-hidden="true" /> A photo of the canvas
        </button>
        <v-btn data-test="stand-in" @click="canvas.standIn()">The stand-in camera</v-btn>
      </template>
      <template v-else>
        <button
          type="button"
          class="framed-key"
          :aria-pressed="canvas.isFlipped"
          data-test="flip"
          @click="canvas.isFlipped = !canvas.isFlipped"
        >
          {{ canvas.isFlipped ? 'Show the picture' : 'Show the canvas' }} <kbd>Space</kbd>
        </button>
        <MoreKeys :keys="more" label="More of the canvas" />
      </template>
    </div>
    <v-progress-linear v-if="canvas.isComparing" indeterminate aria-label="Holding the canvas against the picture" />
    <p v-if="canvas.failure" role="alert">{{ canvas.failure }}</p>
    <template v-if="canvas.seen && canvas.photo">
      <ol class="misses judging bare">
        <li v-for="{ miss, k, says, mend } in misses" :key="miss.cells[0]" :class="{ meant: miss.isMeant }" data-test="miss">
          <b class="number">{{ k ?? '·' }}</b>
          <ColourPair :target="miss.wanted" :mixed="miss.seen" :height="44" class="pair" />
          <span class="says"
            ><b>{{ says }}</b
            ><br /><span v-if="!miss.isMeant" class="quiet">{{ mend }}</span>
            <button type="button" class="plain" :aria-pressed="miss.isMeant" @click="canvas.meanSo(miss)">
              {{ miss.isMeant ? 'meant so' : 'is meant so' }}
            </button></span
          >
        </li>
      </ol>
      <p v-if="misses.length === 0">Nothing is off by more than a photo can tell.</p>
      <p v-if="edges" data-test="edges-said">{{ edges }} (short lines; broken where softer).</p>
      <p class="quiet">Left of each pair as wanted, right as it is. {{ LIT[canvas.seen.by] }}</p>
      <ul v-if="thumbs.length > 1" class="thumbs">
        <li v-for="one in thumbs" :key="one.id">
          <button
            type="button"
            :aria-pressed="one.id === canvas.photo.id"
            :aria-label="`The canvas, ${one.says}`"
            @click="canvas.chosenId = one.id"
          >
            <img v-if="one.src" :src="one.src" alt="" loading="lazy" />
            <span>{{ one.says }}</span>
          </button>
        </li>
      </ul>
      <CanvasCorners v-if="cornering" v-model="cornering" />
    </template>
  </div>
</template>

<style scoped>
.chooser {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
  pointer-events: none;
}
.misses li {
  display: grid;
  grid-template-columns: 20px 110px minmax(0, 1fr);
  align-items: center;
  gap: calc(2 * var(--unit));
  padding: var(--unit) 0;
  border-top: 1px solid var(--surround-line);
}
.says .plain {
  margin-left: calc(3 * var(--unit));
}
.meant .says {
  text-decoration: line-through;
}
.plain {
  min-height: 44px;
  text-decoration: underline;
  font-size: var(--size-note);
}
.thumbs {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  list-style: none;
  padding: 0;
  margin: 0;
}
.thumbs button {
  display: grid;
  min-height: 44px;
  font-size: var(--size-note);
}
.thumbs img {
  width: 84px;
  height: 63px;
  object-fit: cover;
}
.thumbs [aria-pressed='true'] {
  outline: 2px solid currentColor;
  outline-offset: 2px;
}
</style>
