<script setup lang="ts">
import type { ViewDto } from '@dusk/wire';
import { computed } from 'vue';
import { USUAL_GRID } from './grid.ts';

/** Lines over the picture by which a drawing is placed; dark and light together, so that they are seen on anything. */
const props = defineProps<{ width: number; height: number; grid: ViewDto['grid'] | undefined }>();
const lines = computed(() => {
  const { across, down, diagonals, thirds } = props.grid ?? USUAL_GRID;
  const { width: w, height: h } = props;
  const upright = (x: number): string => `M${x} 0V${h}`;
  const level = (y: number): string => `M0 ${y}H${w}`;
  const inner = (n: number): number[] => Array.from({ length: n - 1 }, (_, i) => (i + 1) / n);
  return {
    squares: [...inner(across).map((t) => upright(t * w)), ...inner(down).map((t) => level(t * h))].join(''),
    others: [
      ...(diagonals ? [`M0 0L${w} ${h}M${w} 0L0 ${h}`] : []),
      ...(thirds ? [...inner(3).map((t) => upright(t * w)), ...inner(3).map((t) => level(t * h))] : []),
    ].join(''),
  };
});
</script>

<template>
  <svg class="grid" :width="width" :height="height" aria-hidden="true" data-test="grid">
    <path :d="lines.squares" class="dark" />
    <path :d="lines.squares" class="light" />
    <path :d="lines.others" class="dark broken" />
    <path :d="lines.others" class="light broken" />
  </svg>
</template>

<style scoped>
.grid {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
path {
  fill: none;
}
.dark {
  stroke: rgb(0 0 0 / 60%);
  stroke-width: 2.4;
}
.light {
  stroke: rgb(255 255 255 / 80%);
  stroke-width: 0.9;
}
.broken {
  stroke-dasharray: 9 6;
}
</style>
