<script setup lang="ts">
import { closeness, dosingOf, IN_REACH, show, tellAdded, type Way, mlText, mmText, partsText } from '@dusk/core';
import { computed, ref, watch, useTemplateRef } from 'vue';
import { useBeads } from '../chips/beads.ts';
import type { PileDto } from '@dusk/wire';
import { beadLength, valueOfLightness } from '@dusk/core';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { handlingOf, sourceName } from '../recipe/handling.ts';
import { usePiles } from '../stores/piles.ts';
import type { Corrected } from './useCorrection.ts';
import { useWhite } from '../floor/white.ts';

/** What to add: step by step or all at once, with other ways below. */
const props = defineProps<{
  pile: PileDto;
  corrected: Corrected | undefined;
  /** The painter has said so. */
  asWanted: boolean;
  doneSteps: number;
  plan: Way | undefined;
  mlOfPart: number;
}>();
const emit = defineEmits<{ all: [way: Way]; one: [way: Way, step: number]; fits: []; confirm: []; changed: [] }>();
const tubes = useTubes();
const piles = usePiles();
const settings = useSettings();
const white = useWhite();
const chosen = ref(0);
watch(
  // The same look, answered again, leaves the choice as it is.
  () => props.corrected?.seen.join(),
  () => (chosen.value = 0),
);

const correction = computed(() => props.corrected?.correction);
const ways = computed(() => correction.value?.ways ?? []);
/** A way that is under way stays until it is done, whatever the look says meanwhile. */
const way = computed(() => props.plan ?? ways.value[Math.min(chosen.value, ways.value.length - 1)]);
const others = computed(() => (props.plan ? [] : ways.value.flatMap((other, i) => (other === way.value ? [] : [{ other, i }]))));
/** How many ml a part of the recipe is: what the painter measures in. */
const partMl = computed(() => {
  const heap = props.pile.plan.heaps.at(-1)!;
  return props.pile.ml / heap.ingredients.reduce((sum, { parts }) => sum + parts, 0);
});
const share = (of: Way): number => of.part?.keep ?? 1;
const measured = (of: Way) =>
  of.steps.map((step) => {
    const ml = step.parts * share(of) * props.mlOfPart;
    const tube = tubes.byId.get(step.id);
    const source = tube && !step.letDown ? { tube: step.id } : { pile: step.id };
    const named = (id: string): string => sourceName(tubes.byId.has(id) ? { tube: id } : { pile: id }, tubes.byId, piles.byId);
    const handling = handlingOf(tubes.byId)(source);
    const letDown = step.letDown ? `, weakened 1 : ${step.letDown.ratio} with ${named(step.letDown.base)}` : '';
    return {
      id: step.id,
      name: `${named(step.id)}${letDown}`,
      paint: tube?.masstone ?? step.lab,
      after: step.lab,
      ml,
      beadMm: beadLength(ml, handling.nozzleMm),
      isTouch: dosingOf(ml, handling.nozzleMm).how === 'touch',
      told: tellAdded(ml, handling, settings.settings.measure, props.pile.there * share(of) * of.growth, partMl.value),
    };
  });
const lines = computed(() => (way.value ? measured(way.value) : []));
/** What stands beside a bead: the chip after it, its length and its key, px. */
const BESIDE_PX = 208;
const host = useTemplateRef('host');
const beads = useBeads(host, BESIDE_PX, () => lines.value.map((line) => line.beadMm));
const becomes = computed(() => {
  if (!way.value) return '';
  const kept = props.pile.there * share(way.value);
  const value = settings.valueText(valueOfLightness(way.value.lab[0]));
  return `${mlText(kept)} becomes ${mlText(kept * way.value.growth)} · then value ${value}, ${way.value.comes} by this look`;
});
const falls = computed(() => (way.value && way.value.deltaE00 > IN_REACH ? way.value.givesWay.join(', ') : ''));
/** What else could be done where additions do not reach. */
const instead = computed(() =>
  correction.value?.anew === 'in' ? 'Mixed anew these tubes do reach it: make this a different pile.' : 'It takes another tube.',
);
/** Whether most of what was read is put down to the reading itself. */
const isReadingsOwn = computed(() => correction.value !== undefined && correction.value.off - correction.value.believedOff > 0.5);
const short = (other: Way): string =>
  `${other.part ? `keep ${partsText(other.part.keep)}, add ` : ''}${measured(other)
    .map((line) => `${line.told} ${line.name}`)
    .join(' · ')}`;
</script>

<template>
  <div ref="host" class="add-this figures">
    <template v-if="asWanted && !plan">
      <h2 data-test="as-wanted">As wanted</h2>
      <p>You said so: nothing is to be added. Nudge the right half if it looks otherwise by now.</p>
      <div class="do stays-upright"><button type="button" class="key" @click="emit('changed')">I changed it by eye</button></div>
    </template>
    <template v-else-if="way">
      <h2>{{ way.part ? `Take ${partsText(way.part.keep)} of it, and add` : 'Add this' }}</h2>
      <p v-if="correction?.onlySaid && !plan" class="falls" data-test="only-said">
        Perhaps a touch: it may be the screen. What you say counts.
      </p>
      <p v-if="correction?.isStrange && !plan" class="falls" data-test="strange">
        Further off than these tubes and a knife can be. It teaches little about the tubes until you say that
        <button type="button" class="said" @click="emit('confirm')">it is this pile, in this light</button>
      </p>
      <p class="becomes">{{ becomes }} · {{ beads.says }}</p>
      <p v-if="falls" class="falls" role="status">As near as these tubes come; it stays {{ falls }}. {{ instead }}</p>
      <ol class="bare">
        <li v-for="(line, i) in lines" :key="line.id" class="line" :class="{ done: plan && i < doneSteps }" data-test="addition">
          <span class="after" :style="{ background: white.shown(line.after).css }" title="the pile after this" />
          <div class="what">
            <p>
              <strong>{{ line.told }}</strong> {{ line.name }}
              <span v-if="!line.isTouch" class="quiet">{{ mlText(line.ml) }}</span>
            </p>
            <span class="bead" :style="{ width: beads.widthOf(line.beadMm), background: show(line.paint).css }" />
          </div>
          <span class="mm">{{ settings.settings.measure === 'beads' || line.isTouch ? '' : mmText(line.beadMm) }}</span>
          <button
            type="button"
            class="tick"
            :disabled="plan ? i !== doneSteps : i !== 0"
            :aria-label="`${line.name} is in`"
            @click="emit('one', way, i)"
          >
            put in
          </button>
        </li>
      </ol>
      <div class="do stays-upright">
        <button type="button" class="main-key" @click="emit('all', way)">{{ plan ? 'The rest is in' : 'Done' }} <kbd>Space</kbd></button>
        <button type="button" class="key" @click="emit('changed')">I changed it by eye</button>
      </div>
      <ul v-if="others.length" class="others bare" aria-label="Other ways">
        <li v-for="{ other, i } in others" :key="i">
          <button type="button" class="other" data-test="other-way" @click="chosen = i">
            <span class="chip" :style="{ background: white.shown(other.lab).css }" />
            <span
              ><b>{{ other.betterAt }}</b
              >: {{ short(other) }}<br /><span class="quiet"
                >{{ other.comes }}, becomes {{ mlText(pile.there * share(other) * other.growth) }}</span
              ></span
            >
          </button>
        </li>
      </ul>
    </template>
    <template v-else-if="correction">
      <h2>{{ correction.believedOff <= IN_REACH ? 'It passes' : 'Nothing more to add' }}</h2>
      <p v-if="correction.believedOff <= IN_REACH" data-test="passes">
        {{ closeness(correction.off) }}<template v-if="isReadingsOwn">; most of what differs is put down to this way of looking</template>.
      </p>
      <p v-else>
        As near as these tubes come by adding<template v-if="correction.givesWay.length">: {{ correction.givesWay.join(', ') }}</template
        >. {{ instead }}
      </p>
      <div class="do stays-upright"><button type="button" class="key" @click="emit('changed')">I changed it by eye</button></div>
    </template>
    <template v-else>
      <h2>What did you get?</h2>
      <p>
        Nudge the right half until it looks like the paint on your knife, or say it in words. What to add stands here at once. A colour can
        also be typed, or read from a photo.
      </p>
      <div class="do stays-upright">
        <button type="button" class="main-key" @click="emit('fits')">It looks as wanted <kbd>m</kbd></button>
        <button type="button" class="key" @click="emit('changed')">I changed it by eye</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.becomes {
  font-size: var(--size-note);
  margin: var(--unit) 0 calc(2 * var(--unit));
}
.falls {
  font-weight: 700;
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
  margin-bottom: calc(2 * var(--unit));
}
.said {
  min-height: 44px;
  text-decoration: underline;
  font-weight: inherit;
}
.line {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto 64px;
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 52px;
  margin-bottom: calc(2 * var(--unit));
}
.line.done {
  opacity: 0.45;
}
.after {
  align-self: stretch;
}
.what strong {
  font-size: var(--size-lead);
}
.bead {
  display: block;
  height: 13px;
  border-radius: 7px;
}
.tick,
.key {
  min-height: 44px;
  border: 1px solid currentColor;
  border-radius: 4px;
}
.tick:disabled {
  opacity: 0.3;
}
.do {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: calc(2 * var(--unit));
  margin: calc(3 * var(--unit)) 0;
}
.others {
  border-top: 1px solid currentColor;
  padding-top: calc(2 * var(--unit));
}
.other {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: calc(3 * var(--unit));
  align-items: center;
  width: 100%;
  min-height: 52px;
  padding: var(--unit) 0;
  text-align: left;
  line-height: 1.25;
}
.chip {
  align-self: stretch;
}
</style>
