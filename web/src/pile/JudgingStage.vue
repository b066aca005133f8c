<script setup lang="ts">
import { compareColours, differenceWords, valueOfLightness, type Lab } from '@dusk/core';
import { computed } from 'vue';
import { describe } from '../floor/words.ts';
import { useSettings } from '../stores/settings.ts';
import { useWhite } from '../floor/white.ts';

/** Two halves that touch along one edge: what is wanted, and what is on the knife. */
const props = defineProps<{
  wanted: Lab | undefined;
  knife: Lab;
  knifeIs: string;
  /** What else stands beside it, touching. */
  beside?: readonly { readonly what: string; readonly lab: Lab }[];
  /** What it stands on, where that is not the surround. */
  on?: Lab | undefined;
  wantedIs?: string;
  lamp?: string;
}>();
const settings = useSettings();
const white = useWhite();

const halves = computed(() => [
  ...(props.wanted ? [{ what: props.wantedIs ?? 'wanted', lab: props.wanted, chip: 'target' }] : []),
  { what: props.knifeIs, lab: props.knife, chip: 'mixed' },
  ...(props.beside ?? []).map((one) => ({ ...one, chip: 'beside' })),
]);
const beyond = computed(() => halves.value.some(({ lab }) => !white.shown(lab).inDisplay));
/** Less than an eye tells apart along an edge, ΔE00. */
const SEAM = 0.8;
const isSeamless = computed(
  () => props.wanted !== undefined && compareColours(props.wanted, props.knife, settings.settings.warmBlue).deltaE00 < SEAM,
);
/** Two values that are alike to a painter are written alike, whatever their roundings are. */
const ALIKE = 0.05;
function value(lab: Lab): string {
  const own = valueOfLightness(lab[0]);
  const wanted = props.wanted && valueOfLightness(props.wanted[0]);
  const isAsWanted = props.wanted !== undefined && differenceWords(lab, props.wanted, settings.settings.warmBlue).length === 0;
  return settings.valueText(wanted !== undefined && (isAsWanted || Math.abs(own - wanted) < ALIKE) ? wanted : own);
}
const words = (chip: string, lab: Lab): string => {
  if (chip === 'target' || (!props.wanted && chip === 'mixed')) return describe(lab, settings.temperatureOf(lab));
  if (chip === 'beside') {
    const apart = differenceWords(lab, props.knife, settings.settings.warmBlue);
    return apart.length > 0 ? apart.join(', ') : 'alike';
  }
  const differs = differenceWords(lab, props.wanted!, settings.settings.warmBlue);
  if (differs.length > 0) return differs.join(', ');
  return compareColours(props.wanted!, lab, settings.settings.warmBlue).deltaE00 < SEAM ? 'as wanted' : 'a shade off';
};
</script>

<template>
  <div class="stage">
    <div class="halves squints" data-drop="stage" :class="{ laid: on }" :style="on ? { background: white.shown(on).css } : {}">
      <div
        v-for="half in halves"
        :key="`${half.chip} ${half.what}`"
        class="half"
        :style="{ background: white.shown(half.lab).css }"
        :data-chip="half.chip"
      />
    </div>
    <div class="readings figures" aria-live="polite">
      <p v-for="half in halves" :key="`${half.chip} ${half.what}`" :data-reading="half.chip">
        <span class="what">{{ half.what }}</span> <strong>{{ value(half.lab) }}</strong>
        <span class="words">{{ words(half.chip, half.lab) }}</span>
      </p>
    </div>
    <p v-if="isSeamless" class="beyond no-seam" data-test="no-seam">No seam to see: the halves match.</p>
    <p v-if="lamp" class="beyond" data-test="by-lamp">By {{ lamp }}, to an eye that has got used to it: white paper looks white.</p>
    <p v-if="beyond" class="beyond">Shown duller than it is: this screen cannot reach it.</p>
  </div>
</template>

<style scoped>
.halves {
  display: flex;
  height: clamp(76px, min(26vh, 23vw), 340px);
}
/* Laid on the ground, or over what it will cover: that shows all round. */
.laid {
  padding: calc(7 * var(--unit));
}
.half {
  flex: 1;
}
.readings {
  display: flex;
  margin-top: calc(2 * var(--unit));
}
.readings p {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  column-gap: calc(2 * var(--unit));
}
.what {
  font-size: var(--size-note);
}
strong {
  font-size: var(--size-figure);
  line-height: 1;
}
.words {
  font-size: var(--size-lead);
}
.beyond {
  font-size: var(--size-note);
}
</style>
