<script setup lang="ts">
import { amountInWords, DAY_ORDERS, mlText, type DayOrder } from '@dusk/core';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import Field from '../controls/Field.vue';
import Pick from '../controls/Pick.vue';
import Sheet from '../controls/Sheet.vue';
import { counted } from '../floor/words.ts';
import { useWhite } from '../floor/white.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { useTubes } from '../stores/tubes.ts';
import { sheetUrl } from '../studio/api.ts';
import { useDay } from './useDay.ts';

/** The day's piles in the order of a school, as many as there is time for: walked at the easel, or on one page. */
const open = defineModel<boolean>({ required: true });
const paintings = usePaintings();
const piles = usePiles();
const tubes = useTubes();
const white = useWhite();
const router = useRouter();
const { short } = useKnown();
const { plan, planned, wishes, whereOf, taken, pace } = useDay(open);

const ORDERS = DAY_ORDERS.map((value) => ({ value, title: value }));
const minutes = ref('');
const refusal = ref('');
watch(
  () => wishes.value.minutes,
  (now) => (minutes.value = now === undefined ? '' : String(now)),
  { immediate: true },
);
const day = (order: DayOrder, time: number | undefined): Promise<boolean> =>
  paintings.change(paintings.onEasel!.id, { day: { order, ...(time !== undefined && { minutes: time }) } });
function fit(): void {
  const said = minutes.value.trim().replace(',', '.');
  refusal.value = '';
  const time = said === '' ? undefined : Number(said);
  if (time === wishes.value.minutes) return;
  if (time !== undefined && !(time >= 1 && time <= 1440)) {
    refusal.value = 'Say how many minutes there are, from one to a day; leave it empty for all it takes.';
    return;
  }
  void day(wishes.value.order, time);
}
const rows = computed(() =>
  (plan.value?.steps ?? []).flatMap(({ id, startsAt, minutes: takes }) => {
    const pile = piles.byId.get(id);
    return pile ? [{ pile, startsAt: Math.round(startsAt), takes: Math.max(1, Math.round(takes)) }] : [];
  }),
);
const later = computed(() =>
  (plan.value?.later ?? []).flatMap(({ id, from, by }) => {
    const pile = piles.byId.get(id);
    return pile ? [{ pile, from: piles.byId.get(from)?.name ?? '', by: tubes.byId.get(by)?.name ?? 'a tube' }] : [];
  }),
);
const left = computed(() => (plan.value?.left ?? []).flatMap((id) => piles.byId.get(id)?.name ?? []));
const isOver = computed(() => plan.value !== undefined && wishes.value.minutes !== undefined && plan.value.minutes > wishes.value.minutes);
async function walk(): Promise<void> {
  const ids = rows.value.map(({ pile }) => pile.id);
  open.value = false;
  await router.push({ name: 'easel-plan', params: { paintingId: paintings.onEasel!.id }, query: { piles: ids.join('.') } });
}
function print(): void {
  const now = plan.value!;
  window.open(
    sheetUrl({
      sheet: 'day',
      paper: 'A4',
      paintingId: paintings.onEasel!.id,
      day: {
        order: wishes.value.order,
        minutes: now.minutes,
        steps: now.steps.map(({ id, startsAt }) => ({ id, startsAt })),
        later: now.later.map(({ id, from, by }) => ({ id, fromId: from, tubeId: by })),
        leftIds: [...now.left],
      },
    }),
    '_blank',
    'noopener',
  );
}
</script>

<template>
  <Sheet v-model="open" label="The day" judging wide>
    <h2>The day</h2>
    <p v-if="planned.length === 0">Nothing is planned that is not mixed yet. Keep some piles first.</p>
    <template v-else>
      <div class="asks">
        <form @submit.prevent="fit">
          <Field
            v-model="minutes"
            label="minutes there are"
            inputmode="numeric"
            maxlength="5"
            autofocus
            data-test="day-minutes"
            @change="fit"
          />
        </form>
        <Pick
          :model-value="wishes.order"
          :options="ORDERS"
          label="in order"
          data-test="day-order"
          @update:model-value="day($event!, wishes.minutes)"
        />
      </div>
      <p v-if="refusal" role="alert" class="failure" data-test="day-refused">{{ refusal }}</p>
      <p v-if="plan" class="figures sum" data-test="day-sum">
        {{ counted(rows.length, 'pile') }}, about {{ Math.round(plan.minutes) }} minutes<template v-if="pace"> at your pace</template
        ><b v-if="isOver">: more than there is</b>
      </p>
      <p v-else class="quiet">Planning the day…</p>
      <ol class="rows bare">
        <li v-for="{ pile, startsAt, takes } in rows" :key="pile.id" data-test="day-step">
          <span class="when figures">{{ startsAt }}′</span>
          <span class="chip" :style="{ background: piles.shownNow(pile) }" />
          <span class="what"
            ><b>{{ pile.name }}</b
            ><span v-if="whereOf(pile)" class="quiet">&ensp;{{ whereOf(pile) }}</span
            ><br /><span class="figures">{{ short(pile.plan, pile.ml) }}</span></span
          >
          <span class="figures quiet">{{ takes }} min</span>
        </li>
      </ol>
      <template v-if="later.length > 0">
        <h3>Later, in one step</h3>
        <ul class="rows bare">
          <li v-for="{ pile, from, by } in later" :key="pile.id" data-test="day-later">
            <span />
            <span class="chip" :style="{ background: piles.shownNow(pile) }" />
            <span class="what"
              ><b>{{ pile.name }}</b
              ><br />from {{ from }}, with {{ by }}</span
            >
          </li>
        </ul>
      </template>
      <p v-if="left.length > 0" data-test="day-left">No time for {{ left.join(', ') }}.</p>
      <details v-if="taken.length > 0">
        <summary>What it takes from the tubes</summary>
        <ul class="taken bare">
          <li v-for="{ tube, ml, isShort } in taken" :key="tube.id" class="figures">
            <span class="chip" :style="{ background: white.shown(tube.masstone).css }" /> {{ tube.name }}: {{ amountInWords(ml) }} ({{
              mlText(ml)
            }})<b v-if="isShort">; the tube has {{ mlText(tube.leftMl!) }}</b>
          </li>
        </ul>
      </details>
      <div class="foot-keys">
        <v-btn @click="open = false">Not now</v-btn>
        <v-btn variant="outlined" :disabled="!plan" data-test="print-day" @click="print">Print it on one page</v-btn>
        <button type="button" class="main-key" :disabled="rows.length === 0" data-test="walk-day" @click="walk">At the easel</button>
      </div>
    </template>
  </Sheet>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
}
.sum {
  font-size: var(--size-lead);
}
.rows li {
  display: grid;
  grid-template-columns: 3em 40px minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: start;
  padding: calc(2 * var(--unit)) 0;
  border-top: 1px solid currentColor;
  line-height: 1.25;
}
.when {
  font-size: var(--size-lead);
}
.rows .chip {
  height: 40px;
}
.taken .chip {
  display: inline-block;
  width: 1em;
  height: 1em;
}
.foot-keys {
  position: sticky;
  bottom: calc(-6 * var(--unit));
  padding: calc(3 * var(--unit)) 0;
  background: var(--surround);
}
h3 {
  font-size: var(--size-text);
}
</style>
