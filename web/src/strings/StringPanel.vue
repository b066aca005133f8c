<script setup lang="ts">
import { mdiMinus, mdiPlus } from '@mdi/js';
import { ROUTES, valueOfLightness, type HeldInString, type Route } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, proxyRefs } from 'vue';
import { useCards } from '../stores/cards.ts';
import PaintKey from '../chips/PaintKey.vue';
import Choice from '../controls/Choice.vue';
import Slider from '../controls/Slider.vue';
import { useSettings } from '../stores/settings.ts';
import { lookNow, stringOf, usePiles } from '../stores/piles.ts';
import type { StringState } from './useString.ts';
import Pick from '../controls/Pick.vue';

/** A string: from this pile through others in even steps, as one plan of few measurings. */
const props = defineProps<{ pile: PileDto; string: StringState }>();
const s = proxyRefs(props.string);
const piles = usePiles();
const cards = useCards();
const settings = useSettings();

/** The piles of the string that this one stands in, in their order. */
const ofString = computed(() => stringOf(props.pile, piles.list));
const others = computed(() => piles.ofRank.filter(({ id }) => id !== props.pile.id));
const value = (lab: ReturnType<typeof lookNow>): string => settings.valueText(valueOfLightness(lab[0]));
const NUMBERS = [3, 5, 7, 9] as const;
const WAYS: Readonly<Record<Route, string>> = {
  straight: 'straight',
  neutral: 'by neutral',
  warm: 'by the warm side',
  cool: 'by the cool side',
};
const HELD: readonly { readonly value: HeldInString; readonly title: string }[] = [
  { value: 'nothing', title: 'all led over' },
  { value: 'chroma', title: 'brightness held' },
  { value: 'temperature', title: 'temperature held' },
];
const KINDS = [
  { value: 'plain' as const, title: 'one row' },
  { value: 'brush' as const, title: 'the brush does the rest' },
  { value: 'turns' as const, title: 'warm and cool by turns' },
  { value: 'pairs' as const, title: 'warm and cool pairs' },
];
</script>

<template>
  <div class="string stack">
    <p>
      From <b>{{ pile.name }}</b><template v-for="one in s.through.slice(1)" :key="one.id"
        >, to <b>{{ one.name }}</b></template
      ><template v-if="s.carried">, to dark and to light</template>
    </p>
    <div class="stops" role="group" aria-label="Through, in the order of pressing">
      <PaintKey :pressed="s.carried" @click="((s.carried = !s.carried), (s.stops = []))">
        <template #paint><span class="dark" /><span class="light" /></template>
        carried to dark and light
      </PaintKey>
      <PaintKey v-for="one in others" :key="one.id" :lab="lookNow(one)" :pressed="s.stops.includes(one.id)" @click="s.toggle(one.id)"
        >{{ value(lookNow(one)) }} {{ one.name }}</PaintKey
      >
    </div>
    <div class="row many in-line" role="group" aria-label="How many">
      <span>piles</span>
      <button v-for="n in NUMBERS" :key="n" type="button" class="number figures" :aria-pressed="s.set.n === n" @click="s.resize(n)">
        {{ n }}
      </button>
      <v-btn :icon="mdiMinus" aria-label="One fewer" @click="s.resize(s.set.n - 1)" />
      <b class="figures" data-test="string-n">{{ s.set.n }}</b>
      <v-btn :icon="mdiPlus" aria-label="One more" @click="s.resize(s.set.n + 1)" />
    </div>
    <Choice v-model="s.set.kind" label="Laid out" :items="KINDS" />
    <Slider
      v-if="s.set.kind === 'turns' || s.set.kind === 'pairs'"
      v-model="s.set.by"
      label="Warm from cool"
      :min="1"
      :max="15"
      :step="0.5"
      :says="`${(2 * s.set.by).toFixed(0)} apart in temperature`"
    />
    <div class="row in-line">
      <Pick v-model="s.set.route" :options="ROUTES.map((value) => ({ value, title: WAYS[value] }))" label="between hues" />
      <Pick v-model="s.set.held" :options="HELD" aria-label="What is held" />
    </div>
    <v-btn v-if="ofString.length > 1" variant="outlined" @click="cards.makeSet(ofString, 'string', pile.name)"
      >Cards of these steps&ensp;<kbd>c</kbd></v-btn
    >
    <p v-if="s.busy" class="quiet" role="status">Finding the fewest mixes for all of them…</p>
    <p v-else-if="!s.proposed" class="quiet">Press the pile it runs to, or more than one for further stops.</p>
    <div class="bounds">
      <Slider
        label="Too close to tell apart"
        :min="0"
        :max="6"
        :step="0.5"
        :model-value="settings.settings.stepLeast"
        :says="`nearer than ${settings.settings.stepLeast}`"
        @done="settings.change({ stepLeast: $event })"
      />
      <Slider
        label="A jump"
        :min="4"
        :max="30"
        :step="1"
        :model-value="settings.settings.stepMost"
        :says="`further than ${settings.settings.stepMost}`"
        @done="settings.change({ stepMost: $event })"
      />
    </div>
  </div>
</template>

<style scoped>
.stops {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(180px, 100%), 1fr));
  gap: 0 calc(3 * var(--unit));
  max-height: 240px;
  overflow-y: auto;
}
.dark,
.light {
  flex: 1;
}
.dark {
  background: #222;
}
.light {
  background: #ddd;
}
.number[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.many {
  flex-wrap: nowrap;
  gap: 0;
}
.many > span {
  margin-right: var(--unit);
}
.number {
  min-width: 44px;
  min-height: 44px;
  font-size: var(--size-lead);
}
.bounds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: calc(4 * var(--unit));
}
</style>
