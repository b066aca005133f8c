<script setup lang="ts">
import { addedInPlace, IN_PLACE, labOf, reflectance, type InPlace } from '@dusk/core';
import { mdiClose } from '@mdi/js';
import type { PileDto, PurposeDto } from '@dusk/wire';
import { MOST_IN_PLACE } from '@dusk/wire/limits';
import { computed, ref } from 'vue';
import Pick from '../controls/Pick.vue';
import { useWhite } from '../floor/white.ts';
import { usePiles } from '../stores/piles.ts';
import { purposeWith } from '../stores/purpose.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useTubes } from '../stores/tubes.ts';

/** What is added to a pile on the canvas, not on the palette: kept with it, and seen. */
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const tubes = useTubes();
const desk = useDesk();
const white = useWhite();

type Added = NonNullable<PurposeDto['inPlace']>[number];
const much = ref<InPlace>('a touch');
const MUCH = IN_PLACE.map((value) => ({ value, title: value }));
const added = computed(() => props.pile.purpose.inPlace ?? []);
const sources = computed(() => [
  { value: '', title: 'nothing' },
  ...desk.paletteTubes.map(({ id, name }) => ({ value: `tube ${id}`, title: name })),
  ...piles.ofRank.filter(({ id }) => id !== props.pile.id).map(({ id, name }) => ({ value: `pile ${id}`, title: name })),
]);
const rows = computed(() => {
  let paint = desk.paintOfPile(props.pile.id);
  return added.value.flatMap((one, at) => {
    const tube = tubes.byId.get(one.tubeId ?? '');
    const pile = piles.byId.get(one.pileId ?? '');
    const what = tube?.paint ?? (pile && desk.paintOfPile(pile.id));
    if (!what) return [];
    paint = addedInPlace(paint, what, one.said);
    return [{ at, says: `${one.said} ${tube?.name ?? pile!.name}`, lab: labOf(reflectance(paint)) }];
  });
});
const keep = (next: readonly Added[]): Promise<boolean> =>
  piles.change(
    props.pile.id,
    { purpose: purposeWith(props.pile.purpose, { inPlace: next.length > 0 ? next : undefined }) },
    `What is added to “${props.pile.name}” in place`,
  );
function add(source: string | undefined): void {
  const [kind, id] = (source ?? '').split(' ');
  if (!id) return;
  void keep([...added.value, { ...(kind === 'tube' ? { tubeId: id } : { pileId: id }), said: much.value }]);
}
</script>

<template>
  <section aria-label="Added in place">
    <div class="pair">
      <Pick v-model="much" :options="MUCH" label="in place" data-test="in-place-much" />
      <Pick
        v-if="added.length < MOST_IN_PLACE"
        model-value=""
        :options="sources"
        aria-label="What is added in place"
        data-test="in-place"
        @update:model-value="add"
      />
    </div>
    <ul v-if="rows.length > 0" class="bare">
      <li v-for="row in rows" :key="row.at" data-test="added-in-place">
        <span class="chip" :style="{ background: white.shown(row.lab).css }" />
        <span>{{ row.says }}</span>
        <v-btn :icon="mdiClose" :aria-label="`Not ${row.says}`" @click="keep(added.filter((_, i) => i !== row.at))" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
}
li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: center;
}
.chip {
  height: 32px;
}
</style>
