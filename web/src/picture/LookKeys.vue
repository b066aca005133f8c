<script setup lang="ts">
import { useSight } from '../floor/sight.ts';
import type { LookName } from '@dusk/wire/looks';
import { useLooking } from '../stores/looking.ts';

/** The ways to look at a picture, one press each, as words in a row; the one that is on is underlined. */
const looking = useLooking();
const sight = useSight();
const LOOKS: readonly (readonly [look: LookName, title: string, key: string])[] = [
  ['values', 'Values', 'v'],
  ['warmth', 'Warm · cool', 'w'],
  ['strength', 'Brightness', 'c'],
  ['edges', 'Edges', 'e'],
  ['reach', 'Reach', 'r'],
  ['piles', 'In my piles', 'm'],
];
</script>

<template>
  <div class="looks" role="toolbar" aria-label="Looks">
    <button
      type="button"
      class="look"
      :class="{ on: looking.isPlain }"
      :aria-pressed="looking.isPlain"
      title="the picture as it is"
      @click="looking.plain()"
    >
      As seen
    </button>
    <button
      type="button"
      class="look"
      :class="{ on: sight.grey }"
      :aria-pressed="sight.grey"
      title="everything in grey (g)"
      @click="sight.grey = !sight.grey"
    >
      Grey
    </button>
    <button
      type="button"
      class="look"
      :class="{ on: sight.squint }"
      :aria-pressed="sight.squint"
      title="eyes half closed (s)"
      @click="sight.squint = !sight.squint"
    >
      Squint
    </button>
    <button
      v-for="[look, title, key] in LOOKS"
      :key="look"
      type="button"
      class="look"
      :class="{ on: looking.look === look }"
      :aria-pressed="looking.look === look"
      :title="`${title.toLowerCase()} (${key})`"
      @click="looking.turn(look)"
    >
      {{ title }}
    </button>
  </div>
</template>

<style scoped>
.looks {
  display: flex;
  justify-content: space-between;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
.look {
  flex: none;
  min-height: 44px;
  min-width: 44px;
  padding: 0 calc(2 * var(--unit));
  white-space: nowrap;
}
.on {
  box-shadow: inset 0 -3px 0 currentColor;
  font-weight: 700;
}
@media (forced-colors: active) {
  .on {
    outline: 3px solid Highlight;
    outline-offset: -3px;
  }
}
</style>
