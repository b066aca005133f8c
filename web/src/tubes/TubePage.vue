<script setup lang="ts">
import { mdiArrowLeft } from '@mdi/js';
import { valueOfLightness } from '@dusk/core';
import type { Operation, TaughtDto } from '@dusk/wire';
import { mixtureDto } from '@dusk/wire/written';
import { mixtureOf } from '@dusk/core';
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { surroundStyle } from '../chips/surround.ts';
import DrawnOut from '../chips/DrawnOut.vue';
import EditableName from '../controls/EditableName.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import { newId } from '../floor/ids.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useWhite } from '../floor/white.ts';
import { day } from '../floor/words.ts';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { recipeFrom } from '../stores/laid.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { isWhite, useTubes } from '../stores/tubes.ts';
import { useStudio } from '../studio/useStudio.ts';
import { learntOf } from './learnt.ts';
import { bendOf, leanOf, strengthOf, TINTS, tintsOf } from './lean.ts';
import TubeFacts from './TubeFacts.vue';
import { useAlike } from './useAlike.ts';

/** One tube as a painter knows it: straight, in tints, thin; how it leans, how strong, where it lies among the others, and what taught it. */
const TeachSheet = defineAsyncComponent(() => import('./TeachSheet.vue'));
const RackChart = defineAsyncComponent(() => import('./RackChart.vue'));
const route = useRoute();
const router = useRouter();
const studio = useStudio();
const tubes = useTubes();
const settings = useSettings();
const landing = useLanding();
const paintings = usePaintings();
const piles = usePiles();
const desk = useDesk();
const shows = useWhite();

const tube = computed(() => tubes.byId.get(String(route.params['tubeId'])));
const white = computed(
  () => tubes.all.find(({ pigment, maker }) => pigment === 'titanium-white' && maker === '') ?? tubes.all.find(isWhite),
);
const tints = computed(() => (tube.value && white.value ? tintsOf(tube.value.paint, white.value.paint) : []));
const ink = computed(() => surroundStyle(settings.settings.surround, paintings.onEasel?.ground ?? '#7b7b7b')['--surround-ink']);
/** The rack it stands in: one's own tubes where it is one of them, else all. */
const rack = computed(() => (tube.value?.maker ? tubes.all.filter(({ maker }) => maker !== '') : tubes.all));
const placed = computed(() => rack.value.map(({ id, name, masstone }) => ({ id, name, lab: masstone })));
const own = computed(() => tube.value?.maker !== '');

const strength = computed(() => (tube.value && white.value ? strengthOf(tube.value.paint, white.value.paint) : undefined));
const strengthSays = computed(() => {
  if (strength.value === undefined || !white.value) return '';
  const all = rack.value.flatMap((one) => strengthOf(one.paint, white.value!.paint) ?? []).sort((a, b) => a - b);
  const at = all.filter((one) => one < strength.value!).length / Math.max(1, all.length - 1);
  const word =
    at > 0.85
      ? 'among the strongest here'
      : at > 0.6
        ? 'strong'
        : at > 0.35
          ? 'of middling strength'
          : at > 0.12
            ? 'weak'
            : 'among the weakest here';
  return `${word}: one part brings ${strength.value < 1 ? strength.value.toFixed(1) : Math.round(strength.value)} of white to value ${settings.valueText(6)}`;
});
const says = computed(() => {
  if (!tube.value) return [];
  return [leanOf(tube.value, rack.value, settings.settings.warmBlue), strengthSays.value, bendOf(tints.value), tube.value.character].filter(
    Boolean,
  );
});

/* What is alike, and what makes it. */
const alike = useAlike(() => (tube.value ? rack.value : []));
const nameOf = (id: string): string => tubes.byId.get(id)?.name.toLowerCase() ?? 'another tube';
/** With its maker, where the names alone are one. */
const calledBeside = (id: string): string => {
  const one = tubes.byId.get(id);
  return one && one.name === tube.value?.name && one.maker !== '' ? `${one.name}, ${one.maker}` : (one?.name ?? 'another tube');
};
const twins = computed(() =>
  (alike.value?.alike ?? []).flatMap(({ ids, apart, isOnePigment }) => {
    const other = ids[0] === tube.value?.id ? ids[1] : ids[1] === tube.value?.id ? ids[0] : undefined;
    return other === undefined ? [] : [{ id: other, apart, isOnePigment }];
  }),
);
const made = computed(() => alike.value?.readyMade.find(({ id }) => id === tube.value?.id));

/* What taught it. */
const looks = shallowRef<readonly TaughtDto[]>([]);
watch(
  () => `${tube.value?.id} ${tube.value?.stateId}`,
  async () => {
    const id = tube.value?.id;
    if (id === undefined) return;
    await studio.load('tube', id).catch(() => undefined);
    const found = await studio.ask('taught', id);
    if (tube.value?.id === id) looks.value = found?.looks ?? [];
  },
  { immediate: true },
);
const readings = computed(() =>
  [...studio.rows.readings.values()].filter(({ tubeId, withdrawnAt }) => tubeId === tube.value?.id && withdrawnAt === null),
);
const withWhite = (reading: (typeof readings.value)[number]): string => {
  const of = reading.patch.heaps.at(-1)!.ingredients;
  const self = of.filter((one) => 'tube' in one && one.tube === tube.value?.id).reduce((sum, { parts }) => sum + parts, 0);
  const rest = of.reduce((sum, { parts }) => sum + parts, 0) - self;
  return rest === 0 ? 'as it comes' : `1 to ${Math.round((10 * rest) / self) / 10} of white`;
};
/** Letters of a date that are its minute. */
const TO_THE_MINUTE = 16;
const list = computed(() =>
  [
    ...readings.value.map((one) => ({
      id: one.id,
      at: one.at,
      lab: one.lab,
      says: `a swatch ${withWhite(one)}${one.spectrum ? ', read by a reader' : ''}`,
      order: withWhite(one) === 'as it comes' ? 0 : Number.parseFloat(withWhite(one).slice('1 to '.length)),
      off: false,
      back: { do: 'reading.withdraw', id: one.id } as Operation,
    })),
    ...looks.value.map((one) => ({
      id: one.lookId,
      at: one.at,
      lab: one.lab,
      says: `“${one.pile}”, ${({ eye: 'seen by eye', photo: 'from a photo', reader: 'by a reader', typed: 'typed', words: 'in words' } as Record<string, string>)[one.kind] ?? one.kind}`,
      order: -1,
      off: one.refusedAt !== null,
      back: { do: one.refusedAt === null ? 'belief.refuse' : 'belief.accept', id: one.beliefId } as Operation,
    })),
  ].sort((one, other) => other.at.slice(0, TO_THE_MINUTE).localeCompare(one.at.slice(0, TO_THE_MINUTE)) || one.order - other.order),
);
async function turnBack(op: Operation, wasOff: boolean): Promise<void> {
  if (!(await studio.make([op], wasOff ? 'It teaches again' : 'Taken back'))) return;
  const id = tube.value?.id;
  if (id === undefined) return;
  const found = await studio.ask('taught', id);
  if (tube.value?.id === id) looks.value = found?.looks ?? [];
}
const forgetSwatches = (): Promise<boolean> =>
  studio.make(
    readings.value.map(({ id }): Operation => ({ do: 'reading.withdraw', id })),
    'As it was before it was taught',
  );

/* What is done with it. */
const teaching = ref(false);
const wasAsked = ref(false);
function teach(): void {
  wasAsked.value = teaching.value = true;
}
/** Another tube of the same paint: begun as this one is known. */
async function another(): Promise<void> {
  const { id, name, pigments, maker, sizeMl, nozzleMm } = tube.value!;
  const fresh = newId();
  const op: Operation = {
    do: 'tube.add',
    id: fresh,
    name,
    pigments: [...pigments],
    likeId: id,
    maker: maker || 'mine',
    nozzleMm,
    ...(sizeMl !== null && { sizeMl, leftMl: sizeMl }),
  };
  if (await studio.make([op], `A new tube of “${name}”`)) await router.push({ name: 'tube', params: { tubeId: fresh } });
}
async function putAway(): Promise<void> {
  const { id, version, name } = tube.value!;
  if (await studio.make([{ do: 'tube.delete', id, version }], `“${name}” put away`)) await router.push({ name: 'tubes' });
}
const bringBack = (): Promise<boolean> =>
  studio.make([{ do: 'tube.restore', id: tube.value!.id, version: tube.value!.version }], `“${tube.value!.name}” is back`);
/** Laid down as a pile, to lie beside mixtures, begin a row of steps or be a target. */
async function layDown(): Promise<void> {
  const { id, stateId, name, masstone } = tube.value!;
  const plan = mixtureDto(mixtureOf([{ tube: id, state: stateId, parts: 1 }]));
  const called = piles.names.has(name) ? `${name}, straight` : name;
  const kept = await piles.keep({ name: called.slice(0, 80), lab: masstone, plan, ml: settings.settings.amountMl });
  if (kept) await router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId: kept.pileId } });
}
/** Its colour as a pile from the other tubes of the palette on the easel. */
async function fromOthers(): Promise<void> {
  const { id, name, masstone } = tube.value!;
  const others = desk.paletteTubes.filter((one) => one.id !== id);
  if (others.length === 0) return;
  const ml = settings.settings.amountMl;
  const best = await recipeFrom(others, masstone, ml);
  if (!best) return;
  const called = `${name}, mixed`.slice(0, 80);
  const kept = await piles.keep({ name: called, lab: masstone, plan: mixtureDto(best.mixture), ml });
  if (kept) await router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId: kept.pileId } });
}
useShortcuts(() => [
  { key: 'm', run: () => paintings.onEasel && void fromOthers() },
  { key: 't', run: teach },
  { key: 'n', run: () => void another() },
  { key: 'l', run: () => paintings.onEasel && void layDown() },
]);
const MORE = computed(() => [
  { title: 'New tube of the same paint', key: 'n', run: another, test: 'another' },
  ...(paintings.onEasel
    ? [{ title: `Lay it down as a pile for “${paintings.onEasel.title}”`, key: 'l', run: layDown, test: 'lay-down' }]
    : []),
  ...(paintings.onEasel ? [{ title: 'Mix it from the others', key: 'm', run: fromOthers, test: 'from-others' }] : []),
  ...(readings.value.length > 0 ? [{ title: 'Forget what swatches taught', run: forgetSwatches, test: 'forget' }] : []),
  ...(own.value && tube.value?.deletedAt === null ? [{ title: 'Put it away', run: putAway, test: 'put-away' }] : []),
]);
const basisSays = computed(() => {
  const at = tube.value?.learnt?.basis ?? tube.value?.basis;
  return at === 'fitted' || at === 'measured'
    ? `by ${readings.value.length} swatches that taught it`
    : 'as paint of its pigment typically is';
});
const rename = (name: string, meanwhile: boolean): Promise<boolean> =>
  studio.make([{ do: 'tube.change', id: tube.value!.id, version: tube.value!.version - (meanwhile ? 1 : 0), name }], `Called “${name}”`);
</script>

<template>
  <div v-if="!tube" class="place">
    <h1>No such tube</h1>
    <RouterLink :to="{ name: 'tubes' }">All tubes</RouterLink>
  </div>
  <div v-else class="place tube-page" data-test="tube-page">
    <header>
      <v-btn :icon="mdiArrowLeft" aria-label="All tubes" title="All tubes" :to="{ name: 'tubes' }" />
      <EditableName v-if="own" :name="tube.name" label="Name of the tube" :most="80" :on-rename="rename" />
      <h1 v-else>{{ tube.name }}</h1>
      <p class="quiet">{{ [tube.maker || 'typical', tube.colourIndex].filter(Boolean).join(' · ') }}</p>
      <span class="keys">
        <button type="button" class="main-key" data-test="teach" @click="teach">Teach it&ensp;<kbd>t</kbd></button>
        <MoreKeys :keys="MORE" label="More of this tube" data-test="more" />
      </span>
    </header>
    <p v-if="tube.deletedAt !== null" role="status">
      It was put away; what was mixed from it keeps it. <v-btn variant="outlined" @click="bringBack">Bring it back</v-btn>
    </p>
    <div class="two">
      <section class="judging looks" aria-label="How it looks">
        <div class="tints">
          <div v-for="(lab, i) in tints" :key="i" class="tint" :class="{ straight: i === 0 }">
            <span :style="{ background: shows.shown(lab).css }" data-chip="tint" />
            <small class="figures"
              >{{ i === 0 ? 'straight' : `1:${TINTS[i]}` }}<br />{{ settings.valueText(valueOfLightness(lab[0])) }}</small
            >
          </div>
        </div>
        <DrawnOut :paint="tube.paint" :called="tube.name" :ground="landing.ground" marked />
      </section>
      <section class="says" aria-label="What it is like">
        <p v-for="one in says" :key="one" class="lead">{{ one.charAt(0).toUpperCase() + one.slice(1) }}.</p>
        <p v-for="twin in twins" :key="twin.id" data-test="twin">
          <RouterLink :to="{ name: 'tube', params: { tubeId: twin.id } }">{{ calledBeside(twin.id) }}</RouterLink>
          {{ twin.isOnePigment ? 'is the same pigment' : 'looks the same'
          }}{{ twin.apart < 1.5 ? ', alike within what an eye sees' : ', told apart side by side' }}.
        </p>
        <p v-if="made" data-test="ready-made">
          Others make it: {{ made.of.map(({ id, parts }) => `${parts} ${nameOf(id)}`).join(' and ')
          }}{{ made.apart < 1 ? ', alike within what an eye sees' : ', nearly' }}.
        </p>
        <p class="quiet">Known {{ basisSays }}. {{ learntOf(tube) }}</p>
        <p v-if="tube.caution !== 'none'" class="caution">
          {{
            tube.caution === 'fugitive'
              ? 'Fugitive: fades in light.'
              : `Holds ${tube.caution}: see the label and safety data sheet, and local rules.`
          }}
        </p>
      </section>
    </div>
    <div class="two charts">
      <section class="judging" aria-label="Lightness and strength">
        <RackChart
          kind="lightness"
          :tubes="placed"
          :own="tube.id"
          :way="tints"
          :ink="ink"
          :label="`Lightness and strength of ${tube.name} and its tints among ${placed.length} tubes`"
          @choose="router.push({ name: 'tube', params: { tubeId: $event } })"
        />
      </section>
      <section class="judging" aria-label="Hues">
        <RackChart
          kind="hue"
          :tubes="placed"
          :own="tube.id"
          :way="tints"
          :ink="ink"
          :label="`Hue of ${tube.name} and its tints among ${placed.length} tubes`"
          @choose="router.push({ name: 'tube', params: { tubeId: $event } })"
        />
      </section>
    </div>
    <TubeFacts v-if="own" :tube="tube" />
    <section aria-label="What taught it">
      <h2>What taught it</h2>
      <p v-if="list.length === 0" class="quiet">
        Nothing yet: it is reckoned {{ basisSays }}. A dab and a tint beside white paper teach it in one photo.
      </p>
      <ul class="taught figures bare">
        <li v-for="one in list" :key="one.id" :class="{ off: one.off }" data-test="taught">
          <span class="judging dab"><span :style="{ background: shows.shown([one.lab.L, one.lab.a, one.lab.b]).css }" /></span>
          <span
            >{{ one.says }}<template v-if="one.off">: teaches nothing</template><br /><small class="quiet">{{ day(one.at) }}</small></span
          >
          <v-btn variant="text" @click="turnBack(one.back, one.off)">{{ one.off ? 'Let it teach' : 'Take back' }}</v-btn>
        </li>
      </ul>
    </section>
    <TeachSheet v-if="wasAsked" v-model="teaching" :tube="tube" />
  </div>
</template>

<style scoped>
.tube-page {
  display: grid;
  align-content: start;
  gap: calc(4 * var(--unit));
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit)) calc(4 * var(--unit));
}
.keys {
  display: flex;
  align-items: center;
  gap: calc(3 * var(--unit));
  margin-left: auto;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: calc(5 * var(--unit));
}
.looks {
  display: grid;
  gap: calc(3 * var(--unit));
  padding: calc(3 * var(--unit));
}
.tints {
  display: flex;
}
.tint {
  flex: 1;
  min-width: 0;
}
.straight {
  flex: 3;
}
.tint span {
  display: block;
  height: 96px;
}
small {
  font-size: var(--size-note);
  line-height: 1.25;
}
.says {
  display: grid;
  align-content: start;
  gap: calc(2 * var(--unit));
}
.lead {
  font-size: var(--size-lead);
  line-height: 1.25;
}
a {
  color: inherit;
}
.caution {
  font-weight: 700;
}
.charts section {
  padding: calc(3 * var(--unit));
}
.charts section:last-child {
  display: grid;
  justify-content: center;
}
.taught li {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  min-height: 48px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.18);
}
.off {
  text-decoration: line-through;
}
.dab {
  padding: 4px;
}
.dab span {
  display: block;
  height: 34px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .keys {
    margin-left: 0;
  }
}
</style>
