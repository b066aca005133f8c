<script setup lang="ts">
import { compareColours, isInsideOut, isTube, leavesOf, strengthOf, type Lab } from '@dusk/core';
import type { PileDto, PurposeDto } from '@dusk/wire';
import { MOST_LAYERS, MOST_NEIGHBOURS } from '@dusk/wire/limits';
import { computed, ref, watch } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useSamples } from '../stores/samples.ts';
import { useTubes } from '../stores/tubes.ts';
import { apartText } from '../floor/words.ts';
import { purposeWith, type Part } from '../stores/purpose.ts';
import { useSettings } from '../stores/settings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import Pick from '../controls/Pick.vue';
import { named, ZONES_OR_NONE } from '../controls/options.ts';

/** What a pile is for: thing, zone and layer, where else it serves, what it stands beside, whether it is left broken; a note. */
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const tubes = useTubes();
const samples = useSamples();
const paintings = usePaintings();
const settings = useSettings();

const purpose = computed(() => props.pile.purpose);
const own = computed(() => samples.all.find(({ id }) => id === props.pile.sampleId));
const thing = computed(() => purpose.value.thing ?? own.value?.thing ?? '');
const zone = computed(() => purpose.value.zone ?? own.value?.zone ?? '');

/** A light of a thing that is darker than its shadow is hardly meant so. */
const IN_LIGHT: readonly string[] = ['light', 'halftone', 'highlight'];
const insideOut = computed(() => {
  if (thing.value === '' || !(IN_LIGHT.includes(zone.value) || zone.value === 'shadow')) return undefined;
  const zoneOf = (pile: PileDto): string => pile.purpose.zone ?? samples.all.find(({ id }) => id === pile.sampleId)?.zone ?? '';
  const thingOf = (pile: PileDto): string => pile.purpose.thing ?? samples.all.find(({ id }) => id === pile.sampleId)?.thing ?? '';
  return piles.ofRank.find((other) => {
    if (other.id === props.pile.id || thingOf(other) !== thing.value) return false;
    const [at, own] = [zoneOf(other), zone.value];
    if (IN_LIGHT.includes(own) && at === 'shadow') return isInsideOut(lookNow(props.pile), lookNow(other));
    return own === 'shadow' && IN_LIGHT.includes(at) && isInsideOut(lookNow(other), lookNow(props.pile));
  });
});

/** Changes a part of what it is for; nothing given takes it away. */
const say = (part: Part<PurposeDto>): Promise<boolean> =>
  piles.change(props.pile.id, { purpose: purposeWith(purpose.value, part) }, `What “${props.pile.name}” is for`);
const others = computed(() => piles.ofRank.filter(({ id }) => id !== props.pile.id));
const otherPiles = computed(() => named(others.value));
const LAYERS = Array.from({ length: MOST_LAYERS }, (_, i) => ({ value: i + 1, title: String(i + 1) }));
const neighbours = computed(() => purpose.value.neighbours ?? []);
const slots = computed(() => [...neighbours.value, ...(neighbours.value.length < MOST_NEIGHBOURS ? [undefined] : [])]);
function neighbour(at: number, pileId: string): Promise<boolean> {
  const kept = neighbours.value.filter((_, i) => i !== at);
  const next = pileId === '' ? kept : [...kept.slice(0, at), { pileId }, ...kept.slice(at)];
  return say({ neighbours: next.length > 0 ? next : undefined });
}
/** Distances that are kept, as they are called on the page and for ears. */
const DISTANCES = [
  { which: 'apart', title: 'values apart', label: 'At least so many values apart' },
  { which: 'least', title: 'not nearer than', label: 'Least difference' },
  { which: 'most', title: 'not further than', label: 'Most difference' },
] as const;
function distance(at: number, which: (typeof DISTANCES)[number]['which'], text: string): Promise<boolean> | undefined {
  const number = Number(text.trim().replace(',', '.'));
  if (text.trim() !== '' && !(number >= 0 && number <= 60)) return undefined;
  return say({
    neighbours: neighbours.value.map((one, i) => {
      if (i !== at) return one;
      const rest = Object.fromEntries(Object.entries(one).filter(([name]) => name !== which)) as unknown as typeof one;
      return text.trim() === '' ? rest : { ...rest, [which]: number };
    }),
  });
}
/** What may show where a pile is left broken: whatever is in its plan. */
const inside = computed(() => [
  ...new Map(
    leavesOf(props.pile.plan).map(({ source }) => {
      const id = isTube(source) ? source.tube : source.pile;
      return [id, { id, name: tubes.byId.get(id)?.name ?? piles.byId.get(id)?.name ?? 'something that is gone' }] as const;
    }),
  ).values(),
]);
const showing = computed(() => purpose.value.showing ?? []);
const turnShowing = (id: string): Promise<boolean> =>
  say({ showing: showing.value.includes(id) ? showing.value.filter((one) => one !== id) : [...showing.value, id] });
const also = computed(() => purpose.value.also ?? []);
const places = computed(() => samples.all.filter(({ id }) => id !== props.pile.sampleId));
const turnPlace = (id: string): Promise<boolean> => {
  const next = also.value.includes(id) ? also.value.filter((one) => one !== id) : [...also.value, id];
  return say({ also: next.length > 0 ? next : undefined });
};
const placeCalled = ({ thing: of, zone: at, id }: (typeof places.value)[number]): string =>
  [at, of].filter(Boolean).join(' of ') || (piles.list.find(({ sampleId }) => sampleId === id)?.name ?? 'a place');

const note = ref('');
watch(
  () => props.pile.note,
  (now) => (note.value = now),
  { immediate: true },
);
const saveNote = (): Promise<boolean> | false =>
  note.value !== props.pile.note && piles.change(props.pile.id, { note: note.value.slice(0, 2000) }, `A note on “${props.pile.name}”`);

/** How this pile stands to a neighbour, in figures: value, temperature, and how far they are told apart. */
function standsTo(id: string): string {
  const other = piles.byId.get(id);
  return other ? apartText(compareColours(lookNow(props.pile), lookNow(other), settings.settings.warmBlue)) : '';
}
const ceiling = computed(() => paintings.onEasel?.ceiling ?? undefined);
const strength = (lab: Lab): string => strengthOf(lab).toFixed(1);
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value;
</script>

<template>
  <div class="purpose">
    <div class="pair">
      <label class="thing"
        >thing
        <input
          :value="thing"
          maxlength="80"
          list="things-of-piles"
          placeholder="which thing?"
          data-test="pile-thing"
          @change="say({ thing: valueOf($event).trim() || undefined })"
        />
        <datalist id="things-of-piles"><option v-for="one in samples.things" :key="one" :value="one" /></datalist>
      </label>
      <Pick
        :model-value="zone"
        :options="ZONES_OR_NONE"
        label="zone"
        data-test="pile-zone"
        @update:model-value="say({ zone: $event || undefined })"
      />
      <Pick
        :model-value="pile.layer"
        :options="LAYERS"
        label="layer"
        data-test="pile-layer"
        @update:model-value="piles.change(pile.id, { layer: $event! }, `Layer of “${pile.name}”`)"
      />
    </div>
    <section aria-label="Beside">
      <h2>Stands beside</h2>
      <div v-for="(one, at) in slots" :key="at" class="neighbour">
        <Pick
          :model-value="one?.pileId ?? ''"
          :options="[{ value: '', title: 'nothing' }, ...otherPiles]"
          :aria-label="`Neighbour ${at + 1}`"
          :data-test="`neighbour-${at + 1}`"
          @update:model-value="neighbour(at, $event!)"
        />
        <template v-if="one">
          <label v-for="{ which, title, label } in DISTANCES" :key="which" class="distance"
            >{{ title }}
            <input
              :value="one[which] ?? ''"
              inputmode="decimal"
              :aria-label="label"
              placeholder="–"
              @change="distance(at, which, valueOf($event))"
          /></label>
          <p class="figures stands">{{ standsTo(one.pileId) }}</p>
        </template>
      </div>
      <p v-if="neighbours.length > 0" class="quiet">
        Nearer and further: 1 is barely told from it, 5 is clear of it. Held while others are made from this pile.
      </p>
    </section>
    <section aria-label="Mixed through or broken">
      <label class="tick"
        ><input
          type="checkbox"
          :checked="purpose.leftBroken ?? false"
          @change="say({ leftBroken: purpose.leftBroken ? undefined : true, showing: undefined })"
        />
        leave it broken</label
      >
      <div v-if="purpose.leftBroken" class="ticks" role="group" aria-label="What shows in it">
        <label v-for="one in inside" :key="one.id" class="tick"
          ><input type="checkbox" :checked="showing.includes(one.id)" @change="turnShowing(one.id)" /> {{ one.name }} shows</label
        >
      </div>
    </section>
    <section v-if="places.length > 0" aria-label="Where it serves">
      <h2>Serves also at</h2>
      <div class="ticks">
        <label v-for="place in places" :key="place.id" class="tick"
          ><input type="checkbox" :checked="also.includes(place.id)" @change="turnPlace(place.id)" /> {{ placeCalled(place) }}</label
        >
      </div>
    </section>
    <label class="note"
      >note
      <textarea v-model="note" rows="3" maxlength="2000" data-test="pile-note" @change="saveNote" />
    </label>
    <p v-if="insideOut" role="status" data-test="inside-out">
      The light of {{ thing }} is darker than its shadow: {{ zone === 'shadow' ? insideOut.name : pile.name }} beside
      {{ zone === 'shadow' ? pile.name : insideOut.name }}.
    </p>
    <p v-if="ceiling !== undefined" class="figures">
      Brightness {{ strength(lookNow(pile)) }}; it may get {{ ceiling.toFixed(1)
      }}<b v-if="strengthOf(lookNow(pile)) > ceiling + 0.05">: brighter than that</b>
    </p>
  </div>
</template>

<style scoped>
.purpose {
  display: grid;
  gap: calc(4 * var(--unit));
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
}
label {
  font-size: var(--size-note);
}
input:not([type='checkbox']),
textarea {
  width: 100%;
  min-height: 44px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
  font-size: var(--size-text);
}
textarea {
  border: 1px solid currentColor;
  padding: calc(2 * var(--unit));
  resize: vertical;
}
.thing {
  grid-column: 1 / -1;
}
.neighbour {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: calc(3 * var(--unit));
  align-items: end;
}
.stands {
  grid-column: 1 / -1;
}
.ticks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(180px, 100%), 1fr));
  max-height: 200px;
  overflow-y: auto;
}
.tick {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
  min-height: 44px;
}
</style>
