<script setup lang="ts">
import {
  closeness,
  dryingOf,
  EMPHASES,
  openToTubes,
  TOUCH_DRY_DAYS,
  valueOfLightness,
  type Emphasis,
  type Hold,
  type Mixture,
} from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, toRef } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { valueDifference } from '../floor/words.ts';
import type { Proposal } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useTubes } from '../stores/tubes.ts';
import { useMothers } from '../kin/mothers.ts';
import TubeKeys from '../recipe/TubeKeys.vue';
import { useKnown } from '../recipe/useKnown.ts';
import { madeOf, useOtherRecipes } from './useOtherRecipes.ts';
import { TAKEN_FROM, type TakenFrom } from '../recipe/wished.ts';
import Pick from '../controls/Pick.vue';

/** Other recipes for a pile that is not mixed yet, as they are wished; out of reach, the nearest in each way and the tube that would help. */
const props = defineProps<{ pile: PileDto }>();
const tubes = useTubes();
const desk = useDesk();
const mothers = useMothers();
const settings = useSettings();
const { short } = useKnown();
const { settled, wished, answer, nearest, ways, others, pinned, target, lying, failure } = useOtherRecipes(toRef(props, 'pile'));

const MINDS: Readonly<Record<Exclude<Emphasis, 'cheap'>, string>> = {
  usual: 'little work',
  closest: 'how near it comes',
  fewest: 'few steps',
  steady: 'a steady recipe',
  fast: 'drying fast',
  covers: 'covering',
  'lets through': 'letting light through',
  cautious: 'tubes without a caution',
};
/** Tubes have no prices here, so that nothing can be said of them. */
const MINDING = EMPHASES.filter((emphasis): emphasis is keyof typeof MINDS => emphasis in MINDS).map((value) => ({
  value: value as Emphasis,
  title: MINDS[value],
}));
const HOLDS: readonly { readonly value: Hold | ''; readonly title: string }[] = [
  { value: '', title: 'nothing' },
  { value: 'value', title: 'the value' },
  { value: 'hue', title: 'the hue' },
  { value: 'chroma', title: 'how bright it is' },
  { value: 'all', title: 'all alike' },
];
/** How soon a recipe is touch-dry, where that is what is minded. */
function dries(mixture: Mixture): string {
  const flat = openToTubes(mixture, desk.flatOfPile);
  const parts = Object.entries(flat).map(([id, share]) => ({ id, share, drying: tubes.byId.get(id)?.drying ?? ('medium' as const) }));
  const { kind, by } = dryingOf(parts);
  const [from, to] = TOUCH_DRY_DAYS[kind];
  const held = kind === 'slow' && by !== undefined ? `, held up by ${tubes.byId.get(by)?.name}` : '';
  return `thinly laid, touch-dry in about ${from} to ${to} days${held}`;
}
const FROM: Readonly<Record<TakenFrom, string>> = { tubes: 'tubes', both: 'tubes and piles here', piles: 'only piles here' };
const takenFrom = computed(() =>
  TAKEN_FROM.map((value) => ({ value, title: FROM[value], disabled: value !== 'tubes' && lying.value.length === 0 })),
);
const MOST = [{ value: undefined, title: 'as the palette says' }, ...[2, 3, 4].map((value) => ({ value, title: `${value} things` }))];
const PARTS = [
  { value: undefined, title: 'as many parts as it takes' },
  ...[4, 6, 8, 10].map((value) => ({ value, title: `${value} parts or fewer` })),
];

const take = (proposal: Proposal): Promise<boolean> =>
  mothers.change(props.pile, proposal.mixture, `Another recipe for “${props.pile.name}”`);
const pin = (proposal: Proposal): void => void (wished.value.pinned = pinned.value === proposal ? undefined : proposal);
const first = computed(() => others.value[0]);
const isAsked = computed(
  () => wished.value.leftOut.length + wished.value.must.length > 0 || wished.value.hold !== '' || wished.value.from !== 'tubes',
);
const value = (lab: Proposal['lab']): string => settings.valueText(valueOfLightness(lab[0]));
const offers = computed(() => [
  ...(pinned.value ? [{ proposal: pinned.value, says: 'pinned', isPinned: true }] : []),
  ...others.value.map((proposal) => ({ proposal, says: proposal.betterAt ?? '', isPinned: false })),
]);
/** A pinned recipe that the pile has by now is no other. */
const shown = computed(() => offers.value.filter(({ proposal }) => madeOf(proposal.mixture) !== madeOf(props.pile.plan)));
async function takeFirst(): Promise<void> {
  await settled();
  if (first.value) await take(first.value);
}
useShortcuts(() => [{ key: 't', run: () => void takeFirst() }]);
</script>

<template>
  <div v-if="target" class="instead">
    <section v-if="answer?.reach === 'out'" class="beyond" aria-label="Out of reach">
      <h2>Out of reach of {{ isAsked ? 'what is allowed here' : 'this palette' }}</h2>
      <template v-if="nearest">
        <article v-for="way in ways" :key="way.names.join()" class="other">
          <div class="side"><ColourPair :target="target" :mixed="way.proposal.lab" :height="56" /></div>
          <div>
            <p class="better">nearest {{ way.names.join(' and ') }}</p>
            <p class="figures">{{ short(way.proposal.mixture, pile.ml) }}</p>
            <p class="figures quiet">
              value {{ value(way.proposal.lab) }}, {{ valueDifference(way.proposal.valueError) }}; {{ closeness(way.proposal.deltaE00)
              }}<template v-if="way.proposal.givesWay.length">; {{ way.proposal.givesWay.join(', ') }}</template>
            </p>
          </div>
          <v-btn variant="outlined" :aria-label="`Take the nearest ${way.names.join(' and ')}`" @click="take(way.proposal)">Take</v-btn>
        </article>
        <p v-if="ways.length === 0" class="quiet">The recipe this pile has is the nearest in every way.</p>
        <p v-if="nearest.tubes.length > 0" class="figures helps">
          One tube more:
          <template v-for="(tube, i) in nearest.tubes" :key="tube.id"
            >{{ i ? ', ' : '' }}{{ tubes.byId.get(tube.id)?.name }} ({{ closeness(tube.deltaE00) }})</template
          >
        </p>
      </template>
      <p v-else class="quiet">Looking for the nearest…</p>
    </section>
    <h2>Instead</h2>
    <p v-if="wished.minding === 'fast'" class="figures" data-test="dries">As it is planned: {{ dries(pile.plan) }}.</p>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-else-if="!answer" class="quiet">Working out this palette’s recipes…</p>
    <p v-else-if="shown.length === 0" class="quiet">Nothing really different comes near.</p>
    <div v-if="shown.length > 0" class="chips">
      <article
        v-for="{ proposal, says, isPinned } in shown"
        :key="madeOf(proposal.mixture)"
        class="other"
        :class="{ pinned: isPinned }"
        data-test="alternative"
      >
        <div class="side"><ColourPair :target="target" :mixed="proposal.lab" :height="56" /></div>
        <div>
          <p v-if="says" class="better">{{ says }}</p>
          <p class="figures">{{ short(proposal.mixture, pile.ml) }}</p>
          <p class="figures quiet">{{ valueDifference(proposal.valueError) }}, {{ closeness(proposal.deltaE00) }}</p>
          <p v-if="wished.minding === 'fast'" class="figures">{{ dries(proposal.mixture) }}</p>
        </div>
        <div class="deeds">
          <v-btn variant="outlined" :aria-label="`Take ${short(proposal.mixture, pile.ml)} instead`" @click="take(proposal)">
            Take<template v-if="proposal === first">&ensp;<kbd>t</kbd></template>
          </v-btn>
          <button type="button" class="pin" :aria-pressed="isPinned" @click="pin(proposal)">{{ isPinned ? 'let go' : 'pin' }}</button>
        </div>
      </article>
    </div>
    <TubeKeys :wished="wished" :piles="wished.from === 'tubes' ? [] : lying" />
    <details class="wishes" data-test="wishes">
      <summary>What it is best at, and of what</summary>
      <div class="asked">
        <Pick v-model="wished.minding" :options="MINDING" label="best at" data-test="minding" />
        <Pick v-model="wished.hold" :options="HOLDS" label="keep" data-test="holding" />
        <Pick v-model="wished.from" :options="takenFrom" label="from" data-test="from" />
        <Pick v-model="wished.most" :options="MOST" label="at most" />
        <Pick v-model="wished.parts" :options="PARTS" label="in" />
        <label class="tick"><input v-model="wished.exactly" type="checkbox" /> exact, for a scale</label>
      </div>
    </details>
  </div>
</template>

<style scoped>
.instead {
  margin-top: calc(4 * var(--unit));
  display: grid;
  gap: calc(2 * var(--unit));
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
  --pick-name: 52px;
}
.asked .tick {
  display: flex;
  align-items: center;
  min-height: 44px;
  gap: calc(2 * var(--unit));
}
.beyond {
  margin-bottom: calc(2 * var(--unit));
}
.helps {
  margin-top: var(--unit);
}
.chips {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: calc(4 * var(--unit));
}
.other {
  display: grid;
  gap: var(--unit);
  align-content: start;
  line-height: 1.25;
}
.better {
  font-weight: 700;
}
.deeds {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
}
.pin {
  min-height: 44px;
  min-width: 44px;
  font-size: var(--size-note);
  text-decoration: underline;
}
.failure {
  font-weight: 700;
}
</style>
