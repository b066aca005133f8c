<script setup lang="ts">
import { SMALL } from '@dusk/wire/reads';
import { labOfDto } from '@dusk/wire/written';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useWhite } from '../floor/white.ts';
import Pick from '../controls/Pick.vue';
import { clock, counted, weekday } from '../floor/words.ts';
import { useLog } from '../stores/log.ts';
import { usePaintings } from '../stores/paintings.ts';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';

/** Sittings, the newest first, each by what was done in it. */
const log = useLog();
const paintings = usePaintings();
const white = useWhite();
const router = useRouter();
const MINUTE_MS = 60_000;

/** Half hours from now on, and the one that was said. */
const HALF_HOUR = 30 * MINUTE_MS;
const STOPS = 12;
const stops = computed(() => {
  const first = Math.ceil((log.at + MINUTE_MS) / HALF_HOUR) * HALF_HOUR;
  const halves = Array.from({ length: STOPS }, (_, i) => first + i * HALF_HOUR);
  const said = log.stopAt > log.at && !halves.includes(log.stopAt) ? [log.stopAt] : [];
  return [
    { value: 0, title: 'no time' },
    ...[...said, ...halves].map((moment) => ({ value: moment, title: clock(new Date(moment).toISOString()) })),
  ];
});
const photos = computed(() => paintings.all.flatMap(({ id }) => paintings.dayPhotosOf(id)));
const rows = computed(() =>
  log.sittings.map(({ row, lastAt, piles, areas }) => {
    const end = row.closedAt ?? lastAt ?? row.openedAt;
    const minutes = Math.round((Date.parse(end) - Date.parse(row.openedAt)) / MINUTE_MS);
    const ids = [...new Set([...piles, ...areas].flatMap(({ paintingId }) => paintingId ?? []))];
    const done = new Map<string, string[]>();
    for (const { kind, name } of areas) done.set(kind, [...(done.get(kind) ?? []), name]);
    return {
      row,
      day: weekday(row.openedAt),
      when: minutes > 0 ? `${clock(row.openedAt)} to ${clock(end)}, ${counted(minutes, 'minute')}` : clock(row.openedAt),
      titles: ids.flatMap((id) => paintings.byId.get(id)?.title ?? []).join(', '),
      piles,
      done: [...done].map(([kind, names]) => `${kind === 'touched' ? 'felt' : kind}: ${[...new Set(names)].join(', ')}`).join('; '),
      photos: photos.value.filter(
        ({ createdAt }) => createdAt >= row.openedAt && createdAt <= new Date(Date.parse(end) + 60 * MINUTE_MS).toISOString(),
      ),
    };
  }),
);
const open = (pileId: string, paintingId: string | null): void =>
  void (paintingId !== null && router.push({ name: 'mixing', params: { paintingId, pileId } }));
</script>

<template>
  <div class="days">
    <Pick v-model="log.stopAt" :options="stops" label="stop today at" data-test="stop-at" />
    <p v-if="rows.length === 0" class="first">No day is in the log yet: it begins by itself with the first pile that is mixed.</p>
    <ol class="bare">
      <li v-for="one in rows" :key="one.row.id" data-test="sitting">
        <div>
          <h2>{{ one.day }}</h2>
          <p class="quiet figures">
            {{ one.when }}<template v-if="one.row.light">, {{ one.row.light }}</template>
          </p>
          <p>{{ one.titles }}</p>
        </div>
        <div class="what">
          <div v-if="one.piles.length > 0" class="piles judging">
            <button
              v-for="pile in one.piles"
              :key="pile.pileId"
              type="button"
              :title="pile.name"
              :aria-label="pile.name"
              :style="{ background: pile.lab ? white.shown(labOfDto(pile.lab)).css : 'transparent' }"
              @click="open(pile.pileId, pile.paintingId)"
            />
          </div>
          <p v-if="one.done">{{ one.done }}</p>
          <p v-if="one.row.note" class="note">{{ one.row.note }}</p>
          <div v-if="one.photos.length > 0" class="photos">
            <template v-for="photo in one.photos" :key="photo.id"
              ><img v-if="!isLocal(photo.pictureId)" :src="pictureUrl(photo.pictureId) + SMALL" :alt="photo.name"
            /></template>
          </div>
        </div>
      </li>
    </ol>
    <v-btn v-if="log.next !== undefined" variant="outlined" data-test="older" @click="log.loadOlder()">Older days</v-btn>
  </div>
</template>

<style scoped>
.days {
  min-height: 0;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(220px, 2fr) minmax(0, 5fr);
  gap: calc(6 * var(--unit));
  padding: calc(4 * var(--unit)) 0;
  border-top: 1px solid rgba(var(--v-theme-on-background), 0.3);
}
.what {
  display: grid;
  align-content: start;
  gap: calc(2 * var(--unit));
}
.piles {
  display: flex;
  flex-wrap: wrap;
  gap: var(--unit);
  padding: calc(2 * var(--unit));
  justify-self: start;
}
.piles button {
  width: 52px;
  height: 44px;
}
.note {
  font-style: italic;
}
.photos img {
  height: 120px;
  margin-right: calc(2 * var(--unit));
}
.first {
  font-size: var(--size-lead);
}
@media (orientation: portrait) {
  .days {
    overflow: visible;
  }
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: calc(2 * var(--unit));
  }
}
</style>
