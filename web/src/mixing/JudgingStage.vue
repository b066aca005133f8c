<script setup lang="ts">
import { differenceWords, valueOfLightness, type Lab } from '@dusk/core';
import { computed } from 'vue';
import { describe } from '../chips/words.ts';
import { useSettings } from '../shell/settings.ts';
import { useWhite } from './white.ts';

/** Two halves that touch along one edge: what is wanted, and what is on the knife. */
const props = defineProps<{ wanted: Lab | undefined; knife: Lab; knifeIs: string }>();
const settings = useSettings();
const white = useWhite();

const halves = computed(() => [
  ...(props.wanted ? [{ what: 'wanted', lab: props.wanted, chip: 'target' }] : []),
  { what: props.knifeIs, lab: props.knife, chip: 'mixed' },
]);
const beyond = computed(() => halves.value.some(({ lab }) => !white.shown(lab).inDisplay));
const value = (lab: Lab): string => settings.valueText(valueOfLightness(lab[0]));
const words = (what: string, lab: Lab): string => {
  if (what === 'wanted' || !props.wanted) return describe(lab, settings.temperatureOf(lab));
  const differs = differenceWords(lab, props.wanted, settings.settings.warmBlue);
  return differs.length > 0 ? differs.join(', ') : 'as wanted';
};
</script>

<template>
  <div class="stage">
    <div class="halves squints">
      <div v-for="half in halves" :key="half.what" class="half" :style="{ background: white.shown(half.lab).css }" :data-chip="half.chip" />
    </div>
    <div class="readings figures" aria-live="polite">
      <p v-for="half in halves" :key="half.what" :data-reading="half.chip">
        <span class="what">{{ half.what }}</span> <strong>{{ value(half.lab) }}</strong>
        <span class="words">{{ words(half.what, half.lab) }}</span>
      </p>
    </div>
    <p v-if="beyond" class="beyond">Shown duller than it is: this screen cannot reach it.</p>
  </div>
</template>

<style scoped>
.halves {
  display: flex;
  height: clamp(76px, min(26vh, 30vw), 340px);
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
