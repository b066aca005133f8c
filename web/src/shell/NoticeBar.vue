<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { useNotices } from './notices.ts';

const notices = useNotices();

async function undo(): Promise<void> {
  const back = notices.current?.undo;
  notices.dismiss();
  await back?.();
}
</script>

<template>
  <div class="bar" role="status" aria-live="polite">
    <div v-if="notices.current" class="notice" :class="notices.current.tone">
      <span>{{ notices.current.text }}</span>
      <v-btn v-if="notices.current.undo" class="undo" @click="undo">Undo</v-btn>
      <v-btn :icon="mdiClose" size="44" aria-label="Dismiss" @click="notices.dismiss()" />
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: fixed;
  right: 24px;
  bottom: calc(var(--ledge-height) + 10px);
  z-index: 5;
  max-width: min(640px, 90vw);
}
.notice {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
  padding: var(--unit) var(--unit) var(--unit) calc(4 * var(--unit));
  border-radius: 4px;
  background: #191b1f;
  color: #f1efeb;
}
.refused {
  background: #5c1a14;
  color: #fff;
}
.waiting {
  background: #3d3420;
  color: #fff;
}
.undo {
  font-weight: 700;
}
@media (max-width: 900px) {
  .bar {
    top: 6px;
    bottom: auto;
    right: 8px;
  }
}
</style>
