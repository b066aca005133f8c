<script setup lang="ts">
import { mdiKeyboardOutline, mdiRedoVariant, mdiTuneVariant, mdiUndoVariant } from '@mdi/js';
import { computed, ref } from 'vue';
import NoticeLine from '../controls/NoticeLine.vue';
import { counted } from '../floor/words.ts';
import { useCopies } from '../stores/copies.ts';
import { usePiles } from '../stores/piles.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useNotices } from '../floor/notices.ts';
import { useSight } from '../floor/sight.ts';
import { onceTrue } from '../floor/opening.ts';
import { SettingsSheet, WaitingSheet } from './sheets.ts';

/** The line along the top: whose piles these are, what was just done, and what is about the whole studio. Nothing lies under it. */
const emit = defineEmits<{ shortcuts: [] }>();
const paintings = usePaintings();
const studio = useStudio();
const notices = useNotices();
const sight = useSight();
const piles = usePiles();
/** Tubes that planned piles need and that are not on the palette, and how many piles that strands. */
const gone = computed(() => {
  const stranded = [...piles.stranded];
  if (stranded.length === 0) return undefined;
  const missing = [...new Set(stranded.flatMap(([, tubes]) => tubes))];
  const first = missing.length === 1 ? missing[0]! : `${missing[0]} and ${missing.length - 1} more`;
  return {
    says: `${first} gone: ${counted(stranded.length, 'pile')}`,
    names: stranded.map(([id, tubes]) => `${piles.byId.get(id)?.name} (${tubes.join(', ')})`).join('; '),
  };
});
const copies = useCopies();
const settingsOpen = ref(false);
const waitingOpen = ref(false);
/** Sheets are fetched once they are asked for. */
const settingsAsked = onceTrue(settingsOpen);
const waitingAsked = onceTrue(waitingOpen);

/** What the studio has not got yet, in a word or two. What comes to be chosen waits here until it is opened: nothing opens over a hand at work. */
const waits = computed(() => {
  if (studio.refused.length > 0) return `${studio.refused.length} to choose`;
  return studio.waiting.length > 0 ? `${studio.waiting.length} waiting` : 'no answer';
});
</script>

<template>
  <header class="head-line">
    <p v-if="paintings.onEasel" class="whose" :class="{ 'gives-way': notices.current }">
      <span class="quiet">on the easel</span> {{ paintings.onEasel.title }}
    </p>
    <NoticeLine class="says" />
    <RouterLink
      v-if="gone"
      class="waits"
      data-test="stranded-head"
      :to="{ name: 'mixing', params: { paintingId: paintings.onEasel!.id }, query: { remake: 'all' } }"
      :title="`These piles are still planned from what is not on this palette: ${gone.names}`"
      >{{ gone.says }}</RouterLink
    >
    <button
      v-if="sight.grey || sight.squint"
      type="button"
      class="waits"
      data-test="sight"
      title="Everything on the screen is shown so; press to see as it is"
      @click="sight.grey = sight.squint = false"
    >
      {{ [sight.grey ? 'grey' : '', sight.squint ? 'squint' : ''].filter(Boolean).join(', ') }}
    </button>
    <button
      v-if="copies.daysWithout"
      type="button"
      class="waits"
      data-test="no-copy"
      title="What was done since lies in no copy; press to see why"
      @click="settingsOpen = true"
    >
      no copy for {{ copies.daysWithout }} days
    </button>
    <button
      v-if="studio.away || studio.waiting.length > 0"
      type="button"
      class="waits"
      :class="{ trouble: studio.refused.length > 0 }"
      data-test="waits"
      @click="waitingOpen = true"
    >
      {{ waits }}
    </button>
    <v-btn
      :icon="mdiUndoVariant"
      :disabled="!studio.undoable"
      aria-label="Take back what was done last"
      :title="studio.undoable ? `Take back: ${studio.undoable.says} (Ctrl+Z)` : 'Nothing to take back'"
      @click="studio.undo()"
    />
    <v-btn
      class="redo"
      :icon="mdiRedoVariant"
      :disabled="!studio.redoable"
      aria-label="Do again what was taken back"
      :title="studio.redoable ? `Do again: ${studio.redoable.says} (Ctrl+Shift+Z)` : 'Nothing to do again'"
      @click="studio.redo()"
    />
    <v-btn :icon="mdiTuneVariant" aria-label="How you see" title="How you see and measure" @click="settingsOpen = true" />
    <v-btn class="by-key" :icon="mdiKeyboardOutline" aria-label="Keys" title="Keys (?)" @click="emit('shortcuts')" />
    <SettingsSheet v-if="settingsAsked" v-model="settingsOpen" />
    <WaitingSheet v-if="waitingAsked" v-model="waitingOpen" />
  </header>
</template>

<style scoped>
.head-line {
  grid-area: head;
  display: flex;
  align-items: center;
  min-width: 0;
  min-height: 44px;
  padding-left: calc(4 * var(--unit));
  background: rgb(var(--v-theme-surface));
}
.whose {
  flex: 0 1 auto;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.says {
  flex: 1 1 0;
  display: flex;
  justify-content: flex-end;
}
.waits {
  flex: none;
  min-height: 44px;
  padding: 0 calc(3 * var(--unit));
  font-weight: 700;
  text-decoration: underline;
}
a.waits {
  display: flex;
  align-items: center;
  color: inherit;
  white-space: nowrap;
  overflow: hidden;
}
.trouble {
  color: rgb(var(--v-theme-error));
}
/* Where there is no room for both, whose piles these are gives way to what was just done. */
@media (max-width: 800px) {
  .gives-way {
    display: none;
  }
}
@media (max-width: 600px) {
  .head-line {
    padding-left: calc(2 * var(--unit));
  }
  .by-key,
  .redo,
  .whose .quiet {
    display: none;
  }
}
</style>
