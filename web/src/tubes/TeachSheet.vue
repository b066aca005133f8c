<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import FileDrop from '../controls/FileDrop.vue';
import Pick from '../controls/Pick.vue';
import Sheet from '../controls/Sheet.vue';
import { useWhite } from '../floor/white.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { useTeaching } from './useTeaching.ts';

/** A tube is taught by a dab and a tint or two: one photo beside white paper, a reader or its file, or a colour that is typed; before and after, and what looks wrong, before it is kept. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ tube: Tube }>();
const tubes = useTubes();
const shows = useWhite();
const teaching = useTeaching(() => props.tube);
const { told, card, failure, busy, others, tints, rows, whites, white, whiteId, wrong } = teaching;
const WAYS = [
  { value: 'photo', title: 'one photo' },
  { value: 'reader', title: 'a reader' },
  { value: 'typed', title: 'typed' },
] as const;
const way = ref<(typeof WAYS)[number]['value']>('photo');
watch(open, () => teaching.begin());

const CARDS = [
  { value: '0', title: 'the dab alone' },
  { value: '0 4', title: 'the dab, and 1 to 4 of white' },
  { value: '0 2 6 20', title: 'the dab, 1 to 2, 1 to 6, 1 to 20 of white' },
];
const layout = computed({
  get: () => tints.value.join(' '),
  set: (now: string | undefined) => void (tints.value = (now ?? '0').split(' ').map(Number)),
});
const OTHERS = computed(() => [
  { value: '', title: 'no other' },
  ...tubes.all
    .filter(({ id, maker }) => !rows.value.some((one) => one.id === id) && (maker !== '' || tubes.all.every((one) => one.maker === '')))
    .map(({ id, name }) => ({ value: id, title: name })),
]);
const WHITES = computed(() => whites.value.map(({ id, name, maker }) => ({ value: id, title: maker ? `${name}, ${maker}` : name })));
const typed = ref('');
const parts = ref('0');
const PARTS = ['0', '1', '2', '4', '6', '10', '20'].map((n) => ({ value: n, title: n === '0' ? 'as it comes' : `1 to ${n} of white` }));
async function type(): Promise<void> {
  if (typed.value.trim() === '') return;
  await teaching.type(typed.value, Number(parts.value));
  if (failure.value === '') typed.value = '';
}

const canvas = useTemplateRef('canvas');
watch(card, async (now) => {
  await nextTick();
  if (!now || !canvas.value) return;
  canvas.value.width = now.image.width;
  canvas.value.height = now.image.height;
  canvas.value.getContext('2d')!.drawImage(now.image, 0, 0);
});
/** A patch moved by hand is read where it then lies. */
let held: number | undefined;
const moved = ref<{ readonly key: number; readonly x: number; readonly y: number }>();
function drag(event: PointerEvent): void {
  if (held === undefined) return;
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  moved.value = { key: held, x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
}
function letGo(): void {
  if (moved.value) void teaching.moveTo(moved.value.key, moved.value.x, moved.value.y);
  held = undefined;
  moved.value = undefined;
}
const rings = computed(() =>
  told.value.flatMap((one) => {
    if (!one.found) return [];
    const at = moved.value?.key === one.key ? moved.value : one.found;
    return [{ key: one.key, x: at.x, y: at.y, width: one.found.width, says: one.white === 0 ? '●' : `1:${one.white}` }];
  }),
);
const isBad = computed(() => wrong.value.some((one) => one.isBad));
const means = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);
const sums = computed(() =>
  rows.value.flatMap((one) => {
    const fit = teaching.fitted.value.get(one.id);
    if (!fit) return [];
    const [before, after] = [means(fit.before), means(fit.residuals)];
    const strength =
      Math.abs(Math.log(fit.strength)) < 0.03 ? 'as strong as typical' : `${fit.strength.toFixed(2)} times as strong as typical`;
    return [{ id: one.id, name: one.name, says: `off by ${before.toFixed(1)} before, ${after.toFixed(1)} after; ${strength}` }];
  }),
);
async function keep(): Promise<void> {
  if (await teaching.keep()) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`Teach ${tube.name}`" wide judging>
    <h2>Teach “{{ tube.name }}”</h2>
    <Choice v-model="way" label="By" :items="[...WAYS]" />
    <div v-if="!card || way !== 'photo' || failure !== ''" class="ask">
      <Pick v-model="layout" label="swatches" :options="CARDS" data-test="tints" />
      <Pick
        v-if="tints.length > 1"
        :model-value="whiteId || white.id"
        label="white"
        :options="WHITES"
        @update:model-value="whiteId = $event ?? ''"
      />
    </div>
    <template v-if="way === 'photo'">
      <p v-if="!card">
        Lay a dab as it comes and each tint in one row, thick enough to cover, on grey card or a palette, white paper beside them; take it
        from above in even light. A second tube goes in a row below.
      </p>
      <div v-if="!card || failure !== ''" class="ask">
        <span v-for="id in others" :key="id"
          >{{ tubes.byId.get(id)?.name }}
          <v-btn :icon="mdiClose" :aria-label="`Without ${tubes.byId.get(id)?.name}`" @click="others = others.filter((one) => one !== id)"
        /></span>
        <Pick model-value="" label="also on it" :options="OTHERS" @update:model-value="$event && (others = [...others, $event])" />
      </div>
      <v-btn v-if="card && failure === ''" variant="outlined" class="again" @click="teaching.begin">Another photo</v-btn>
      <div v-else class="stack-close">
        <FileDrop label="Photo of the card" accept="image/jpeg,image/png" @file="teaching.photograph">Choose a photo</FileDrop>
        <v-btn variant="text" data-test="stand-in-camera" :disabled="busy" @click="teaching.standInCard">With the stand-in camera</v-btn>
      </div>
    </template>
    <div v-else-if="way === 'reader'" class="stack-close">
      <FileDrop label="Readings, CGATS text or CSV" accept=".txt,.ti3,.sp,.csv,.cgats,text/*" @file="teaching.readFile"
        >Choose a file of readings: CGATS text or a table, in the order of the swatches</FileDrop
      >
      <v-btn variant="text" data-test="stand-in-reader" :disabled="busy" @click="teaching.standInRead">With the stand-in reader</v-btn>
    </div>
    <form v-else class="ask" @submit.prevent="type">
      <Field v-model="typed" label="A colour: Munsell, #rrggbb or lab" placeholder="5YR 3/4" />
      <Pick v-model="parts" label="of" :options="PARTS" />
      <v-btn type="submit" variant="outlined">Take it</v-btn>
    </form>
    <p v-if="failure" role="alert" data-test="teach-refused">{{ failure }}</p>
    <div class="read" :class="{ pictured: card && way === 'photo' }">
      <div v-show="card && way === 'photo'" class="photo" @pointermove="drag" @pointerup="letGo" @pointerleave="letGo">
        <canvas ref="canvas" />
        <span
          v-for="ring in rings"
          :key="ring.key"
          class="ring figures"
          :style="{ left: `${ring.x * 100}%`, top: `${ring.y * 100}%`, width: `${Math.max(0.05, ring.width * 0.6) * 100}%` }"
          @pointerdown.prevent="held = ring.key"
          ><b>{{ ring.says }}</b></span
        >
      </div>
      <div>
        <p v-if="sums.length > 0" class="heads figures" aria-hidden="true"><span>before</span><span>as read</span><span>after</span></p>
        <section v-for="row in rows" :key="row.id">
          <h3 v-if="rows.length > 1">{{ row.name }}</h3>
          <ul class="rows figures bare">
            <li v-for="one in teaching.looksOf(row.id)" :key="one.key" data-test="swatch">
              <span class="three"
                ><span :style="{ background: shows.shown(one.before).css }" title="as it was taken for" /><span
                  class="own"
                  :style="{ background: shows.shown(one.lab).css }"
                  title="as it was read" /><span :style="{ background: shows.shown(one.after).css }" title="as it is told now"
              /></span>
              <span>{{ one.white === 0 ? 'as it comes' : `1 to ${one.white} of white` }}</span>
              <v-btn :icon="mdiClose" :aria-label="`Without this swatch`" @click="teaching.drop(one.key)" />
            </li>
          </ul>
        </section>
      </div>
    </div>
    <div v-if="sums.length > 0" aria-live="polite">
      <p v-for="sum in sums" :key="sum.id" class="figures" data-test="taught-sum">
        <b>{{ sum.name }}</b>: {{ sum.says }}.
      </p>
      <p v-for="one in wrong" :key="one.text" role="alert" data-test="taught-wrong">{{ one.text }}</p>
    </div>
    <div class="foot-keys">
      <v-btn @click="open = false">Not now</v-btn>
      <v-btn v-if="isBad" variant="outlined" :disabled="busy" @click="keep">Keep it all the same</v-btn>
      <button
        v-else
        type="button"
        class="main-key"
        data-test="keep-taught"
        :disabled="busy || told.length === 0 || sums.length === 0"
        @click="keep"
      >
        Use it from now on
      </button>
    </div>
  </Sheet>
</template>

<style scoped>
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: calc(2 * var(--unit)) calc(5 * var(--unit));
}
.read.pictured {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: calc(4 * var(--unit));
}
.photo {
  position: relative;
  touch-action: none;
  align-self: start;
}
.photo canvas {
  display: block;
  width: 100%;
}
.ring {
  position: absolute;
  display: grid;
  place-items: center;
  aspect-ratio: 1;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  outline: 1.5px solid #000;
  border-radius: 50%;
  cursor: grab;
  line-height: 0;
  font-size: var(--size-note);
  color: #fff;
  text-shadow:
    0 0 3px #000,
    0 0 3px #000;
}
.again {
  justify-self: start;
}
.heads {
  display: flex;
  width: 150px;
  font-size: var(--size-note);
}
.heads span {
  flex: 1;
}
.rows li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  min-height: 44px;
}
.three {
  display: flex;
  align-self: stretch;
}
.three span {
  flex: 1;
}
.three .own {
  flex: 1.4;
}
@media (max-width: 700px) {
  .read.pictured {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
