<script setup lang="ts">
import { mdiImagePlusOutline } from '@mdi/js';
import { meanOf, temperature } from '@dusk/core';
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
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
import StageKeys from '../picture/StageKeys.vue';
import { useBringing } from './useBringing.ts';
import { useKeeping } from './useKeeping.ts';
import { useHeld } from './useHeld.ts';
import { useLiveRecipe } from '../picture/useLiveRecipe.ts';

const paintings = usePaintings();
const desk = useDesk();
const store = useReference();
const looking = useLooking();
const samples = useSamples();
const settings = useSettings();
const cards = useCards();

const { outline, live, trust, still, isMeant, pointAt, goBack, holdOutline, valueOnly, hueOf, leftOut } = useLiveRecipe();
const { keep, zone, thing, zoneOf, amountMl } = useKeeping({ live, still, outline, valueOnly });
const stage = useTemplateRef('stage');
/** The place opens in steps, each a task of its own: the picture, its keys, what stands beside it. */
const steps = ref(0);
onMounted(async () => {
  for (; steps.value < 2; steps.value++) await new Promise((turn) => setTimeout(turn));
});

/** A picture that was brought has the focus once it is there, so that the arrow keys move over it. */
const arrives = ref(false);
const whole = useTemplateRef('whole');
const { bringing, bring, replace } = useBringing(() => (arrives.value = true));
watch(
  () => store.pixels,
  async (pixels) => {
    if (!pixels || !arrives.value) return;
    arrives.value = false;
    await nextTick();
    whole.value?.querySelector<HTMLElement>('[role=application]')?.focus({ preventScroll: true });
  },
);
/** One field for files, whatever they are wanted for. */
const chooser = useTemplateRef('chooser');
let wanted: 'another' | 'instead' = 'another';
function choose(what: typeof wanted, fromCamera = false): void {
  const field = chooser.value!;
  wanted = what;
  if (fromCamera) field.setAttribute('capture', 'environment');
  else field.removeAttribute('capture');
  field.click();
}
async function bringChosen(): Promise<void> {
  const field = chooser.value!;
  const [file] = [...(field.files ?? [])];
  const what = wanted;
  wanted = 'another';
  if (file) await (what === 'instead' ? replace(file) : bring([file]));
  field.value = '';
}

const { isHeld, toggleValueOnly, zoneNow, thingNow, saveThing, moveTo, moveHere, joinHere } = useHeld({
  live,
  outline,
  holdOutline,
  zone,
  thing,
  zoneOf,
  valueOnly,
  hueOf,
});

/** A crop that was drawn lies within what is seen; it is kept in shares of the whole. */
function crop(box: { x: number; y: number; width: number; height: number }): void {
  const { frame, view } = store;
  if (!frame || !store.pixels) return;
  const [w, h] = store.turnedSides;
  const [x0, y0] = [(view.crop?.x ?? 0) * w, (view.crop?.y ?? 0) * h];
  // What is seen mirrored is cut from the other side.
  const left = store.mirrored ? frame.width - box.x - box.width : box.x;
  looking.hand = 'points';
  void store.see(
    { crop: { x: (x0 + left) / w, y: (y0 + box.y) / h, width: Math.max(0.01, box.width / w), height: Math.max(0.01, box.height / h) } },
    'Cropped the picture',
  );
}
const warmthHere = computed(() =>
  store.pixels && outline.value
    ? Math.round(temperature(meanOf(store.pixels, outline.value, store.gains), settings.settings.warmBlue))
    : undefined,
);

const PANELS: readonly (readonly [panel: Panel, title: string])[] = [
  ['colour', 'Colour'],
  ['prepare', 'Prepare'],
  ['key', 'Key'],
  ['pictures', 'Pictures'],
];
const panelTitle = (panel: Panel, title: string): string =>
  panel === 'pictures' && store.all.length > 1
    ? `Picture ${store.all.findIndex((r) => r.id === store.reference?.id) + 1} of ${store.all.length}`
    : title;

function less(): void {
  if (looking.look === 'values') void stageLine.value?.setSteps(stepCount() - 1);
  else looking.squintBy(-1);
}
function more(): void {
  if (looking.look === 'values') void stageLine.value?.setSteps(stepCount() + 1);
  else looking.squintBy(1);
}
const stageLine = useTemplateRef('stageLine');
const stepCount = (): number => (stage.value?.bounds().length ?? 4) + 1;
const fitKey = (): void =>
  void store.see({ key: store.isKeyed ? undefined : { kind: 'fitted', held: 0.5 } }, store.isKeyed ? 'Key: as it is' : 'Key: fitted');

/** Cards near to what is under the ring. */
const nearHere = (): void => void (live.value && cards.near(live.value.paint, thingNow.value || undefined));

useShortcuts(() => [
  { key: 'k', run: () => void keep() },
  { key: '/', run: nearHere },
  { key: '+', run: () => store.resize(1.25), repeats: true },
  { key: '=', run: () => store.resize(1.25), repeats: true },
  { key: '-', run: () => store.resize(0.8), repeats: true },
  { key: 'v', run: () => looking.turn('values') },
  { key: 'w', run: () => looking.turn('warmth') },
  { key: 'c', run: () => looking.turn('strength') },
  { key: 'e', run: () => looking.turn('edges') },
  { key: 'r', run: () => looking.turn('reach') },
  { key: '[', run: less, repeats: true },
  { key: ']', run: more, repeats: true },
  { key: 't', run: () => (looking.lost = !looking.lost) },
  { key: 'x', run: () => (looking.mirror = !looking.mirror) },
  { key: 'n', run: () => (looking.grid = !looking.grid) },
  { key: 'i', run: () => (looking.marks = !looking.marks) },
  { key: 'o', run: () => (looking.without = !looking.without) },
  { key: 'f', run: fitKey },
  { key: 'p', run: () => store.isKeyed && (looking.asPaint = !looking.asPaint) },
  { key: 'd', run: () => (looking.hand = looking.hand === 'draws' ? 'points' : 'draws') },
  { key: 'b', run: toggleValueOnly },
  { key: 'h', run: moveHere },
  { key: 'u', run: () => void joinHere() },
  { key: '.', run: () => store.turnTo(1) },
  { key: ',', run: () => store.turnTo(-1) },
  {
    key: 'Escape',
    run: () => {
      looking.hand = 'points';
      looking.selectedId = undefined;
    },
  },
]);
</script>

<template>
  <div v-if="paintings.onEasel" ref="whole" class="reference" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files)">
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
          @draw="holdOutline"
          @crop="crop"
          @leave="goBack"
          @move="moveTo"
        />
        <div class="under">
          <LookKeys v-if="steps > 0" />
          <LookLine
            v-if="steps > 0"
            ref="stageLine"
            :looked="stage?.looked"
            :reach="stage?.reach"
            :sweeping="stage?.sweeping"
            :bounds="stage?.bounds() ?? [5]"
            :warmth="warmthHere"
            @cancel="stage?.cancelSweep()"
          />
          <StageKeys v-if="steps > 0" />
        </div>
      </template>
      <EmptyPlace v-else-if="!store.reference" title="Bring a picture to paint from">
        A JPEG, PNG, WebP, AVIF or TIFF of your subject, up to 50 megapixels: choose it, drop it here or paste it. It stays on this machine,
        its own pixels are kept, what the camera wrote beside them is not. Then point at any colour in it and read what to mix.
        <template #step
          ><v-btn variant="outlined" :prepend-icon="mdiImagePlusOutline" @click="choose('another')">Choose a picture</v-btn></template
        >
      </EmptyPlace>
      <p v-else-if="store.failure" class="failure">{{ store.failure }}</p>
      <v-progress-linear v-if="bringing" indeterminate class="working" aria-label="Bringing the picture" />
    </section>
    <aside class="panel judging" aria-label="What is under the point">
      <div class="bar" role="tablist" aria-label="Beside the picture">
        <button
          v-for="[name, title] in PANELS"
          :key="name"
          type="button"
          role="tab"
          class="tab"
          :class="{ on: looking.panel === name }"
          :aria-selected="looking.panel === name"
          @click="looking.panel = name"
        >
          {{ panelTitle(name, title) }}
        </button>
      </div>
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
        <HeldSample v-if="samples.selected" :at-another="!isHeld" @here="moveHere" @join="joinHere" />
        <LiveRecipe :live="live" :still="still" :trust="trust" :amount-ml="amountMl" :held="isHeld" @keep="keep" @near="nearHere">
          <template #place="{ calm }">
            <PlaceLine
              v-model:zone="zoneNow"
              v-model:thing="thingNow"
              :proposed="!isHeld && zone === undefined"
              :calm="calm"
              @thing="saveThing"
            >
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
            </PlaceLine>
          </template>
          <template #tubes="{ mixture }"><PaletteTubes v-model="leftOut" :mixture="mixture" /></template>
        </LiveRecipe>
      </template>
      <PreparePanel v-else-if="looking.panel === 'prepare' && store.pixels" :outline="outline" />
      <KeyPanel v-else-if="looking.panel === 'key' && store.pixels" :seen="live?.lab" />
      <PicturesPanel
        v-else-if="looking.panel === 'pictures'"
        @bring="choose('another')"
        @camera="choose('another', true)"
        @replace="choose('instead')"
      />
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
  min-height: 132px;
}
@media (max-width: 780px) {
  .under {
    min-height: 180px;
  }
}
@media (max-width: 600px), (max-height: 520px) {
  .under {
    min-height: 132px;
  }
}
.panel {
  padding: 0 calc(6 * var(--unit)) calc(4 * var(--unit));
  overflow-y: auto;
  border-left: 1px solid var(--surround-line);
}
.bar {
  display: flex;
  margin: 0 calc(-3 * var(--unit)) calc(2 * var(--unit));
  border-bottom: 1px solid var(--surround-line);
}
.tab {
  flex: 1;
  min-height: 48px;
  border-bottom: 3px solid transparent;
}
.tab.on {
  font-weight: 700;
  border-bottom-color: currentColor;
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
    grid-template: minmax(0, 50fr) minmax(0, 50fr) / minmax(0, 1fr);
  }
  .stage {
    padding: calc(2 * var(--unit)) calc(2 * var(--unit)) 0;
  }
  .panel {
    padding: 0 calc(4 * var(--unit)) calc(3 * var(--unit));
    border-left: 0;
    border-top: 1px solid var(--surround-line);
  }
}
@media (orientation: portrait) and (min-width: 601px) {
  .reference {
    grid-template: minmax(0, 1fr) 404px / minmax(0, 1fr);
  }
}
/* Where there is little height what is kept by stands before where it is. */
@media (max-height: 520px) {
  .panel :deep(.chips) {
    height: 44px !important;
  }
  .panel :deep(.keep) {
    order: 1;
  }
  .panel :deep(.place-line) {
    order: 2;
  }
}
/* On a phone what is asked less often stands last. */
@media (max-width: 600px) and (orientation: portrait), (max-height: 520px) {
  .panel {
    display: flex;
    flex-direction: column;
    padding-top: calc(2 * var(--unit));
  }
  .bar {
    order: 1;
  }
}
</style>
