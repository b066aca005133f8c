<script setup lang="ts">
import { mdiChevronLeft, mdiImagePlusOutline } from '@mdi/js';
import { meanOf, temperature, type Outline } from '@dusk/core';
import { computed, defineAsyncComponent, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useCards } from '../stores/cards.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import { useSettings } from '../stores/settings.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import HeldSample from './HeldSample.vue';
import KeyPanel from './KeyPanel.vue';
import LiveRecipe from './LiveRecipe.vue';
import LookKeys from '../picture/LookKeys.vue';
import LookLine from '../picture/LookLine.vue';
import { useLooking, type Panel } from '../stores/looking.ts';
import PaletteTubes from './PaletteTubes.vue';
import PicturesPanel from './PicturesPanel.vue';
import PictureStage from '../picture/PictureStage.vue';
import PlaceLine from './PlaceLine.vue';
import PreparePanel from './PreparePanel.vue';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import { useTrying } from '../stores/trying.ts';
import StageKeys from '../picture/StageKeys.vue';
import { cropOfWhole, type Box } from './cropping.ts';
import { keysOfLooking } from './keysOfLooking.ts';
import { useChooser } from './useChooser.ts';
import { useKeeping } from './useKeeping.ts';
import { useHeld } from './useHeld.ts';
import { inSteps } from '../floor/inSteps.ts';
import { useTelling } from '../picture/following.ts';
import { useLiveRecipe } from '../picture/useLiveRecipe.ts';

const panels = () => import('../deciding/panels.ts');
const ProposePanel = defineAsyncComponent(async () => (await panels()).ProposePanel);
const ProposedMarks = defineAsyncComponent(async () => (await panels()).ProposedMarks);
const PlanPanel = defineAsyncComponent(async () => (await panels()).PlanPanel);
const CanvasPanel = defineAsyncComponent(async () => (await panels()).CanvasPanel);
const CanvasOver = defineAsyncComponent(async () => (await panels()).CanvasOver);
/** Panels that draw over the picture. */
const OVER: readonly Panel[] = ['propose', 'plan', 'canvas'];
const TryPanel = defineAsyncComponent(async () => (await panels()).TryPanel);
const DressLine = defineAsyncComponent(async () => (await panels()).DressLine);
/** The drawing package comes with the first plan. */
const PlanShapes = defineAsyncComponent(() => import('../deciding/PlanShapes.vue'));

const router = useRouter();
const paintings = usePaintings();
const desk = useDesk();
const store = useReference();
const looking = useLooking();
const samples = useSamples();
const settings = useSettings();
const cards = useCards();
useTelling();

const { outline, live, trust, still, isMeant, pointAt, goBack, holdOutline, valueOnly, hueOf, leftOut } = useLiveRecipe();
const { keep, firstNames, isNew, amountMl } = useKeeping({ live, still, outline, valueOnly });
const stage = useTemplateRef('stage');
/** The picture, its keys, what stands beside it. */
const steps = inSteps(2);

const chooser = useTemplateRef('chooser');
const { bringing, bring, choose, bringChosen, tryOurs } = useChooser(chooser, useTemplateRef('whole'));

async function beginPlan(): Promise<void> {
  const { usePlan } = await import('../deciding/usePlan.ts');
  if (await usePlan().begin()) looking.panel = 'plan';
}

const { isHeld, toggleValueOnly, zoneNow, thingNow, saveThing, moveTo, moveHere, joinHere } = useHeld({
  live,
  outline,
  holdOutline,
  valueOnly,
  hueOf,
  firstNames,
  isNew,
});

/** What was drawn round is read, or is what is to be changed in a trial. */
const trying = useTrying();
function drawn(outline: Outline, since: number): void {
  if (looking.panel !== 'try' || !store.pixels || !outline.points) return holdOutline(outline, since);
  const { width, height } = store.pixels;
  const share = (v: number, of: number): number => Math.min(1, Math.max(0, Math.round((1e5 * v) / of) / 1e5));
  void trying.draw(outline.points.map((v, i) => share(v, i % 2 === 0 ? width : height)));
}

function crop(box: Box): void {
  const { frame, view, mirrored, turnedSides } = store;
  if (!frame || !store.pixels) return;
  looking.hand = 'points';
  const whole = cropOfWhole(box, { width: frame.width, crop: view.crop, isMirrored: mirrored }, turnedSides);
  void store.see({ crop: whole }, 'Held a frame before it');
}
const warmthHere = computed(() =>
  store.pixels && outline.value
    ? Math.round(temperature(meanOf(store.pixels, outline.value, store.gains), settings.settings.warmBlue))
    : undefined,
);

/** What stands in the recipe's place, and what it is called there. */
const BEHIND: Readonly<Record<Exclude<Panel, 'colour'>, string>> = {
  prepare: 'How it is framed and lit',
  key: 'How light and dark it is painted',
  pictures: 'The pictures of this painting',
  propose: 'Colours that matter',
  plan: 'A plan in flat shapes',
  try: 'Try a change',
  canvas: 'The canvas beside it',
};

/** What stands behind another key begins at its top. */
const panel = useTemplateRef('panel');
watch(
  () => looking.panel,
  () => panel.value?.scrollTo({ top: 0 }),
);
const stageLine = useTemplateRef('stageLine');
/** Fewer steps of value, or a squint less; or more. */
function stepBy(way: 1 | -1): void {
  if (looking.look === 'values') void stageLine.value?.setSteps((stage.value?.bounds().length ?? 4) + 1 + way);
  else looking.squintBy(way);
}

/** Cards near to what is under the ring. */
const nearHere = (): void => void (live.value && cards.near(live.value.paint, thingNow.value || undefined));

useShortcuts(() => [
  { key: 'k', run: () => void keep() },
  { key: 'a', run: () => void router.push({ name: 'palettes', params: { paletteId: desk.palette?.id }, query: { add: 'one' } }) },
  { key: '/', run: nearHere },
  { key: 'b', run: toggleValueOnly },
  { key: 'h', run: moveHere },
  { key: 'u', run: () => void joinHere() },
  ...keysOfLooking(store, looking, stepBy),
]);
</script>

<template>
  <div
    v-if="paintings.onEasel"
    ref="whole"
    class="reference"
    :class="{ bare: !store.reference }"
    @dragover.prevent
    @drop.prevent="bring($event.dataTransfer?.files)"
  >
    <input ref="chooser" class="chooser" type="file" accept="image/*" aria-label="Bring a picture" tabindex="-1" @change="bringChosen" />
    <h1 class="for-readers">Reference of {{ paintings.onEasel.title }}</h1>
    <section class="stage judging" aria-label="Reference picture">
      <template v-if="store.pixels && store.reference">
        <PictureStage
          ref="stage"
          :name="store.reference.name"
          :outline="outline"
          :meant="isMeant"
          @point="pointAt"
          @resize="store.resize"
          @keep="keep"
          @draw="drawn"
          @crop="crop"
          @leave="goBack"
          @move="moveTo"
        >
          <template v-if="OVER.includes(looking.panel)" #default="{ scale, frame, placeAt }">
            <ProposedMarks v-if="looking.panel === 'propose'" :scale="scale" :frame="frame" :place-at="placeAt" />
            <PlanShapes v-else-if="looking.panel === 'plan'" :scale="scale" :frame="frame" />
            <CanvasOver v-else :width="frame.width * scale" :height="frame.height * scale" />
          </template>
        </PictureStage>
        <div class="under">
          <LookKeys v-if="steps > 0" />
          <StageKeys v-if="steps > 0" />
        </div>
      </template>
      <EmptyPlace v-else-if="!store.reference" title="Bring a picture to paint from">
        Point at any colour in it and read what to mix.
        <template #step>
          <button type="button" class="main-key" @click="choose('another')">
            <v-icon :icon="mdiImagePlusOutline" aria-hidden="true" /> Choose a picture
          </button>
          <button type="button" class="link-key" @click="tryOurs">Try it with one of ours</button>
          <button type="button" class="link-key" data-test="begin-plan" @click="beginPlan">Without a picture: a value plan</button>
        </template>
        <template #more>
          A JPEG, PNG, WebP, AVIF or TIFF, up to 50 megapixels: chosen, dropped here or pasted. It stays on this machine; its own pixels are
          kept, what the camera wrote beside them is not. A thumbnail sketch of your own does as well.
        </template>
      </EmptyPlace>
      <p v-else-if="store.failure" class="failure">{{ store.failure }}</p>
      <v-progress-linear v-if="bringing" indeterminate class="working" aria-label="Bringing the picture" />
    </section>
    <aside ref="panel" class="panel judging" aria-label="What is under the point">
      <header v-if="looking.panel !== 'colour'" class="behind">
        <v-btn :prepend-icon="mdiChevronLeft" data-test="door" title="Back to the colour (Esc)" @click="looking.panel = 'colour'"
          >Colour</v-btn
        >
        <h2>{{ BEHIND[looking.panel] }}</h2>
      </header>
      <template v-if="desk.failure">
        <p class="failure">{{ desk.failure }}</p>
        <v-btn variant="outlined" :to="{ name: 'palettes', params: { paletteId: desk.palette?.id } }">Change the palette</v-btn>
      </template>
      <div v-else-if="!desk.desk" class="making">
        <p>Laying the palette out…</p>
        <v-progress-linear indeterminate aria-label="Laying the palette out" />
      </div>
      <template v-if="steps < 2" />
      <template v-else-if="looking.panel === 'colour'">
        <LiveRecipe :live="live" :still="still" :trust="trust" :amount-ml="amountMl" :held="isHeld" @keep="keep" @near="nearHere">
          <template #place>
            <HeldSample v-if="samples.selected" :at-another="!isHeld" @here="moveHere" @join="joinHere" />
            <PlaceLine v-if="isHeld" v-model:zone="zoneNow" v-model:thing="thingNow" @thing="saveThing" />
          </template>
          <template #tubes="{ mixture }">
            <PaletteTubes v-model="leftOut" :mixture="mixture" />
            <button
              type="button"
              class="value-only"
              :class="{ on: valueOnly }"
              :aria-pressed="valueOnly"
              title="only its value counts (b)"
              @click="toggleValueOnly"
            >
              {{ valueOnly ? `value only; hue of ${samples.selected && !isHeld ? samples.selected.name : 'grey'}` : 'value only' }}
            </button>
          </template>
        </LiveRecipe>
      </template>
      <ProposePanel v-else-if="looking.panel === 'propose' && store.pixels" />
      <PlanPanel v-else-if="looking.panel === 'plan' && store.pixels" />
      <CanvasPanel v-else-if="looking.panel === 'canvas' && store.pixels" />
      <TryPanel v-else-if="looking.panel === 'try' && store.pixels" />
      <PreparePanel v-else-if="looking.panel === 'prepare' && store.pixels" :outline="outline" />
      <KeyPanel v-else-if="looking.panel === 'key' && store.pixels" :seen="live?.lab" />
      <PicturesPanel
        v-else-if="looking.panel === 'pictures'"
        @bring="choose('another')"
        @camera="choose('another', true)"
        @replace="choose('instead')"
      />
      <LookLine
        v-if="steps > 0 && store.pixels && !looking.isPlain"
        ref="stageLine"
        class="line"
        :looked="stage?.looked"
        :reach="stage?.reach"
        :sweeping="stage?.sweeping"
        :sweep-failed="stage?.sweepFailed === true"
        :bounds="stage?.bounds() ?? [5]"
        :warmth="warmthHere"
        @cancel="stage?.cancelSweep()"
        @again="stage?.sweepReach()"
      >
        <DressLine :looked="stage?.looked" />
      </LookLine>
    </aside>
  </div>
</template>

<style scoped>
.reference {
  display: grid;
  grid-template-columns: minmax(0, 1fr) clamp(372px, 26vw, 520px);
  height: 100%;
}
.stage {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: calc(2 * var(--unit));
  padding: calc(2 * var(--unit)) calc(4 * var(--unit)) var(--unit);
  min-height: 0;
}
.under {
  display: grid;
  align-content: start;
  min-width: 0;
  /* Its room is there before it is: the picture does not change its size. */
  min-height: 88px;
}
.panel {
  display: flex;
  flex-direction: column;
  padding: calc(2 * var(--unit)) calc(6 * var(--unit)) calc(3 * var(--unit));
  overflow-y: auto;
  border-left: 1px solid var(--surround-line);
}
.panel > * {
  flex: none;
}
/* What a look says stands at the foot: neither the picture nor a key moves for it. */
.line {
  position: sticky;
  bottom: calc(-3 * var(--unit));
  margin: auto calc(-6 * var(--unit)) calc(-3 * var(--unit));
  padding: var(--unit) calc(6 * var(--unit));
  background: var(--surround);
  border-top: 1px solid var(--surround-line);
}
.behind {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
  margin-bottom: calc(3 * var(--unit));
}
.value-only {
  min-height: 44px;
  text-decoration: underline;
  text-align: left;
}
.value-only.on {
  font-weight: 700;
}
.chooser {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
  pointer-events: none;
}
.working {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
}
.making {
  margin-bottom: calc(4 * var(--unit));
}
/* A wide window gives its room to the picture; a small one keeps half of it for the recipe. */
@media (max-width: 1000px) and (orientation: landscape) {
  .reference {
    grid-template-columns: minmax(0, 1fr) minmax(260px, 42%);
  }
  .stage {
    padding: var(--unit);
  }
}
@media (orientation: portrait) {
  .reference {
    grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
  }
  .stage {
    padding: calc(2 * var(--unit)) calc(2 * var(--unit)) 0;
    gap: 0;
  }
  .panel {
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
    border-left: 0;
    max-height: 46vh;
  }
  .line {
    bottom: calc(-2 * var(--unit));
    margin: auto calc(-4 * var(--unit)) calc(-2 * var(--unit));
    padding: 0 calc(4 * var(--unit));
  }
}
@media (orientation: portrait) and (min-width: 601px) {
  .reference {
    grid-template: minmax(0, 1fr) 356px / minmax(0, 1fr);
  }
}
/* A phone, or a window hardly higher than a hand: the looks and one key beside them. */
@media (max-width: 600px), (max-height: 520px) {
  .under {
    grid-template-columns: minmax(0, 1fr) auto;
    min-height: 44px;
  }
}
@media (max-width: 600px) and (orientation: portrait) {
  .reference {
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  }
  /* Nothing to point at yet: only the way to a picture is here. */
  .bare {
    grid-template: minmax(0, 1fr) / minmax(0, 1fr);
    overflow-y: auto;
  }
  .bare .panel {
    display: none;
  }
  .bare .stage {
    display: block;
  }
  .stage {
    grid-template-rows: 36vh auto;
    padding: 0;
  }
  .panel {
    max-height: none;
    padding: var(--unit) calc(3 * var(--unit)) 0;
  }
}
</style>
