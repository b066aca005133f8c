<script setup lang="ts">
import { mlText } from '@dusk/core';
import { mdiChevronLeft } from '@mdi/js';
import type { PileDto } from '@dusk/wire';
import { computed, defineAsyncComponent, ref, toRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useCards } from '../stores/cards.ts';
import { LAMP_NAMES } from '../floor/lamps.ts';
import { clock } from '../floor/words.ts';
import MoreKeys from '../controls/MoreKeys.vue';
import { inSteps } from '../floor/inSteps.ts';
import EditableName from '../controls/EditableName.vue';
import { useSight } from '../floor/sight.ts';
import { useAskedFor } from '../floor/useAskedFor.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useTubes } from '../stores/tubes.ts';
import AddThis from '../correcting/AddThis.vue';
import FamilyTree from '../kin/FamilyTree.vue';
import IntoAll from '../kin/IntoAll.vue';
import JudgingStage from './JudgingStage.vue';
import KinPanel from '../kin/KinPanel.vue';
import LearntLine from './LearntLine.vue';
import SaidKeys from '../correcting/SaidKeys.vue';
import MotherAsks from '../kin/MotherAsks.vue';
import OtherLooks from '../correcting/OtherLooks.vue';
import OtherRecipes from './OtherRecipes.vue';
import PhotoLook from '../correcting/PhotoLook.vue';
import PileHistory from './PileHistory.vue';
import { stringOf, nameBeside, usePiles } from '../stores/piles.ts';
import PlannedRecipe from './PlannedRecipe.vue';
import PurposePanel from './PurposePanel.vue';
import RemakePile from '../remaking/RemakePile.vue';
import PictureBeside from '../picture/PictureBeside.vue';
import SeenBy from './SeenBy.vue';
import ShortAsks from '../kin/ShortAsks.vue';
import StoryStrip from './StoryStrip.vue';
import StringPanel from '../strings/StringPanel.vue';
import StringPlan from '../strings/StringPlan.vue';
import StringStrip from '../strings/StringStrip.vue';
import { sourceName } from '../recipe/handling.ts';
import { useKin } from '../kin/useKin.ts';
import { useStage } from './useStage.ts';
import { useString } from '../strings/useString.ts';
import { useWorkOnPile } from './useWorkOnPile.ts';
import WhitePaper from '../correcting/WhitePaper.vue';
import { DOORS, useDoors } from './useDoors.ts';
import { useWhiteFirst } from './useWhiteFirst.ts';
import { kinKeys, nudgeKeys } from './keysOfPile.ts';

const LaidPanel = defineAsyncComponent(() => import('../landing/LaidPanel.vue'));

/** A pile as it is worked on: one judging stage, what it looks like, what to do next. */
const props = defineProps<{ pile: PileDto }>();
const steps = inSteps(4);
const router = useRouter();
const cards = useCards();
const piles = usePiles();
const tubes = useTubes();
const sight = useSight();
const route = useRoute();
const work = useWorkOnPile(toRef(props, 'pile'));
const { state, looking, corrected, target, beliefs, isAsWanted, underWay, mixed, recordLook, confirm, fits, all, one, changed, scraped } =
  work;
const { short, most, mixedOfLess, mixedAnyway } = work;
const history = ref(false);
/** Whether a little of it is to go into all the others. */
const intoAll = useAskedFor('into');
const photo = ref(false);

const standing = computed(() => {
  const { stages, there, ml } = props.pile;
  if (state.value === 'planned') return stages.length === 0 ? `to be mixed, ${ml} ml` : 'wiped off; to be mixed anew';
  if (there <= 0) return 'used up';
  return `on the palette since ${clock(stages.find((s) => s.kind === 'mixed')!.at)} · ${mlText(there)}`;
});
const right = useTemplateRef('right');
const { panel, behind, isKin, isString, toggle, keys: doorKeys } = useDoors(right);
const kin = useKin(toRef(props, 'pile'), isKin);
const string = useString(toRef(props, 'pile'), isString);
const remaking = ref(false);
const knifeIs = computed(() => {
  if (state.value === 'planned') return 'as planned';
  if (looking.draft.value) return 'as you say it is';
  return looking.stage.value?.looks.length ? 'on the knife' : 'should be';
});
const { on, besideId, over, laidOn, paint, stage } = useStage(toRef(props, 'pile'), { lab: looking.lab, knifeIs, target, kin, isKin });
const isByLamp = computed(() => sight.lamp !== 'D65');

/** What is to show in a pile that is left broken. */
const shows = computed(() =>
  (props.pile.purpose.showing ?? [])
    .map((id) => sourceName(tubes.byId.has(id) ? { tube: id } : { pile: id }, tubes.byId, piles.byId))
    .join(', '),
);
const whiteFirst = useWhiteFirst();
const nudge: typeof looking.nudge = (by, steps) => whiteFirst(() => looking.nudge(by, steps));
async function putAway(): Promise<void> {
  const { paintingId } = props.pile;
  if (await piles.remove(props.pile.id)) await router.replace({ name: 'mixing', params: { paintingId } });
}

const isMixed = computed(() => state.value === 'mixed' && props.pile.there > 0);
async function keepChild(): Promise<void> {
  await kin.keepChild();
  // The two that were dropped on one another are no longer asked for.
  if (route.query['with']) await router.replace({ query: {} });
}
async function keepString(): Promise<void> {
  const first = await string.keep();
  if (!first) return;
  panel.value = 'recipe';
  // What was kept is what is seen next.
  if (first !== props.pile.id) await router.push({ name: 'mixing', params: { paintingId: props.pile.paintingId, pileId: first } });
}
function next(): void {
  if (state.value === 'planned') void mixed();
  else if (underWay.value) void all(underWay.value.way);
  else if (!isAsWanted.value && corrected.value?.correction.ways[0]) void all(corrected.value.correction.ways[0]);
}
/** The card that was made last of this pile, to be gone to. */
const cardId = ref<string>();
async function makeCard(): Promise<void> {
  cardId.value = (await cards.make(props.pile)) ?? cardId.value;
}
/** A card of the pile; with its string in sight, of all that stand in it. */
function makeCards(): Promise<unknown> {
  const others = isString.value ? stringOf(props.pile, piles.list) : [];
  if (others.length > 1) return cards.makeSet(others, 'string', props.pile.name);
  return makeCard();
}
const seldom = computed(() => [
  { title: 'Make a card of it', key: 'c', run: makeCard },
  { title: 'From today’s tubes', label: 'Remake it from today’s tubes', key: 'r', run: () => (remaking.value = true) },
  { title: 'Its history, line by line', label: 'History of this pile, line by line', run: () => (history.value = true) },
  ...(isMixed.value ? [{ title: 'Wipe it off', label: 'Wipe this pile off', run: scraped }] : []),
  { title: 'Put it away', label: 'Put this pile away', run: putAway },
]);
useShortcuts(() => [
  ...doorKeys,
  { key: 'r', run: () => void (remaking.value = true) },
  { key: 'c', run: () => void makeCards() },
  { key: '/', run: () => cards.near(state.value === 'planned' && target.value ? target.value : looking.lab.value, props.pile.name) },
  ...(isKin.value ? [...kinKeys(kin.step), { key: 'Enter', run: () => void keepChild() }] : []),
  ...(isString.value ? [{ key: 'Enter', run: () => void keepString() }] : []),
  ...nudgeKeys((by, steps) => isMixed.value && nudge(by, steps)),
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
          v-for="rest in piles.leftOf(pile.id)"
          :key="rest.id"
          class="beside-it"
          data-test="left-over"
          :to="{ name: 'mixing', params: { paintingId: pile.paintingId, pileId: rest.id } }"
          ><span class="left-over" :style="{ background: piles.shownNow(rest) }" /> {{ mlText(rest.there) }}
          {{ nameBeside(rest, pile) }} left</RouterLink
        >
        <RouterLink v-if="cardId" class="beside-it" data-test="its-card" :to="{ name: 'cards', params: { cardId } }">its card</RouterLink>
      </p>
      <MoreKeys :keys="seldom" label="More of this pile" />
    </header>
    <div class="work">
      <PictureBeside :pile="pile" class="picture" />
      <div class="left">
        <JudgingStage
          v-if="!isString || !string.proposed.value"
          :wanted="stage.wanted"
          :wanted-is="stage.wantedIs"
          :knife="stage.knife"
          :knife-is="stage.knifeIs"
          :beside="stage.beside"
          :on="laidOn"
          v-bind="isByLamp ? { lamp: LAMP_NAMES[sight.lamp] } : {}"
        />
        <template v-if="steps > 0 && isMixed && !isKin">
          <SaidKeys :lab="looking.lab.value" @nudge="nudge" @say="looking.say">
            <OtherLooks :looking="looking" @photo="photo = true" @record="recordLook" />
          </SaidKeys>
        </template>
        <StringStrip v-if="steps > 1" :pile="pile" />
        <div v-if="steps > 1" class="story">
          <StoryStrip v-if="pile.stages.length > 0" :pile="pile" @history="history = true" />
          <LearntLine :pile="pile" :without="beliefs" />
        </div>
        <StringPlan v-if="isString && string.proposed.value" :string="string" @keep="keepString" />
        <SeenBy
          v-if="steps > 1"
          v-model="on"
          v-model:beside="besideId"
          class="seen-by"
          :paint="paint"
          v-bind="over ? { over: over.name } : {}"
        />
        <OtherRecipes v-if="steps > 2 && panel === 'recipe' && state === 'planned'" class="instead" :pile="pile" />
        <FamilyTree v-if="isKin" class="family" :pile="pile" />
        <p v-if="pile.note" class="noted">{{ pile.note }}</p>
        <p v-if="pile.purpose.leftBroken" class="noted">
          Left broken<template v-if="shows">: {{ shows }}</template
          >.
        </p>
      </div>
      <div ref="right" class="right" tabindex="-1">
        <MotherAsks :pile-id="pile.id" />
        <header v-if="behind" class="behind">
          <v-btn :prepend-icon="mdiChevronLeft" data-test="door-back" @click="panel = 'recipe'">
            {{ state === 'planned' ? 'Recipe' : 'Add' }}&ensp;<kbd>1</kbd>
          </v-btn>
          <h2>{{ behind.title }}</h2>
        </header>
        <KinPanel v-if="isKin" :pile="pile" :kin="kin" @child="keepChild" @itself="kin.changeItself()" @into="intoAll = true" />
        <StringPanel v-else-if="isString" :pile="pile" :string="string" />
        <PurposePanel v-else-if="panel === 'for'" :pile="pile" />
        <LaidPanel v-else-if="panel === 'laid'" :pile="pile" />
        <template v-else-if="state === 'planned'">
          <ShortAsks v-if="short.length > 0" :short="short" :most="most" @less="mixedOfLess" @enough="mixedAnyway" @leave="short = []" />
          <PlannedRecipe :pile="pile" @mixed="mixed" @remake="remaking = true" />
        </template>
        <AddThis
          v-else-if="isMixed"
          :pile="pile"
          :corrected="corrected"
          :as-wanted="isAsWanted"
          :plan="underWay?.way"
          :ml-of-part="underWay?.mlOfPart ?? corrected?.mlOfPart ?? 1"
          :done-steps="underWay?.done ?? 0"
          @all="all"
          @one="one"
          @fits="fits"
          @confirm="confirm"
          @changed="changed"
        />
        <nav class="doors" aria-label="What leads on from it">
          <button
            v-for="door in DOORS"
            :key="door.id"
            type="button"
            data-test="door"
            :aria-label="door.title"
            :aria-pressed="panel === door.id"
            :title="`${door.says} (${door.key})`"
            @click="toggle(door.id)"
          >
            {{ door.title }} <kbd>{{ door.key }}</kbd>
          </button>
        </nav>
      </div>
    </div>
    <template v-if="steps > 3">
      <IntoAll v-model="intoAll" :pile="pile" />
      <PileHistory v-model="history" :pile="pile" />
      <PhotoLook v-model="photo" @read="looking.read($event, 'photo')" />
      <RemakePile v-model="remaking" :pile="pile" />
      <WhitePaper />
    </template>
  </section>
</template>

<style scoped>
.open-pile {
  height: 100%;
  padding: calc(2 * var(--unit)) calc(5 * var(--unit)) calc(3 * var(--unit));
  overflow-y: auto;
}
.open-pile > header {
  display: grid;
  grid-template-columns: minmax(200px, 1fr) minmax(0, 1fr) auto;
  gap: var(--unit) calc(4 * var(--unit));
  align-items: center;
  margin-bottom: calc(2 * var(--unit));
}
.standing {
  font-size: var(--size-note);
}
.beside-it {
  display: inline-block;
  white-space: nowrap;
  color: inherit;
  margin-left: calc(2 * var(--unit));
}
.work {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 4.2fr) minmax(340px, 3.4fr);
  gap: calc(6 * var(--unit));
}
.work:has(> .away) {
  grid-template-columns: minmax(0, 1.66fr) minmax(340px, 1fr);
}
.work > .away {
  grid-column: 1 / -1;
  order: 3;
}
/* What is judged, and the picture, stay in sight while what stands beside them is gone through. */
.left,
.picture {
  position: sticky;
  top: 0;
  align-self: start;
}
.left {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: calc(2 * var(--unit));
  align-content: start;
}
.right:focus-visible {
  outline: none;
}
.behind {
  display: flex;
  align-items: center;
  gap: calc(3 * var(--unit));
  margin-bottom: calc(2 * var(--unit));
}
.doors {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: calc(2 * var(--unit));
  margin-top: calc(3 * var(--unit));
}
.doors button {
  min-height: 48px;
  border: 1px solid var(--surround-line);
  border-radius: 3px;
}
.doors [aria-pressed='true'] {
  font-weight: 700;
  border-color: currentColor;
}
.doors kbd {
  border: 0;
  padding: 0 0 0 var(--unit);
  font-size: var(--size-note);
  font-weight: 400;
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
.noted {
  white-space: pre-line;
  border-left: 3px solid currentColor;
  padding-left: calc(2 * var(--unit));
}
.left-over {
  display: inline-block;
  width: 14px;
  height: 14px;
  border-radius: 50%;
  vertical-align: middle;
}
@media (pointer: coarse) {
  .doors kbd {
    display: none;
  }
}
@media (orientation: portrait), (max-width: 800px) {
  .open-pile {
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
  /* Upright: the picture above, what to add under the keys, what is asked less often below it. */
  .work {
    display: flex;
    flex-direction: column;
    gap: calc(3 * var(--unit));
  }
  .left {
    display: contents;
  }
  .picture {
    position: static;
    align-self: stretch;
  }
  .right {
    order: 1;
  }
  .left :deep(.look-keys) {
    display: contents;
  }
  .left :deep(.halves) {
    height: clamp(56px, 12vh, 240px);
  }
  .left :deep(.words),
  .left :deep(.other-looks),
  .left :deep(.sure) {
    order: 2;
  }
  .instead,
  .story,
  .family,
  .noted,
  .seen-by {
    order: 2;
  }
}
/* Little height: what is judged and what to mix stand side by side, both at once; the picture above what is judged. */
@media (max-height: 520px) and (orientation: landscape) {
  .open-pile .work {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
    gap: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
  .open-pile .left {
    display: grid;
    position: static;
    grid-column: 1;
    grid-row: 1;
  }
  .open-pile .picture {
    grid-column: 1;
    grid-row: 2;
  }
  .open-pile .right {
    order: 0;
    grid-column: 2;
    grid-row: 1 / 3;
  }
  .open-pile :deep(.halves) {
    height: 64px;
  }
  .open-pile > header {
    margin-bottom: 0;
  }
}
@media (max-width: 600px) and (orientation: portrait) {
  .work {
    gap: calc(2 * var(--unit));
  }
  .left :deep(.no-seam) {
    display: none;
  }
}
@media (max-width: 800px) {
  .open-pile > header {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .standing {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
