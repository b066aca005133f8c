<script setup lang="ts">
import type { Key, ValueRange } from '@dusk/core';
import { computed } from 'vue';
import { grey } from '../chips/surround.ts';
import { useSettings } from '../stores/settings.ts';

/** The key as two strips from darkest to lightest: above as it is seen, below as it is painted; the point stands in both. */
const props = defineProps<{ litKey: Key; range: ValueRange | undefined; at: number | undefined }>();
const settings = useSettings();
const CELLS = 24;

const ends = computed(() => props.range ?? { darkest: 0, lightest: 10 });
const cells = computed(() =>
  Array.from({ length: CELLS }, (_, i) => {
    const seen = ends.value.darkest + ((i + 0.5) / CELLS) * (ends.value.lightest - ends.value.darkest);
    return { seen: grey(seen), painted: grey(props.litKey.valueOf(seen)) };
  }),
);
const painted = (value: number): number => props.litKey.valueOf(value);
/** Where the point stands, per cent of the strip. */
const there = computed(() => {
  const { darkest, lightest } = ends.value;
  if (props.at === undefined || lightest <= darkest) return undefined;
  return Math.min(100, Math.max(0, (100 * (props.at - darkest)) / (lightest - darkest)));
});
const text = (value: number): string => settings.valueText(value);
const says = computed(() =>
  props.at === undefined
    ? `seen ${text(ends.value.darkest)} to ${text(ends.value.lightest)}, painted ${text(painted(ends.value.darkest))} to ${text(painted(ends.value.lightest))}`
    : `the point: seen ${text(props.at)}, painted ${text(painted(props.at))}`,
);
</script>

<template>
  <figure class="strips figures" data-test="key-strip">
    <div role="img" :aria-label="`The key: ${says}`" class="both">
      <div v-for="row in ['seen', 'painted'] as const" :key="row" class="strip">
        <span v-for="(cell, i) in cells" :key="i" :style="{ background: cell[row] }" />
      </div>
      <span v-if="there !== undefined" class="point" :style="{ left: `${there}%` }" />
    </div>
    <figcaption>{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
.strips {
  margin: 0;
}
.both {
  position: relative;
}
.strip {
  display: flex;
  height: 36px;
}
.strip span {
  flex: 1;
}
.point {
  position: absolute;
  top: -4px;
  bottom: -4px;
  border-left: 2px solid #fff;
  outline: 1px solid #000;
}
figcaption {
  margin-top: calc(2 * var(--unit));
  font-size: var(--size-note);
}
</style>
