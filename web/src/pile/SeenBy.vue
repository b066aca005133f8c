<script setup lang="ts">
import type { PaintCurves } from '@dusk/core';
import { computed } from 'vue';
import { underLamps } from '../floor/lamps.ts';
import { useSight } from '../floor/sight.ts';
import type { LaidOn } from './useStage.ts';
import { useWhite } from '../floor/white.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';
import { useDesk } from '../stores/useDesk.ts';

/** A paint under each lamp, of which one is chosen for every chip; and what it is judged on. */
const on = defineModel<LaidOn>({ required: true });
/** A tube that is laid beside it for comparison. */
const beside = defineModel<string>('beside', { required: true });
const props = defineProps<{ paint: PaintCurves; over?: string }>();
const desk = useDesk();
const tubes = computed(() => [{ value: '', title: 'no tube' }, ...named(desk.paletteTubes)]);
const sight = useSight();
const white = useWhite();
const grounds = computed<{ value: LaidOn; title: string }[]>(() => [
  { value: 'grey', title: 'the grey' },
  { value: 'ground', title: 'the ground' },
  ...(props.over ? [{ value: 'over' as const, title: props.over }] : []),
]);
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
    <Pick v-model="on" :options="grounds" label="on" data-test="laid-on" />
    <Pick v-model="beside" :options="tubes" label="beside it" data-test="tube-beside" />
  </div>
</template>

<style scoped>
.lamps-and-ground {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit)) calc(4 * var(--unit));
  align-items: end;
}
.lamps {
  flex: 1 1 260px;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
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
</style>
