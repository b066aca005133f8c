<script setup lang="ts">
import type { Lab } from '@dusk/core';
import { useWhite } from '../floor/white.ts';

/** A paint and what it is called, to be pressed. */
defineProps<{ lab?: Lab; pressed?: boolean | undefined }>();
const white = useWhite();
</script>

<template>
  <button type="button" class="paint-key figures" :aria-pressed="pressed">
    <span class="paint"
      ><slot name="paint"><span v-if="lab" class="colour" :style="{ background: white.shown(lab).css }" /></slot
    ></span>
    <span class="name"><slot /></span>
  </button>
</template>

<style scoped>
.paint-key {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr);
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 44px;
  text-align: left;
  line-height: 1.1;
}
.paint {
  display: flex;
  height: 28px;
}
.colour {
  flex: 1;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
[aria-pressed='true'] .name {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
