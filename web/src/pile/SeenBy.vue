<script setup lang="ts">
import type { PaintCurves } from '@dusk/core';
import { computed } from 'vue';
import { underLamps } from '../floor/lamps.ts';
import { useSight } from '../floor/sight.ts';
import type { LaidOn } from './useStage.ts';
import { useWhite } from '../floor/white.ts';

/** A paint under each lamp, of which one is chosen for every chip; and what it is judged on. */
const on = defineModel<LaidOn>({ required: true });
const props = defineProps<{ paint: PaintCurves; over?: string }>();
const sight = useSight();
const white = useWhite();
const lamps = computed(() => underLamps(props.paint));
</script>

<template>
  <div class="lamps-and-ground">
    <div class="lamps" role="radiogroup" aria-label="The lamp that chips are seen by">
      <button
        v-for="{ lamp, name, lab } in lamps"
        :key="lamp"
        type="button"
        class="by"
        role="radio"
        :aria-checked="sight.lamp === lamp"
        @click="sight.lamp = lamp"
      >
        <span class="lamp" :style="{ background: white.shown(lab).css }" />
        <span class="lamp-name">{{ name }}</span>
      </button>
    </div>
    <label class="on"
      >on
      <select v-model="on" data-test="laid-on">
        <option value="grey">the grey</option>
        <option value="ground">the ground</option>
        <option v-if="over" value="over">{{ over }}</option>
      </select></label
    >
  </div>
</template>

<style scoped>
.lamps-and-ground {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(4 * var(--unit));
  align-items: end;
}
.lamps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
}
.by {
  display: grid;
  align-content: start;
  min-height: 56px;
  text-align: left;
}
.lamp {
  height: 30px;
}
.lamp-name {
  font-size: var(--size-note);
  line-height: 1.3;
}
.by[aria-checked='true'] .lamp-name {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.on {
  font-size: var(--size-note);
}
.on select {
  min-height: 44px;
  max-width: 150px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
}
</style>
