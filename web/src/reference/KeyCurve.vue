<script setup lang="ts">
import { SPREAD_BINS, type Key, type ValueSpread } from '@dusk/core';
import { computed } from 'vue';
import { useSettings } from '../stores/settings.ts';

/** The key as a curve: seen values from left to right, painted ones upwards, over how much of the picture has each. */
const props = defineProps<{ litKey: Key; spread: ValueSpread | undefined; at: number | undefined }>();
const settings = useSettings();
const SIZE = 200;
const x = (value: number): number => (value / 10) * SIZE;
const y = (value: number): number => SIZE - (value / 10) * SIZE;

const curve = computed(() => {
  const at = (i: number): string => `${x(i / 10).toFixed(1)} ${y(props.litKey.valueOf(i / 10)).toFixed(1)}`;
  return `M${Array.from({ length: 101 }, (_, i) => at(i)).join('L')}`;
});
/** Heights by the root, so that what there is little of is seen. */
const hills = computed(() => {
  const shares = props.spread?.shares;
  if (!shares) return '';
  const most = Math.max(...shares);
  const height = (i: number): number => SIZE - 0.9 * SIZE * Math.sqrt(shares[i]! / most);
  return `M0 ${SIZE}${Array.from({ length: SPREAD_BINS }, (_, i) => `L${x((10 * (i + 0.5)) / SPREAD_BINS).toFixed(1)} ${height(i).toFixed(1)}`).join('')}L${SIZE} ${SIZE}Z`;
});
const painted = computed(() => (props.at === undefined ? undefined : props.litKey.valueOf(props.at)));
const says = computed(() =>
  props.at === undefined
    ? 'seen from left to right, painted upwards'
    : `seen ${settings.valueText(props.at)}, painted ${settings.valueText(painted.value!)}`,
);
</script>

<template>
  <figure class="curve" data-test="key-curve">
    <svg :viewBox="`-2 -2 ${SIZE + 4} ${SIZE + 4}`" role="img" :aria-label="`The key: ${says}`">
      <path :d="hills" class="hills" />
      <line
        v-for="value in [litKey.ends.paint.darkest, litKey.ends.paint.lightest]"
        :key="value"
        x1="0"
        :x2="SIZE"
        :y1="y(value)"
        :y2="y(value)"
        class="end"
      />
      <line x1="0" :y1="SIZE" :x2="SIZE" y2="0" class="even" />
      <path :d="curve" class="line" />
      <circle v-if="at !== undefined" :cx="x(at)" :cy="y(painted!)" r="5" class="dot" />
      <rect x="0" y="0" :width="SIZE" :height="SIZE" class="box" />
    </svg>
    <figcaption class="quiet">{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
.curve {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 190px;
  display: block;
}
.hills {
  fill: var(--surround-line);
}
.line {
  fill: none;
  stroke: var(--surround-ink);
  stroke-width: 2.5;
}
.even,
.end {
  stroke: var(--surround-ink);
  stroke-width: 0.8;
  stroke-dasharray: 3 4;
}
.dot {
  fill: var(--surround-ink);
}
.box {
  fill: none;
  stroke: var(--surround-ink);
  stroke-width: 1;
}
figcaption {
  font-size: var(--size-note);
  text-align: center;
}
</style>
