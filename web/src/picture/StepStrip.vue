<script setup lang="ts">
import { stepValues } from '@dusk/core';
import { computed, useTemplateRef } from 'vue';
import { grey } from '../chips/surround.ts';
import { useSettings } from '../stores/settings.ts';
import { useReference } from '../stores/reference.ts';

/** The steps that values are cut into, dark to light, with their share; each boundary can be dragged, or moved by the arrow keys. */
const props = defineProps<{ bounds: readonly number[]; shares: readonly number[] }>();
const emit = defineEmits<{ bounds: [bounds: number[]] }>();
const settings = useSettings();
const store = useReference();
const strip = useTemplateRef('strip');

const ends = computed(() => store.range ?? { darkest: 0, lightest: 10 });
const steps = computed(() => {
  const edges = [0, ...props.bounds, 10];
  return stepValues(props.bounds, ends.value).map((value, i) => ({
    css: grey(value),
    ink: value > 5 ? '#000' : '#fff',
    width: edges[i + 1]! - edges[i]!,
    share: 100 * (props.shares[i] ?? 0),
  }));
});

/** Boundaries stay so far apart. */
const APART = 0.1;
const STEP = 0.1;
function moved(i: number, to: number): number[] {
  const low = (props.bounds[i - 1] ?? 0) + APART;
  const high = (props.bounds[i + 1] ?? 10) - APART;
  return props.bounds.map((bound, k) => (k === i ? Math.round(100 * Math.min(high, Math.max(low, to))) / 100 : bound));
}
function onKey(event: KeyboardEvent, i: number): void {
  const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (way === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  emit('bounds', moved(i, props.bounds[i]! + way * STEP));
}
function onDown(event: PointerEvent, i: number): void {
  const handle = event.currentTarget as HTMLElement;
  handle.setPointerCapture(event.pointerId);
  const { left, width } = strip.value!.getBoundingClientRect();
  handle.onpointerup = (up: PointerEvent) => {
    handle.onpointerup = null;
    emit('bounds', moved(i, (10 * (up.clientX - left)) / width));
  };
}
</script>

<template>
  <div ref="strip" class="strip" role="group" aria-label="Steps of value, dark to light">
    <span v-for="(step, i) in steps" :key="i" class="step" :style="{ flexGrow: step.width, background: step.css, color: step.ink }">{{
      step.share.toFixed(0)
    }}</span>
    <button
      v-for="(bound, i) in bounds"
      :key="`b${i}`"
      type="button"
      class="bound"
      role="slider"
      :aria-label="`Boundary ${i + 1}`"
      :aria-valuenow="bound"
      :aria-valuetext="settings.valueText(bound)"
      aria-valuemin="0"
      aria-valuemax="10"
      :title="settings.valueText(bound)"
      :style="{ left: `${10 * bound}%` }"
      @keydown="onKey($event, i)"
      @pointerdown="onDown($event, i)"
    />
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  display: flex;
  flex: 1 1 260px;
  height: 30px;
  max-width: 520px;
}
.step {
  flex-basis: 0;
  min-width: 0;
  overflow: hidden;
  text-align: center;
  line-height: 30px;
}
.bound {
  position: absolute;
  top: -7px;
  width: 24px;
  height: 44px;
  transform: translateX(-50%);
  cursor: ew-resize;
  touch-action: none;
}
.bound::after {
  content: '';
  position: absolute;
  left: 50%;
  top: 3px;
  bottom: 3px;
  border-left: 3px double var(--surround-ink);
}
</style>
