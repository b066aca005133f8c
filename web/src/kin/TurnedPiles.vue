<script setup lang="ts">
import { valueOfColour, type Lab } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { useSettings } from '../stores/settings.ts';
import { lookNow } from '../stores/piles.ts';
import { useWhite } from '../floor/white.ts';

/** Piles as they are and as they would become, touching; each may be left as it is. */
defineProps<{
  rows: readonly {
    readonly pile: PileDto;
    /** As it would become. */
    readonly lab: Lab;
    readonly isIn: boolean;
    readonly note?: string;
  }[];
  /** What a press is about, after the pile's name. */
  says: string;
}>();
defineEmits<{ toggle: [pileId: string] }>();
const settings = useSettings();
const white = useWhite();
const value = (lab: Lab): string => settings.valueText(valueOfColour(lab));
</script>

<template>
  <ul class="all">
    <li v-for="{ pile, lab, isIn, note } in rows" :key="pile.id">
      <button
        type="button"
        class="one"
        :class="{ out: !isIn }"
        :aria-pressed="isIn"
        :aria-label="`${pile.name}: ${says}`"
        data-test="into"
        @click="$emit('toggle', pile.id)"
      >
        <span class="pair"
          ><span :style="{ background: white.shown(lookNow(pile)).css }" /><span
            :style="{ background: white.shown(isIn ? lab : lookNow(pile)).css }"
        /></span>
        <span class="figures"
          >{{ value(lookNow(pile)) }}<template v-if="isIn && value(lab) !== value(lookNow(pile))"> to {{ value(lab) }}</template></span
        >
        <span class="name"
          >{{ pile.name }}<small v-if="note">{{ note }}</small></span
        >
      </button>
    </li>
  </ul>
</template>

<style scoped>
.all {
  list-style: none;
  margin: calc(3 * var(--unit)) 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: calc(2 * var(--unit));
}
.one {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 0 calc(2 * var(--unit));
  align-items: center;
  width: 100%;
  min-height: 56px;
  text-align: left;
  line-height: 1.2;
}
.one.out .name,
.one.out .figures {
  opacity: 0.6;
}
.pair {
  grid-row: 1 / 3;
  display: grid;
  grid-template-columns: 1fr 1fr;
  height: 56px;
}
.name {
  overflow-wrap: anywhere;
}
small {
  display: block;
  font-size: var(--size-note);
  opacity: 0.85;
}
</style>
