<script setup lang="ts">
import { useSight } from '../floor/sight.ts';
import { useLooking, type LookName } from '../stores/looking.ts';

/** The looks of a picture, one press each; what is on is dark. */
const looking = useLooking();
const sight = useSight();
const LOOKS: readonly (readonly [look: LookName, title: string, key: string])[] = [
  ['values', 'Values', 'v'],
  ['warmth', 'Warm · cool', 'w'],
  ['strength', 'Brightness', 'c'],
  ['edges', 'Edges', 'e'],
  ['reach', 'Reach', 'r'],
];
function plain(): void {
  looking.look = 'colour';
  sight.grey = sight.squint = looking.asPaint = looking.lost = false;
}
</script>

<template>
  <div class="looks" role="toolbar" aria-label="Looks">
    <button
      type="button"
      class="look"
      :class="{ on: looking.isPlain }"
      :aria-pressed="looking.isPlain"
      title="the picture as it is"
      @click="plain"
    >
      Colour
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
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: var(--unit);
}
.look {
  min-height: 44px;
  border: 1px solid currentColor;
  border-radius: 3px;
  padding: 0 var(--unit);
  white-space: nowrap;
}
.on {
  border-color: var(--surround-ink);
  background: var(--surround-ink);
  color: var(--on-ink);
  font-weight: 700;
}
@media (max-width: 780px) {
  .looks {
    grid-auto-flow: row;
    grid-template-columns: repeat(4, 1fr);
  }
}
@media (max-width: 600px), (max-height: 520px) {
  .looks {
    grid-auto-flow: column;
    grid-template-columns: none;
    grid-auto-columns: max-content;
    overflow-x: auto;
  }
  .look {
    padding: 0 calc(3 * var(--unit));
  }
}
@media (forced-colors: active) {
  .on {
    outline: 3px solid Highlight;
  }
}
</style>
