<script setup lang="ts">
import { colourName, LEAST_PILES, valueOfLightness, type Lab } from '@dusk/core';
import { labDto, labOfDto } from '@dusk/wire/written';
import { computed, ref, useTemplateRef, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import Pick from '../controls/Pick.vue';
import { counted } from '../floor/words.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import SaidColour from '../recipe/SaidColour.vue';
import { readingOf } from '../stores/cards.ts';
import { useLooking } from '../stores/looking.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { present } from '../studio/rows.ts';
import { useStudio } from '../studio/useStudio.ts';
import { usePlan } from './usePlan.ts';
import { useStudy } from './useStudy.ts';

/** The value plan: its shapes, and what colour the one that is held has. */
const plan = usePlan();
const piles = usePiles();
const studio = useStudio();
const settings = useSettings();
const looking = useLooking();
const study = useStudy();

const rows = computed(() =>
  plan.shapes.map((shape, i) => {
    const pile = piles.byId.get(shape.pileId ?? '');
    const lab = pile ? lookNow(pile) : labOfDto(shape.lab);
    return {
      i,
      css: piles.shown(lab),
      name: plan.called(shape, i),
      says: pile ? pile.name : colourName(lab),
      value: settings.valueText(valueOfLightness(lab[0])),
    };
  }),
);
const said = useTemplateRef('said');
watch(
  () => plan.at,
  () => said.value?.clear(),
);
const lab = computed<Lab>({
  get: (): Lab => (plan.selected ? labOfDto(plan.selected.lab) : [50, 0, 0]),
  set: (to: Lab) => plan.say(to),
});
/** Cards whose colours may be taken, the newest first. */
const MOST_CARDS = 40;
const cards = computed(() => present(studio.rows.cards).slice(-MOST_CARDS).reverse());
const ofPile = computed({
  get: () => plan.selected?.pileId ?? '',
  set: (id: string) => {
    const pile = piles.byId.get(id);
    const card = cards.value.find((one) => one.id === id);
    if (card) void plan.change({ pileId: undefined, lab: labDto(readingOf(card).lab) }, `It has the colour of the card “${card.name}”`);
    else
      void plan.change(
        pile ? { pileId: id, lab: labDto(lookNow(pile)) } : { pileId: undefined },
        pile ? `It is painted with “${pile.name}”` : 'Its colour is its own',
      );
  },
});
const pileChoices = computed(() => [
  { value: '', title: 'a colour of its own' },
  ...piles.ofRank.map(({ id, name }) => ({ value: id, title: name })),
  ...cards.value.map(({ id, name }) => ({ value: id, title: `card: ${name}` })),
]);
const nameThing = (event: Event): void => {
  const thing = (event.target as HTMLInputElement).value.trim().slice(0, 80);
  void plan.change({ thing: thing || undefined }, `Said that it is ${thing || 'nothing'}`);
};

/** Shapes that are there without drawing: by the keyboard, or to begin with. */
const READY = [
  { title: 'The whole', points: [0, 0, 1, 0, 1, 1, 0, 1] },
  { title: 'Upper half', points: [0, 0, 1, 0, 1, 0.5, 0, 0.5] },
  { title: 'Lower half', points: [0, 0.5, 1, 0.5, 1, 1, 0, 1] },
  { title: 'A piece in the middle', points: [0.35, 0.35, 0.65, 0.35, 0.65, 0.65, 0.35, 0.65] },
] as const;
const STEP = 0.02;
const nudge = (dx: number, dy: number): void => {
  const points = plan.moved(dx, dy);
  if (points) void plan.change({ points }, 'Moved a shape');
};
useShortcuts(() => [
  { key: 'ArrowLeft', run: () => nudge(-STEP, 0), repeats: true },
  { key: 'ArrowRight', run: () => nudge(STEP, 0), repeats: true },
  { key: 'ArrowUp', run: () => nudge(0, -STEP), repeats: true },
  { key: 'ArrowDown', run: () => nudge(0, STEP), repeats: true },
  { key: 'Delete', run: () => void plan.remove() },
  { key: 'Backspace', run: () => void plan.remove() },
]);

const isKeeping = ref(false);
async function becomePiles(): Promise<void> {
  if (isKeeping.value) return;
  isKeeping.value = true;
  try {
    if (!(await plan.becomePiles(plan.bare.length >= LEAST_PILES))) return;
    looking.look = 'piles';
    looking.panel = 'colour';
  } finally {
    isKeeping.value = false;
  }
}
const VALUES = [3, 4, 5].map((value) => ({ value, title: `${value} values` }));
const values = ref(3);
</script>

<template>
  <div class="plan-panel figures">
    <template v-if="plan.shapes.length === 0">
      <p>Draw round a shape with one stroke, or begin with one of these; then say its colour.</p>
      <div class="ready">
        <button v-for="ready in READY" :key="ready.title" type="button" class="framed-key" @click="plan.add(ready.points)">
          {{ ready.title }}
        </button>
      </div>
    </template>
    <div v-else class="ready">
      <button
        v-if="plan.bare.length > 0"
        type="button"
        class="main-key"
        data-test="plan-piles"
        :disabled="isKeeping || said?.isUnderstood === false"
        @click="becomePiles"
      >
        {{ isKeeping ? 'Finding how to mix them…' : `Make ${counted(plan.bare.length, 'pile')} of them` }}
      </button>
      <MoreKeys :keys="READY.map(({ title, points }) => ({ title, run: () => plan.add(points) }))" label="Another shape" />
    </div>
    <section v-if="plan.selected" :key="plan.at" aria-label="The shape that is held" class="held">
      <SaidColour ref="said" v-model="lab" focused :also="plan.spokenOf" label="Its colour" />
      <v-text-field label="What it is" :model-value="plan.selected.thing ?? ''" maxlength="80" @change="nameThing" />
      <Pick v-model="ofPile" label="Painted with" :options="pileChoices" />
      <v-btn class="away" @click="plan.remove()">Take it away</v-btn>
    </section>
    <ul v-if="rows.length > 0" class="rows judging bare">
      <li v-for="row in rows" :key="row.i">
        <button
          type="button"
          class="row"
          :class="{ on: plan.at === row.i }"
          :aria-pressed="plan.at === row.i"
          data-test="shape"
          @click="plan.at = plan.at === row.i ? undefined : row.i"
        >
          <span class="chip squints" :style="{ background: row.css }" />
          <span
            ><b>{{ row.name }}</b> {{ row.says }}</span
          >
          <span>{{ row.value }}</span>
        </button>
      </li>
    </ul>
    <section v-if="!plan.isBlank" aria-label="A study in flat shapes" class="held">
      <Choice v-model="values" label="Blocked in from the picture" :items="VALUES" />
      <v-btn variant="outlined" data-test="study" :loading="study.isLooking.value" @click="study.make(values)">Block it in</v-btn>
    </section>
  </div>
</template>

<style scoped>
.plan-panel,
.held {
  display: grid;
  gap: calc(3 * var(--unit));
  justify-items: stretch;
}
.ready {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--unit);
}
.row {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  width: 100%;
  min-height: 44px;
  text-align: left;
}
.chip {
  align-self: stretch;
}
.row.on {
  outline: 2px solid currentColor;
  outline-offset: -2px;
}
.row.on > span:nth-child(2) {
  text-decoration: underline;
}
.main-key,
.away {
  justify-self: start;
}
</style>
