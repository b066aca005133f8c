<script setup lang="ts">
import type { OnScreen } from './drawing.ts';

/** Outlines over a picture, light on dark so that they are seen on any colour. */
defineProps<{ outlines: readonly Partial<OnScreen>[] }>();
</script>

<template>
  <g>
    <template v-for="(one, i) in outlines" :key="i">
      <template v-if="one.path">
        <path :d="one.path" class="dark" />
        <path :d="one.path" class="light" />
      </template>
      <template v-else>
        <circle :cx="one.x" :cy="one.y" :r="one.r" class="dark" />
        <circle :cx="one.x" :cy="one.y" :r="one.r" class="light" />
      </template>
    </template>
  </g>
</template>

<style scoped>
path,
circle {
  fill: none;
}
.dark {
  stroke: #000;
  stroke-width: 4;
}
.light {
  stroke: #fff;
  stroke-width: 1.5;
}
</style>
