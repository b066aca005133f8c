<script setup lang="ts">
import { computed, useTemplateRef, watch } from 'vue';
import { useReference } from '../stores/reference.ts';
import { useCanvas } from './useCanvas.ts';

/** Over the picture: the squares that are off, numbered as in the list; or the canvas itself, laid flat, in its place. */
const props = defineProps<{ width: number; height: number }>();
const canvas = useCanvas();
const reference = useReference();
const flat = useTemplateRef('flat');

watch(
  [flat, () => canvas.seen, () => canvas.isFlipped],
  () => {
    const at = flat.value;
    const image = canvas.seen?.flat;
    if (!at || !image) return;
    at.width = image.width;
    at.height = image.height;
    at.getContext('2d')!.drawImage(image, 0, 0);
  },
  { flush: 'post', immediate: true },
);
/** What goes round the squares of a miss, px. */
const marks = computed(() => {
  const { seen } = canvas;
  if (!seen) return [];
  const [w, h] = [props.width / seen.across, props.height / seen.down];
  // The flat canvas is compared as the frame shows it, mirrored or not.
  return seen.misses
    .filter(({ isMeant }) => !isMeant)
    .slice(0, 9)
    .map((miss, k) => {
      const own = new Set(miss.cells);
      const path = miss.cells
        .flatMap((i) => {
          const [x, y] = [i % seen.across, Math.floor(i / seen.across)];
          return [
            ...(x === 0 || !own.has(i - 1) ? [`M${x * w} ${y * h}v${h}`] : []),
            ...(x === seen.across - 1 || !own.has(i + 1) ? [`M${(x + 1) * w} ${y * h}v${h}`] : []),
            ...(own.has(i - seen.across) ? [] : [`M${x * w} ${y * h}h${w}`]),
            ...(own.has(i + seen.across) ? [] : [`M${x * w} ${(y + 1) * h}h${w}`]),
          ];
        })
        .join('');
      return { k: k + 1, path, x: miss.x * props.width, y: miss.y * props.height };
    });
});
const edges = computed(() => (canvas.seen?.edges ?? []).map(({ x, y, is }) => ({ x: x * props.width, y: y * props.height, is })));
const name = computed(() => reference.reference?.name ?? '');
</script>

<template>
  <div class="canvas-over" aria-hidden="true" data-test="canvas-over">
    <canvas v-if="canvas.isFlipped" ref="flat" class="flat" :title="`The canvas, in the place of ${name}`" />
    <svg :width="width" :height="height">
      <g v-for="mark in marks" :key="mark.k">
        <path :d="mark.path" class="dark" />
        <path :d="mark.path" class="light" />
        <circle :cx="mark.x" :cy="mark.y" r="13" />
        <text :x="mark.x" :y="mark.y + 5">{{ mark.k }}</text>
      </g>
      <g v-for="(edge, i) in edges" :key="`e${i}`">
        <path :d="`M${edge.x - 8} ${edge.y}h16`" class="dark" :class="edge.is" />
        <path :d="`M${edge.x - 8} ${edge.y}h16`" class="light" :class="edge.is" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.canvas-over,
.flat,
svg {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.flat {
  width: 100%;
  height: 100%;
}
path {
  fill: none;
}
.dark {
  stroke: #000;
  stroke-width: 4;
}
.light {
  stroke: #fff;
  stroke-width: 1.5;
}
.light.softer {
  stroke-dasharray: 3 3;
}
circle {
  fill: #000;
  stroke: #fff;
}
text {
  fill: #fff;
  text-anchor: middle;
  font-size: 14px;
  font-weight: 700;
}
</style>
