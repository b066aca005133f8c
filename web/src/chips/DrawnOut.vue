<script setup lang="ts">
import { drawnOut, FILM_ALONG, labOf, type PaintCurves, type Spectrum } from '@dusk/core';
import { computed } from 'vue';
import { useWhite } from '../floor/white.ts';

/** A paint drawn out with a knife, from a loaded stroke to next to nothing, over black, over white and over the ground: what covers, what glows. */
const props = defineProps<{ paint: PaintCurves; ground?: Spectrum; called: string; marked?: boolean }>();
const white = useWhite();

const STOPS = 14;
/** The knife lifts off before the end: what is below is bare there. */
const LIFTS = 92;
const flat = (reflectance: number): Spectrum => new Float64Array(36).fill(reflectance);
const rows = computed(() =>
  [
    { over: 'black', surface: flat(0.02) },
    { over: 'white', surface: flat(0.86) },
    ...(props.ground ? [{ over: 'the ground', surface: props.ground }] : []),
  ].map(({ over, surface }) => {
    const stops = drawnOut(props.paint, surface, STOPS).map(
      (lab, i) => `${white.shown(lab).css} ${((LIFTS * i) / (STOPS - 1)).toFixed(1)}%`,
    );
    const bare = white.shown(labOf(surface)).css;
    return { over, drawn: `linear-gradient(to right, ${stops.join(', ')}, ${bare} ${LIFTS + 3}%, ${bare} 100%)` };
  }),
);
</script>

<template>
  <figure
    class="drawn-out"
    :aria-label="`${called}, drawn out from a loaded stroke to a wash over ${rows.map(({ over }) => over).join(', ')}`"
  >
    <div
      v-for="row in rows"
      :key="row.over"
      class="row"
      :style="{ background: row.drawn }"
      :title="`over ${row.over}`"
      data-chip="drawn-out"
    />
    <div v-if="marked" class="marks figures" aria-hidden="true">
      <span v-for="(at, how) in FILM_ALONG" :key="how" :style="{ left: `${(LIFTS * at).toFixed(1)}%` }">{{ how }}</span>
    </div>
  </figure>
</template>

<style scoped>
.drawn-out {
  margin: 0;
}
.row {
  height: 24px;
}
.marks {
  position: relative;
  height: 1.4em;
  font-size: var(--size-note);
}
.marks span {
  position: absolute;
  transform: translateX(-50%);
}
.marks span:first-child {
  transform: none;
}
</style>
