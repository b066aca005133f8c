<script setup lang="ts">
import { mlText, MOST_IN_STRING, placeName, temperatureWord, valueOfLightness, type Lab } from '@dusk/core';
import { counted } from '../floor/words.ts';
import { computed, proxyRefs } from 'vue';
import { usePiles } from '../stores/piles.ts';
import { useWhite } from '../floor/white.ts';
import { useSettings } from '../stores/settings.ts';
import { useKnown } from '../recipe/useKnown.ts';
import type { StringState } from './useString.ts';

/** A string as it would be: its piles touching, what each takes, how many measurings there are, where a step is too small or a jump. */
const white = useWhite();
const piles = usePiles();
const props = defineProps<{ string: StringState }>();
const emit = defineEmits<{ keep: [] }>();
const s = proxyRefs(props.string);
const settings = useSettings();
const { shortWith } = useKnown();
const gaps = computed(() => new Map(s.beyond.map(({ at, says }) => [at, says])));
/** A jump is mended by more piles, where it is not warm beside cool: by so many that the largest step comes under what is set. */
const jumps = computed(() => s.set.kind === 'plain' && s.beyond.some(({ says }) => says === 'a jump'));
const more = computed(() => {
  const largest = Math.max(...(s.proposed?.steps ?? [0]));
  const count = s.proposed?.piles.length ?? 0;
  return Math.min(MOST_IN_STRING, Math.ceil((count - 1) * (largest / settings.settings.stepMost)) + 1);
});
const value = (lab: Lab): string => settings.valueText(valueOfLightness(lab[0]));
const warmth = (lab: Lab): string => temperatureWord(settings.temperatureOf(lab));
/** Other piles of the string have only their places so far. */
const placed = computed(
  () => new Map((s.proposed?.piles ?? []).map(({ mixture }, at) => [placeName(at), { name: `of no. ${at + 1}`, mixture }] as const)),
);
/** The steps that are seen: those of the piles, and what a brush makes between. */
const row = computed(() => s.proposed?.brush?.row ?? s.proposed?.piles.map(({ lab }) => lab) ?? []);
/** Piles that lie there and of which more is taken than lies there. */
const short = computed(() =>
  (s.proposed?.piles ?? []).flatMap(({ isPile, ml }) => {
    const pile = isPile === undefined ? undefined : piles.byId.get(isPile);
    const takes = ml - s.proposed!.ml;
    return pile && pile.stages.length > 0 && takes > pile.there ? [{ name: pile.name, takes, there: pile.there }] : [];
  }),
);
const warned = computed(() => s.proposed?.brush?.joins.filter(({ warns }) => warns) ?? []);
function warning({ from, to, warns, name }: (typeof warned.value)[number]): string {
  const between = [from, to].map((at) => value(s.proposed!.piles[at]!.lab)).join(' and ');
  return warns === 'mud'
    ? `Between ${between} the brush makes mud: ${name}.`
    : `Between ${between} the brush brings up another hue: ${name}.`;
}
</script>

<template>
  <section v-if="s.proposed" class="stack-close" aria-label="The row of steps as it would be" data-test="string-plan">
    <div class="chips squints" :style="{ '--n': row.length }">
      <span v-for="(lab, at) in row" :key="at" class="chip" :style="{ background: white.shown(lab).css }" />
    </div>
    <div class="values figures" :style="{ '--n': row.length }">
      <b v-for="(lab, at) in row" :key="at">{{ value(lab) }}</b>
    </div>
    <p v-for="one in short" :key="one.name" class="figures" data-test="string-short">
      It takes {{ mlText(one.takes) }} of {{ one.name }}; {{ mlText(one.there) }} lie there: mix more of it first.
    </p>
    <p v-for="join in warned" :key="join.from" class="warns" role="status" data-test="brush-warns">{{ warning(join) }}</p>
    <div class="sum">
      <p class="figures" data-test="string-says">
        <template v-if="s.proposed.brush"
          ><b>{{ counted(s.proposed.piles.length, 'pile') }}</b
          >, {{ counted(s.proposed.measurings, 'thing') }} to measure; the brush does the rest of
          {{ s.proposed.brush.row.length }} steps</template
        ><template v-else
          ><b>{{ counted(s.proposed.measurings, 'thing') }} to measure</b> for {{ counted(s.proposed.piles.length, 'pile') }}</template
        >; neighbours told apart by {{ Math.min(...s.proposed.steps).toFixed(1) }} to {{ Math.max(...s.proposed.steps).toFixed(1) }}
      </p>
      <button type="button" class="main-key" data-test="keep-string" @click="emit('keep')">Keep them <kbd>Enter</kbd></button>
    </div>
    <p v-if="jumps && more > s.proposed.piles.length">
      A step is larger than the {{ settings.settings.stepMost }} that you let pass:
      <button type="button" class="plain link-key" data-test="more-piles" @click="s.resize(more)">make it {{ more }} piles</button>
    </p>
    <ol class="figures">
      <li v-for="(one, at) in s.proposed.piles" :key="at">
        <b>{{ value(one.lab) }}</b> {{ warmth(one.lab) }}
        <span class="quiet">{{ one.isPile === undefined ? shortWith(one.mixture, placed, one.ml) : 'as it is' }}</span>
        <b v-if="gaps.get(at)"> · {{ gaps.get(at) }} to the next</b>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.chips,
.values {
  display: grid;
  grid-template-columns: repeat(var(--n), minmax(0, 1fr));
}
.chip {
  height: 96px;
}
.values {
  font-size: var(--size-lead);
  margin-top: calc(-1 * var(--unit));
}
.sum {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: calc(3 * var(--unit));
}
ol {
  margin: 0;
  padding-left: calc(6 * var(--unit));
  font-size: var(--size-note);
  line-height: 1.35;
}
</style>
