<script setup lang="ts">
import { closeness, IN_REACH, mlText, shareOfPile, valueOfLightness, type WayOn } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, defineAsyncComponent, proxyRefs, ref, watch } from 'vue';
import { apartText, valueDifference } from '../floor/words.ts';
import PaintKey from '../chips/PaintKey.vue';
import Slider from '../controls/Slider.vue';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { A_PRESS, type KinStep } from './kin.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import RecipeSteps from '../recipe/RecipeSteps.vue';
import { useWhite } from '../floor/white.ts';
import { NEXT_ML, type KinState, type MadeFrom } from './useKin.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';

/** A pile's relatives: what is wanted of it by steps, two piles into one, and the family they come from. */
const props = defineProps<{ pile: PileDto; kin: KinState }>();
const emit = defineEmits<{ child: []; itself: []; into: [] }>();
const desk = useDesk();
const piles = usePiles();
const settings = useSettings();
const white = useWhite();

interface Key {
  readonly word: string;
  readonly by: KinStep;
  readonly way: 1 | -1;
  readonly key: string;
}
const KEYS: readonly Key[] = [
  { word: 'lighter', by: 'value', way: 1, key: '↑' },
  { word: 'darker', by: 'value', way: -1, key: '↓' },
  { word: 'warmer', by: 'temperature', way: 1, key: '→' },
  { word: 'cooler', by: 'temperature', way: -1, key: '←' },
  { word: 'brighter', by: 'chroma', way: 1, key: '+' },
  { word: 'duller', by: 'chroma', way: -1, key: '−' },
  { word: 'in shadow', by: 'shadow', way: 1, key: 'i' },
  { word: 'further off', by: 'off', way: 1, key: 'f' },
];

const FamilySheet = defineAsyncComponent(() => import('./FamilySheet.vue'));
const family = ref(false);
const wasAsked = ref(false);
watch(family, (now) => now && (wasAsked.value = true));

/** The pile is another only with another panel. */
const k = proxyRefs(props.kin);
const others = computed(() => piles.ofRank.filter(({ id }) => id !== props.pile.id));
/** Only what does not rest on this pile can be mixed into it. */
const pourable = computed(() => others.value.filter(({ id }) => !piles.restsOn(id, props.pile.id)));
const aims = computed(() => [
  ...others.value.map(({ id, name }) => ({ id, name })),
  ...desk.paletteTubes.map(({ id, name }) => ({ id, name })),
]);
const steps = computed(() => {
  const { value, temperature, chroma, shadow, off, toward } = k.steps;
  const signed = (n: number, up: string, down: string): string[] =>
    n === 0 ? [] : [`${Math.abs(Number(n.toFixed(2)))} ${n > 0 ? up : down}`];
  const counted = (n: number, up: string, down: string): string[] => {
    const by = Math.abs(Math.round(n));
    return by === 0 ? [] : [`${by === 1 ? 'a step' : `${by} steps`} ${n > 0 ? up : down}`];
  };
  return [
    ...signed(value, 'lighter', 'darker'),
    ...counted(temperature / A_PRESS.temperature, 'warmer', 'cooler'),
    ...counted(chroma, 'brighter', 'duller'),
    ...(shadow > 0 ? [`${(shadow / 2).toFixed(1)} stops less light`] : []),
    ...(off > 0 ? [`${off} further off`] : []),
    ...(toward !== 0 ? [`${10 * toward} % of the way`] : []),
  ].join(', ');
});
const WAYS: Readonly<Record<WayOn, string>> = {
  'own tubes': 'its own tubes',
  anew: 'mixed anew',
  'one thing': 'one thing added',
  closest: 'closest',
};
const ways = computed(() =>
  k.ways.map(({ way, deltaE00, givesWay }) => ({
    way: way as MadeFrom,
    title: WAYS[way],
    says: [closeness(deltaE00), ...givesWay.slice(0, 1)].join(', '),
  })),
);
/** How large the pile is planned once this one takes of it, or that there is too little of it. */
const takes = computed(() => {
  if (!k.plan || !k.moves) return '';
  const taken = NEXT_ML * shareOfPile(k.plan, props.pile.id);
  if (taken < 0.05) return '';
  if (!k.isMixed) return `Takes ${mlText(taken)} of ${props.pile.name}, which is planned larger by that.`;
  return taken > props.pile.there ? `Takes ${mlText(taken)} of ${props.pile.name}; only ${mlText(props.pile.there)} are left.` : '';
});
/** What there is of the pile, and what it grows to where it is changed itself. */
const grows = computed(() => {
  if (!k.isMixed || !k.moves || !k.plan) return '';
  const own = shareOfPile(k.plan, props.pile.id);
  return own > 0.02 ? `Changed itself, ${mlText(props.pile.there)} of it become ${mlText(props.pile.there / own)}.` : '';
});
const isShort = computed(() => k.moves && k.found !== undefined && k.found.deltaE00 > IN_REACH);

/** A step as a figure, as a quarter of a value; what is none is no step. */
function sayValue(event: Event): void {
  const said = Number((event.target as HTMLInputElement).value);
  k.steps.value = Number.isFinite(said) ? Math.min(10, Math.max(-10, said)) : 0;
}
/** What a brush makes of the two, wet into wet. */
const blendSays = computed(() => {
  const { warns, by } = k.blend ?? {};
  if (!warns) return 'Joined by a brush, wet: clean steps all the way.';
  return warns === 'mud'
    ? `Joined by a brush, wet, they go to mud: ${by!.name}.`
    : `Joined by a brush, wet, another hue comes up: ${by!.name}.`;
});
/** The ratio of two piles as eighths of the whole. */
const RATIOS: readonly (readonly [number, number])[] = [
  [12, 1],
  [8, 1],
  [5, 1],
  [3, 1],
  [2, 1],
  [3, 2],
  [1, 1],
  [2, 3],
  [1, 2],
  [1, 3],
  [1, 5],
  [1, 8],
  [1, 12],
];
const at = computed(() => RATIOS.findIndex(([a, b]) => a === k.ratio[0] && b === k.ratio[1]));
const value = (pile: PileDto): string => settings.valueText(valueOfLightness(lookNow(pile)[0]));
</script>

<template>
  <div class="kin stack">
    <div class="keys" role="group" aria-label="The same, but">
      <button v-for="key in KEYS" :key="key.word" type="button" class="key" :aria-keyshortcuts="key.key" @click="k.step(key.by, key.way)">
        {{ key.word }} <kbd>{{ key.key }}</kbd>
      </button>
      <button
        type="button"
        class="key"
        data-test="whole-family"
        title="light and shadow, a face, distance, reflections"
        @click="family = true"
      >
        a whole family
      </button>
    </div>
    <FamilySheet v-if="wasAsked" v-model="family" :pile="pile" />
    <div class="toward">
      <label class="by figures" data-test="by-value"
        >values lighter
        <input
          :value="k.steps.value"
          type="number"
          step="0.25"
          min="-10"
          max="10"
          aria-label="Values lighter; darker below nought"
          @change="sayValue"
      /></label>
      <Pick
        :model-value="k.aimId"
        :options="[{ value: '', title: 'nothing' }, ...named(aims)]"
        label="toward"
        data-test="toward"
        @update:model-value="k.aimAt($event!)"
      />
      <button v-if="k.aimId" type="button" class="key small" @click="k.step('toward', 1)">nearer</button>
      <button v-if="k.aimId" type="button" class="key small" @click="k.step('toward', -1)">less</button>
    </div>
    <section v-if="k.moves || k.other" class="wanted stack-close" aria-label="What is wanted of it">
      <template v-if="k.moves">
        <p class="figures" data-test="kin-steps">
          <b>{{ steps }}</b> <button type="button" class="link-key" @click="k.reset()">start over</button>
        </p>
        <p v-if="k.between" class="figures">
          {{ k.between.keeps ? 'Keeps its distance.' : 'Cannot keep its distance.' }}
        </p>
        <p v-for="one in k.distances" :key="one.name" class="figures" data-test="apart">{{ apartText(one) }}, beside {{ one.name }}</p>
        <div class="ways" role="radiogroup" aria-label="How it is got" data-test="ways">
          <button
            v-for="one in ways"
            :key="one.way"
            type="button"
            role="radio"
            :aria-checked="k.way === one.way"
            class="way"
            :class="{ on: k.way === one.way }"
            @click="k.from = one.way"
          >
            {{ one.title }} <small class="quiet">{{ one.says }}</small>
          </button>
          <button
            type="button"
            role="radio"
            :aria-checked="k.way === 'tubes'"
            class="way"
            :class="{ on: k.way === 'tubes' }"
            @click="k.from = 'tubes'"
          >
            any tubes
          </button>
        </div>
      </template>
      <template v-else-if="k.other">
        <p>
          <b>{{ pile.name }}</b> and <b>{{ k.other.name }}</b> into one
          <button type="button" class="link-key" @click="k.reset()">leave it</button>
        </p>
        <Slider
          label="Parts of each"
          :min="0"
          :max="RATIOS.length - 1"
          :step="1"
          :model-value="at"
          :says="`${k.ratio[0]} : ${k.ratio[1]}`"
          @update:model-value="k.ratio = RATIOS[$event]!"
        />
        <template v-if="k.blend">
          <div class="strip squints" role="img" :aria-label="`What a brush makes of them: ${blendSays}`" data-test="blend">
            <span v-for="(lab, i) in k.blend.steps" :key="i" :style="{ background: white.shown(lab).css }" />
          </div>
          <p :class="{ strong: k.blend.warns }" data-test="blend-says">{{ blendSays }}</p>
        </template>
      </template>
      <template v-if="k.plan">
        <RecipeSteps :mixture="k.plan" :amount-ml="NEXT_ML" data-test="kin-recipe" />
        <p v-if="takes" class="quiet" data-test="takes">{{ takes }}</p>
        <p v-if="k.moves && k.found" class="figures quiet">
          {{ Math.abs(k.found.valueError) < 0.05 ? 'the value wanted' : `${valueDifference(k.found.valueError)} than wanted` }},
          {{ closeness(k.found.deltaE00) }}
        </p>
        <p v-if="grows" class="figures" data-test="grows">{{ grows }}</p>
        <p v-if="isShort" class="strong">
          {{
            k.way === 'tubes' || k.way === 'closest' ? 'These tubes come no nearer than this.' : 'This way it comes no nearer; another may.'
          }}
        </p>
        <div class="do stays">
          <button type="button" class="main-key" data-test="keep-child" @click="emit('child')">Keep it <kbd>Enter</kbd></button>
          <button
            v-if="k.moves && (!k.isMixed || (k.way !== 'tubes' && k.way !== 'anew'))"
            type="button"
            class="plain-key"
            @click="emit('itself')"
          >
            {{ k.isMixed ? 'Added to the pile itself' : 'Change the pile itself' }}
          </button>
        </div>
      </template>
      <p v-else-if="k.failed" class="strong">Nothing that can be added brings it nearer.</p>
      <p v-else class="quiet">Working out what to add…</p>
    </section>
    <section v-else-if="pourable.length > 0" aria-label="Two piles into one">
      <v-btn variant="outlined" data-test="into-all" @click="emit('into')">A little of it into all</v-btn>
      <h2>Into one with</h2>
      <div class="chips">
        <PaintKey v-for="one in pourable" :key="one.id" :lab="lookNow(one)" :title="one.name" @click="k.pourWith(one.id)"
          >{{ value(one) }} {{ one.name }}</PaintKey
        >
      </div>
    </section>
    <p v-if="k.plan" class="for-readers" role="status">{{ k.comesOf }}: {{ k.words.join(', ') }}</p>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(86px, 1fr));
  gap: calc(2 * var(--unit));
}
.key {
  min-height: 48px;
  font-weight: 700;
  border: 1px solid currentColor;
  border-radius: 4px;
}
.key kbd {
  border: 0;
  font-weight: 400;
  padding: 0;
}
.small {
  min-width: 76px;
  min-height: 44px;
}
.toward .by {
  flex: 0 0 170px;
}
.by input {
  width: 64px;
  min-height: 44px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
  text-align: right;
}
.toward label {
  flex: 1 1 0;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
}
.toward {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(3 * var(--unit));
}
.do {
  display: grid;
  grid-template-columns: 1.35fr 1fr;
  gap: calc(2 * var(--unit));
}
.plain-key {
  min-height: 56px;
  border: 1px solid currentColor;
  border-radius: 4px;
}
.ways {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--unit);
}
.way {
  min-height: 44px;
  padding: var(--unit) calc(2 * var(--unit));
  border: 1px solid var(--surround-line);
  border-radius: 4px;
  text-align: left;
  line-height: 1.15;
}
.way small {
  display: block;
  font-size: var(--size-note);
}
.way.on {
  border-color: currentColor;
  box-shadow: inset 4px 0 0 currentColor;
}
.strong {
  font-weight: 700;
}
.strip {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  height: 44px;
}
.chips {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(180px, 100%), 1fr));
  gap: 0 calc(3 * var(--unit));
}
</style>
