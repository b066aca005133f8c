<script setup lang="ts">
import { show, valueOfLightness, type Frame } from '@dusk/core';
import { computed, inject } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { onScreen } from './drawing.ts';
import { HELD } from './held.ts';
import { useLooking } from '../stores/looking.ts';
import { useSamples } from '../stores/samples.ts';

/** A mark where each pile was sampled: a press holds it, a drag moves it; where it `opens`, a press asks for its pile. */
const props = defineProps<{ scale: number; frame: Frame; quiet: boolean; opens: boolean }>();
const emit = defineEmits<{ drag: [sampleId: string]; open: [sampleId: string] }>();
const samples = useSamples();
const looking = useLooking();
const settings = useSettings();
const heldId = inject(
  HELD,
  computed(() => looking.selectedId),
);

const marks = computed(() =>
  samples.marks.flatMap(({ sample, outline, name, lab }) => {
    const { x, y } = onScreen(props.frame, props.scale, outline);
    if (x < 0 || y < 0 || x > props.frame.width * props.scale || y > props.frame.height * props.scale) return [];
    return [{ id: sample.id, x, y, css: show(lab).css, says: `${name}, value ${settings.valueText(valueOfLightness(lab[0]))}` }];
  }),
);

const DRAG_PX = 8;
function onDown(event: PointerEvent, id: string): void {
  if (props.quiet || props.opens) return;
  event.stopPropagation();
  const from = { x: event.clientX, y: event.clientY };
  const target = event.currentTarget as HTMLElement;
  const onMove = (move: PointerEvent): void => {
    if (Math.hypot(move.clientX - from.x, move.clientY - from.y) < DRAG_PX) return;
    stop();
    looking.selectedId = id;
    emit('drag', id);
  };
  const stop = (): void => {
    window.removeEventListener('pointermove', onMove);
    window.removeEventListener('pointerup', stop);
  };
  if (event.pointerType === 'touch') target.releasePointerCapture(event.pointerId);
  window.addEventListener('pointermove', onMove);
  window.addEventListener('pointerup', stop);
}
/** Marks of one place lie on one another: a press on the one that is held means the next, where there is none it lets go. */
const ONE_PLACE_PX = 20;
function hold(id: string): void {
  if (props.opens) return emit('open', id);
  const here = marks.value.find((mark) => mark.id === id)!;
  const stack = marks.value.filter((mark) => Math.hypot(mark.x - here.x, mark.y - here.y) < ONE_PLACE_PX).map((mark) => mark.id);
  const held = stack.findIndex((one) => one === looking.selectedId);
  if (held < 0) looking.selectedId = id;
  else looking.selectedId = stack.length > 1 ? stack[(held + 1) % stack.length] : undefined;
}
</script>

<template>
  <component
    :is="quiet ? 'span' : 'button'"
    v-for="mark in marks"
    :key="mark.id"
    v-bind="quiet ? {} : { type: 'button', ...(!opens && { 'aria-pressed': looking.selectedId === mark.id }) }"
    class="mark"
    :class="{ held: heldId === mark.id, quiet, opens, small: frame.width * scale < 500 }"
    :aria-label="mark.says"
    :title="mark.says"
    :style="{ left: `${mark.x}px`, top: `${mark.y}px` }"
    data-test="mark"
    @click.stop="hold(mark.id)"
    @keydown.enter.stop
    @keydown.space.stop
    @pointerdown="onDown($event, mark.id)"
  >
    <span class="dot" :style="{ background: mark.css }" />
  </component>
</template>

<style scoped>
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
  width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  border-radius: 50%;
  cursor: grab;
}
.opens {
  cursor: pointer;
}
.quiet {
  pointer-events: none;
}
.dot {
  width: 16px;
  height: 16px;
  border-radius: 50%;
  border: 2px solid #fff;
  outline: 1px solid #000;
}
.held .dot {
  width: 22px;
  height: 22px;
  border-width: 3px;
  outline-width: 3px;
}
@media (pointer: coarse) {
  .mark:not(.small) {
    width: 44px;
    height: 44px;
  }
}
</style>
