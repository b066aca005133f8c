<script setup lang="ts">
import { mdiBrush, mdiCalendarTextOutline, mdiCardsOutline, mdiImageOutline, mdiPalette, mdiPaletteSwatchOutline } from '@mdi/js';
import { computed } from 'vue';
import { usePaintings } from '../stores/paintings.ts';

/** A paint tube, cap up; the icon set has none. */
const TUBE_ICON = 'M10 2h4v3h-4zM9 6h6l1 2.5V19H8V8.500zM7 20h10v2H7z';
const paintings = usePaintings();

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
    { name: 'Log', icon: mdiCalendarTextOutline, to: inside('log') },
    { name: 'Cards', icon: mdiCardsOutline, to: { name: 'cards' } },
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
  </nav>
</template>

<style scoped>
.rail {
  grid-area: rail;
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding-top: calc(2 * var(--unit));
  background: rgb(var(--v-theme-surface));
  overflow-y: auto;
}
.place-link {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
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
/* Upright it is a bar at the foot, where the thumb is. */
@media (orientation: portrait) {
  .rail {
    flex-direction: row;
    padding: 0;
  }
  .place-link {
    flex: 1;
    min-width: 0;
    min-height: 56px;
    border: none;
    border-top: 3px solid transparent;
  }
  .here {
    border-top-color: rgb(var(--v-theme-primary));
  }
}
/* A window that is hardly higher than a hand: no room for both picture and word. */
@media (orientation: landscape) and (max-height: 520px) {
  .place-link {
    min-height: 44px;
  }
  .place-link span {
    display: none;
  }
}
</style>
