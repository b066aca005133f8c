<script setup lang="ts">
import { binOf, colourName, valueOfLightness, type Few } from '@dusk/core';
import { PALETTE_MOST_TUBES } from '@dusk/wire/limits';
import { computed, nextTick, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import Pick from '../controls/Pick.vue';
import Slider from '../controls/Slider.vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { Covered, Earned } from '../engine/rack.ts';
import { useWhite } from '../floor/white.ts';
import { percent } from '../floor/words.ts';
import { usePalettes } from '../stores/palettes.ts';
import { useSettings } from '../stores/settings.ts';
import { isWhite, useTubes, type Tube } from '../stores/tubes.ts';
import { rackTube } from './useMade.ts';
import { usePictured } from './usePictured.ts';

/** What a palette comes to of the picture on the easel, which tube earns least, the one to add, and the best few of the rack. */
const props = defineProps<{ tubes: readonly Tube[]; full: boolean }>();
const emit = defineEmits<{ add: [tube: Tube]; takeAway: [tube: Tube] }>();
const { needs, why, reference, title } = usePictured();
const rackOf = useTubes();
const palettes = usePalettes();
const settings = useSettings();
const white = useWhite();
const router = useRouter();

const covered = shallowRef<Covered>();
const earned = shallowRef<Earned>();
const progress = ref<number>();
let asking: AbortController | undefined;
/** One's own tubes, where there are any; else all that are typical. */
const rack = computed(() => {
  const own = rackOf.all.filter(({ maker, leftMl }) => maker !== '' && leftMl !== 0);
  return own.length >= 3 ? own : rackOf.all;
});
watch(
  () => JSON.stringify([needs.value, props.tubes.map(({ id, stateId }) => [id, stateId])]),
  async () => {
    asking?.abort();
    earned.value = undefined;
    if (!needs.value || props.tubes.length === 0) return void (covered.value = undefined);
    const own = (asking = new AbortController());
    const picture = { ...needs.value, tubes: props.tubes.map(rackTube) };
    covered.value = await unlessGivenUp(engine().ask('cover', picture, { signal: own.signal }));
    if (own.signal.aborted) return;
    progress.value = 0;
    const kept = props.tubes.filter(isWhite).map(({ id }) => id);
    const here = new Set(props.tubes.map(({ pigment }) => pigment));
    const others = rack.value.filter(({ pigment }) => !here.has(pigment)).map(rackTube);
    const found = await unlessGivenUp(
      engine().ask('earn', { ...picture, rack: others, kept }, { signal: own.signal, progress: (done) => (progress.value = done) }),
    );
    if (own.signal.aborted) return;
    progress.value = undefined;
    earned.value = found;
  },
  { immediate: true },
);
function leaveOff(): void {
  asking?.abort();
  progress.value = undefined;
}

const canvas = useTemplateRef('canvas');
const SHOWN_PX = 420;
/** The picture: what these tubes match pale, what they come near half so, and what they do not reach as it is. */
watch([covered, canvas, () => reference.pixels], async () => {
  await nextTick();
  const { pixels } = reference;
  if (!canvas.value || !covered.value || !pixels) return;
  const by = Math.min(1, SHOWN_PX / Math.max(pixels.width, pixels.height));
  const [w, h] = [Math.max(1, Math.round(pixels.width * by)), Math.max(1, Math.round(pixels.height * by))];
  canvas.value.width = w;
  canvas.value.height = h;
  const context = canvas.value.getContext('2d')!;
  context.drawImage(pixels.image, 0, 0, w, h);
  const drawn = context.getImageData(0, 0, w, h);
  const { data } = drawn;
  for (let i = 0; i < data.length; i += 4) {
    const how = covered.value.table[binOf(data[i]!, data[i + 1]!, data[i + 2]!)]!;
    if (how === 2) continue;
    const light = 0.3 * data[i]! + 0.59 * data[i + 1]! + 0.11 * data[i + 2]!;
    const pale = how === 0 ? 205 + light / 6 : 130 + light / 3;
    data[i] = data[i + 1] = data[i + 2] = pale;
  }
  context.putImageData(drawn, 0, 0);
});

/** Less of the picture is not worth a word. */
const LEAST_TOLD = 0.004;
const lost = computed(() => (covered.value?.lost ?? []).filter(({ weight }) => weight >= LEAST_TOLD));

const each = computed(() =>
  (earned.value?.each ?? [])
    .flatMap((one) => {
      const tube = rackOf.byId.get(one.id);
      return tube ? [{ ...one, tube }] : [];
    })
    .sort((one, other) => one.merit - other.merit),
);
const more = computed(() =>
  (earned.value?.more ?? []).slice(0, 4).flatMap((one) => {
    const tube = rackOf.byId.get(one.id);
    return tube && one.merit > 0.002 ? [{ ...one, tube }] : [];
  }),
);
const lostSays = (lab: Earned['each'][number]['lost']): string =>
  lab ? `the ${colourName(lab)} of value ${settings.valueText(valueOfLightness(lab[0]))}` : '';
const NOTHING = 'nothing';
const earns = (match: number, merit: number): string =>
  match >= 0.005 ? percent(match) : merit >= 0.002 ? 'a little nearer, no more of it matched' : NOTHING;

/* The best few. */
/** A tube more that brings nothing is not offered. */
const worthMore = computed(() => (few.value?.more ?? []).filter(({ match, merit }) => earns(match, merit) !== NOTHING));
const MOST_WANTED = 9;
const count = ref(5);
const must = shallowRef<readonly string[]>([]);
const noToxic = ref(false);
const inStock = ref(false);
const few = shallowRef<Few>();
const failure = ref('');
const seeking = ref<number>();
let choosing: AbortController | undefined;
const mayChoose = computed(() => {
  const list = inStock.value ? rackOf.all.filter(({ maker, leftMl }) => maker !== '' && leftMl !== 0) : rack.value;
  const chosen = [...list, ...props.tubes.filter(({ id }) => !list.some((one) => one.id === id))];
  const seen = new Set<string>();
  return chosen.filter((tube) => {
    if (noToxic.value && !['none', 'fugitive', 'not known'].includes(tube.caution) && !must.value.includes(tube.id)) return false;
    const key = tube.pigments.join();
    const isNew = must.value.includes(tube.id) || !seen.has(key);
    seen.add(key);
    return isNew;
  });
});
const MUST = computed(() => [
  { value: '', title: 'add one' },
  ...mayChoose.value.filter(({ id }) => !must.value.includes(id)).map(({ id, name }) => ({ value: id, title: name })),
]);
watch(
  () => props.tubes,
  (now) => {
    if (must.value.length === 0)
      must.value = now
        .filter(isWhite)
        .slice(0, 1)
        .map(({ id }) => id);
  },
  { immediate: true },
);
async function choose(): Promise<void> {
  choosing?.abort();
  if (!needs.value) return;
  const own = (choosing = new AbortController());
  failure.value = '';
  few.value = undefined;
  seeking.value = 0;
  try {
    const wish = { count: count.value, must: must.value };
    const found = await unlessGivenUp(
      engine().ask(
        'few',
        { ...needs.value, tubes: mayChoose.value.map(rackTube), wish },
        { signal: own.signal, progress: (done) => (seeking.value = done) },
      ),
    );
    if (!own.signal.aborted) few.value = found;
  } catch (cause) {
    if (!own.signal.aborted) failure.value = (cause as Error).message;
  } finally {
    if (choosing === own) seeking.value = undefined;
  }
}
const giveUp = (): void => {
  choosing?.abort();
  seeking.value = undefined;
};
onScopeDispose(() => {
  leaveOff();
  giveUp();
});
async function layOut(): Promise<void> {
  const paletteId = await palettes.add(palettes.freeName(`Few for ${title.value}`.slice(0, 70)), [...few.value!.ids]);
  if (paletteId) await router.push({ name: 'palettes', params: { paletteId } });
}
const chosen = computed(() =>
  (few.value?.ids ?? []).flatMap((id) => {
    const tube = rackOf.byId.get(id);
    return tube ? [{ tube, adds: few.value!.adds.find((one) => one.id === id) }] : [];
  }),
);
</script>

<template>
  <p v-if="why" role="status">{{ why }}</p>
  <div v-else class="pictured">
    <div class="whole">
      <figure class="judging">
        <canvas
          ref="canvas"
          role="img"
          :aria-label="covered ? `${percent(covered.cover.not)} of the picture is not in reach` : 'the picture'"
        />
        <figcaption>In its own colours: what these tubes do not reach</figcaption>
      </figure>
      <div class="sums figures" aria-live="polite" data-test="cover">
        <p v-if="!covered" class="quiet">Looking…</p>
        <template v-else>
          <p class="share">
            <b>{{ percent(covered.cover.match) }}</b> of the picture is matched
          </p>
          <p>
            {{ percent(covered.cover.near) }} near, <b>{{ percent(covered.cover.not) }}</b> not
          </p>
          <div class="bar" aria-hidden="true">
            <span class="match" :style="{ flex: covered.cover.match }" /><span class="near" :style="{ flex: covered.cover.near }" /><span
              :style="{ flex: covered.cover.not }"
            />
          </div>
          <ul v-if="lost.length > 0" class="lost bare">
            <li v-for="(one, i) in lost" :key="i">
              <span class="pair judging"
                ><span :style="{ background: white.shown(one.lab).css }" /><span :style="{ background: white.shown(one.nearest).css }"
              /></span>
              {{ colourName(one.lab) }}, {{ percent(one.weight) }}: the nearest beside it
            </li>
          </ul>
        </template>
      </div>
    </div>

    <div class="columns">
      <section aria-label="What each tube earns">
        <h2>What each earns</h2>
        <p class="quiet">What of the picture would go without it.</p>
        <p v-if="progress !== undefined" class="quiet" role="status">
          Trying without each, and with each other… {{ percent(progress) }} <v-btn variant="text" @click="leaveOff">Leave off</v-btn>
        </p>
        <ul v-if="earned" class="rows figures bare" data-test="earns">
          <li v-for="(one, i) in each" :key="one.id">
            <span class="dab judging"><span :style="{ background: white.shown(one.tube.masstone).css }" /></span>
            <span>
              <b>{{ one.tube.name }}</b>
              <template v-if="i === 0"> earns least: </template><template v-else>: </template>{{ earns(one.match, one.merit) }}
              <template v-if="one.lost"
                ><br /><span class="quiet">without it {{ lostSays(one.lost) }} goes</span></template
              >
            </span>
            <v-btn v-if="i === 0 && rackOf.all.length > 2" variant="text" @click="emit('takeAway', one.tube)">Take away</v-btn>
          </li>
        </ul>
      </section>
      <section aria-label="The tube to add">
        <h2>One to add</h2>
        <p v-if="earned && more.length === 0">No other tube of the rack brings this picture nearer.</p>
        <ul class="rows figures bare">
          <li v-for="one in more" :key="one.id">
            <span class="dab judging"><span :style="{ background: white.shown(one.tube.masstone).css }" /></span>
            <span>
              <b>{{ one.tube.name }}</b>: {{ earns(one.match, one.merit) }} more
              <template v-if="one.lost"
                ><br /><span class="quiet">mostly {{ lostSays(one.lost) }}</span></template
              >
            </span>
            <v-btn variant="text" :disabled="full" @click="emit('add', one.tube)">Add</v-btn>
          </li>
        </ul>
      </section>
    </div>

    <section aria-label="The best few of the rack" class="few">
      <h2>The best few of the rack for this picture</h2>
      <div class="asked">
        <Slider v-model="count" label="How many" :min="2" :max="MOST_WANTED" :step="1" :says="`${count} tubes`" />
        <Pick model-value="" label="with it" :options="MUST" @update:model-value="$event && (must = [...must, $event])" />
        <v-checkbox v-model="noToxic" label="no toxic ones" />
        <v-checkbox v-model="inStock" label="only what I own" />
      </div>
      <p v-if="must.length > 0" class="must in-line">
        Among them:
        <v-chip v-for="id in must" :key="id" closable @click:close="must = must.filter((one) => one !== id)">{{
          rackOf.byId.get(id)?.name
        }}</v-chip>
      </p>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <div v-if="seeking !== undefined" class="seeking" role="status">
        <v-progress-linear :model-value="100 * seeking" aria-label="How far it is" />
        <v-btn @click="giveUp">Leave off</v-btn>
      </div>
      <button v-else type="button" class="main-key" data-test="choose-few" @click="choose">
        Find the best {{ count }} of {{ mayChoose.length }}
      </button>
      <template v-if="few">
        <p class="figures" data-test="few">
          These {{ few.ids.length }} match <b>{{ percent(few.cover.match) }}</b> of it, {{ percent(few.cover.near) }} near.
        </p>
        <ul class="rows figures bare">
          <li v-for="{ tube, adds } in chosen" :key="tube.id">
            <span class="dab judging"><span :style="{ background: white.shown(tube.masstone).css }" /></span>
            <span
              ><b>{{ tube.name }}</b
              ><template v-if="adds">: adds {{ earns(adds.match, adds.merit) }}</template></span
            >
          </li>
        </ul>
        <p v-if="worthMore.length > 0" class="quiet figures">
          One more would be
          {{ worthMore.map(({ id, match, merit }) => `${rackOf.byId.get(id)?.name} (${earns(match, merit)})`).join(', ') }}.
        </p>
        <v-btn variant="outlined" data-test="lay-few" :disabled="few.ids.length > PALETTE_MOST_TUBES" @click="layOut">Lay them out</v-btn>
      </template>
    </section>
  </div>
</template>

<style scoped>
.pictured {
  display: grid;
  gap: calc(5 * var(--unit));
}
.whole {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: calc(5 * var(--unit));
  align-items: start;
}
figure {
  margin: 0;
  padding: calc(2 * var(--unit));
}
canvas {
  display: block;
  width: 100%;
}
figcaption {
  font-size: var(--size-note);
  padding-top: var(--unit);
}
.share {
  font-size: var(--size-lead);
}
.share b {
  font-size: var(--size-title);
}
.bar {
  display: flex;
  height: 14px;
  margin: calc(2 * var(--unit)) 0;
  border: 1px solid currentColor;
}
.bar .match {
  background: currentColor;
}
.bar .near {
  background: repeating-linear-gradient(135deg, currentColor 0 2px, transparent 2px 5px);
}
.lost li {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
  padding: 2px 0;
}
.pair {
  display: flex;
  flex: none;
  padding: 3px;
}
.pair span {
  width: 28px;
  height: 24px;
}
.columns {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: calc(6 * var(--unit));
}
.rows li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  min-height: 44px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.18);
}
.dab {
  padding: 4px;
}
.dab span {
  display: block;
  height: 28px;
}
.few {
  display: grid;
  gap: calc(2 * var(--unit));
  justify-items: start;
}
.few .rows {
  width: 100%;
  max-width: 560px;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
}
.asked .slider {
  width: 220px;
}
.seeking {
  display: grid;
  grid-template-columns: 300px auto;
  align-items: center;
  gap: calc(4 * var(--unit));
}
@media (max-width: 800px) {
  .whole,
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
