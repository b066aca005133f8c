<script setup lang="ts">
import { drawnOutline, through, type Affine, type Outline } from '@dusk/core';
import { MOST_CORNERS } from '@dusk/wire/limits';
import { useElementSize } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { onScreen, rectangle, thinned } from './drawing.ts';
import { useLooking } from '../stores/looking.ts';
import DrawnOver from './DrawnOver.vue';
import PictureGrid from './PictureGrid.vue';
import PictureMarks from './PictureMarks.vue';
import { useReference } from '../stores/reference.ts';
import { useLooked, type Shown } from './useLooked.ts';
import type { Place } from './useLiveRecipe.ts';

/**
 * The reference picture as it is cut and looked at, fitted into its place. A pointer, or the arrow keys,
 * move the point; the ring shows the area that is read. The wheel changes its size, a press or Enter keeps.
 */
const props = defineProps<{
  outline: Outline | undefined;
  name: string;
  alone?: boolean;
  meant?: boolean;
  /** Beside the mixing: a press asks for that place, and what is passed over is not read. */
  beside?: boolean;
}>();
const emit = defineEmits<{
  /** `settled`: it was pressed or stepped there, and not only passed over. */
  point: [place: Place, since: number, settled: boolean];
  resize: [factor: number];
  keep: [];
  draw: [outline: Outline, since: number];
  crop: [crop: { x: number; y: number; width: number; height: number }];
  leave: [];
  move: [sampleId: string, place: Place];
  /** Beside the mixing: this place was pressed, or the mark of this sample. */
  press: [place: Place];
  open: [sampleId: string];
}>();
const store = useReference();
const looking = useLooking();
const paintings = usePaintings();

const canvas = useTemplateRef('canvas');
const surface = useTemplateRef('surface');
const { width, height } = useElementSize(useTemplateRef('box'));

/** So much of the ground is seen round the picture, where there is room for it. */
const MAT_PX = 10;
const mat = computed(() => (props.beside || width.value < 500 ? 0 : MAT_PX));
const STEP = 0.004;
const BIG_STEP = 0.08;
const RESIZE = 1.25;
/** Pixels that a look is drawn at, at most: more cannot be told apart and takes longer. */
const MOST_PIXELS = 700_000;

const ratio = computed(() =>
  paintings.onEasel?.canvas ? paintings.onEasel.canvas.widthMm / paintings.onEasel.canvas.heightMm : undefined,
);
/** CSS pixels to one pixel of the picture as it is cut. */
const scale = computed(() =>
  store.frame
    ? Math.max(0, Math.min((width.value - 2 * mat.value) / store.frame.width, (height.value - 2 * mat.value) / store.frame.height))
    : 0,
);
const size = computed(() => ({ width: (store.frame?.width ?? 0) * scale.value, height: (store.frame?.height ?? 0) * scale.value }));
const shown = computed<Shown | undefined>(() => {
  if (!store.frame || scale.value <= 0) return undefined;
  const dense = Math.min(window.devicePixelRatio || 1, Math.sqrt(MOST_PIXELS / (size.value.width * size.value.height)));
  return {
    width: Math.max(1, Math.round(size.value.width * dense)),
    height: Math.max(1, Math.round(size.value.height * dense)),
    scale: scale.value * dense,
  };
});
const { looked, reach, sweeping, sweepFailed, sweepReach, cancelSweep, bounds } = useLooked(shown);
defineExpose({ looked, reach, sweeping, sweepFailed, sweepReach, cancelSweep, bounds });

function draw(): void {
  const at = canvas.value;
  const now = shown.value;
  if (!at || !now || !store.pixels || !store.frame) return;
  const found = looked.value;
  const colorSpace = store.pixels.space.name === 'display-p3' ? 'display-p3' : 'srgb';
  const isReady = found && found.width === now.width && found.height === now.height;
  // Until it has been looked at it is drawn as it is; a wider space only once it was.
  if (!isReady && colorSpace !== 'srgb') return;
  at.width = now.width;
  at.height = now.height;
  const context = at.getContext('2d', { colorSpace })!;
  if (isReady) return context.putImageData(new ImageData(found.bytes, found.width, found.height, { colorSpace }), 0, 0);
  context.imageSmoothingQuality = 'high';
  context.setTransform(...(store.frame.toFrame.map((v) => v * now.scale) as unknown as Affine));
  context.drawImage(store.pixels.image, 0, 0);
}
watch([() => store.pixels, shown, looked], draw, { flush: 'post' });

/** A place of the screen in the picture as it is cut, px. */
function inFrame(event: Pick<MouseEvent, 'clientX' | 'clientY'>): readonly [number, number] {
  const { left, top } = surface.value!.getBoundingClientRect();
  return [(event.clientX - left) / scale.value, (event.clientY - top) / scale.value];
}
const toPlace = ([x, y]: readonly [number, number]): Place => {
  const [px, py] = through(store.frame!.toPicture, x, y);
  return clamp({ x: px, y: py });
};
const clamp = ({ x, y }: Place): Place => ({
  x: Math.min(store.pixels!.width - 1, Math.max(0, x)),
  y: Math.min(store.pixels!.height - 1, Math.max(0, y)),
});

/** The place of the picture under a place of the window; nothing beside it. */
function placeAt(clientX: number, clientY: number): Place | undefined {
  if (!surface.value || !store.frame || !store.pixels) return undefined;
  const { left, top, right, bottom } = surface.value.getBoundingClientRect();
  const isOver = clientX >= left && clientX <= right && clientY >= top && clientY <= bottom;
  return isOver ? toPlace(inFrame({ clientX, clientY })) : undefined;
}
if (!props.alone) {
  store.placeAt = placeAt;
  onScopeDispose(() => store.placeAt === placeAt && (store.placeAt = undefined));
}

/** What a hand is drawing, px of the picture as it is cut. */
const line = shallowRef<(readonly [number, number])[]>();
const dragging = ref<string>();
/** The press that ends a drag of a mark is none of its own. */
let justMoved = false;

/** A place of the window, px and parts of one. */
interface Spot {
  readonly x: number;
  readonly y: number;
}
/** Raw updates come at once, where the browser has them; the moves that follow with the frame bring nothing new. */
let last: Spot | undefined;
function onMove(event: PointerEvent): void {
  if (props.beside) return;
  const { clientX: x, clientY: y } = event;
  if (last?.x === x && last.y === y) return;
  last = { x, y };
  if (line.value) line.value = [...line.value, inFrame(event)];
  else if (dragging.value !== undefined || looking.hand === 'points')
    emit('point', toPlace(inFrame(event)), event.timeStamp, isFinger(event));
}
/** A finger means every place that it touches: it cannot pass over one without pressing. */
const isFinger = (event: MouseEvent): boolean => event instanceof PointerEvent && event.pointerType === 'touch';
/** Further than this between down and up, and the hand was drawing across, not pressing. */
const DRAG_PX = 6;
let down: Spot | undefined;
function onDown(event: PointerEvent): void {
  down = { x: event.clientX, y: event.clientY };
  if (looking.hand === 'points' || props.beside) return;
  surface.value?.setPointerCapture(event.pointerId);
  line.value = [inFrame(event)];
}
function onUp(event: PointerEvent): void {
  if (dragging.value !== undefined) {
    const id = dragging.value;
    dragging.value = undefined;
    justMoved = true;
    setTimeout(() => (justMoved = false));
    emit('move', id, toPlace(inFrame(event)));
    return;
  }
  const drawn = line.value;
  line.value = undefined;
  if (!drawn || !store.frame) return;
  if (looking.hand === 'crops') {
    const box = rectangle(drawn[0]!, inFrame(event), store.frame.width, store.frame.height, ratio.value);
    if (box.width * scale.value < 12 || box.height * scale.value < 12) return;
    emit('crop', box);
    return;
  }
  const corners = thinned(
    drawn.map(([x, y]) => [x * scale.value, y * scale.value] as const),
    MOST_CORNERS,
  );
  if (corners.length < 3) return;
  const points = corners.flatMap(([x, y]) => {
    const place = toPlace([x / scale.value, y / scale.value]);
    return [place.x, place.y];
  });
  emit('draw', drawnOutline(points), event.timeStamp);
}

/** A click says where it was in whole pixels: so far it may be from where the hand was seen last, px. */
const CUT_PX = 1.01;
/** Where a press was, to a part of a pixel: there the hand was seen last, and what is read there is what is kept. */
function pressedAt(event: MouseEvent): readonly [number, number] {
  const isThere = (spot: Spot | undefined): spot is Spot =>
    spot !== undefined && Math.abs(spot.x - event.clientX) < CUT_PX && Math.abs(spot.y - event.clientY) < CUT_PX;
  const { x, y } = [last, down].find(isThere) ?? { x: event.clientX, y: event.clientY };
  return inFrame({ clientX: x, clientY: y });
}

/**
 * A press keeps, once: not the end of a drag, nor the second of a double press. A finger only points,
 * since it cannot hover first: its pile is kept with the button.
 */
function onPress(event: MouseEvent): void {
  if (props.beside) return emit('press', toPlace(pressedAt(event)));
  if (looking.hand !== 'points' || props.alone || justMoved) return;
  emit('point', toPlace(pressedAt(event)), event.timeStamp, true);
  const dragged = down !== undefined && Math.hypot(event.clientX - down.x, event.clientY - down.y) > DRAG_PX;
  if (!dragged && !isFinger(event) && event.detail < 2) emit('keep');
}

/** A notch of a wheel is one step; the many small ticks of a trackpad come to one together. */
const NOTCH_PX = 60;
const LINE_PX = 20;
let turned = 0;
function onWheel(event: WheelEvent): void {
  if (props.beside) return;
  event.preventDefault();
  const delta = event.deltaY * (event.deltaMode === WheelEvent.DOM_DELTA_LINE ? LINE_PX : 1);
  turned = Math.sign(turned) === Math.sign(delta) ? turned + delta : delta;
  if (Math.abs(turned) < NOTCH_PX) return;
  emit('resize', turned < 0 ? RESIZE : 1 / RESIZE);
  turned = 0;
}

const MOVES: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || !store.frame) return;
  const move = MOVES[event.key];
  if (move) {
    const step = (event.shiftKey ? BIG_STEP : STEP) * store.frame.width;
    const from = props.outline
      ? through(store.frame.toFrame, props.outline.x, props.outline.y)
      : ([store.frame.width / 2, store.frame.height / 2] as const);
    const held = (v: number, most: number): number => Math.min(most - 1, Math.max(0, v));
    emit(
      'point',
      toPlace([held(from[0] + move[0] * step, store.frame.width), held(from[1] + move[1] * step, store.frame.height)]),
      event.timeStamp,
      true,
    );
  } else if (event.key === 'Enter') {
    if (!event.repeat) emit('keep');
  } else return;
  event.preventDefault();
}

const ring = computed(() => (props.outline && store.frame ? onScreen(store.frame, scale.value, props.outline) : undefined));
const others = computed(() =>
  props.outline?.more && store.frame ? props.outline.more.map((one) => onScreen(store.frame!, scale.value, one)) : [],
);
const drawing = computed(() => {
  const drawn = line.value;
  if (!drawn || drawn.length < 2 || !store.frame) return undefined;
  if (looking.hand === 'crops') {
    const { x, y, width: w, height: h } = rectangle(drawn[0]!, drawn.at(-1)!, store.frame.width, store.frame.height, ratio.value);
    return `M${x * scale.value} ${y * scale.value}h${w * scale.value}v${h * scale.value}h${-w * scale.value}Z`;
  }
  return `M${drawn.map(([x, y]) => `${(x * scale.value).toFixed(1)} ${(y * scale.value).toFixed(1)}`).join('L')}`;
});
</script>

<template>
  <div ref="box" class="box">
    <div class="mat" :style="{ background: paintings.onEasel?.ground, padding: `${mat}px` }">
      <div
        ref="surface"
        class="picture"
        role="application"
        tabindex="0"
        :class="beside ? 'beside' : looking.hand"
        :aria-label="
          beside
            ? `Reference ${name}. Arrow keys move the point, Enter takes it from there.`
            : `Reference ${name}. Arrow keys move the point, plus and minus change the area, Enter keeps the pile.`
        "
        :style="{ width: `${size.width}px`, height: `${size.height}px` }"
        @pointerrawupdate="onMove"
        @pointermove="onMove"
        @pointerdown="onDown"
        @pointerup="onUp"
        @pointerleave="emit('leave')"
        @click="onPress"
        @wheel="onWheel"
        @keydown="onKey"
      >
        <canvas ref="canvas" class="canvas" />
        <PictureGrid v-if="looking.grid && store.frame" :width="size.width" :height="size.height" :grid="store.view.grid" />
        <svg class="over" :width="size.width" :height="size.height" aria-hidden="true">
          <DrawnOver :outlines="[...others, ...(ring?.path ? [ring] : []), ...(drawing ? [{ path: drawing }] : [])]" />
        </svg>
        <span
          v-if="ring && !ring.path"
          class="ring"
          :class="{ meant }"
          :style="{ left: `${ring.x}px`, top: `${ring.y}px`, width: `${2 * ring.r}px`, height: `${2 * ring.r}px` }"
        />
        <PictureMarks
          v-if="looking.marks && store.frame && !line"
          :scale="scale"
          :frame="store.frame"
          :quiet="alone ?? false"
          :opens="beside ?? false"
          @drag="dragging = $event"
          @open="emit('open', $event)"
        />
        <slot v-if="store.frame && !line" :scale="scale" :frame="store.frame" :place-at="placeAt" />
      </div>
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
  overflow: hidden;
}
/* Beside the mixing a finger may scroll past it. */
.picture.beside {
  cursor: pointer;
  touch-action: manipulation;
}
.canvas {
  width: 100%;
  height: 100%;
  display: block;
}
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.ring {
  position: absolute;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  outline: 1.5px solid #000;
  border-radius: 50%;
  pointer-events: none;
}
/* Dwelt on or pressed: it holds until another place is. */
.ring.meant {
  border-width: 2.5px;
  outline-width: 2.5px;
}
</style>
