<script setup lang="ts">
import { mdiBroom, mdiDeleteOutline, mdiHistory } from '@mdi/js';
import { colourFromText, CraftError, show } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, ref, toRef } from 'vue';
import { useRouter } from 'vue-router';
import { underLamps } from '../chips/lamps.ts';
import { clock, mlText } from '../chips/words.ts';
import { useDesk } from '../engine/useDesk.ts';
import EditableName from '../shell/EditableName.vue';
import { useShortcuts } from '../shell/useShortcuts.ts';
import AddThis from './AddThis.vue';
import JudgingStage from './JudgingStage.vue';
import LearntLine from './LearntLine.vue';
import LookKeys from './LookKeys.vue';
import OtherRecipes from './OtherRecipes.vue';
import PhotoLook from './PhotoLook.vue';
import PileHistory from './PileHistory.vue';
import { usePiles } from './piles.ts';
import PlannedRecipe from './PlannedRecipe.vue';
import StoryStrip from './StoryStrip.vue';
import { useWorkOnPile } from './useWorkOnPile.ts';
import { paintOfMixture } from '@dusk/core';
import WhitePaper from './WhitePaper.vue';
import { useWhite } from './white.ts';

/** A pile as it is worked on: one judging stage, what it looks like, what to do next. */
const props = defineProps<{ pile: PileDto }>();
const router = useRouter();
const piles = usePiles();
const desk = useDesk();
const white = useWhite();
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
const lamps = computed(() => underLamps(paintOfMixture(props.pile.plan, (source) => desk.paintOf(source).paint)));

function readTyped(): void {
  try {
    looking.read(colourFromText(typed.value), 'typed');
    typed.value = typing.value = '';
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    typing.value = cause.message;
  }
}
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
useShortcuts(() => [
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
      <v-btn :icon="mdiHistory" aria-label="History of this pile, line by line" title="History" @click="history = true" />
      <v-btn v-if="isMixed" :icon="mdiBroom" aria-label="Scrape this pile off" title="Scrape this pile off" @click="scraped" />
      <v-btn :icon="mdiDeleteOutline" aria-label="Put this pile away" title="Put this pile away" @click="putAway" />
    </header>
    <div class="work">
      <div class="left">
        <JudgingStage :wanted="target ?? undefined" :knife="looking.lab.value" :knife-is="knifeIs" />
        <template v-if="isMixed">
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
        <div v-if="state === 'planned'" class="lamps" role="group" aria-label="The pile under other lamps">
          <figure v-for="lamp in lamps" :key="lamp.name">
            <div class="lamp" :style="{ background: show(lamp.lab).css }" />
            <figcaption>{{ lamp.name }}</figcaption>
          </figure>
        </div>
      </div>
      <div class="right">
        <template v-if="state === 'planned'">
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
  grid-template-columns: minmax(120px, max-content) minmax(0, 1fr) auto auto auto;
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
.lamps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
}
.lamps figure {
  margin: 0;
}
.lamp {
  height: 34px;
}
.lamps figcaption {
  font-size: var(--size-note);
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
  .lamps {
    order: 2;
  }
}
@media (max-width: 800px) {
  header {
    grid-template-columns: minmax(0, 1fr) auto auto auto;
  }
  .standing {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
