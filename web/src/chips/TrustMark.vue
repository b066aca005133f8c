<script setup lang="ts">
import { closeness } from '@dusk/core';
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
/** What to do about it, before any figure. */
const SURE_BELOW = 2;
const advice = computed(() => {
  if (!props.trust) return '';
  if (props.trust.errorEstimate < SURE_BELOW) return 'Your tubes are known: it comes out like this.';
  return props.trust.basis === 'typical' ? 'Your tubes may lean: add the last one slowly.' : 'Add the last tube slowly.';
});
const says = computed(() => props.trust && SAYS[props.trust.basis]);
</script>

<template>
  <details class="trust quiet figures" :class="trust?.basis" data-test="how-sure">
    <summary>
      <span class="mark" aria-hidden="true" />
      <span>{{ advice || '&nbsp;' }}</span>
      <span class="sure">how sure</span>
    </summary>
    <p v-if="trust">
      nine of ten such piles come out {{ closeness(trust.errorEstimate) }} ({{ trust.errorEstimate.toFixed(1) }}): {{ says }}
    </p>
  </details>
</template>

<style scoped>
.trust {
  font-size: var(--size-note);
}
summary {
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 44px;
  cursor: pointer;
  list-style: none;
}
.sure {
  margin-left: auto;
  text-decoration: underline;
  white-space: nowrap;
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
