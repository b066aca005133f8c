<script setup lang="ts">
import {
  mdiBrush,
  mdiImageOutline,
  mdiKeyboardOutline,
  mdiPalette,
  mdiPaletteSwatchOutline,
  mdiTrayFull,
  mdiTuneVariant,
  mdiUndoVariant,
} from '@mdi/js';
import { computed, ref, watch } from 'vue';
import { usePaintings } from '../paintings/paintings.ts';
import { useStudio } from '../studio/useStudio.ts';
import WaitingSheet from '../studio/WaitingSheet.vue';
import SettingsSheet from './SettingsSheet.vue';

/** A paint tube, cap up; the icon set has none. */
const TUBE_ICON = 'M10 2h4v3h-4zM9 6h6l1 2.5V19H8V8.500zM7 20h10v2H7z';

const emit = defineEmits<{ shortcuts: [] }>();
const paintings = usePaintings();
const studio = useStudio();
const settingsOpen = ref(false);
const waitingOpen = ref(false);
/** What the studio has not got yet, in a word or two. */
const waits = computed(() => {
  if (studio.refused.length > 0) return `${studio.refused.length} to choose`;
  return studio.waiting.length > 0 ? `${studio.waiting.length} waiting` : 'no answer';
});
watch(
  () => studio.refused.length,
  (now, before) => {
    if (now > before) waitingOpen.value = true;
  },
);

/** Places in the order of the work; the last ones are within the open painting. */
const places = computed(() => {
  const paintingId = paintings.onEasel?.id;
  const inside = (name: string) => (paintingId ? { name, params: { paintingId } } : undefined);
  return [
    { name: 'Paintings', icon: mdiBrush, to: { name: 'paintings' } },
    { name: 'Tubes', icon: TUBE_ICON, to: { name: 'tubes' } },
    { name: 'Palettes', icon: mdiPaletteSwatchOutline, to: { name: 'palettes' } },
    { name: 'Reference', icon: mdiImageOutline, to: inside('reference') },
    { name: 'Mixing', icon: mdiPalette, to: inside('mixing') },
  ];
});
</script>

<template>
  <nav class="rail" aria-label="Places">
    <template v-for="place in places" :key="place.name">
      <RouterLink v-if="place.to" :to="place.to" class="place-link" active-class="here">
        <v-icon :icon="place.icon" size="24" aria-hidden="true" />
        <span>{{ place.name }}</span>
      </RouterLink>
      <span v-else class="place-link closed" aria-disabled="true" title="Open a painting first">
        <v-icon :icon="place.icon" size="24" aria-hidden="true" />
        <span>{{ place.name }}</span>
      </span>
    </template>
    <span class="gap" />
    <button
      v-if="studio.away || studio.waiting.length > 0"
      type="button"
      class="place-link waits"
      :class="{ trouble: studio.refused.length > 0 }"
      data-test="waits"
      @click="waitingOpen = true"
    >
      <v-icon :icon="mdiTrayFull" size="24" aria-hidden="true" />
      <span>{{ waits }}</span>
    </button>
    <v-btn
      :icon="mdiUndoVariant"
      :disabled="!studio.undoable"
      aria-label="Take back what was done last"
      :title="studio.undoable ? `Take back: ${studio.undoable.says} (Ctrl+Z)` : 'Nothing to take back'"
      @click="studio.undo()"
    />
    <v-btn :icon="mdiTuneVariant" aria-label="How you see" title="How you see" @click="settingsOpen = true" />
    <v-btn :icon="mdiKeyboardOutline" aria-label="Keys" title="Keys (?)" @click="emit('shortcuts')" />
    <SettingsSheet v-model="settingsOpen" />
    <WaitingSheet v-model="waitingOpen" />
  </nav>
</template>

<style scoped>
.waits {
  font-weight: 700;
}
.trouble {
  color: #ffb4a6;
}
.rail {
  grid-area: rail;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: var(--unit);
  padding: calc(4 * var(--unit)) 0 calc(2 * var(--unit));
  background: rgb(var(--v-theme-surface));
  overflow-y: auto;
}
.place-link {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: var(--unit);
  width: 100%;
  min-height: 62px;
  color: rgba(var(--v-theme-on-surface), 0.78);
  text-decoration: none;
  font-size: var(--size-note);
  border-left: 3px solid transparent;
  border-right: 3px solid transparent;
}
.place-link:hover {
  color: rgb(var(--v-theme-on-surface));
}
.here {
  color: rgb(var(--v-theme-primary));
  border-left-color: rgb(var(--v-theme-primary));
}
.closed {
  opacity: 0.62;
}
.gap {
  flex: 1;
}
@media (max-width: 900px) {
  .rail {
    flex-direction: row;
    padding: 0 var(--unit);
    overflow-x: auto;
  }
  .place-link {
    flex: 1;
    min-width: 68px;
    border: none;
    border-top: 3px solid transparent;
  }
  .here {
    border-top-color: rgb(var(--v-theme-primary));
  }
  .gap {
    display: none;
  }
}
</style>
