<script setup lang="ts">
import { dryingOf, EMPHASES, openToTubes, TOUCH_DRY_DAYS, valueOfLightness, type Emphasis, type Hold, type Mixture } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, toRef } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { closeness, valueDifference } from '../floor/words.ts';
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
const minds = EMPHASES.filter((emphasis): emphasis is keyof typeof MINDS => emphasis in MINDS);
const HOLDS: Readonly<Record<Hold | '', string>> = {
  '': 'nothing',
  value: 'the value',
  hue: 'the hue',
  chroma: 'how bright it is',
  all: 'all alike',
};
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
const MOST = [2, 3, 4] as const;
const PARTS = [4, 6, 8, 10] as const;

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
          <div class="side"><ColourPair :target="target" :mixed="way.proposal.lab" :height="44" /></div>
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
    <TubeKeys :wished="wished" :piles="wished.from === 'tubes' ? [] : lying" />
    <div class="asked">
      <label
        >best at
        <select v-model="wished.minding" data-test="minding">
          <option v-for="emphasis in minds" :key="emphasis" :value="emphasis">{{ MINDS[emphasis] }}</option>
        </select></label
      >
      <label
        >keep
        <select v-model="wished.hold" data-test="holding">
          <option v-for="(says, hold) in HOLDS" :key="hold" :value="hold">{{ says }}</option>
        </select></label
      >
      <label
        >from
        <select v-model="wished.from" data-test="from">
          <option v-for="from in TAKEN_FROM" :key="from" :value="from" :disabled="from !== 'tubes' && lying.length === 0">
            {{ FROM[from] }}
          </option>
        </select></label
      >
      <label
        >at most
        <select v-model="wished.most">
          <option :value="undefined">as the palette says</option>
          <option v-for="most in MOST" :key="most" :value="most">{{ most }} things</option>
        </select></label
      >
      <label
        >in
        <select v-model="wished.parts" aria-label="Most parts">
          <option :value="undefined">as many parts as it takes</option>
          <option v-for="parts in PARTS" :key="parts" :value="parts">{{ parts }} parts or fewer</option>
        </select></label
      >
      <label class="tick"><input v-model="wished.exactly" type="checkbox" /> exact, for a scale</label>
    </div>
    <p v-if="wished.minding === 'fast'" class="figures" data-test="dries">As it is planned: {{ dries(pile.plan) }}.</p>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-else-if="!answer" class="quiet">Working out this palette’s recipes…</p>
    <p v-else-if="shown.length === 0" class="quiet">Nothing really different comes near.</p>
    <article
      v-for="{ proposal, says, isPinned } in shown"
      :key="madeOf(proposal.mixture)"
      class="other"
      :class="{ pinned: isPinned }"
      data-test="alternative"
    >
      <div class="side"><ColourPair :target="target" :mixed="proposal.lab" :height="44" /></div>
      <div>
        <p class="better">{{ says }}</p>
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
  font-size: var(--size-note);
}
.asked label {
  display: flex;
  align-items: center;
  min-height: 44px;
  gap: calc(2 * var(--unit));
}
.asked select {
  min-height: 36px;
  border-bottom: 1px solid currentColor;
  color: inherit;
  background: var(--surround);
}
.beyond {
  margin-bottom: calc(2 * var(--unit));
}
.helps {
  margin-top: var(--unit);
}
.other {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: center;
  padding: calc(2 * var(--unit)) 0;
  border-top: 1px solid var(--surround-line);
  line-height: 1.25;
}
.better {
  font-weight: 700;
}
.deeds {
  display: grid;
  justify-items: center;
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
