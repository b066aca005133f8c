<script setup lang="ts">
import { mlText } from '@dusk/core';
import type { Operation, PaintingDto } from '@dusk/wire';
import { computed, ref, watch } from 'vue';
import Field from '../controls/Field.vue';
import FileDrop from '../controls/FileDrop.vue';
import Sheet from '../controls/Sheet.vue';
import { newId } from '../floor/ids.ts';
import { counted, day } from '../floor/words.ts';
import { useLog } from '../stores/log.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { purposeWith } from '../stores/purpose.ts';

/** The end of a day: what becomes of what is left, one photo, what is next, the rags. None of it is needed. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ painting: PaintingDto }>();
const log = useLog();
const paintings = usePaintings();
const piles = usePiles();
const left = computed(() => piles.byValue.filter(({ there, stages }) => there > 0.05 && stages.length > 0));
const next = ref('');
const hasPhoto = ref(false);
/** What becomes of each: kept covered, wiped off, or neither. */
const fates = ref<Readonly<Record<string, 'covered' | 'off' | undefined>>>({});
watch(
  open,
  (now) => {
    if (!now) return;
    next.value = log.current?.row.note ?? '';
    hasPhoto.value = false;
    fates.value = Object.fromEntries(left.value.flatMap(({ id, purpose }) => (purpose.covered ? [[id, 'covered' as const]] : [])));
  },
  { immediate: true },
);
const all = (fate: 'covered' | 'off'): void => void (fates.value = Object.fromEntries(left.value.map(({ id }) => [id, fate])));
const turn = (id: string, fate: 'covered' | 'off'): void =>
  void (fates.value = { ...fates.value, [id]: fates.value[id] === fate ? undefined : fate });
async function photo(file: File): Promise<void> {
  hasPhoto.value = await paintings.addDayPhoto(props.painting.id, file, `${props.painting.title}, ${day(Date.now())}`);
}
/** A day is over after the last thing that was done in it, whatever this browser's clock says. */
const overAt = ({ row, lastAt }: NonNullable<typeof log.current>): string =>
  new Date(Math.max(Date.now(), Date.parse(row.openedAt), Date.parse(lastAt ?? row.openedAt))).toISOString();
async function end(): Promise<void> {
  const ops: Operation[] = left.value.flatMap((pile): Operation[] => {
    const fate = fates.value[pile.id];
    if (fate === 'off') return [{ do: 'stage.add', id: newId(), pileId: pile.id, kind: 'scraped', additions: [] }];
    const covered = fate === 'covered' || undefined;
    if ((pile.purpose.covered ?? false) === (covered ?? false)) return [];
    return [{ do: 'pile.change', id: pile.id, version: pile.version, purpose: purposeWith(pile.purpose, { covered }) }];
  });
  const { current } = log;
  const note = next.value.trim();
  if (current)
    ops.push({
      do: 'sitting.change',
      id: current.row.id,
      version: current.row.version,
      closedAt: overAt(current),
      ...(note !== current.row.note && { note }),
    });
  if (ops.length > 0 && !(await log.make(ops, 'The day is over'))) return;
  open.value = false;
}
</script>

<template>
  <Sheet v-model="open" label="End the day" wide judging>
    <h2>The end of the day</h2>
    <section v-if="left.length > 0" aria-label="What is left">
      <div class="head">
        <h3>{{ counted(left.length, 'pile') }} left</h3>
        <v-btn variant="outlined" data-test="cover-all" @click="all('covered')">Cover all</v-btn>
        <v-btn variant="outlined" data-test="wipe-all" @click="all('off')">Wipe all off</v-btn>
      </div>
      <ul class="bare">
        <li v-for="pile in left" :key="pile.id">
          <span class="chip" :style="{ background: piles.shownNow(pile) }" />
          <span
            >{{ pile.name }} <span class="quiet figures">{{ mlText(pile.there) }}</span></span
          >
          <button type="button" :aria-pressed="fates[pile.id] === 'covered'" @click="turn(pile.id, 'covered')">keep covered</button>
          <button type="button" :aria-pressed="fates[pile.id] === 'off'" @click="turn(pile.id, 'off')">wipe it off</button>
        </li>
      </ul>
    </section>
    <FileDrop label="One photo of how far it came" accept="image/*" data-test="day-photo" @file="photo">{{
      hasPhoto ? 'The photo is kept' : 'One photo of how far it came'
    }}</FileDrop>
    <Field v-model="next" label="What is next" maxlength="400" data-test="whats-next" />
    <p class="caution" role="note" data-test="rags">
      Oily rags can ignite by themselves: lay them flat to dry outdoors, or keep them in a lidded metal can with water. Lids on solvents and
      mediums; no paint, and no solvent, down the drain: labels, safety data sheets and local rules say how.
    </p>
    <div class="foot-keys">
      <v-btn @click="open = false">Not yet</v-btn>
      <button type="button" class="main-key" data-test="day-over" @click="end">The day is over</button>
    </div>
  </Sheet>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: calc(3 * var(--unit));
}
h3 {
  flex: 1;
}
li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto auto;
  gap: calc(3 * var(--unit));
  align-items: center;
  border-top: 1px solid currentColor;
}
li button {
  min-height: 48px;
  padding: 0 calc(2 * var(--unit));
}
li [aria-pressed='true'] {
  background: var(--surround-ink);
  color: var(--on-ink);
}
.chip {
  height: 32px;
}
.caution {
  border-left: 4px solid currentColor;
  padding-left: calc(3 * var(--unit));
  font-weight: 500;
}
</style>
