<script setup lang="ts">
import { besidePatch, CraftError, PATCHES, readArea, type Lab, type Patch, type Pixels } from '@dusk/core';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import Sheet from '../controls/Sheet.vue';

/** A pile photographed beside white paper or a grey card: a press on the patch, a press on the paint. */
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ read: [lab: Lab] }>();

interface Spot {
  readonly x: number;
  readonly y: number;
}

const LONGEST = 1200;
const AREA = 0.012;
const kind = ref<Patch>('white paper');
const pixels = shallowRef<Pixels>();
const patch = ref<Spot>();
const paint = ref<Spot>();
const failure = ref('');
const canvas = useTemplateRef('canvas');

watch(open, () => {
  pixels.value = patch.value = paint.value = undefined;
  failure.value = '';
});

async function bring(files: FileList | null): Promise<void> {
  const file = files?.[0];
  if (!file) return;
  failure.value = '';
  patch.value = paint.value = undefined;
  const image = await createImageBitmap(file).catch(() => undefined);
  const surface = canvas.value;
  if (!image || !surface) return void (failure.value = 'This file cannot be read as a picture. Choose a JPEG or PNG.');
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
  surface.width = Math.round(image.width * scale);
  surface.height = Math.round(image.height * scale);
  const context = surface.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0, surface.width, surface.height);
  const { data, width, height } = context.getImageData(0, 0, surface.width, surface.height);
  pixels.value = { data, width, height };
}

function press(event: MouseEvent): void {
  const picture = pixels.value;
  if (!picture) return;
  const { left, top, width, height } = canvas.value!.getBoundingClientRect();
  const spot = { x: ((event.clientX - left) / width) * picture.width, y: ((event.clientY - top) / height) * picture.height };
  if (!patch.value || paint.value) {
    patch.value = spot;
    paint.value = undefined;
    failure.value = '';
    return;
  }
  paint.value = spot;
  const at = ({ x, y }: Spot) => readArea(picture, x, y, AREA * picture.width);
  try {
    emit('read', besidePatch(at(spot), at(patch.value), kind.value));
    open.value = false;
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    failure.value = cause.message;
  }
}
const next = computed(() =>
  !pixels.value
    ? 'Photograph the pile beside white paper or a grey card, in one light.'
    : patch.value && !paint.value
      ? 'Now press on the paint.'
      : `Press on the ${kind.value}.`,
);
</script>

<template>
  <Sheet v-model="open" label="Read the pile from a photo" wide judging>
    <h2>From a photo</h2>
    <p aria-live="polite">{{ next }}</p>
    <div class="choose">
      <label v-for="name in Object.keys(PATCHES)" :key="name"><input v-model="kind" type="radio" :value="name" /> {{ name }}</label>
      <label class="bring"
        >Choose a photo
        <input
          class="file"
          type="file"
          accept="image/jpeg,image/png"
          capture="environment"
          aria-label="Photo of the pile"
          @change="bring(($event.target as HTMLInputElement).files)"
      /></label>
    </div>
    <canvas v-show="pixels" ref="canvas" class="photo" @click="press" />
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <div><button type="button" class="link-key" @click="open = false">Not now</button></div>
  </Sheet>
</template>

<style scoped>
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: calc(4 * var(--unit));
  align-items: center;
}
.choose label {
  min-height: 44px;
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
}
.choose .bring {
  padding: 0 calc(4 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 4px;
}
.file {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.photo {
  max-width: 100%;
  max-height: 50vh;
  cursor: crosshair;
  justify-self: center;
}
.failure {
  font-weight: 700;
}
</style>
