<script setup lang="ts">
import { clamp, useElementSize } from '@vueuse/core';
import type Konva from 'konva';
import { Circle as VCircle, Image as VImage, Layer as VLayer, Line as VLine, Stage as VStage } from 'vue-konva';
import { computed, ref, useTemplateRef } from 'vue';
import Choice from '../controls/Choice.vue';
import Sheet from '../controls/Sheet.vue';
import { useCanvas } from './useCanvas.ts';

/** Where the canvas stands in its photo: four corners to be dragged; and what in it is white. */
const open = defineModel<boolean>({ required: true });
const canvas = useCanvas();
const { width: room } = useElementSize(useTemplateRef('box'));
const MOST_HEIGHT = 0.55;
const image = computed(() => canvas.seen?.photo);
const size = computed(() => {
  if (!image.value || room.value <= 0) return { width: 0, height: 0 };
  const by = Math.min(room.value / image.value.width, (window.innerHeight * MOST_HEIGHT) / image.value.height);
  return { width: image.value.width * by, height: image.value.height * by };
});
const corners = ref<number[]>([...(canvas.photo?.view.canvas?.corners ?? [])]);
const white = ref(canvas.photo?.view.canvas?.white);
const what = ref<'corners' | 'white'>('corners');
const WHAT = [
  { value: 'corners' as const, title: 'its corners' },
  { value: 'white' as const, title: 'what is white' },
];
const points = computed(() => corners.value.map((v, i) => v * (i % 2 === 0 ? size.value.width : size.value.height)));
function move(k: number, { target }: Konva.KonvaEventObject<PointerEvent>): void {
  const { x, y } = target.position();
  corners.value = corners.value.map((v, i) =>
    i === 2 * k ? clamp(x / size.value.width, 0, 1) : i === 2 * k + 1 ? clamp(y / size.value.height, 0, 1) : v,
  );
}
function press({ target }: Konva.KonvaEventObject<PointerEvent>): void {
  const at = target.getStage()?.getPointerPosition();
  if (what.value !== 'white' || !at) return;
  white.value = { x: clamp(at.x / size.value.width, 0, 1), y: clamp(at.y / size.value.height, 0, 1) };
}
const STEP = 0.004;
const NAMES = ['Upper left', 'Upper right', 'Lower right', 'Lower left'] as const;
const KEYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
function onKey(event: KeyboardEvent, k: number): void {
  const way = KEYS[event.key];
  if (!way) return;
  event.preventDefault();
  event.stopPropagation();
  corners.value = corners.value.map((v, i) =>
    i === 2 * k ? clamp(v + STEP * way[0], 0, 1) : i === 2 * k + 1 ? clamp(v + STEP * way[1], 0, 1) : v,
  );
}
async function keep(): Promise<void> {
  const kept = await canvas.change(
    { corners: corners.value, ...(white.value && { white: white.value }) },
    'Said where the canvas stands in its photo',
  );
  if (!kept) return;
  canvas.needsCorners = false;
  open.value = false;
}
</script>

<template>
  <Sheet v-model="open" label="Where the canvas stands" wide judging>
    <div ref="box" class="corners stack">
      <h2>Where the canvas stands in its photo</h2>
      <p v-if="canvas.needsCorners" role="status">
        The canvas could not be told from what is behind it: drag its corners to where they are.
      </p>
      <Choice v-model="what" label="A press says" :items="WHAT" />
      <div v-if="image" class="stage" data-test="corners-stage">
        <VStage :config="size" @pointerdown="press">
          <VLayer>
            <VImage :config="{ image, ...size }" />
            <VLine :config="{ points, closed: true, stroke: '#000', strokeWidth: 4, listening: false }" />
            <VLine :config="{ points, closed: true, stroke: '#fff', strokeWidth: 1.5, listening: false }" />
            <template v-if="what === 'corners'">
              <VCircle
                v-for="k in [0, 1, 2, 3]"
                :key="k"
                :config="{
                  x: points[2 * k],
                  y: points[2 * k + 1],
                  radius: 22,
                  fill: 'rgba(255,255,255,0.25)',
                  stroke: '#fff',
                  strokeWidth: 3,
                  draggable: true,
                }"
                @dragmove="move(k, $event)"
              />
            </template>
            <VCircle
              v-if="white"
              :config="{ x: white.x * size.width, y: white.y * size.height, radius: 9, stroke: '#000', strokeWidth: 3, listening: false }"
            />
          </VLayer>
        </VStage>
      </div>
      <div class="wrapped-close">
        <button
          v-for="(name, k) in NAMES"
          :key="name"
          type="button"
          class="key"
          role="slider"
          :aria-label="`${name} corner; arrow keys move it`"
          :aria-valuenow="Math.round(100 * corners[2 * k]!)"
          :aria-valuetext="`${Math.round(100 * corners[2 * k]!)} % across, ${Math.round(100 * corners[2 * k + 1]!)} % down`"
          @keydown="onKey($event, k)"
        >
          {{ name }}
        </button>
      </div>
      <div class="foot-keys">
        <v-btn @click="open = false">Not now</v-btn>
        <button type="button" class="main-key" @click="keep">Compare so</button>
      </div>
    </div>
  </Sheet>
</template>

<style scoped>
.stage {
  touch-action: none;
}
.key {
  min-height: 44px;
  padding: 0 calc(2 * var(--unit));
  text-decoration: underline;
  font-size: var(--size-note);
}
</style>
