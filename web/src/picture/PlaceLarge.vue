<script setup lang="ts">
import { stretchOf, through, type Outline } from '@dusk/core';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { useReference } from '../stores/reference.ts';
import DrawnOver from './DrawnOver.vue';
import { onScreen } from './drawing.ts';
import { useLooked, type Shown } from './useLooked.ts';

/** A place of the picture large, as the picture is looked at: what a hand mixes for. */
const props = defineProps<{ outline: Outline }>();
const store = useReference();
const canvas = useTemplateRef('canvas');
const { width, height } = useElementSize(useTemplateRef('box'));

/** So much of the picture's width is seen round a place, at least so many areas across. */
const SHARE = 0.16;
const AREAS = 5;

const view = computed(() => {
  const { frame } = store;
  if (!frame || width.value < 1 || height.value < 1) return undefined;
  const [x, y] = through(frame.toFrame, props.outline.x, props.outline.y);
  const across = Math.max(SHARE * frame.width, AREAS * 2 * props.outline.radius * stretchOf(frame.toFrame));
  const scale = width.value / Math.min(across, frame.width);
  const [w, h] = [frame.width * scale, frame.height * scale];
  // What is at the picture's edge is shown at the view's edge: there is nothing beyond to show.
  const within = (middle: number, room: number, whole: number): number => Math.max(0, Math.min(whole - room, middle - room / 2));
  return { scale, left: within(x * scale, width.value, w), top: within(y * scale, height.value, h) };
});
const shown = computed<Shown | undefined>(() => {
  if (!view.value) return undefined;
  const dense = Math.min(2, window.devicePixelRatio || 1);
  const { scale, left, top } = view.value;
  return {
    width: Math.max(1, Math.round(width.value * dense)),
    height: Math.max(1, Math.round(height.value * dense)),
    scale: scale * dense,
    from: [left * dense, top * dense],
  };
});
const { looked } = useLooked(shown, true);
watch(
  looked,
  (found) => {
    const at = canvas.value;
    if (!at || !found || !store.pixels) return;
    const colorSpace = store.pixels.space.name === 'display-p3' ? 'display-p3' : 'srgb';
    at.width = found.width;
    at.height = found.height;
    at.getContext('2d', { colorSpace })!.putImageData(new ImageData(found.bytes, found.width, found.height, { colorSpace }), 0, 0);
  },
  { flush: 'post' },
);
const ring = computed(() => (view.value && store.frame ? onScreen(store.frame, view.value.scale, props.outline) : undefined));
</script>

<template>
  <div ref="box" class="place-large" data-test="place-large">
    <canvas ref="canvas" class="canvas over-all" />
    <svg v-if="ring && view" class="over" aria-hidden="true">
      <DrawnOver :outlines="[ring]" :transform="`translate(${-view.left} ${-view.top})`" />
    </svg>
  </div>
</template>

<style scoped>
.place-large {
  height: 100%;
  position: relative;
  overflow: hidden;
  min-height: 0;
}
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
</style>
