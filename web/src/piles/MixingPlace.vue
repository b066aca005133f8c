<script setup lang="ts">
import { mdiCardPlusOutline, mdiPlus, mdiPrinterOutline, mdiWalk } from '@mdi/js';
import { colourName, temperatureWord, valueOfLightness, mlText } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { MOST_LAYERS } from '@dusk/wire/limits';
import { labOfDto } from '@dusk/wire/written';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useCards } from '../stores/cards.ts';
import { counted } from '../floor/words.ts';
import { useFinding } from '../stores/finding.ts';
import RemakeAll from '../remaking/RemakeAll.vue';
import PrintSheet from '../printing/PrintSheet.vue';
import ColourPair from '../chips/ColourPair.vue';
import { usePaintings } from '../stores/paintings.ts';
import { usePalettes } from '../stores/palettes.ts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import { useSettings } from '../stores/settings.ts';
import { useAskedFor } from '../floor/useAskedFor.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import CommonHeapSheet from '../kin/CommonHeapSheet.vue';
import LogPile from './LogPile.vue';
import MissingTube from './MissingTube.vue';
import NewPile from './NewPile.vue';
import OpenPile from '../pile/OpenPile.vue';
import OutingSheet from '../outing/OutingSheet.vue';
import { lookNow, nameBeside, usePiles } from '../stores/piles.ts';
import { useCommonHeap } from '../kin/useCommonHeap.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { useWhite } from '../floor/white.ts';

const route = useRoute();
const paintings = usePaintings();
const piles = usePiles();
const settings = useSettings();
const { short } = useKnown();
const logging = ref(false);
const making = ref(false);
const recalling = ref(false);
const printing = ref(false);
const goingOut = ref(false);
/** The piles from another palette: asked for here, or where it is said that some are stranded. */
const remaking = useAskedFor('remake');
const router = useRouter();
const cards = useCards();
const finding = useFinding();
const palettes = usePalettes();
/** The layer's piles as cards of one set, which is then looked into. */
async function makeCards(): Promise<void> {
  const layer = paintings.onEasel?.layer ?? 1;
  const ofLayer = piles.ofRank.filter((pile) => pile.layer === layer);
  if (ofLayer.length === 0) return;
  const set = await cards.makeSet(ofLayer, 'layer', `${paintings.onEasel!.title}, layer ${layer}`);
  if (!set) return;
  finding.clear();
  finding.setId = set;
  await router.push({ name: 'cards' });
}

const opened = computed(() => piles.byId.get(String(route.params['pileId'] ?? '')));
const planned = computed(() => piles.list.filter(({ stages, layer }) => stages.length === 0 && layer === (paintings.onEasel?.layer ?? 1)));
/** One heap that several of them could begin with: offered in the list, not with a pile open. */
const common = useCommonHeap(computed(() => (opened.value ? [] : planned.value)));
const sharing = ref(false);
const white = useWhite();
/** Munsell chroma: 2 is a grey with a lean, 6 a quiet colour, 12 a strong one. */
const CEILINGS = [1, 2, 3, 4, 5, 6, 7, 8, 10, 12] as const;
const chosen = (event: Event): string => (event.target as HTMLSelectElement).value;
const setPainting = (part: Parameters<typeof paintings.change>[1]): Promise<unknown> => paintings.change(paintings.onEasel!.id, part);
const paintingId = computed(() => paintings.onEasel?.id ?? '');
const standing = (pile: PileDto): string => {
  if (pile.stages.length === 0) return 'planned';
  return pile.there > 0 ? `${mlText(pile.there)} on the palette` : pile.stages.at(-1)!.kind === 'scraped' ? 'wiped off' : 'used up';
};
const word = (pile: PileDto): string => temperatureWord(settings.temperatureOf(lookNow(pile)));
useShortcuts(() => [
  { key: 'l', run: () => (logging.value = true) },
  { key: 'n', run: () => (making.value = true) },
  { key: 'q', run: () => (recalling.value = true) },
  // With a pile open these keys are the pile's own.
  ...(opened.value
    ? []
    : [
        { key: 'c', run: () => void makeCards() },
        { key: 'p', run: () => (printing.value = true) },
        { key: 'o', run: () => (goingOut.value = true) },
      ]),
]);
</script>

<template>
  <OpenPile v-if="opened" :key="opened.id" :pile="opened" />
  <div v-else class="piles judging">
    <EmptyPlace v-if="piles.list.length === 0" title="No piles yet">
      Here lie the piles of this painting, dark to light, each with its recipe and what was done with it. Point at a colour in the reference
      and keep it, or log a pile that you have mixed already.
      <template #step>
        <v-btn variant="outlined" :to="{ name: 'reference', params: { paintingId } }">Point at a colour</v-btn>
        <v-btn variant="outlined" class="also" @click="making = true">Say a colour</v-btn>
        <v-btn variant="outlined" class="also" @click="logging = true">I mixed one myself</v-btn>
      </template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>Piles, dark to light</h1>
        <div class="of-painting figures">
          <label
            >layer
            <select :value="paintings.onEasel?.layer" data-test="layer" @change="setPainting({ layer: Number(chosen($event)) })">
              <option v-for="layer in MOST_LAYERS" :key="layer" :value="layer">{{ layer }}</option>
            </select></label
          >
          <label
            >how bright it may get
            <select
              :value="paintings.onEasel?.ceiling ?? ''"
              data-test="ceiling"
              @change="setPainting({ ceiling: chosen($event) === '' ? null : Number(chosen($event)) })"
            >
              <option value="">none</option>
              <option v-for="ceiling in CEILINGS" :key="ceiling" :value="ceiling">{{ ceiling }}</option>
            </select></label
          >
        </div>
        <div class="begin">
          <v-btn variant="outlined" :prepend-icon="mdiPlus" @click="making = true">A new pile&ensp;<kbd>n</kbd></v-btn>
          <v-btn variant="outlined" @click="logging = true">I mixed one myself&ensp;<kbd>l</kbd></v-btn>
          <v-btn variant="outlined" data-test="another-palette" @click="remaking = true">{{
            piles.stranded.size > 0 ? `Remake ${counted(piles.stranded.size, 'pile')}` : 'Another palette'
          }}</v-btn>
          <v-btn variant="outlined" @click="recalling = true">A tube forgotten&ensp;<kbd>q</kbd></v-btn>
          <v-btn v-if="planned.length > 0" variant="outlined" :to="{ name: 'easel-plan', params: { paintingId } }">All at the easel</v-btn>
          <v-btn variant="text" :prepend-icon="mdiCardPlusOutline" aria-label="Cards of this layer" @click="makeCards"
            >Cards&ensp;<kbd>c</kbd></v-btn
          >
          <v-btn variant="text" :prepend-icon="mdiPrinterOutline" aria-label="Print this painting" @click="printing = true"
            >Print&ensp;<kbd>p</kbd></v-btn
          >
          <v-btn variant="text" :prepend-icon="mdiWalk" aria-label="Out of doors: take it along, bring it home" @click="goingOut = true"
            >Out of doors&ensp;<kbd>o</kbd></v-btn
          >
        </div>
      </header>
      <p v-if="common" class="common" data-test="common">
        <span class="chip" :style="{ background: white.shown(common.lab).css }" />
        <span
          >One {{ colourName(common.lab) }} would do for {{ common.piles.length }} of these:
          <span class="figures">{{ short(common.mixture, common.ml) }}</span></span
        >
        <v-btn variant="outlined" @click="sharing = true">See it</v-btn>
      </p>
      <nav class="grid" aria-label="Piles of this painting, dark to light">
        <RouterLink
          v-for="pile in piles.ofRank"
          :key="pile.id"
          class="pile"
          :to="{ name: 'mixing', params: { paintingId, pileId: pile.id } }"
        >
          <ColourPair :target="pile.target && labOfDto(pile.target.lab)" :mixed="piles.seenNow(pile)" :height="64" />
          <span>
            <span class="figures"
              ><b class="value">{{ settings.valueText(valueOfLightness(lookNow(pile)[0])) }}</b> {{ pile.name }}, {{ word(pile) }}</span
            ><br />
            <span class="recipe figures">{{ short(pile.plan, pile.ml) }}</span><br />
            <span class="recipe figures">{{ standing(pile) }}</span>
            <span v-if="piles.leftOf(pile.id).length > 0" class="recipe figures"
              ><br />left over:
              <template v-for="one in piles.leftOf(pile.id)" :key="one.id"
                ><span class="left" :style="{ background: piles.shownNow(one) }" /> {{ mlText(one.there) }} {{ nameBeside(one, pile) }}
              </template></span
            >
            <span v-if="piles.stranded.has(pile.id)" class="recipe gone" data-test="stranded"
              ><br />not on this palette: {{ piles.stranded.get(pile.id)!.join(', ') }}</span
            >
          </span>
        </RouterLink>
      </nav>
    </template>
  </div>
  <CommonHeapSheet v-if="common" v-model="sharing" :common="common" />
  <LogPile v-model="logging" />
  <NewPile v-model="making" />
  <MissingTube v-model="recalling" />
  <RemakeAll v-model="remaking" />
  <OutingSheet v-model="goingOut" />
  <PrintSheet
    v-if="paintings.onEasel"
    v-model="printing"
    :title="paintings.onEasel.title"
    :of="{ paintingId }"
    :sheets="['order', 'painting', 'painting-kit', 'lesson']"
    :piles="piles.ofRank.map((pile) => ({ id: pile.id, name: pile.name, lab: lookNow(pile) }))"
    :palettes="palettes.all"
  />
</template>

<style scoped>
.begin :deep(.v-btn--variant-text) {
  min-width: 0;
  padding: 0 calc(2 * var(--unit));
}
.also {
  margin-left: calc(3 * var(--unit));
}
.common {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit)) calc(3 * var(--unit));
  margin: 0 0 calc(4 * var(--unit));
}
.common .chip {
  width: 56px;
  height: 44px;
}
.left {
  display: inline-block;
  width: 16px;
  height: 16px;
  border-radius: 50%;
  vertical-align: middle;
}
.piles {
  height: 100%;
  overflow-y: auto;
  padding: calc(4 * var(--unit)) calc(7 * var(--unit)) calc(7 * var(--unit));
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  justify-content: space-between;
  align-items: center;
  margin-bottom: calc(3 * var(--unit));
}
.of-painting {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(5 * var(--unit));
  margin-right: auto;
  font-size: var(--size-note);
}
.of-painting select {
  min-height: 44px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
}
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(420px, 100%), 1fr));
  gap: var(--unit) calc(8 * var(--unit));
}
.pile {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  gap: calc(4 * var(--unit));
  align-items: center;
  padding: calc(2 * var(--unit)) 0;
  color: inherit;
  text-decoration: none;
  line-height: 1.25;
  overflow-wrap: anywhere;
}
.gone {
  font-weight: 700;
}
.value {
  font-size: var(--size-lead);
}
.recipe {
  font-size: var(--size-note);
}
@media (orientation: portrait) {
  .grid {
    grid-template-columns: 1fr;
  }
}
</style>
