<script setup lang="ts">
import { valueOfLightness } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { lookNow, stringOf, usePiles } from '../stores/piles.ts';

/** The row of steps that a pile stands in: its piles touching, each a way to it. */
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const settings = useSettings();
const all = computed(() => stringOf(props.pile, piles.list));
const valueOf = (pile: PileDto): string => settings.valueText(valueOfLightness(lookNow(pile)[0]));
</script>

<template>
  <nav v-if="all.length > 1" class="string-strip" aria-label="The row of steps it stands in" data-test="string-strip">
    <RouterLink
      v-for="one in all"
      :key="one.id"
      class="one figures"
      :class="{ here: one.id === pile.id }"
      :to="{ name: 'mixing', params: { paintingId: one.paintingId, pileId: one.id } }"
      :aria-label="`${one.name}, value ${valueOf(one)}`"
      :aria-current="one.id === pile.id ? 'page' : undefined"
    >
      <span class="chip squints" :style="{ background: piles.shownNow(one) }" />
      <span>{{ valueOf(one) }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.string-strip {
  display: flex;
}
.one {
  flex: 1;
  min-width: 0;
  min-height: 44px;
  color: inherit;
  text-decoration: none;
  text-align: center;
  font-size: var(--size-note);
}
.chip {
  display: block;
  height: 30px;
}
.here {
  font-weight: 700;
}
.here .chip {
  height: 36px;
}
</style>
