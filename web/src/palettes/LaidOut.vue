<script setup lang="ts">
import { mdiClose, mdiDotsVertical, mdiPlus } from '@mdi/js';
import type { PaletteDto } from '@dusk/wire';
import { PALETTE_MOST_TUBES } from '@dusk/wire/limits';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { useRoute, useRouter } from 'vue-router';
import Field from '../controls/Field.vue';
import { named } from '../controls/options.ts';
import Pick from '../controls/Pick.vue';
import { usePalettes } from '../stores/palettes.ts';
import { isBlack, isWhite, useTubes, type Tube } from '../stores/tubes.ts';
import { bestFirst, matches } from '../tubes/search.ts';
import TubeSwatch from '../tubes/TubeSwatch.vue';

/** The tubes of a palette in their order, moved by drag or by keys; more are looked for above them. */
const props = defineProps<{ palette: PaletteDto }>();
const route = useRoute();
const router = useRouter();
const palettes = usePalettes();
const tubes = useTubes();
const search = useTemplateRef('search');
const adding = ref(false);
const wanted = ref('');

const laidOut = computed(() => props.palette.tubeIds.flatMap((id) => tubes.byId.get(id) ?? []));
const full = computed(() => laidOut.value.length >= PALETTE_MOST_TUBES);
const candidates = computed(() =>
  bestFirst(
    tubes.all.filter((t) => !props.palette.tubeIds.includes(t.id) && matches(t, wanted.value)),
    wanted.value,
  ),
);
/** Of several whites one may be kept for the lights, laid thick; the others are then for tints. */
const whites = computed(() => laidOut.value.filter(isWhite));
const WHITES = computed(() => [{ value: null, title: 'any of its whites' }, ...named(whites.value)]);
const hasBlack = computed(() => laidOut.value.some(isBlack));
const DARKS = [
  { value: false, title: 'from the tube black, too' },
  { value: true, title: 'mixed, without tube black' },
];

const change = (tubeIds: readonly string[]): Promise<boolean> => palettes.change(props.palette.id, { tubeIds: [...tubeIds] });
/** While a hand drags, the order is the hand's. */
const dragged = ref<Tube[]>([]);
watch(laidOut, (now) => (dragged.value = [...now]), { immediate: true });
const letGo = (): void => {
  const ids = dragged.value.map(({ id }) => id);
  if (ids.join() !== props.palette.tubeIds.join()) void change(ids);
};
async function move(tube: Tube, by: -1 | 1): Promise<void> {
  const ids = [...props.palette.tubeIds];
  const at = ids.indexOf(tube.id);
  const to = at + by;
  if (to < 0 || to >= ids.length) return;
  ids.splice(to, 0, ...ids.splice(at, 1));
  await change(ids);
  await nextTick();
  document.querySelector<HTMLElement>(`[data-tube="${tube.id}"]`)?.focus();
}
const isGuest = ({ id }: Tube): boolean => props.palette.guestIds.includes(id);
const guests = computed(() => laidOut.value.filter(isGuest));
const turnGuest = (tube: Tube): Promise<boolean> =>
  palettes.change(props.palette.id, {
    guestIds: isGuest(tube) ? props.palette.guestIds.filter((id) => id !== tube.id) : [...props.palette.guestIds, tube.id],
  });
const sendAway = (): Promise<boolean> =>
  palettes.change(props.palette.id, {
    tubeIds: props.palette.tubeIds.filter((id) => !props.palette.guestIds.includes(id)),
    guestIds: [],
  });

async function lookFor(): Promise<void> {
  // What was typed while a new palette was on its way stays.
  if (!adding.value) wanted.value = '';
  adding.value = true;
  await nextTick();
  search.value?.focus();
}
/** Who came for one more tube goes back to where it was wanted. */
watch(
  () => route.query['add'],
  (asked) => asked && void lookFor(),
  { immediate: true },
);
function isDone(): void {
  adding.value = false;
  if (route.query['add']) router.back();
}
/** What comes before a tube is added, as a palette that is on its way. */
const before = defineModel<Promise<void> | undefined>('before');
/** Tubes are added one after another, each to those that came before it: a hand types faster than a studio answers. */
let last: Promise<unknown> = Promise.resolve();
function add(tube: Tube): Promise<unknown> {
  // The next tube has another name.
  const typed = wanted.value;
  wanted.value = '';
  search.value?.focus();
  last = last.then(async () => {
    await before.value;
    const { id } = props.palette;
    const tubeIds = palettes.byId.get(id)?.tubeIds;
    if (!tubeIds || tubeIds.includes(tube.id) || tubeIds.length >= PALETTE_MOST_TUBES) return;
    if (!(await palettes.change(id, { tubeIds: [...tubeIds, tube.id] })) && wanted.value === '') wanted.value = typed;
  });
  return last;
}
function addFirst(): void {
  const [first] = candidates.value;
  if (wanted.value.trim() !== '' && first && !full.value) void add(first);
}
const takeAway = (tube: Tube): Promise<boolean> => change(props.palette.tubeIds.filter((id) => id !== tube.id));
defineExpose({ lookFor, focus: () => search.value?.focus() });
</script>

<template>
  <div class="ways">
    <Pick
      v-if="whites.length > 1"
      :model-value="palette.lightsWhiteId"
      :options="WHITES"
      label="thick lights with"
      data-test="lights-white"
      @update:model-value="palettes.change(palette.id, { lightsWhiteId: $event ?? null })"
    />
    <Pick
      v-if="hasBlack && laidOut.length > 2"
      :model-value="palette.mixedDarks"
      :options="DARKS"
      label="darks"
      data-test="darks"
      @update:model-value="palettes.change(palette.id, { mixedDarks: $event ?? false })"
    />
    <p v-if="guests.length > 0 && guests.length < laidOut.length" data-test="guests">
      For this sitting: {{ guests.map(({ name }) => name).join(', ') }}.
      <v-btn variant="text" @click="sendAway">Take {{ guests.length === 1 ? 'it' : 'them' }} away again</v-btn>
    </p>
  </div>
  <v-btn v-if="!adding" variant="outlined" :prepend-icon="mdiPlus" :disabled="full" @click="lookFor">Add a tube</v-btn>
  <section v-else aria-label="Tubes to add" class="adding">
    <div class="search">
      <Field
        ref="search"
        v-model="wanted"
        label="Name, pigment or character; Enter adds the first"
        autofocus
        clearable
        @keydown.enter="addFirst"
        @keydown.esc.stop="isDone"
      />
      <v-btn @click="isDone">Done</v-btn>
    </div>
    <p v-if="full">A palette holds at most {{ PALETTE_MOST_TUBES }} tubes; take one away first.</p>
    <p v-else-if="candidates.length === 0">No tube of that name. Try a pigment, as PB29, or a word like transparent.</p>
    <div v-else class="tubes found" data-test="tubes-found">
      <TubeSwatch v-for="tube in candidates" :key="tube.id" :tube="tube">
        <v-btn
          :icon="mdiPlus"
          :aria-label="`Add ${tube.name}, ${tube.maker || 'generic'}`"
          :title="`Add ${tube.name}`"
          @click="add(tube)"
        />
      </TubeSwatch>
    </div>
  </section>
  <VueDraggable
    v-model="dragged"
    class="tubes"
    handle=".chips"
    force-fallback
    :delay="120"
    delay-on-touch-only
    data-test="laid-out"
    @end="letGo"
  >
    <div
      v-for="(tube, i) in dragged"
      :key="tube.id"
      :data-tube="tube.id"
      tabindex="0"
      class="place-of"
      :aria-label="`${tube.name}, ${i + 1} of ${dragged.length}; Alt and an arrow move it`"
      @keydown.alt.left.prevent="move(tube, -1)"
      @keydown.alt.right.prevent="move(tube, 1)"
    >
      <TubeSwatch :tube="tube" :note="isGuest(tube) ? 'for this sitting' : ''">
        <v-menu v-if="laidOut.length > 1">
          <template #activator="{ props: opens }">
            <v-btn v-bind="opens" :icon="mdiDotsVertical" :aria-label="`More of ${tube.name}`" />
          </template>
          <v-list>
            <v-list-item :title="isGuest(tube) ? 'It stays' : 'For this sitting only'" @click="turnGuest(tube)" />
            <v-list-item title="Earlier in the row" :disabled="i === 0" @click="move(tube, -1)" />
            <v-list-item title="Later in the row" :disabled="i === dragged.length - 1" @click="move(tube, 1)" />
            <v-list-item title="What it is" :to="{ name: 'tube', params: { tubeId: tube.id } }" />
          </v-list>
        </v-menu>
        <v-btn
          v-if="laidOut.length > 1"
          :icon="mdiClose"
          :aria-label="`Take ${tube.name} away`"
          :title="`Take ${tube.name} away`"
          @click="takeAway(tube)"
        />
      </TubeSwatch>
    </div>
  </VueDraggable>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 calc(6 * var(--unit));
}
.tubes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: calc(5 * var(--unit)) calc(4 * var(--unit));
  margin: calc(4 * var(--unit)) 0;
}
.place-of :deep(.chips) {
  cursor: grab;
}
/* What was found is seen at once, and what lies on the palette stays in sight below it. */
.found {
  max-height: 42vh;
  overflow-y: auto;
}
.search {
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
  max-width: 560px;
}
.search > .field {
  flex: 1;
}
</style>
