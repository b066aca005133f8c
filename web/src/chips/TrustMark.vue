<script setup lang="ts">
import type { Basis, Trust } from '@dusk/core';
import { computed } from 'vue';

/** How far a prediction can be trusted: typical, learnt, fitted and measured look different. It may come a moment later. */
const props = defineProps<{ trust: Trust | undefined }>();

const SAYS: Record<Basis, string> = {
  typical: 'typical tubes; yours may differ',
  learnt: 'tubes your piles taught about',
  fitted: 'tubes fitted to your swatches',
  measured: 'measured tubes',
};
const says = computed(() => props.trust && SAYS[props.trust.basis]);
</script>

<template>
  <p
    class="trust quiet figures"
    :class="trust?.basis"
    :title="trust && 'How far nine of ten such piles from real tubes stay from the prediction'"
  >
    <span class="mark" aria-hidden="true" />
    <span v-if="trust">nine of ten such piles come within ΔE {{ trust.errorEstimate.toFixed(1) }} of it: {{ says }}</span>
    <span v-else aria-hidden="true">&nbsp;</span>
  </p>
</template>

<style scoped>
.trust {
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: baseline;
  font-size: var(--size-note);
}
.mark {
  flex: none;
  width: 14px;
  height: 14px;
  border: 2px dotted currentColor;
  border-radius: 50%;
  transform: translateY(2px);
}
.learnt .mark {
  border-style: dashed;
}
.fitted .mark {
  border-style: solid;
}
.measured .mark {
  border-style: solid;
  background: currentColor;
}
</style>
