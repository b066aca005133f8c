<script setup lang="ts">
import { nudged, show, turnWords, type Lab, type Nudge, type OutingPile } from '@dusk/core';
import { computed } from 'vue';
import type { Kept } from './kept.ts';

/** One pile out of doors: its steps to tick, how it came out, a note. */
const kept = defineModel<Kept>({ required: true });
const props = defineProps<{ pile: OutingPile; open: boolean }>();
const emit = defineEmits<{ toggle: [] }>();
const css = (lab: Lab): string => show(lab).css;
const seen = computed(() => kept.value.look?.lab ?? props.pile.lab);
const isMixed = computed(() => props.pile.isMixed || kept.value.mixedAt !== undefined);

/** Steps through all heaps, each with its place. */
const heaps = computed(() => {
  let at = 0;
  return props.pile.heaps.map((heap) => ({ ...heap, steps: heap.steps.map((step) => ({ ...step, at: at++ })) }));
});
const count = computed(() => props.pile.heaps.reduce((sum, { steps }) => sum + steps.length, 0));
function tick(at: number): void {
  const was = kept.value.ticked;
  kept.value.ticked = was.includes(at) ? was.filter((one) => one !== at) : [...was, at].sort((a, b) => a - b);
  kept.value.mixedAt = kept.value.ticked.length === count.value ? new Date().toISOString() : undefined;
}

/** A coarse word: half a value, and about as much to the eye of hue and strength. */
const COARSE = 5;
const words = computed((): readonly (readonly [word: string, by: Nudge, way: 1 | -1])[] => {
  const turns = turnWords(seen.value);
  return [
    ['lighter', 'value', 1],
    ['darker', 'value', -1],
    [turns.onward, 'hue', 1],
    [turns.back, 'hue', -1],
    ['brighter', 'chroma', 1],
    ['duller', 'chroma', -1],
  ];
});
function say(word: string, by: Nudge, way: 1 | -1): void {
  const said = [kept.value.look?.said, word].filter(Boolean).join(', ').slice(0, 120);
  kept.value.look = { lab: nudged(seen.value, by, way * COARSE), said, at: new Date().toISOString() };
}
const asItShould = (): void =>
  void (kept.value.look = { lab: props.pile.target ?? props.pile.lab, said: 'as it should', at: new Date().toISOString() });
</script>

<template>
  <article :class="{ done: isMixed, open }">
    <button type="button" class="head" :aria-expanded="open" @click="emit('toggle')">
      <span class="around chips">
        <span v-if="pile.target" :style="{ background: css(pile.target) }" />
        <span :style="{ background: css(seen) }" />
      </span>
      <b class="value">{{ pile.value }}</b>
      <span class="name">{{ pile.name }}<small v-if="isMixed"> mixed</small></span>
    </button>
    <template v-if="open">
      <p>
        {{ pile.words }}<template v-if="pile.note">. {{ pile.note }}</template>
      </p>
      <template v-if="!pile.isMixed">
        <template v-for="(heap, i) in heaps" :key="i">
          <p v-if="heaps.length > 1" class="first">{{ heap.says }}</p>
          <label v-for="step in heap.steps" :key="step.at" class="step">
            <input type="checkbox" :checked="kept.ticked.includes(step.at)" @change="tick(step.at)" />
            <b>{{ step.parts }}</b> <span>{{ step.name }}</span> <span>{{ step.says }}</span>
            <span class="around lies"><span class="bead" :style="{ width: `min(100%, ${step.mm}mm)`, background: css(step.lab) }" /></span>
          </label>
        </template>
      </template>
      <template v-if="isMixed">
        <p class="first">How it looks</p>
        <div class="keys">
          <button type="button" @click="asItShould">as it should</button>
          <button v-for="[word, by, way] in words" :key="word" type="button" @click="say(word, by, way)">{{ word }}</button>
          <button v-if="kept.look" type="button" @click="kept.look = undefined">take it back</button>
        </div>
        <p v-if="kept.look">{{ kept.look.said }}</p>
      </template>
      <textarea v-model="kept.note" rows="2" maxlength="2000" :aria-label="`A note on ${pile.name}`" placeholder="A note" />
    </template>
  </article>
</template>
