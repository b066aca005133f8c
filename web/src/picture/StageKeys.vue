<script setup lang="ts">
import { mdiDrawPen, mdiMapMarkerOutline } from '@mdi/js';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import MoreKeys from '../controls/MoreKeys.vue';
import { usePaintings } from '../stores/paintings.ts';
import { useLooking, type Panel } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';

/** What goes with any look: the area that is read, what is drawn over the picture, what is done to it; the rest behind one key. */
const looking = useLooking();
const store = useReference();
const paintings = usePaintings();
const router = useRouter();

const toggleDraw = (): void => void (looking.hand = looking.hand === 'draws' ? 'points' : 'draws');
function openAlone(): void {
  const { href } = router.resolve({ name: 'picture', params: { paintingId: paintings.onEasel!.id } });
  window.open(href, 'dusk-picture', 'popup,width=1000,height=700');
}
/** How large the area is that is read, as a hand would say it. */
const AREAS = [
  [2, 'a point'],
  [5, 'a speck'],
  [12, 'a touch'],
  [25, 'a dab'],
  [Infinity, 'a broad dab'],
] as const;
const area = computed(() => AREAS.find(([most]) => store.radius <= most)![1]);

const pictures = computed(() =>
  store.all.length > 1 ? `Picture ${store.all.findIndex(({ id }) => id === store.reference?.id) + 1} of ${store.all.length}` : 'Pictures',
);
const doors = computed((): readonly { readonly id: Panel; readonly title: string; readonly says: string }[] => [
  { id: 'propose', title: 'Propose', says: 'the few colours of it that matter (q)' },
  { id: 'plan', title: 'Plan', says: 'a few flat shapes, each of a colour that is said (l)' },
  { id: 'prepare', title: 'Frame', says: 'how it is framed, squared, and the light it was taken in' },
  { id: 'key', title: 'Key', says: 'how light and how dark it is painted' },
  { id: 'pictures', title: pictures.value, says: 'the pictures of this painting' },
]);
const turnTo = (panel: Panel): void => void (looking.panel = looking.panel === panel ? 'colour' : panel);
const more = computed(() => [
  { title: 'Try a change', key: 'j', on: looking.panel === 'try', run: () => turnTo('try') },
  { title: 'Hold the canvas against it', key: 'z', on: looking.panel === 'canvas', run: () => turnTo('canvas') },
  { title: 'Grid', key: 'n', on: looking.grid, run: () => (looking.grid = !looking.grid) },
  { title: 'Mirror', key: 'x', on: looking.mirror, run: () => (looking.mirror = !looking.mirror) },
  ...(store.isKeyed ? [{ title: 'As paint', key: 'p', on: looking.asPaint, run: () => (looking.asPaint = !looking.asPaint) }] : []),
  { title: 'What the photo lost', key: 't', on: looking.lost, run: () => (looking.lost = !looking.lost) },
  ...(!looking.isPlain || store.isKeyed
    ? [{ title: 'Without all that', key: 'o', on: looking.without, run: () => (looking.without = !looking.without) }]
    : []),
  { title: 'The picture alone', label: 'The picture alone, in a window of its own', run: openAlone },
]);
/** Where there is little room all of it is behind the one key. */
const all = computed(() => [
  { title: 'Draw round', key: 'd', on: looking.hand === 'draws', run: toggleDraw },
  { title: 'Marks', key: 'i', on: looking.marks, run: () => (looking.marks = !looking.marks) },
  { title: 'A larger area', key: '+', run: () => store.resize(1.25) },
  { title: 'A smaller area', key: '−', run: () => store.resize(0.8) },
  ...doors.value.map(({ id, title }) => ({ title, on: looking.panel === id, run: () => turnTo(id) })),
  ...more.value,
]);
</script>

<template>
  <div class="keys" role="toolbar" aria-label="Over the picture">
    <span class="area figures" data-test="area" :data-radius="store.radius">
      <button type="button" aria-label="Smaller area" title="smaller area (−)" @click="store.resize(0.8)">−</button>
      <span>{{ area }}</span>
      <button type="button" aria-label="Larger area" title="larger area (+)" @click="store.resize(1.25)">+</button>
    </span>
    <button
      type="button"
      class="tool"
      :aria-pressed="looking.hand === 'draws'"
      :class="{ on: looking.hand === 'draws' }"
      title="draw round an area (d)"
      @click="toggleDraw"
    >
      <v-icon :icon="mdiDrawPen" aria-hidden="true" /> <span>Draw round</span>
    </button>
    <button
      type="button"
      class="tool"
      :aria-pressed="looking.marks"
      :class="{ on: looking.marks }"
      title="marks of what was kept (i)"
      @click="looking.marks = !looking.marks"
    >
      <v-icon :icon="mdiMapMarkerOutline" aria-hidden="true" /> <span>Marks</span>
    </button>
    <span class="gap" />
    <button
      v-for="door in doors"
      :key="door.id"
      type="button"
      class="tool"
      data-test="door"
      :aria-pressed="looking.panel === door.id"
      :class="{ on: looking.panel === door.id }"
      :title="door.says"
      @click="turnTo(door.id)"
    >
      {{ door.title }}
    </button>
    <MoreKeys class="some" :keys="more" label="More over the picture" />
    <MoreKeys class="everything" :keys="all" label="What is done with the picture" />
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  align-items: center;
  font-size: var(--size-note);
}
.keys button:not(.v-btn) {
  display: flex;
  align-items: center;
  gap: var(--unit);
  min-height: 44px;
  min-width: 44px;
  justify-content: center;
  padding: 0 calc(2 * var(--unit));
}
.area {
  display: flex;
  align-items: center;
}
.area > span {
  min-width: 68px;
  text-align: center;
}
.area button {
  font-size: var(--size-lead);
}
.on {
  box-shadow: inset 0 -3px 0 currentColor;
  font-weight: 700;
}
.gap {
  flex: 1;
}
.keys :deep(.everything) {
  display: none;
}
@media (max-width: 600px), (max-height: 520px) {
  .area,
  .tool,
  .keys :deep(.some),
  .gap {
    display: none !important;
  }
  .keys :deep(.everything) {
    display: inline-flex;
  }
}
@media (forced-colors: active) {
  .on {
    outline: 3px solid Highlight;
  }
}
</style>
