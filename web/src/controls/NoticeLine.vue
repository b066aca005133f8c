<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { useNotices } from '../floor/notices.ts';

/** What was just done, said quietly, with the key that takes it back. It stands in a line that is there anyway, so that it covers nothing. */
const notices = useNotices();
async function undo(): Promise<void> {
  const back = notices.current?.undo;
  notices.dismiss();
  await back?.();
}
</script>

<template>
  <div class="says" role="status" aria-live="polite">
    <div v-if="notices.current" class="notice" :class="notices.current.tone">
      <span class="text" :title="notices.current.text">{{ notices.current.text }}</span>
      <v-btn v-if="notices.current.undo" class="undo" @click="undo">Undo</v-btn>
      <v-btn :icon="mdiClose" aria-label="Dismiss" @click="notices.dismiss()" />
    </div>
  </div>
</template>

<style scoped>
.says {
  min-width: 0;
}
.notice {
  display: flex;
  align-items: center;
  min-width: 0;
  padding-left: calc(3 * var(--unit));
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
}
.saved .text {
  white-space: nowrap;
}
/* Trouble is read whole: the line grows for it, what lies below gives way. */
.waiting .text,
.refused .text {
  padding: calc(2 * var(--unit)) 0;
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
/* No colour of the studio's beside what is judged. */
.judging .refused,
.judging .waiting {
  background: var(--surround-ink);
  color: var(--on-ink);
}
@media (max-width: 600px) {
  .saved .text {
    font-size: var(--size-note);
    line-height: 1.15;
    white-space: normal;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
  }
}
</style>
