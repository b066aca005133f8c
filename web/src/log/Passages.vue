<script setup lang="ts">
import { mdiBrush } from '@mdi/js';
import { daySaid, pileKept, windowSaid, type Felt } from '@dusk/core';
import type { AreaDto, PaintingDto } from '@dusk/wire';
import { computed, defineAsyncComponent, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { onceTrue } from '../floor/opening.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { counted, weekday } from '../floor/words.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { useLog, zone, type Advice, type AreaKind } from '../stores/log.ts';
import { usePiles } from '../stores/piles.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useTubes } from '../stores/tubes.ts';
import { answerOf, DONE, FEELS } from './answers.ts';
import Board from './Board.vue';
import LaySheet from './LaySheet.vue';
import PassageMap from './PassageMap.vue';

/** This painting: what may be painted over, a layer in two taps, what a finger felt, what lies on the palette. */
const props = defineProps<{ painting: PaintingDto }>();
const DryChart = defineAsyncComponent(() => import('./DryChart.vue'));
const log = useLog();
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();
const router = useRouter();
const { short } = useKnown();

const passages = computed(() => log.passagesOf(props.painting.id));
const chosenId = ref<string>();
const chosen = computed(() => passages.value.find(({ area }) => area.id === chosenId.value) ?? passages.value[0]);
const laying = ref(false);
const layingAsked = onceTrue(laying);
/** What is advised against of what was just asked for; it is laid all the same by one more tap. */
const asked = shallowRef<{ readonly areaId: string; readonly advice: readonly Advice[] }>();
const drawn = ref(false);

async function asLastTime(area: AreaDto, overruling = false): Promise<void> {
  const last = log.lastOf(area);
  if (!last) return;
  const advice = overruling ? (asked.value?.advice ?? []) : log.adviceFor(area, log.layerOf(last.laid, last.additions, log.at));
  if (advice.length > 0 && !overruling) return void (asked.value = { areaId: area.id, advice });
  asked.value = undefined;
  const laid = { ...last.laid, ...(advice[0] && { against: advice[0].verdict }) };
  await log.make([log.deed(area.id, 'laid', { additions: last.additions, laid })], `Laid on ${area.name}, as last time`);
}
const feel = (area: AreaDto, felt: Felt): Promise<boolean> =>
  log.make([log.deed(area.id, 'touched', { touch: felt })], `${area.name} is ${felt === 'dry through' ? 'dry through' : felt}`);
const did = (area: AreaDto, kind: AreaKind): Promise<boolean> => log.make([log.deed(area.id, kind)], `${area.name}: ${DONE[kind]}`);
const TAKING: readonly AreaKind[] = ['wiped back', 'lifted', 'scraped back', 'oiled out'];

/** Layers of an area in words, the newest first. */
const layers = computed(() =>
  (chosen.value?.area.deeds ?? [])
    .map((deed) => {
      const names = deed.additions.flatMap(({ tubeId, stageId }) => {
        if (tubeId !== null) return tubes.byId.get(tubeId)?.name ?? [];
        const pile = log.pileAt(stageId);
        return pile ? { pile } : 'a pile';
      });
      const found = names.flatMap((one) => (typeof one === 'string' ? [] : one.pile));
      const how = [deed.laid?.how, deed.laid?.with && `with ${deed.laid.with}`].filter(Boolean).join(' ');
      return {
        id: deed.id,
        when: weekday(deed.at),
        says: deed.kind === 'laid' ? `laid ${how}` : deed.kind === 'touched' ? `felt ${deed.touch}` : DONE[deed.kind],
        against: deed.laid?.against ? `though ${deed.laid.against}` : '',
        piles: found,
        tubes: names.filter((one) => typeof one === 'string'),
      };
    })
    .reverse(),
);
/** The layer's piles are laid out to be mixed again, dark to light. */
function mixAgain(): void {
  const ids = new Set(layers.value.flatMap(({ piles: of }) => of.map(({ id }) => id)));
  const inOrder = piles.byValue.filter(({ id }) => ids.has(id)).map(({ id }) => id);
  void router.push({ name: 'easel-plan', params: { paintingId: props.painting.id }, query: { piles: inOrder.join('.') } });
}

/** Piles that lie on the palette, and how long they can be worked. */
const there = computed(() =>
  piles.byValue
    .filter(({ there, stages }) => there > 0.05 && stages.length > 0)
    .map((pile) => {
      const parts = Object.entries(desk.flatOfPile(pile.id)).flatMap(([id, share]) => {
        const tube = tubes.byId.get(id);
        return tube ? [{ id, share, drying: tube.drying }] : [];
      });
      const mixedAt = Date.parse(pile.stages.findLast(({ kind }) => kind === 'mixed' || kind === 'added')?.at ?? pile.stages.at(-1)!.at);
      const kept =
        parts.length > 0
          ? pileKept(parts, {
              mixedAt,
              at: log.at,
              isCovered: pile.purpose.covered ?? false,
              withAlkyd: pile.purpose.laid?.with === 'alkyd medium',
            })
          : undefined;
      return {
        pile,
        isGone: kept?.stands === 'gone',
        says: !kept
          ? ''
          : kept.stands === 'workable'
            ? `workable till ${windowSaid([log.at, kept.skins[0]], log.at, zone).replace(/^by /, '')}`
            : kept.stands,
      };
    }),
);
const lying = computed(() => there.value.filter(({ isGone }) => !isGone));
const driedUp = computed(() => there.value.filter(({ isGone }) => isGone).map(({ pile }) => pile.name));
/** What was done when somebody was here last, on an earlier day, and what was next then. */
const lastTime = computed(() => {
  const today = new Date(log.at).toDateString();
  const last = log.sittings.find(
    ({ row, piles: mixed, areas }) =>
      new Date(row.openedAt).toDateString() !== today && [...mixed, ...areas].some(({ paintingId }) => paintingId === props.painting.id),
  );
  if (!last) return '';
  const did = [
    last.piles.length > 0 ? `${counted(last.piles.length, 'pile')} mixed` : '',
    ...new Set(
      last.areas.filter(({ paintingId }) => paintingId === props.painting.id).map(({ kind, name }) => `${name} ${DONE[kind as AreaKind]}`),
    ),
  ].filter(Boolean);
  return `Last here ${daySaid(Date.parse(last.row.openedAt), log.at, zone)}: ${did.join(', ')}.${last.row.note ? ` Next was: ${last.row.note}` : ''}`;
});
useShortcuts(() => [
  { key: 'l', run: () => (laying.value = true) },
  { key: 't', run: () => chosen.value && void asLastTime(chosen.value.area) },
]);
/** What to do about it tonight, in a sentence. */
const means = computed(() => {
  const [tonight] = chosen.value?.answers ?? [];
  return tonight && tonight.may.stands !== 'bare' ? answerOf(tonight.may).means : '';
});
const sunk = computed(() => passages.value.filter(({ answers }) => answers[0]?.may.sunk).map(({ area }) => area.name));
const holding = computed(() => {
  const by = chosen.value?.answers[0]?.may.by;
  return by && by.areaId !== chosen.value?.area.id ? passages.value.find(({ area }) => area.id === by.areaId)?.area.name : undefined;
});
</script>

<template>
  <div class="passages">
    <PassageMap class="seen" :painting="painting" :passages="passages" :chosen="chosen?.area.id" @choose="chosenId = $event" />
    <section v-if="there.length > 0" aria-label="On the palette" class="palette">
      <h2>On the palette</h2>
      <ul class="bare">
        <li v-for="{ pile, says } in lying" :key="pile.id" data-test="lying">
          <span class="chip" :style="{ background: piles.shownNow(pile) }" /><span>{{ pile.name }}</span
          ><span class="quiet">{{ says }}</span>
        </li>
      </ul>
      <p v-if="driedUp.length > 0" class="quiet">Dried up: {{ driedUp.join(', ') }}.</p>
    </section>
    <section class="right">
      <p v-if="lastTime" class="quiet" data-test="last-time">{{ lastTime }}</p>
      <p v-if="passages.length === 0" class="first">
        Nothing was laid on it yet. Lay the first layer: on the whole, or on a passage you name or draw round. From then on it says when it
        may be painted over.
      </p>
      <Board v-else :passages="passages" :moments="log.moments" :chosen="chosen?.area.id" @choose="chosenId = $event" />
      <p v-if="sunk.length > 0" class="sunk" role="status">{{ sunk.join(', ') }} sank: oil out before you match anything to it.</p>
      <div class="keys">
        <button type="button" class="main-key" data-test="lay" @click="laying = true">
          <v-icon :icon="mdiBrush" size="20" aria-hidden="true" /> Lay a layer
        </button>
        <v-btn
          v-if="chosen && log.lastOf(chosen.area)"
          variant="outlined"
          :title="`The same on ${chosen.area.name}, with the same piles`"
          data-test="as-last-time"
          @click="asLastTime(chosen.area)"
          >As last time</v-btn
        >
        <v-btn v-if="passages.length > 0" variant="outlined" data-test="dries-when" :aria-pressed="drawn" @click="drawn = !drawn"
          >What dries when</v-btn
        >
      </div>
      <div v-if="asked && asked.areaId === chosen?.area.id" class="advice" role="alert" data-test="advice">
        <p v-for="one in asked.advice" :key="one.over">Over {{ one.over }}: {{ one.says }}</p>
        <v-btn variant="outlined" data-test="all-the-same" @click="asLastTime(chosen.area, true)">Lay it all the same</v-btn>
        <v-btn @click="asked = undefined">Not now</v-btn>
      </div>
      <DryChart v-if="drawn" :painting="painting" :passages="passages" />
      <section v-if="chosen" class="chosen" :aria-label="chosen.area.name">
        <h2>{{ chosen.area.name }}</h2>
        <p v-if="means" class="quiet" data-test="means">{{ means }}</p>
        <p v-if="holding" class="quiet">It waits for {{ holding }}, which it lies over.</p>
        <fieldset v-if="chosen.own.length > 0">
          <legend>A finger says</legend>
          <v-btn
            v-for="{ felt, says } in FEELS"
            :key="felt"
            variant="outlined"
            :data-test="`felt-${felt}`"
            @click="feel(chosen.area, felt)"
            >{{ says }}</v-btn
          >
        </fieldset>
        <fieldset v-if="chosen.own.length > 0">
          <legend>It was</legend>
          <v-btn v-for="kind in TAKING" :key="kind" :data-test="`did-${kind}`" @click="did(chosen.area, kind)">{{ kind }}</v-btn>
        </fieldset>
        <ul class="layers bare">
          <li v-for="one in layers" :key="one.id" data-test="deed">
            <span class="when figures">{{ one.when }}</span>
            <span class="what"
              >{{ one.says }}<template v-if="one.tubes.length > 0">: {{ one.tubes.join(', ') }}</template>
              <span v-for="pile in one.piles" :key="pile.id" class="of"
                ><span class="chip" :style="{ background: piles.shownNow(pile) }" />{{ pile.name }}
                <span class="quiet">{{ short(pile.plan, pile.ml) }}</span></span
              ><em v-if="one.against"> {{ one.against }}</em></span
            >
          </li>
        </ul>
        <v-btn v-if="layers.some((one) => one.piles.length > 0)" variant="outlined" data-test="mix-again" @click="mixAgain"
          >Mix {{ counted(new Set(layers.flatMap((one) => one.piles)).size, 'pile') }} of it again</v-btn
        >
      </section>
    </section>
    <LaySheet v-if="layingAsked" v-model="laying" :painting="painting" :area-id="chosen?.area.id" />
  </div>
</template>

<style scoped>
.passages {
  display: grid;
  grid-template: 'seen right' auto 'palette right' 1fr / minmax(0, 2fr) minmax(0, 3fr);
  gap: calc(4 * var(--unit)) calc(8 * var(--unit));
  min-height: 0;
}
.seen {
  grid-area: seen;
}
.palette {
  grid-area: palette;
}
.palette,
.right {
  min-width: 0;
  min-height: 0;
  overflow-y: auto;
}
.right {
  grid-area: right;
  display: grid;
  align-content: start;
  gap: calc(4 * var(--unit));
}
.first {
  font-size: var(--size-lead);
  max-width: 34em;
}
.keys,
fieldset {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit));
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  float: left;
  min-width: 7em;
  font-size: var(--size-note);
}
.advice,
.sunk {
  border-left: 4px solid currentColor;
  padding-left: calc(3 * var(--unit));
  font-weight: 500;
}
.chosen {
  display: grid;
  gap: calc(2 * var(--unit));
  padding-top: calc(3 * var(--unit));
  border-top: 1px solid rgba(var(--v-theme-on-background), 0.3);
}
.layers li {
  display: grid;
  grid-template-columns: 7em minmax(0, 1fr);
  padding: var(--unit) 0;
}
.of {
  display: block;
}
.chip {
  display: inline-block;
  width: 28px;
  height: 18px;
  margin-right: calc(2 * var(--unit));
  vertical-align: middle;
}
.palette li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: center;
  min-height: 36px;
}
@media (orientation: portrait) {
  .passages {
    grid-template: 'seen' auto 'right' auto 'palette' auto / minmax(0, 1fr);
  }
  .passages,
  .palette,
  .right {
    min-height: auto;
    overflow: visible;
  }
}
</style>
