<script setup lang="ts">
import type { Basis } from '@dusk/core';
import { computed } from 'vue';

/** How far a prediction can be trusted: typical, fitted and measured look different. */
const props = defineProps<{ basis: Basis; errorEstimate?: number }>();

const SAYS: Record<Basis, string> = {
  typical: 'predicted from typical tubes; yours may be stronger, weaker or lean elsewhere',
  learnt: 'predicted from what your piles taught of these tubes',
  fitted: 'predicted from tubes fitted to your swatches',
  measured: 'predicted from measured tubes',
};
const says = computed(() => SAYS[props.basis]);
</script>

<template>
  <p class="trust quiet" :class="basis">
    <span class="mark" aria-hidden="true" />
    <span
      >{{ says
      }}<template v-if="errorEstimate !== undefined"
        >; nine of ten such piles come within ΔE {{ errorEstimate.toFixed(1) }} of it</template
      ></span
    >
  </p>
</template>

<style scoped>
.trust {
  display: flex;
  gap: 10px;
  align-items: baseline;
  font-size: 15px;
}
.mark {
  flex: none;
  width: 14px;
  height: 14px;
  border: 2px dotted currentColor;
  border-radius: 50%;
  transform: translateY(2px);
}
.fitted .mark {
  border-style: solid;
}
.measured .mark {
  border-style: solid;
  background: currentColor;
}
</style>
