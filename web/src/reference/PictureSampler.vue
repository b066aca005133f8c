<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import type { Picture } from './reference.ts';
import type { Place } from './useLiveRecipe.ts';

/**
 * The reference picture, fitted into its place. A pointer, or the arrow keys, move the point; the
 * ring shows the area that is read. The wheel changes its size, a press or Enter keeps; + and − are
 * the place's own keys.
 */
const props = defineProps<{ picture: Picture; radius: number; place: Place | undefined; name: string }>();
const emit = defineEmits<{ point: [place: Place, since: number]; resize: [factor: number]; keep: [] }>();

const canvas = useTemplateRef('canvas');
const { width, height } = useElementSize(useTemplateRef('box'));

const STEP = 0.004;
const BIG_STEP = 0.03;
const RESIZE = 1.25;

/** Picture pixels to one CSS pixel on the screen, inverted. */
const scale = computed(() => Math.min(width.value / props.picture.width, height.value / props.picture.height));
const shown = computed(() => ({ width: props.picture.width * scale.value, height: props.picture.height * scale.value }));

function draw(): void {
  const surface = canvas.value;
  if (!surface || scale.value <= 0) return;
  const dense = window.devicePixelRatio || 1;
  surface.width = Math.round(shown.value.width * dense);
  surface.height = Math.round(shown.value.height * dense);
  const context = surface.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(props.picture.image, 0, 0, surface.width, surface.height);
}

watch([() => props.picture, shown], draw, { flush: 'post' });

function placeOf(event: PointerEvent | MouseEvent): Place {
  const { left, top } = canvas.value!.getBoundingClientRect();
  return clamp({ x: (event.clientX - left) / scale.value, y: (event.clientY - top) / scale.value });
}
const clamp = ({ x, y }: Place): Place => ({
  x: Math.min(props.picture.width - 1, Math.max(0, x)),
  y: Math.min(props.picture.height - 1, Math.max(0, y)),
});

/** Raw updates come at once, where the browser has them; the moves that follow with the frame bring nothing new. */
let last: { readonly x: number; readonly y: number } | undefined;
function onMove(event: PointerEvent): void {
  const { clientX: x, clientY: y } = event;
  if (last?.x === x && last.y === y) return;
  last = { x, y };
  emit('point', placeOf(event), event.timeStamp);
}
/** Further than this between down and up, and the hand was drawing across, not pressing. */
const DRAG_PX = 6;
let down: { readonly x: number; readonly y: number } | undefined;
const onDown = ({ clientX: x, clientY: y }: PointerEvent): void => void (down = { x, y });

/**
 * A press keeps, once: not the end of a drag, nor the second of a double press. A finger only points,
 * since it cannot hover first: its pile is kept with the button.
 */
function onPress(event: MouseEvent): void {
  emit('point', placeOf(event), event.timeStamp);
  const dragged = down !== undefined && Math.hypot(event.clientX - down.x, event.clientY - down.y) > DRAG_PX;
  const isTouch = event instanceof PointerEvent && event.pointerType === 'touch';
  if (!dragged && !isTouch && event.detail < 2) emit('keep');
}
const onWheel = (event: WheelEvent): void => emit('resize', event.deltaY < 0 ? RESIZE : 1 / RESIZE);

const MOVES: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const move = MOVES[event.key];
  if (move) {
    const step = (event.shiftKey ? BIG_STEP : STEP) * props.picture.width;
    const from = props.place ?? { x: props.picture.width / 2, y: props.picture.height / 2 };
    emit('point', clamp({ x: from.x + move[0] * step, y: from.y + move[1] * step }), event.timeStamp);
  } else if (event.key === 'Enter') {
    if (!event.repeat) emit('keep');
  } else return;
  event.preventDefault();
}

const ring = computed(() => {
  if (!props.place) return undefined;
  const across = Math.max(6, 2 * props.radius * scale.value);
  return {
    left: `${(props.place.x + 0.5) * scale.value}px`,
    top: `${(props.place.y + 0.5) * scale.value}px`,
    width: `${across}px`,
    height: `${across}px`,
  };
});
</script>

<template>
  <div ref="box" class="box">
    <div
      class="picture"
      role="application"
      tabindex="0"
      :aria-label="`Reference ${name}. Arrow keys move the point, plus and minus change the area, Enter keeps the pile.`"
      :style="{ width: `${shown.width}px`, height: `${shown.height}px` }"
      @pointerrawupdate="onMove"
      @pointermove="onMove"
      @pointerdown="onDown"
      @click="onPress"
      @wheel.prevent="onWheel"
      @keydown="onKey"
    >
      <canvas ref="canvas" class="canvas" />
      <span v-if="ring" class="ring" :style="ring" />
    </div>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  place-items: center;
  min-width: 0;
  min-height: 0;
  height: 100%;
  overflow: hidden;
}
.picture {
  position: relative;
  cursor: crosshair;
  touch-action: none;
}
.canvas {
  width: 100%;
  height: 100%;
  display: block;
}
.ring {
  position: absolute;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  outline: 1.5px solid #000;
  border-radius: 50%;
  pointer-events: none;
}
</style>
