<script setup lang="ts">
import { mdiBrightness6, mdiChevronLeft, mdiClose, mdiVolumeHigh } from '@mdi/js';
import { inWorkOrder, valueOfLightness } from '@dusk/core';
import { useLocalStorage, useWakeLock } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useWhite } from '../floor/white.ts';
import { useRoute, useRouter } from 'vue-router';
import { usePaintings } from '../stores/paintings.ts';
import MeasureSwitch from '../chips/MeasureSwitch.vue';
import NoticeLine from '../controls/NoticeLine.vue';
import PictureBeside from '../picture/PictureBeside.vue';
import { useLanding } from '../stores/landing.ts';
import { useSettings } from '../stores/settings.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useTubes } from '../stores/tubes.ts';
import { mixAsPlanned } from '../recipe/deeds.ts';
import { useDone } from '../recipe/done.ts';
import { pagesOf, spoken } from './easel.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useKnown } from '../recipe/useKnown.ts';

/** One recipe, one string, or all that is planned, to be read from two metres, step by step; a tap anywhere goes on. */
const white = useWhite();
const route = useRoute();
const router = useRouter();
const piles = usePiles();
const tubes = useTubes();
const paintings = usePaintings();
const settings = useSettings();
const landing = useLanding();
const done = useDone();
const { known } = useKnown();
const at = ref(0);
const dim = ref(false);
const aloud = useLocalStorage('dusk.aloud', false);

const pileId = computed(() => String(route.params['pileId'] ?? ''));
const stringId = computed(() => String(route.query['string'] ?? ''));
/** Piles of a day, in their turn. */
const ofDay = computed(() => String(route.query['piles'] ?? ''));
/** Whose steps are shown, from when it was come to: a pile that is mixed meanwhile stays. */
const shownIds = ref<readonly string[]>([]);
watch(
  [pileId, stringId, ofDay, () => piles.list.length > 0] as const,
  ([own, string, day]) => {
    at.value = 0;
    if (!own && day) return void (shownIds.value = day.split('.').filter((id) => piles.byId.has(id)));
    const layer = paintings.onEasel?.layer ?? 1;
    const chosen = own
      ? piles.list.filter(({ id }) => id === own)
      : piles.list.filter((pile) => (string ? pile.string?.id === string : pile.layer === layer) && pile.stages.length === 0);
    shownIds.value = inWorkOrder(chosen, piles.mothersOf, (pile) => lookNow(pile)[0]).map(({ id }) => id);
  },
  { immediate: true },
);
const shown = computed(() => shownIds.value.flatMap((id) => piles.byId.get(id) ?? []));
const pages = computed(() => shown.value.flatMap((pile) => pagesOf(pile, { ...known(), measure: settings.settings.measure })));
const page = computed(() => pages.value[Math.min(at.value, pages.value.length - 1)]);
const pile = computed(() => page.value?.pile);
const nth = computed(() => shown.value.findIndex(({ id }) => id === pile.value?.id) + 1);
const halves = computed(() => {
  if (!pile.value) return [];
  const wanted = landing.wantedOf(pile.value);
  return [...(wanted ? [{ what: 'wanted', lab: wanted }] : []), { what: 'mixed', lab: lookNow(pile.value) }];
});
const go = (by: number): void => {
  at.value = Math.min(Math.max(0, at.value + by), Math.max(0, pages.value.length - 1));
};
/** All was gone through. */
const isOver = ref(false);
watch(shownIds, () => (isOver.value = false));
/** What is gone past was done, and nothing more is asked: a step is ticked, and with its last step a pile is mixed, which can be taken back. */
async function goOn(): Promise<void> {
  const now = page.value;
  if (!now || isOver.value) return;
  const isPlanned = now.pile.stages.length === 0;
  const next = pages.value[at.value + 1];
  if (isPlanned && !now.isLast && next?.step !== now.step && !done.stepsOf(now.pile).includes(now.step)) done.tick(now.pile, now.step);
  if (next) go(1);
  else isOver.value = true;
  if (isPlanned && now.isLast) {
    await piles.make(mixAsPlanned(now.pile, settings.settings.measure, tubes.byId, piles.byId), `Mixed “${now.pile.name}”`);
    done.forget(now.pile.id);
  }
}
function goBack(): void {
  if (isOver.value) isOver.value = false;
  else go(-1);
}
/** What the key that goes on says. */
const onward = computed(() => {
  if (!page.value?.isLast) return 'Next';
  const next = pages.value[at.value + 1];
  if (!next) return 'It is mixed';
  return `Mixed; next, ${next.pile.name}`;
});
/** Another pile that was asked for on the picture. */
function goTo(id: string): void {
  const first = pages.value.findIndex((one) => one.pile.id === id);
  if (first >= 0) at.value = first;
  else void router.push({ name: 'easel', params: { paintingId: route.params['paintingId'], pileId: id } });
}
const leave = (): void =>
  void router.push({ name: 'mixing', params: { paintingId: route.params['paintingId'], ...(pileId.value && { pileId: pileId.value }) } });

const voice = typeof speechSynthesis === 'undefined' ? undefined : speechSynthesis;
function hush(): void {
  voice?.cancel();
}
watch([page, aloud] as const, ([now, isAloud]) => {
  hush();
  if (isAloud && now && voice) voice.speak(new SpeechSynthesisUtterance(spoken(now)));
});

useShortcuts(() => [
  { key: ' ', run: () => void goOn() },
  { key: 'ArrowRight', run: () => void goOn() },
  { key: 'PageDown', run: () => void goOn() },
  { key: 'Enter', run: () => void goOn() },
  { key: 'ArrowLeft', run: goBack },
  { key: 'PageUp', run: goBack },
  { key: 'Escape', run: leave },
  { key: 'd', run: () => (dim.value = !dim.value) },
  { key: 'a', run: () => (aloud.value = !aloud.value) },
]);

const { request, release } = useWakeLock();
onMounted(() => void request('screen').catch(() => undefined));
onBeforeUnmount(() => {
  hush();
  void release();
});
</script>

<template>
  <section v-if="pile && page && !isOver" class="easel judging" :class="{ dim }" :aria-label="`${pile.name} at the easel`" @click="goOn">
    <header>
      <h1>
        <span v-if="shown.length > 1" class="figures nth">{{ nth }} of {{ shown.length }}</span> {{ pile.name }}
      </h1>
      <p class="figures value">value {{ settings.valueText(valueOfLightness(halves.at(-1)!.lab[0])) }}</p>
      <span class="measuring" @click.stop><MeasureSwitch /></span>
      <v-btn
        v-if="voice"
        :icon="mdiVolumeHigh"
        :aria-pressed="aloud"
        aria-label="Read aloud"
        :title="aloud ? 'Read aloud: on (a)' : 'Read aloud (a)'"
        :class="{ on: aloud }"
        @click.stop="aloud = !aloud"
      />
      <v-btn :icon="mdiBrightness6" aria-label="Dim" title="Dim (d)" @click.stop="dim = !dim" />
      <v-btn :icon="mdiClose" aria-label="Leave the easel" title="Leave (Esc)" @click.stop="leave" />
    </header>
    <div class="pair">
      <figure v-for="half in halves" :key="half.what">
        <div class="half" :style="{ background: white.shown(half.lab).css }" />
        <figcaption>{{ half.what }}</figcaption>
      </figure>
    </div>
    <div class="step" aria-live="polite">
      <figure class="after">
        <div class="chip" :style="{ background: white.shown(page.chip).css }" />
        <figcaption>the pile then</figcaption>
      </figure>
      <div class="what">
        <p class="title">{{ page.title }}</p>
        <p v-for="part in page.lines" :key="part.name" class="line figures">
          <strong>{{ part.parts }}</strong> {{ part.name }} <span class="amount">{{ part.amount }}</span>
        </p>
      </div>
      <PictureBeside class="picture" :pile="pile" :opens="goTo" @click.stop />
    </div>
    <footer class="figures count">
      <v-btn :icon="mdiChevronLeft" size="56" :disabled="at === 0" aria-label="A step back" title="A step back (←)" @click.stop="goBack" />
      <span data-test="count">{{ Math.min(at + 1, pages.length) }} of {{ pages.length }}</span>
      <span class="says" @click.stop><NoticeLine /></span>
      <button type="button" class="main-key done" data-test="done-this" @click.stop="goOn">{{ onward }} <kbd>Space</kbd></button>
    </footer>
  </section>
  <section v-else class="easel judging" aria-label="At the easel">
    <p class="title">{{ isOver ? 'All of it is mixed.' : 'Nothing is left to mix here.' }}</p>
    <span class="says"><NoticeLine /></span>
    <button type="button" class="main-key back" @click="leave">Back to the piles</button>
  </section>
</template>

<style scoped>
.easel {
  display: flex;
  flex-direction: column;
  gap: calc(4 * var(--unit));
  height: 100%;
  padding: calc(5 * var(--unit)) calc(10 * var(--unit)) calc(5 * var(--unit));
  cursor: pointer;
  overflow: hidden;
}
.dim {
  filter: brightness(0.55);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: calc(3 * var(--unit)) calc(6 * var(--unit));
}
h1 {
  flex: 1;
  font-size: var(--size-figure);
  overflow-wrap: anywhere;
}
.value {
  font-size: var(--size-figure);
}
figure {
  margin: 0;
}
figcaption {
  font-size: var(--size-lead);
}
.pair {
  display: flex;
}
.pair figure {
  flex: 1;
}
.half {
  height: 120px;
}
.step {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(120px, 17vw) minmax(0, 1fr) minmax(0, 26vw);
  gap: calc(10 * var(--unit));
  align-items: center;
  min-height: 0;
}
.after {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.chip {
  flex: 1;
}
.title {
  font-size: var(--size-figure);
}
.line {
  font-size: var(--size-far);
  line-height: 1.1;
}
.amount {
  font-size: var(--size-figure);
  white-space: nowrap;
}
.nth {
  color: var(--surround-soft);
}
.on {
  outline: 2px solid currentColor;
}
.back {
  justify-self: start;
  align-self: start;
}
.done {
  margin-left: auto;
  min-height: 60px;
}
.says {
  flex: 1;
  min-width: 0;
  cursor: default;
}
.picture {
  cursor: default;
  align-self: start;
}
.step:has(> .away) {
  grid-template-columns: minmax(120px, 22vw) minmax(0, 1fr);
}
.step > .away {
  position: absolute;
  right: calc(10 * var(--unit));
}
.step {
  position: relative;
}
.count {
  display: flex;
  align-items: center;
  gap: calc(4 * var(--unit));
  font-size: var(--size-lead);
}
@media (orientation: portrait) {
  .easel {
    padding: calc(3 * var(--unit)) calc(5 * var(--unit));
  }
  .step {
    grid-template: minmax(0, 30vh) minmax(0, 1fr) / minmax(0, 1fr) minmax(0, 2fr);
    gap: calc(4 * var(--unit));
    align-items: start;
  }
  .what {
    grid-row: 2;
    grid-column: 1 / -1;
  }
  .step:has(> .away) {
    grid-template: minmax(0, 30vh) minmax(0, 1fr) / minmax(0, 1fr);
  }
}
/* A phone, or a window hardly higher than a hand, is read from nearer. */
@media (max-width: 600px), (max-height: 520px) {
  .easel {
    gap: calc(2 * var(--unit));
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
  h1,
  .value,
  .title,
  .amount {
    font-size: var(--size-title);
  }
  h1 {
    flex-basis: 100%;
    order: -1;
  }
  .line {
    font-size: var(--size-figure);
  }
  .half {
    height: 64px;
  }
}
@media (max-height: 520px) {
  .pair,
  .after figcaption,
  .count kbd {
    display: none;
  }
  h1 {
    flex-basis: 0;
  }
  header {
    flex-wrap: nowrap;
    align-items: center;
  }
  .step {
    grid-template-columns: 110px minmax(0, 1fr) 200px;
    gap: calc(4 * var(--unit));
    overflow-y: auto;
  }
  .line,
  .title,
  .amount {
    font-size: var(--size-lead);
    line-height: 1.2;
  }
  .line strong {
    font-size: var(--size-figure);
  }
  .count {
    font-size: var(--size-note);
  }
  .done {
    min-height: 48px;
  }
}
</style>
