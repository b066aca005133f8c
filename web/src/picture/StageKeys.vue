<script setup lang="ts">
import { mdiArrowExpand, mdiCompare, mdiDrawPen, mdiFlipHorizontal, mdiGrid, mdiMapMarkerOutline, mdiPalette } from '@mdi/js';
import { useRouter } from 'vue-router';
import { usePaintings } from '../stores/paintings.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';

/** What goes with any look: the area that is read, what is drawn over the picture, and the picture by itself. */
const looking = useLooking();
const store = useReference();
const paintings = usePaintings();
const router = useRouter();

const toggleDraw = (): void => void (looking.hand = looking.hand === 'draws' ? 'points' : 'draws');
function openAlone(): void {
  const { href } = router.resolve({ name: 'picture', params: { paintingId: paintings.onEasel!.id } });
  window.open(href, 'dusk-picture', 'popup,width=1000,height=700');
}
</script>

<template>
  <div class="keys" role="toolbar" aria-label="Over the picture">
    <span class="area figures">
      <button type="button" aria-label="Smaller area" title="smaller area (−)" @click="store.resize(0.8)">−</button>
      <span data-test="area">area {{ store.radius }} px</span>
      <button type="button" aria-label="Larger area" title="larger area (+)" @click="store.resize(1.25)">+</button>
    </span>
    <button
      type="button"
      :aria-pressed="looking.hand === 'draws'"
      :class="{ on: looking.hand === 'draws' }"
      title="draw round an area (d)"
      @click="toggleDraw"
    >
      <v-icon :icon="mdiDrawPen" aria-hidden="true" /> <span>Draw round</span>
    </button>
    <button
      type="button"
      :aria-pressed="looking.asPaint"
      :class="{ on: looking.asPaint }"
      :disabled="!store.isKeyed"
      :title="store.isKeyed ? 'the picture through the key (p)' : 'set a key first'"
      @click="looking.asPaint = !looking.asPaint"
    >
      <v-icon :icon="mdiPalette" aria-hidden="true" /> <span>As paint</span>
    </button>
    <button
      type="button"
      :aria-pressed="looking.mirror"
      :class="{ on: looking.mirror }"
      title="mirrored (x)"
      @click="looking.mirror = !looking.mirror"
    >
      <v-icon :icon="mdiFlipHorizontal" aria-hidden="true" /> <span>Mirror</span>
    </button>
    <button type="button" :aria-pressed="looking.grid" :class="{ on: looking.grid }" title="grid (n)" @click="looking.grid = !looking.grid">
      <v-icon :icon="mdiGrid" aria-hidden="true" /> <span>Grid</span>
    </button>
    <button
      type="button"
      :aria-pressed="looking.lost"
      :class="{ on: looking.lost }"
      title="mark what the photo has lost (t)"
      @click="looking.lost = !looking.lost"
    >
      <span>Lost</span>
    </button>
    <button
      type="button"
      :aria-pressed="looking.marks"
      :class="{ on: looking.marks }"
      title="marks of what was kept (i)"
      @click="looking.marks = !looking.marks"
    >
      <v-icon :icon="mdiMapMarkerOutline" aria-hidden="true" /> <span>Marks</span>
    </button>
    <button
      v-if="!looking.isPlain || store.isKeyed"
      type="button"
      :aria-pressed="looking.without"
      :class="{ on: looking.without }"
      title="with and without (o)"
      @click="looking.without = !looking.without"
    >
      <v-icon :icon="mdiCompare" aria-hidden="true" /> <span>Without</span>
    </button>
    <button
      type="button"
      class="alone"
      aria-label="The picture alone, in a window of its own"
      title="The picture alone, in a window of its own"
      @click="openAlone"
    >
      <v-icon :icon="mdiArrowExpand" aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0;
  align-items: center;
  font-size: var(--size-note);
}
.keys button {
  display: flex;
  align-items: center;
  gap: var(--unit);
  min-height: 44px;
  min-width: 44px;
  justify-content: center;
  padding: 0 6px;
  border-radius: 3px;
}
.keys button:disabled {
  opacity: 0.55;
  cursor: default;
}
.area {
  display: flex;
  align-items: center;
}
.area button {
  font-size: var(--size-lead);
}
/* What lies over the picture is told more quietly than the look it is seen in. */
.on {
  box-shadow: inset 0 -3px 0 currentColor;
  font-weight: 700;
}
.alone {
  margin-left: auto;
}
@media (max-width: 600px), (max-height: 520px) {
  .keys {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .keys > * {
    flex: none;
  }
}
@media (forced-colors: active) {
  .on {
    outline: 3px solid Highlight;
  }
}
</style>
