<script setup lang="ts">
import type { Affine } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, onMounted, useTemplateRef, watch } from 'vue';
import type { Passage } from '../stores/log.ts';
import { useReference } from '../stores/reference.ts';
import { answerOf } from './answers.ts';

/** The picture, with the areas of the painting on it: a press chooses one. */
const props = defineProps<{ painting: PaintingDto; passages: readonly Passage[]; chosen?: string | undefined }>();
const emit = defineEmits<{ choose: [areaId: string] }>();
const store = useReference();
const canvas = useTemplateRef('canvas');
const WIDE = 900;

const ratio = computed(() => {
  if (store.frame) return store.frame.width / store.frame.height;
  return props.painting.canvas ? props.painting.canvas.widthMm / props.painting.canvas.heightMm : 1.4;
});
const size = computed(() => ({ width: WIDE, height: Math.round(WIDE / ratio.value) }));
function draw(): void {
  const context = canvas.value?.getContext('2d');
  if (!context || !store.frame || !store.pixels) return;
  const scale = WIDE / store.frame.width;
  context.setTransform(...(store.frame.toFrame.map((v) => v * scale) as unknown as Affine));
  context.drawImage(store.pixels.image, 0, 0);
}
onMounted(draw);
watch([() => store.pixels, () => store.frame, size], draw, { flush: 'post' });
const drawn = computed(() =>
  props.passages.flatMap(({ area, answers }) => {
    if (!area.outline) return [];
    const points = area.outline.map(({ x, y }) => [x * size.value.width, y * size.value.height] as const);
    const [x, y] = [0, 1].map((i) => points.reduce((sum, point) => sum + point[i]!, 0) / points.length) as [number, number];
    return [{ area, points: points.map((point) => point.join()).join(' '), x, y, word: answers[0] ? answerOf(answers[0].may).word : '' }];
  }),
);
</script>

<template>
  <div class="map judging" :style="{ aspectRatio: ratio }" data-test="passage-map">
    <canvas v-if="store.pixels && store.frame" ref="canvas" :width="size.width" :height="size.height" aria-hidden="true" />
    <span v-else class="none" :style="{ background: painting.ground }" />
    <svg :viewBox="`0 0 ${size.width} ${size.height}`">
      <g v-for="one in drawn" :key="one.area.id" :class="{ chosen: one.area.id === chosen }" @click="emit('choose', one.area.id)">
        <polygon :points="one.points" />
        <text :x="one.x" :y="one.y">{{ one.area.name }}</text>
        <text :x="one.x" :y="one.y + 34" class="word">{{ one.word }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.map {
  position: relative;
  max-height: 52vh;
  max-width: 100%;
}
canvas,
svg,
.none {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
polygon {
  fill: transparent;
  stroke: #fff;
  stroke-width: 2.5;
  stroke-dasharray: 10 7;
  cursor: pointer;
}
.chosen polygon {
  stroke-width: 6;
  stroke-dasharray: none;
}
text {
  fill: #fff;
  stroke: #111;
  stroke-width: 6px;
  paint-order: stroke;
  text-anchor: middle;
  font-size: 32px;
  font-weight: 700;
  pointer-events: none;
}
.word {
  font-size: 28px;
  font-weight: 500;
}
@media (orientation: portrait) {
  .map {
    max-height: 34vh;
    margin: 0 auto;
  }
}
</style>
