<script setup lang="ts">
import { type Lab } from '@dusk/core';
import { computed } from 'vue';
import { useWhite } from '../floor/white.ts';

/** Two colours that are compared: they touch along an edge, with nothing between. */
const white = useWhite();
const props = defineProps<{ target?: Lab | null; mixed?: Lab | undefined; height?: number }>();

const target = computed(() => (props.target ? white.shown(props.target) : undefined));
const mixed = computed(() => (props.mixed ? white.shown(props.mixed) : undefined));
const beyond = computed(() => target.value?.inDisplay === false || mixed.value?.inDisplay === false);
</script>

<template>
  <figure class="pair">
    <div class="chips squints" :style="height ? { height: `${height}px` } : {}">
      <div v-if="target" class="chip" :style="{ background: target.css }" data-chip="target" />
      <div v-if="mixed" class="chip" :style="{ background: mixed.css }" data-chip="mixed" />
    </div>
    <figcaption v-if="beyond" class="quiet">Shown duller than it is: this screen cannot reach it.</figcaption>
  </figure>
</template>

<style scoped>
.pair {
  margin: 0;
}
.chips {
  display: flex;
  height: clamp(44px, 16vmin, 128px);
}
.chip {
  flex: 1;
}
figcaption {
  font-size: var(--size-note);
  margin-top: var(--unit);
}
</style>
