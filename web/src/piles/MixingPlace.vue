<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { colourName, temperatureWord, valueOfLightness, mlText } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { MOST_LAYERS } from '@dusk/wire/limits';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useCards } from '../stores/cards.ts';
import { counted } from '../floor/words.ts';
import { useFinding } from '../stores/finding.ts';
import ColourPair from '../chips/ColourPair.vue';
import MoreKeys from '../controls/MoreKeys.vue';
import PictureBeside from '../picture/PictureBeside.vue';
import { usePaintings } from '../stores/paintings.ts';
import { usePalettes } from '../stores/palettes.ts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import { useLanding } from '../stores/landing.ts';
import { useSettings } from '../stores/settings.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { inSteps } from '../floor/inSteps.ts';
import {
  CommonHeapSheet,
  DaySheet,
  FieldNotes,
  LogPile,
  MissingTube,
  NewPile,
  OpenPile,
  OutingSheet,
  PalettePhotoSheet,
  PrintSheet,
  RemakeAll,
} from './later.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useCommonHeap } from '../kin/useCommonHeap.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { byLayer, standingOf } from './layers.ts';
import { useSheets } from './useSheets.ts';
import { useWhite } from '../floor/white.ts';

const route = useRoute();
const paintings = usePaintings();
const piles = usePiles();
const settings = useSettings();
const landing = useLanding();
const { short } = useKnown();
const { open, asked, opens } = useSheets();
const { sharing, logging, making, noting, recalling, remaking, goingOut, planning, photographing, printing } = open;
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
/** What stands around the piles; then their recipes in words. */
const steps = inSteps(2);
const white = useWhite();
/** Munsell chroma: 2 is a grey with a lean, 6 a quiet colour, 12 a strong one. */
const CEILINGS = [1, 2, 3, 4, 5, 6, 7, 8, 10, 12] as const;
const setPainting = (part: Parameters<typeof paintings.change>[1]): Promise<unknown> => paintings.change(paintings.onEasel!.id, part);
const paintingId = computed(() => paintings.onEasel?.id ?? '');
const word = (pile: PileDto): string => temperatureWord(settings.temperatureOf(lookNow(pile)));
const laid = computed(() => byLayer(piles.ofRank, paintings.onEasel?.layer ?? 1));
const LAYERS = Array.from({ length: MOST_LAYERS }, (_, i) => ({ value: i + 1, title: `layer ${i + 1}` }));
const BRIGHT = [
  { value: 0, title: 'as bright as it likes' },
  ...CEILINGS.map((value) => ({ value: Number(value), title: `no brighter than ${value}` })),
];
const seldom = computed(() => [
  { title: 'I mixed one myself', key: 'l', run: opens('logging') },
  { title: 'A tube forgotten', key: 'q', run: opens('recalling') },
  {
    title: piles.stranded.size > 0 ? `Remake ${counted(piles.stranded.size, 'pile')}` : 'Another palette',
    test: 'another-palette',
    run: opens('remaking'),
  },
  { title: 'Cards of this layer', key: 'c', run: makeCards },
  { title: 'One photo of the palette', key: 'f', run: opens('photographing') },
  { title: 'Field notes', key: 'j', run: opens('noting') },
  { title: 'Plan the day', key: 'd', run: opens('planning') },
  { title: 'Print', label: 'Print this painting', key: 'p', run: opens('printing') },
  { title: 'Out of doors', label: 'Out of doors: take it along, bring it home', key: 'o', run: opens('goingOut') },
]);
useShortcuts(() => [
  { key: 'l', run: opens('logging') },
  { key: 'n', run: opens('making') },
  { key: 'j', run: opens('noting') },
  { key: 'q', run: opens('recalling') },
  // With a pile open these keys are the pile's own.
  ...(opened.value
    ? []
    : [
        { key: 'c', run: () => void makeCards() },
        { key: 'p', run: opens('printing') },
        { key: 'o', run: opens('goingOut') },
        { key: 'd', run: opens('planning') },
        { key: 'f', run: opens('photographing') },
      ]),
]);
</script>

<template>
  <OpenPile v-if="opened" :key="opened.id" :pile="opened" />
  <div v-else class="piles judging">
    <EmptyPlace v-if="piles.list.length === 0" title="No piles yet">
      Piles of this painting lie here from dark to light, each with its recipe and what was done with it.
      <template #step>
        <RouterLink class="main-key" :to="{ name: 'reference', params: { paintingId } }">Point at a colour</RouterLink>
        <button type="button" class="link-key" @click="making = true">Say a colour</button>
        <button type="button" class="link-key" @click="logging = true">I mixed one myself</button>
      </template>
    </EmptyPlace>
    <template v-else>
      <header>
        <h1>Piles, dark to light</h1>
        <div class="begin in-line">
          <RouterLink v-if="planned.length > 0" class="main-key" :to="{ name: 'easel-plan', params: { paintingId } }"
            >Mix {{ planned.length === 1 ? 'it' : `all ${planned.length}` }} at the easel</RouterLink
          >
          <v-btn variant="outlined" :prepend-icon="mdiPlus" @click="making = true">A new pile&ensp;<kbd>n</kbd></v-btn>
          <MoreKeys :keys="seldom" label="More with these piles" />
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
      <div class="laid">
        <PictureBeside class="picture" />
        <nav class="layers" aria-label="Piles of this painting, dark to light">
          <section v-for="one in laid" :key="one.layer" :aria-label="`Layer ${one.layer}`">
            <h2 v-if="laid.length > 1">Layer {{ one.layer }}{{ one.isNow ? ', now' : '' }}</h2>
            <div class="grid">
              <RouterLink
                v-for="pile in one.piles"
                :key="pile.id"
                class="pile"
                :title="steps > 1 ? short(pile.plan, pile.ml) : undefined"
                :to="{ name: 'mixing', params: { paintingId, pileId: pile.id } }"
              >
                <ColourPair :target="landing.wantedOf(pile)" :mixed="piles.seenNow(pile)" :height="96" />
                <span class="figures called"
                  ><b class="value">{{ settings.valueText(valueOfLightness(lookNow(pile)[0])) }}</b> {{ pile.name
                  }}<span class="for-readers">, {{ word(pile) }}</span></span
                >
                <span class="standing figures"
                  >{{ standingOf(pile) }}<b v-if="landing.willNotLast(pile)" data-test="wont-last">; won’t last</b></span
                >
                <span v-if="piles.leftOf(pile.id).length > 0" class="standing figures"
                  ><template v-for="rest in piles.leftOf(pile.id)" :key="rest.id"
                    ><span class="left" :style="{ background: piles.shownNow(rest) }" /> {{ mlText(rest.there) }} left
                  </template></span
                >
                <span v-if="piles.stranded.has(pile.id)" class="standing gone" data-test="stranded"
                  >not on this palette: {{ piles.stranded.get(pile.id)!.join(', ') }}</span
                >
              </RouterLink>
            </div>
          </section>
          <div v-if="steps > 0" class="of-painting figures">
            <v-select
              :model-value="paintings.onEasel?.layer"
              :items="LAYERS"
              aria-label="The layer that is painted now"
              data-test="layer"
              @update:model-value="setPainting({ layer: $event })"
            />
            <v-select
              :model-value="paintings.onEasel?.ceiling ?? 0"
              :items="BRIGHT"
              aria-label="How bright it may get"
              data-test="ceiling"
              @update:model-value="setPainting({ ceiling: $event === 0 ? null : $event })"
            />
          </div>
        </nav>
      </div>
    </template>
  </div>
  <CommonHeapSheet v-if="common && asked.sharing.value" v-model="sharing" :common="common" />
  <LogPile v-if="asked.logging.value" v-model="logging" />
  <NewPile v-if="asked.making.value" v-model="making" />
  <FieldNotes v-if="asked.noting.value" v-model="noting" />
  <MissingTube v-if="asked.recalling.value" v-model="recalling" />
  <RemakeAll v-if="asked.remaking.value" v-model="remaking" />
  <OutingSheet v-if="asked.goingOut.value" v-model="goingOut" />
  <PalettePhotoSheet v-if="asked.photographing.value" v-model="photographing" />
  <DaySheet v-if="asked.planning.value" v-model="planning" />
  <PrintSheet
    v-if="paintings.onEasel && asked.printing.value"
    v-model="printing"
    :title="paintings.onEasel.title"
    :of="{ paintingId }"
    :sheets="['order', 'painting', 'painting-kit', 'lesson']"
    :piles="piles.ofRank.map((pile) => ({ id: pile.id, name: pile.name, lab: lookNow(pile) }))"
    :palettes="palettes.all"
  />
</template>

<style scoped>
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
  width: 18px;
  height: 18px;
  border-radius: 50%;
  vertical-align: middle;
}
.piles {
  height: 100%;
  overflow-y: auto;
  padding: calc(3 * var(--unit)) calc(6 * var(--unit)) calc(6 * var(--unit));
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  justify-content: space-between;
  align-items: center;
  margin-bottom: calc(3 * var(--unit));
}
.begin .main-key {
  text-decoration: none;
}
.laid {
  display: grid;
  grid-template-columns: minmax(0, 36fr) minmax(0, 64fr);
  gap: calc(6 * var(--unit));
}
.laid:has(> .away) {
  grid-template-columns: minmax(0, 1fr);
}
.picture {
  position: sticky;
  top: 0;
  align-self: start;
}
.layers {
  display: grid;
  gap: calc(4 * var(--unit));
  align-content: start;
  min-width: 0;
}
.layers h2 {
  margin-bottom: calc(2 * var(--unit));
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(152px, 1fr));
  gap: calc(4 * var(--unit)) calc(3 * var(--unit));
}
.pile {
  display: grid;
  align-content: start;
  color: inherit;
  text-decoration: none;
  line-height: 1.25;
  overflow-wrap: anywhere;
}
.called {
  margin-top: var(--unit);
}
.value {
  font-size: var(--size-lead);
}
.standing {
  font-size: var(--size-note);
}
.gone {
  font-weight: 700;
}
.of-painting {
  display: flex;
  flex-wrap: wrap;
  gap: calc(4 * var(--unit));
}
.of-painting > * {
  flex: 0 1 220px;
}
@media (orientation: portrait), (max-width: 800px) {
  .laid {
    grid-template-columns: minmax(0, 1fr);
  }
  .picture {
    position: static;
  }
}
@media (max-width: 600px) {
  .piles {
    padding: calc(3 * var(--unit)) calc(4 * var(--unit));
  }
  .grid {
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  }
}
</style>
