<script setup lang="ts">
import { valueOfLightness } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import { clock } from '../floor/words.ts';
import { useSettings } from '../stores/settings.ts';
import { chaptersOf } from './story.ts';
import { useWhite } from '../floor/white.ts';

/** A pile's story as one strip: wanted, mixed, got, added, got. */
const props = defineProps<{ pile: PileDto }>();
const emit = defineEmits<{ history: [] }>();
const settings = useSettings();
const white = useWhite();
const chapters = computed(() => chaptersOf(props.pile));
</script>

<template>
  <button type="button" class="strip figures" aria-label="History of this pile" title="The whole history" @click="emit('history')">
    <span v-for="(chapter, i) in chapters" :key="i" class="chapter">
      <span class="what">{{ chapter.what }}</span>
      <span class="chip" :style="{ background: white.shown(chapter.lab).css }" />
      <span class="value"
        ><b>{{ settings.valueText(valueOfLightness(chapter.lab[0])) }}</b>
        <span v-if="chapter.at" class="when">{{ clock(chapter.at) }}</span></span
      >
    </span>
  </button>
</template>

<style scoped>
.strip {
  display: flex;
  max-width: 100%;
  overflow-x: auto;
  text-align: left;
  min-height: 44px;
}
.chapter {
  display: grid;
  width: 92px;
  flex: none;
}
.what,
.value {
  font-size: var(--size-note);
  white-space: nowrap;
}
.when {
  font-size: var(--size-note);
}
.when {
  margin-left: calc(2 * var(--unit));
}
.chip {
  height: 44px;
}
</style>
