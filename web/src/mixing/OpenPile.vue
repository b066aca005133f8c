<script setup lang="ts">
import { mdiBroom, mdiDeleteOutline, mdiHistory, mdiRecycle } from '@mdi/js';
import { colourFromText, CraftError, hexToLab, paintOfMixture, type Lab } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, ref, toRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { LAMP_NAMES, underLamp, underLamps } from '../chips/lamps.ts';
import { clock, mlText } from '../chips/words.ts';
import { useDesk } from '../engine/useDesk.ts';
import Tabs from '../controls/Tabs.vue';
import { usePaintings } from '../paintings/paintings.ts';
import EditableName from '../shell/EditableName.vue';
import { useSight } from '../shell/sight.ts';
import { useShortcuts } from '../shell/useShortcuts.ts';
import { useTubes } from '../tubes/tubes.ts';
import AddThis from './AddThis.vue';
import FamilyTree from './FamilyTree.vue';
import JudgingStage from './JudgingStage.vue';
import KinPanel from './KinPanel.vue';
import LearntLine from './LearntLine.vue';
import LookKeys from './LookKeys.vue';
import MotherAsks from './MotherAsks.vue';
import OtherRecipes from './OtherRecipes.vue';
import PhotoLook from './PhotoLook.vue';
import PileHistory from './PileHistory.vue';
import { usePiles } from './piles.ts';
import PlannedRecipe from './PlannedRecipe.vue';
import PurposePanel from './PurposePanel.vue';
import RemakeSheet from './RemakeSheet.vue';
import StoryStrip from './StoryStrip.vue';
import StringPanel from './StringPanel.vue';
import StringPlan from './StringPlan.vue';
import { sourceName } from './handling.ts';
import { useKin } from './useKin.ts';
import { useString } from './useString.ts';
import { useWorkOnPile } from './useWorkOnPile.ts';
import WhitePaper from './WhitePaper.vue';
import { useWhite } from './white.ts';

/** A pile as it is worked on: one judging stage, what it looks like, what to do next. */
const props = defineProps<{ pile: PileDto }>();
const router = useRouter();
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();
const white = useWhite();
const sight = useSight();
const paintings = usePaintings();
const route = useRoute();
const { state, looking, corrected, target, beliefs, underWay, mixed, recordLook, fits, all, one, changed, scraped } = useWorkOnPile(
  toRef(props, 'pile'),
);
const history = ref(false);
const photo = ref(false);
const typed = ref('');
const typing = ref('');

const standing = computed(() => {
  const { stages, there, ml } = props.pile;
  if (state.value === 'planned') return stages.length === 0 ? `to be mixed, ${ml} ml` : 'scraped off; to be mixed anew';
  if (there <= 0) return 'used up';
  return `on the palette since ${clock(stages.find((s) => s.kind === 'mixed')!.at)} · ${mlText(there)}`;
});
const knifeIs = computed(() => {
  if (state.value === 'planned') return 'as planned';
  return looking.draft.value || looking.stage.value?.looks.length ? 'on the knife' : 'should be';
});
const paint = computed(() => desk.paintOfPile(props.pile.id));
const lamps = computed(() => underLamps(paint.value));
const isByLamp = computed(() => sight.lamp !== 'D65');

/** What stands beside the pile: its recipe or what to add, its kin, strings, what it is for. */
const PANELS = ['recipe', 'kin', 'string', 'for'] as const;
type Panel = (typeof PANELS)[number];
const panel = ref<Panel>(route.query['with'] ? 'kin' : 'recipe');
watch(
  () => route.query['with'],
  (other) => other && (panel.value = 'kin'),
);
const isKin = computed(() => panel.value === 'kin');
const kin = useKin(toRef(props, 'pile'), isKin);
const string = useString(
  toRef(props, 'pile'),
  computed(() => panel.value === 'string'),
);
const tabs = computed(() => [
  { id: 'recipe' as const, title: state.value === 'planned' ? 'Recipe' : 'Add', key: '1' },
  { id: 'kin' as const, title: 'Kin', key: '2' },
  { id: 'string' as const, title: 'String', key: '3' },
  { id: 'for' as const, title: 'For', key: '4' },
]);
const remaking = ref(false);

/** On what it is judged: the grey round it, the painting's ground, or what it will cover. */
const on = ref<'grey' | 'ground' | 'over'>('grey');
const over = computed(() => piles.byId.get(props.pile.purpose.overId ?? ''));
const laidOn = computed((): Lab | undefined => {
  if (on.value === 'ground' && paintings.onEasel) return hexToLab(paintings.onEasel.ground);
  return on.value === 'over' && over.value ? piles.seenNow(over.value) : undefined;
});
const byLamp = (lab: Lab): Lab => underLamp(lab, sight.lamp);
const ofPile = computed(() => underLamp(looking.lab.value, sight.lamp, paint.value));
const stage = computed(() => {
  const beside = kin.neighbours.value.map(({ id, name }) => ({ what: name, lab: piles.seenNow(piles.byId.get(id)!) }));
  const { shown, plan, other, moves } = kin;
  if (isKin.value && shown.value) {
    const own =
      plan.value && isByLamp.value
        ? underLamp(
            shown.value,
            sight.lamp,
            paintOfMixture(plan.value, (source) => desk.paintOf(source).paint),
          )
        : shown.value;
    const into = !moves.value && other.value ? [{ what: other.value.name, lab: piles.seenNow(other.value) }] : [];
    return {
      wanted: ofPile.value,
      wantedIs: 'this pile',
      knife: own,
      knifeIs: moves.value ? 'its child' : 'the two in one',
      beside: [...into, ...beside],
    };
  }
  return {
    wanted: target.value ? byLamp(target.value) : undefined,
    wantedIs: 'wanted',
    knife: ofPile.value,
    knifeIs: knifeIs.value,
    beside,
  };
});

function readTyped(): void {
  try {
    looking.read(colourFromText(typed.value), 'typed');
    typed.value = typing.value = '';
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    typing.value = cause.message;
  }
}
/** What is to show in a pile that is left broken. */
const shows = computed(() =>
  (props.pile.purpose.showing ?? [])
    .map((id) => sourceName(tubes.byId.has(id) ? { tube: id } : { pile: id }, tubes.byId, piles.byId))
    .join(', '),
);
/** The first look by eye asks for the white of the paper, once per light. */
function ready(): boolean {
  if (white.isSet || white.outshone) return true;
  white.setting = true;
  return false;
}
const nudge: typeof looking.nudge = (by, steps) => {
  if (ready()) looking.nudge(by, steps);
};
async function putAway(): Promise<void> {
  const { paintingId } = props.pile;
  if (await piles.remove(props.pile.id)) await router.replace({ name: 'mixing', params: { paintingId } });
}

const LARGE = 5;
const isMixed = computed(() => state.value === 'mixed' && props.pile.there > 0);
async function keepChild(): Promise<void> {
  await kin.keepChild();
  // The two that were dropped on one another are no longer asked for.
  if (route.query['with']) await router.replace({ query: {} });
}
async function keepString(): Promise<void> {
  const first = await string.keep();
  if (first) panel.value = 'recipe';
}
const KIN_LARGE = 3;
const kinKey = (key: string, by: Parameters<typeof kin.step>[0], way: 1 | -1) => ({
  key,
  repeats: true,
  run: (event: KeyboardEvent) => kin.step(by, way * (event.shiftKey ? KIN_LARGE : 1)),
});
const nudgeKey = (key: string, by: Parameters<typeof nudge>[0], way: 1 | -1) => ({
  key,
  repeats: true,
  run: (event: KeyboardEvent) => isMixed.value && nudge(by, way * (event.shiftKey ? LARGE : 1)),
});
function next(): void {
  if (state.value === 'planned') void mixed();
  else if (underWay.value) void all(underWay.value.way);
  else if (corrected.value?.correction.ways[0]) void all(corrected.value.correction.ways[0]);
}
const kinKeys = () => [
  kinKey('ArrowUp', 'value', 1),
  kinKey('ArrowDown', 'value', -1),
  kinKey('ArrowRight', 'temperature', 1),
  kinKey('ArrowLeft', 'temperature', -1),
  kinKey('+', 'chroma', 1),
  kinKey('=', 'chroma', 1),
  kinKey('-', 'chroma', -1),
  kinKey('i', 'shadow', 1),
  kinKey('f', 'off', 1),
  { key: 'Enter', run: () => void keepChild() },
];
useShortcuts(() => [
  ...PANELS.map((name, i) => ({ key: String(i + 1), run: () => void (panel.value = name) })),
  { key: 'r', run: () => void (remaking.value = true) },
  ...(isKin.value ? kinKeys() : []),
  ...(panel.value === 'string' ? [{ key: 'Enter', run: () => void keepString() }] : []),
  nudgeKey('ArrowUp', 'value', 1),
  nudgeKey('ArrowDown', 'value', -1),
  nudgeKey('ArrowRight', 'hue', 1),
  nudgeKey('ArrowLeft', 'hue', -1),
  nudgeKey('+', 'chroma', 1),
  nudgeKey('=', 'chroma', 1),
  nudgeKey('-', 'chroma', -1),
  { key: 'Enter', run: () => void recordLook() },
  { key: 'm', run: () => isMixed.value && void fits() },
  { key: ' ', run: next },
]);
</script>

<template>
  <section class="open-pile judging" :aria-label="`Pile ${pile.name}`">
    <h1 class="for-readers">Pile {{ pile.name }}</h1>
    <header>
      <EditableName
        :name="pile.name"
        label="Name of the pile"
        :most="80"
        :on-rename="(name, meanwhile) => piles.change(pile.id, { name }, `Called it “${name}”`, meanwhile)"
      />
      <p class="standing figures" data-test="standing">
        {{ standing }}
        <RouterLink
          v-if="pile.sampleId"
          class="seen-at"
          :to="{ name: 'reference', params: { paintingId: pile.paintingId }, query: { sample: pile.sampleId } }"
          >where it was seen</RouterLink
        >
      </p>
      <v-btn
        :icon="mdiRecycle"
        aria-label="Remake it from today’s tubes"
        title="Remake it from today’s tubes (r)"
        @click="remaking = true"
      />
      <v-btn :icon="mdiHistory" aria-label="History of this pile, line by line" title="History" @click="history = true" />
      <v-btn v-if="isMixed" :icon="mdiBroom" aria-label="Scrape this pile off" title="Scrape this pile off" @click="scraped" />
      <v-btn :icon="mdiDeleteOutline" aria-label="Put this pile away" title="Put this pile away" @click="putAway" />
    </header>
    <div class="work">
      <div class="left">
        <JudgingStage
          v-if="panel !== 'string' || !string.proposed.value"
          :wanted="stage.wanted"
          :wanted-is="stage.wantedIs"
          :knife="stage.knife"
          :knife-is="stage.knifeIs"
          :beside="stage.beside"
          :on="laidOn"
          v-bind="isByLamp ? { lamp: LAMP_NAMES[sight.lamp] } : {}"
        />
        <template v-if="isMixed && !isKin">
          <LookKeys :lab="looking.lab.value" @nudge="nudge" @say="looking.say" />
          <div class="otherwise">
            <form class="typed" @submit.prevent="readTyped">
              <label>or type it <input v-model="typed" placeholder="5YR 4/3, #7a5a48, 42 10 14" aria-label="Colour as typed" /></label>
            </form>
            <button type="button" class="plain" @click="photo = true">or a photo</button>
            <button v-if="looking.draft.value" type="button" class="plain strong" @click="recordLook">
              That is how it looks <kbd>Enter</kbd>
            </button>
            <button v-if="looking.draft.value" type="button" class="plain" @click="looking.clear()">Start over</button>
          </div>
          <p v-if="typing" class="wrong" role="alert">{{ typing }}</p>
        </template>
        <div class="story">
          <StoryStrip v-if="pile.stages.length > 0" :pile="pile" @history="history = true" />
          <LearntLine :pile="pile" :without="beliefs" />
        </div>
        <StringPlan v-if="panel === 'string' && string.proposed.value" :string="string" @keep="keepString" />
        <div class="seen-by">
          <div class="lamps" role="radiogroup" aria-label="The lamp that chips are seen by">
            <button
              v-for="lamp in lamps"
              :key="lamp.name"
              type="button"
              class="by"
              role="radio"
              :aria-checked="sight.lamp === lamp.lamp"
              @click="sight.lamp = lamp.lamp"
            >
              <span class="lamp" :style="{ background: white.shown(lamp.lab).css }" />
              <span class="lamp-name">{{ lamp.name }}</span>
            </button>
          </div>
          <label class="on"
            >on
            <select v-model="on" data-test="laid-on">
              <option value="grey">the grey</option>
              <option value="ground">the ground</option>
              <option v-if="over" value="over">{{ over.name }}</option>
            </select></label
          >
        </div>
        <FamilyTree v-if="isKin" class="family" :pile="pile" />
        <p v-if="pile.note" class="noted">{{ pile.note }}</p>
        <p v-if="pile.purpose.leftBroken" class="noted">
          Left broken<template v-if="shows">: {{ shows }}</template
          >.
        </p>
      </div>
      <div class="right">
        <MotherAsks />
        <Tabs v-model="panel" label="Beside the pile" :tabs="tabs" />
        <KinPanel v-if="isKin" :pile="pile" :kin="kin" @child="keepChild" @itself="kin.changeItself()" />
        <StringPanel v-else-if="panel === 'string'" :pile="pile" :string="string" />
        <PurposePanel v-else-if="panel === 'for'" :pile="pile" />
        <template v-else-if="state === 'planned'">
          <PlannedRecipe :pile="pile" @mixed="mixed" />
          <OtherRecipes :pile="pile" />
        </template>
        <AddThis
          v-else-if="isMixed"
          :pile="pile"
          :corrected="corrected"
          :plan="underWay?.way"
          :ml-of-part="underWay?.mlOfPart ?? corrected?.mlOfPart ?? 1"
          :done-steps="underWay?.done ?? 0"
          @all="all"
          @one="one"
          @fits="fits"
          @changed="changed"
        />
      </div>
    </div>
    <PileHistory v-model="history" :pile="pile" />
    <PhotoLook v-model="photo" @read="looking.read($event, 'photo')" />
    <RemakeSheet v-model="remaking" :pile="pile" />
    <WhitePaper />
  </section>
</template>

<style scoped>
.open-pile {
  height: 100%;
  padding: calc(2 * var(--unit)) calc(6 * var(--unit)) calc(3 * var(--unit));
  overflow-y: auto;
}
header {
  display: grid;
  grid-template-columns: minmax(120px, max-content) minmax(0, 1fr) auto auto auto auto;
  gap: var(--unit) calc(4 * var(--unit));
  align-items: center;
  margin-bottom: calc(2 * var(--unit));
}
.standing {
  font-size: var(--size-note);
}
.seen-at {
  display: inline-block;
  white-space: nowrap;
  color: inherit;
  margin-left: calc(2 * var(--unit));
}
.work {
  display: grid;
  grid-template-columns: minmax(0, 1.66fr) minmax(0, 1fr);
  gap: calc(9 * var(--unit));
}
.left {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: calc(2 * var(--unit));
  align-content: start;
}
.otherwise {
  display: flex;
  flex-wrap: wrap;
  gap: var(--unit) calc(4 * var(--unit));
  align-items: center;
}
.typed input {
  border-bottom: 1px solid currentColor;
  min-height: 40px;
  width: 200px;
  padding: 0 var(--unit);
}
.plain {
  min-height: 44px;
  text-decoration: underline;
}
.strong {
  font-weight: 700;
}
.wrong {
  font-weight: 700;
}
.story {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
  align-items: end;
}
.story > :last-child {
  flex: 1 1 200px;
}
.seen-by {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(4 * var(--unit));
  align-items: end;
}
.lamps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
}
.by {
  display: grid;
  align-content: start;
  min-height: 56px;
  text-align: left;
}
.lamp {
  height: 30px;
}
.lamp-name {
  font-size: var(--size-note);
  line-height: 1.3;
}
.by[aria-checked='true'] .lamp-name {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.on {
  font-size: var(--size-note);
}
.on select {
  min-height: 44px;
  max-width: 150px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
}
.noted {
  white-space: pre-line;
  border-left: 3px solid currentColor;
  padding-left: calc(2 * var(--unit));
}
@media (orientation: portrait), (max-width: 800px) {
  .open-pile {
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
  /* Upright: what to add stands under the keys, what is asked less often below it. */
  .work {
    display: flex;
    flex-direction: column;
    gap: calc(3 * var(--unit));
  }
  .left {
    display: contents;
  }
  .right {
    order: 1;
  }
  .otherwise,
  .wrong,
  .story,
  .family,
  .noted,
  .seen-by {
    order: 2;
  }
}
@media (max-width: 800px) {
  header {
    grid-template-columns: minmax(0, 1fr) auto auto auto auto;
  }
  .standing {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
