<script setup lang="ts">
import { show, type Frame } from '@dusk/core';
import { computed } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { onScreen } from '../picture/drawing.ts';
import { useProposals } from '../stores/proposals.ts';
import { saysOf } from './said.ts';

/** Where each colour that is proposed was seen: a drag moves it, a press refuses it or takes it after all. */
const props = defineProps<{
  scale: number;
  frame: Frame;
  placeAt: (clientX: number, clientY: number) => { x: number; y: number } | undefined;
}>();
const proposals = useProposals();
const settings = useSettings();

const marks = computed(() =>
  proposals.list.map((one) => {
    const { x, y } = onScreen(props.frame, props.scale, one.outline);
    return { ...one, left: `${x}px`, top: `${y}px`, css: show(one.lab).css, says: saysOf(one, settings) };
  }),
);

const DRAG_PX = 6;
let wasDragged = false;
function onDown(event: PointerEvent, id: string): void {
  event.stopPropagation();
  wasDragged = false;
  const from = { x: event.clientX, y: event.clientY };
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  target.onpointermove = ({ clientX, clientY }: PointerEvent) => {
    if (!wasDragged && Math.hypot(clientX - from.x, clientY - from.y) < DRAG_PX) return;
    wasDragged = true;
    const place = props.placeAt(clientX, clientY);
    if (place) proposals.move(id, place.x, place.y);
  };
  target.onpointerup = target.onpointercancel = () => (target.onpointermove = target.onpointerup = target.onpointercancel = null);
}
function onPress(id: string): void {
  if (!wasDragged) proposals.refuse(id);
  wasDragged = false;
}
</script>

<template>
  <button
    v-for="mark in marks"
    :key="mark.id"
    type="button"
    class="proposed"
    :class="{ refused: mark.isRefused, small: frame.width * scale < 500 }"
    :style="{ left: mark.left, top: mark.top }"
    :aria-label="mark.says"
    :aria-pressed="!mark.isRefused"
    :title="mark.says"
    data-test="proposed-mark"
    @pointerdown="onDown($event, mark.id)"
    @click.stop="onPress(mark.id)"
  >
    <span class="dot" :style="{ background: mark.css }" />
  </button>
</template>

<style scoped>
.proposed {
  position: absolute;
  width: 44px;
  height: 44px;
  transform: translate(-50%, -50%);
  display: grid;
  place-items: center;
  touch-action: none;
  cursor: grab;
}
.dot {
  width: 26px;
  height: 26px;
  border: 2px solid #fff;
  outline: 1.5px solid #000;
}
.small {
  width: 22px;
  height: 22px;
}
.small .dot {
  width: 16px;
  height: 16px;
}
.refused .dot {
  width: 14px;
  height: 14px;
  border-style: dotted;
  opacity: 0.8;
}
</style>
