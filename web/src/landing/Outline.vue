<script setup lang="ts">
import type { Affine } from '@dusk/core';
import type { AreaOutline } from '@dusk/wire';
import type Konva from 'konva';
import { useElementSize } from '@vueuse/core';
import { Image as VImage, Layer as VLayer, Line as VLine, Stage as VStage } from 'vue-konva';
import { computed, ref, useTemplateRef } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useReference } from '../stores/reference.ts';

/** Once round a passage on the picture as it is cut: points in shares of its sides, when the hand is lifted. */
defineProps<{ already: AreaOutline }>();
const emit = defineEmits<{ drawn: [outline: { x: number; y: number }[]]; close: [] }>();
const store = useReference();
const paintings = usePaintings();
const { width: room } = useElementSize(useTemplateRef('box'));

const MOST_HEIGHT = 0.62;
/** The canvas is as wide as the picture is cut, or the picture as it came. */
const scale = computed(() => {
  const frame = store.frame;
  return frame && room.value > 0 ? Math.min(room.value / frame.width, (window.innerHeight * MOST_HEIGHT) / frame.height) : 0;
});
const size = computed(() => ({ width: (store.frame?.width ?? 0) * scale.value, height: (store.frame?.height ?? 0) * scale.value }));
const picture = computed(() => {
  const { width, height } = size.value;
  if (!store.frame || !store.pixels || width < 1) return undefined;
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width);
  canvas.height = Math.round(height);
  const context = canvas.getContext('2d')!;
  context.setTransform(...(store.frame.toFrame.map((v) => v * scale.value) as unknown as Affine));
  context.drawImage(store.pixels.image, 0, 0);
  return canvas;
});

const MOST_POINTS = 400;
/** Nearer than this to the last point says nothing new, px. */
const APART_PX = 3;
const line = ref<number[]>([]);
let isDown = false;
const pointer = ({ currentTarget }: Konva.KonvaEventObject<PointerEvent>) =>
  (currentTarget.getStage() as Konva.Stage | null)?.getPointerPosition() ?? undefined;
function down(event: Konva.KonvaEventObject<PointerEvent>): void {
  const at = pointer(event);
  isDown = at !== undefined;
  line.value = at ? [at.x, at.y] : [];
}
function move(event: Konva.KonvaEventObject<PointerEvent>): void {
  const at = isDown ? pointer(event) : undefined;
  if (!at || line.value.length >= 2 * MOST_POINTS) return;
  const [x, y] = line.value.slice(-2) as [number, number];
  if (Math.hypot(at.x - x, at.y - y) >= APART_PX) line.value = [...line.value, at.x, at.y];
}
function up(): void {
  if (!isDown) return;
  isDown = false;
  const { width, height } = size.value;
  const share = (v: number, of: number): number => Math.min(1, Math.max(0, v / of));
  const outline = Array.from({ length: line.value.length / 2 }, (_, i) => ({
    x: share(line.value[2 * i]!, width),
    y: share(line.value[2 * i + 1]!, height),
  }));
  emit('drawn', outline);
}
const inPixels = (outline: AreaOutline): number[] => outline.flatMap(({ x, y }) => [x * size.value.width, y * size.value.height]);
</script>

<template>
  <div ref="box" class="outline stack">
    <p v-if="!paintings.onEasel?.canvas" class="quiet">How large the canvas is is not known yet; it is said under the grid in Reference.</p>
    <h2>Once round the passage</h2>
    <div v-if="picture" class="stage judging" data-test="outline-stage">
      <VStage :config="size" @pointerdown="down" @pointermove="move" @pointerup="up" @pointerleave="up">
        <VLayer :config="{ listening: false }">
          <VImage :config="{ image: picture, ...size }" />
          <VLine
            v-if="already.length > 0"
            :config="{ points: inPixels(already), closed: true, stroke: '#fff', strokeWidth: 1, dash: [6, 4] }"
          />
          <VLine :config="{ points: line, stroke: '#000', strokeWidth: 4 }" />
          <VLine :config="{ points: line, stroke: '#fff', strokeWidth: 2 }" />
        </VLayer>
      </VStage>
    </div>
    <p v-else>There is no picture to draw on: say how large it is in words.</p>
    <v-btn @click="emit('close')">Not now</v-btn>
  </div>
</template>

<style scoped>
.stage {
  touch-action: none;
  cursor: crosshair;
}
</style>
