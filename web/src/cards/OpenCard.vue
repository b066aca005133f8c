<script setup lang="ts">
import {
  likeness,
  colourName,
  paintOfCard,
  relativeTemperatureWord,
  stepsOfCard,
  temperatureWord,
  valueOfLightness,
  type Basis,
  type Lab,
} from '@dusk/core';
import type { CardDto, UseDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { moment, valueDifference } from '../floor/words.ts';
import type { Remade } from '../engine/proposal.ts';
import RemakeSheet from '../remaking/RemakeSheet.vue';
import { useWhite } from '../floor/white.ts';
import { usePaintings } from '../stores/paintings.ts';
import EditableName from '../controls/EditableName.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import { useSettings } from '../stores/settings.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useTubes } from '../stores/tubes.ts';
import CardRecipe from './CardRecipe.vue';
import { paintedCard, readingOf, useCards } from '../stores/cards.ts';
import DabSheet from './DabSheet.vue';
import InSets from './InSets.vue';
import OutSheet from '../printing/OutSheet.vue';
import PrintSheet from '../printing/PrintSheet.vue';
import TubePick from './TubePick.vue';

/** A card as it was made, and beside it what it would be today. */
const props = defineProps<{ card: CardDto }>();
const router = useRouter();
const cards = useCards();
const paintings = usePaintings();
const settings = useSettings();
const studio = useStudio();
const tubes = useTubes();
const white = useWhite();

const reading = computed(() => readingOf(props.card));
const painted = computed(() => paintedCard(props.card));
const ml = ref(props.card.ml);
const heaps = computed(() => stepsOfCard(painted.value, ml.value));

/** Colours of a card side by side, each by what it is. */
const fields = computed((): { says: string; lab: Lab }[] => {
  const { target, predicted, seen, dab } = props.card;
  return [
    ...(target ? [{ says: 'meant', lab: labOfDto(target) }] : []),
    { says: 'reckoned', lab: labOfDto(predicted) },
    ...(seen ? [{ says: 'came out', lab: labOfDto(seen) }] : []),
    ...(dab ? [{ says: 'your dab', lab: labOfDto(dab.lab) }] : []),
    ...(today.value ? [{ says: 'today', lab: today.value.lab }] : []),
  ];
});
const today = computed(() => cards.today(props.card));
/** What stands today for each of its tubes. */
const stands = computed(() => {
  const by = cards.standIns(props.card);
  return props.card.tubes.map((tube) => {
    const stand = by.get(tube.key);
    return { ...tube, stand, own: stand && tubes.byId.get(stand.tubeId) };
  });
});
const apart = (one: Lab, other: Lab): string => {
  const value = valueOfLightness(Math.max(0, one[0])) - valueOfLightness(Math.max(0, other[0]));
  const warmth = settings.temperatureOf(one) - settings.temperatureOf(other);
  return `${valueDifference(value)}, ${relativeTemperatureWord(warmth)}`;
};
const SAME = 0.5;
const changed = computed(() => {
  if (!today.value) return 'One of its tubes has nothing here to stand for it.';
  const { lab, difference } = today.value;
  if (difference < SAME) return 'With today’s tubes it is what it was then.';
  return `With today’s tubes: ${apart(lab, labOfDto(props.card.predicted))}, ${likeness(difference)}.`;
});
/** Those for which another tube stands. */
const others = computed(() =>
  stands.value.filter(({ name, stand, own }) => stand?.by === 'chosen' || stand?.by === 'colour' || own?.name !== name),
);
const likeOnly = computed(() => stands.value.filter(({ stand }) => stand?.by === 'colour'));

const used = shallowRef<readonly UseDto[]>([]);
watch(
  () => [props.card.id, studio.rows.piles.size] as const,
  async ([id]) => {
    const story = await studio.ask('card', id);
    if (story?.card.id === props.card.id) used.value = story.used;
  },
  { immediate: true },
);

const BASES: Readonly<Record<Basis, string>> = {
  typical: 'typical tubes',
  learnt: 'tubes as piles have taught them',
  fitted: 'fitted tubes',
  measured: 'measured tubes',
};
const where = computed(() =>
  [
    [props.card.thing, props.card.zone].filter(Boolean).join(', '),
    props.card.painting,
    moment(props.card.createdAt),
    props.card.light && `looked at by ${props.card.light}`,
    props.card.film === 'full' ? '' : props.card.film,
    props.card.medium,
  ].filter(Boolean),
);

const off = computed(() => (paintings.onEasel ? cards.offPalette(props.card).join(', ') : ''));

const remaking = ref(false);
const printing = ref(false);
const goingOut = ref(false);
const dabbing = ref(false);
const original = computed(() => paintOfCard(painted.value));
const use = (): Promise<boolean> => cards.use(props.card, ml.value);
const take = (remade: Remade): Promise<boolean> => cards.useRemade(props.card, remade, ml.value);
async function putAway(): Promise<void> {
  if (await cards.remove(props.card)) await router.replace({ name: 'cards', params: {} });
}
const note = ref(props.card.note);
const saveNote = (): void => {
  if (note.value !== props.card.note) void cards.change(props.card, { note: note.value.slice(0, 2000) }, 'Noted on the card');
};
const choose = (key: string, tubeId: string): Promise<boolean> =>
  cards.change(
    props.card,
    { stands: Object.entries({ ...props.card.stands, [key]: tubeId }).map(([one, id]) => ({ key: one, tubeId: id })) },
    `${tubes.byId.get(tubeId)?.name} stands for it`,
  );
const seldom = computed(() => [
  { title: 'Print it', key: 'p', run: () => (printing.value = true) },
  { title: 'Say how your dab looks', key: 'd', run: () => (dabbing.value = true) },
  { title: 'To a file', label: 'The card to a file', run: () => (goingOut.value = true) },
  { title: 'Put it away', label: 'Put the card away', run: putAway },
]);
useShortcuts(() => [
  { key: 'u', run: () => void use() },
  { key: 'p', run: () => (printing.value = true) },
  { key: 'r', run: () => (remaking.value = true) },
  { key: 'd', run: () => (dabbing.value = true) },
]);
</script>

<template>
  <article class="open-card" data-test="open-card">
    <RouterLink class="back" :to="{ name: 'cards', params: {} }">To the list</RouterLink>
    <div class="fields squints">
      <div
        v-for="field in fields"
        :key="field.says"
        class="chip"
        :style="{ background: white.shown(field.lab).css }"
        :data-chip="field.says"
      />
    </div>
    <div class="fields says">
      <span v-for="field in fields" :key="field.says">{{ field.says }}</span>
    </div>
    <header>
      <b class="value figures">{{ settings.valueText(reading.value) }}</b>
      <EditableName
        :name="card.name"
        label="Name of the card"
        :most="120"
        :on-rename="(name) => cards.change(card, { name }, `Called it “${name}”`)"
      />
      <MoreKeys :keys="seldom" label="More with this card" />
    </header>
    <CardRecipe :heaps="heaps" />
    <div class="use">
      <label class="amount figures"
        >ml <input v-model.number="ml" type="number" min="0.1" max="500" step="0.5" aria-label="How much, ml"
      /></label>
      <button
        type="button"
        class="main-key"
        :disabled="!paintings.onEasel || !today"
        :aria-label="`Use ${card.name} in the painting on the easel`"
        @click="use"
      >
        Use it <kbd>u</kbd>
      </button>
      <v-btn v-if="paintings.onEasel" variant="outlined" @click="remaking = true">Today’s tubes&ensp;<kbd>r</kbd></v-btn>
    </div>
    <p v-if="off" class="strong" data-test="off-palette">Not on this palette: {{ off }}.</p>
    <section aria-label="Today" class="today" data-test="today">
      <p :class="{ strong: likeOnly.length > 0 }">{{ changed }}</p>
      <ul v-if="others.length > 0" class="figures">
        <li v-for="tube in others" :key="tube.key">
          <span class="dab" :style="{ background: tube.own ? white.shown(tube.own.masstone).css : 'none' }" />
          <span
            >{{ tube.name
            }}<template v-if="tube.own && tube.own.name !== tube.name">
              : {{ tube.own.name }}<span class="quiet">{{ tube.stand?.by === 'colour' ? ', only a like colour' : '' }}</span></template
            ></span
          >
          <TubePick
            :model-value="tube.stand?.tubeId"
            :aria-label="`What stands for ${tube.name}`"
            @update:model-value="choose(tube.key, $event!)"
          />
        </li>
      </ul>
    </section>
    <label class="noted"
      ><span class="for-readers">Note</span>
      <textarea v-model="note" rows="2" maxlength="2000" placeholder="A note" @blur="saveNote" />
    </label>
    <details class="about">
      <summary>about it</summary>
      <p class="figures">
        {{ temperatureWord(settings.temperatureOf(reading.lab)) }}, {{ colourName(reading.lab) }}, {{ reading.munsell
        }}<template v-if="card.seen"
          >. It came out {{ apart(labOfDto(card.seen), labOfDto(card.predicted)) }} beside what was reckoned</template
        >.
      </p>
      <p class="quiet figures">{{ where.join(' · ') }}</p>
      <div class="quiet">
        Reckoned from {{ BASES[card.basis] }}<template v-if="card.steadiness > 2">; a little too much of one thing shows</template>.
        <details v-if="card.within > 0" class="sure">
          <summary>how sure</summary>
          Nine of ten such piles come out {{ likeness(card.within) }} ({{ card.within.toFixed(1) }}).
        </details>
      </div>
      <details v-if="card.made" class="quiet figures" data-test="made">
        <summary>measured anew; what it was made of</summary>
        {{ card.made }}
      </details>
    </details>
    <InSets :card="card" />
    <section v-if="used.length > 0" aria-label="Where it was used">
      <h2>Used</h2>
      <p v-for="one in used" :key="one.pileId" class="figures">
        <RouterLink v-if="one.paintingId" :to="{ name: 'mixing', params: { paintingId: one.paintingId, pileId: one.pileId } }"
          >{{ one.name }}, {{ one.painting }}</RouterLink
        >
        <span class="quiet">, {{ moment(one.at) }}</span>
      </p>
    </section>
    <RemakeSheet :id="card.id" v-model="remaking" :name="card.name" :paint="original" :ml="ml" :on-taken="take" />
    <PrintSheet v-model="printing" :title="card.name" :of="{ cardIds: [card.id], ml }" :sheets="['cards', 'kit']" />
    <OutSheet v-model="goingOut" :title="card.name" :of="{ cardIds: [card.id] }" />
    <DabSheet v-model="dabbing" :card="card" />
  </article>
</template>

<style scoped>
.open-card {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: calc(1.5 * var(--unit));
  line-height: 1.25;
  align-content: start;
}
header {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 0 var(--unit);
  align-items: center;
}
.value {
  font-size: var(--size-figure);
  line-height: 1;
  padding-right: calc(2 * var(--unit));
}
.fields {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
}
.chip {
  height: clamp(72px, 19vh, 170px);
}
.says {
  font-size: var(--size-note);
}
.use {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: calc(2 * var(--unit));
  margin-top: calc(2 * var(--unit));
  align-items: center;
}
.amount input {
  width: 52px;
  min-height: 44px;
  font-size: var(--size-lead);
  border-bottom: 1px solid currentColor;
}
.today ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.today li {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 30px;
  line-height: 1.15;
}
.dab {
  height: 20px;
}
.strong {
  font-weight: 700;
}
.use .main-key {
  white-space: nowrap;
  padding: 0 calc(2 * var(--unit));
}
textarea {
  width: 100%;
  border: 0 solid currentColor;
  color: inherit;
  background: transparent;
  border-bottom: 1px solid currentColor;
  min-height: 44px;
}
.back {
  display: none;
}
@media (max-width: 600px) {
  .use {
    grid-template-columns: auto minmax(0, 1fr);
  }
}
@media (orientation: portrait), (max-width: 1000px) {
  .back {
    display: inline-flex;
    min-height: 44px;
    align-items: center;
    color: inherit;
  }
}
</style>
