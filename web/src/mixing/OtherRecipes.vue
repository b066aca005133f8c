<script setup lang="ts">
import { EMPHASES, keyOf, leavesOf, type Emphasis, type Mixture } from '@dusk/core';
import type { MixtureSent, PileDto } from '@dusk/wire';
import { labOfDto, mixtureDto } from '@dusk/wire/written';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { valueDifference } from '../chips/words.ts';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { NearestProposed, Proposal, Proposed } from '../engine/proposal.ts';
import { useDesk } from '../engine/useDesk.ts';
import { useSettings } from '../shell/settings.ts';
import { useTubes } from '../tubes/tubes.ts';
import { usePiles } from './piles.ts';
import { useKnown } from './useKnown.ts';

/** Other recipes for a pile that is not mixed yet; out of reach, the nearest in three ways and the tube that would help. */
const props = defineProps<{ pile: PileDto }>();
const desk = useDesk();
const tubes = useTubes();
const piles = usePiles();
const { short } = useKnown();
const answer = shallowRef<Proposed>();
const nearest = shallowRef<NearestProposed>();
const settings = useSettings();
const minds = ref<Emphasis>('closest');
const MINDS: Readonly<Record<Emphasis, string>> = {
  closest: 'how near it comes',
  fewest: 'little measuring',
  steady: 'a steady recipe',
  cheap: 'cheap tubes',
  fast: 'drying fast',
  covers: 'covering',
  'lets through': 'letting light through',
};
const target = computed(() => props.pile.target && labOfDto(props.pile.target.lab));

let asking: AbortController | undefined;
onScopeDispose(() => asking?.abort());
watch(
  [() => desk.desk, () => props.pile.id, target, minds, () => settings.settings.dulling],
  async ([laid, , wanted, emphasis, dulling]) => {
    asking?.abort();
    answer.value = nearest.value = undefined;
    if (!laid || !wanted) return;
    const own = (asking = new AbortController());
    const asked = { desk: laid, signal: own.signal };
    answer.value = await unlessGivenUp(engine().ask('solve', { target: wanted, wishes: { emphasis, dulling } }, asked));
    if (answer.value?.reach !== 'out') return;
    const rack = desk.rack.map(({ id, paint }) => ({ id, K: paint.K, S: paint.S }));
    nearest.value = await unlessGivenUp(engine().ask('nearest', { target: wanted, rack }, asked));
  },
  { immediate: true },
);

const nameOf = (mixture: Mixture): string =>
  leavesOf(mixture)
    .map(({ source, share }) => `${keyOf('tube' in source ? { tube: source.tube } : source)} ${share.toFixed(6)}`)
    .sort()
    .join();
const others = computed(() => {
  const own = nameOf(props.pile.plan);
  return answer.value?.proposals.filter((r) => nameOf(r.mixture) !== own).slice(0, 3) ?? [];
});
const take = (proposal: Proposal): Promise<boolean> =>
  piles.change(props.pile.id, { plan: mixtureDto(proposal.mixture) as unknown as MixtureSent }, `Another recipe for “${props.pile.name}”`);
</script>

<template>
  <div v-if="target">
    <section v-if="answer?.reach === 'out'" class="beyond" aria-label="Out of reach">
      <h2>Out of reach of this palette</h2>
      <template v-if="nearest">
        <article v-for="kind in nearest.kinds" :key="kind.by" class="other">
          <div class="side"><ColourPair :target="target" :mixed="kind.proposal.lab" :height="44" /></div>
          <div>
            <p class="better">nearest {{ kind.by }}</p>
            <p class="figures">{{ short(kind.proposal.mixture) }}</p>
            <p class="figures quiet">
              ΔE {{ kind.proposal.deltaE00.toFixed(1)
              }}<template v-if="kind.proposal.givesWay.length">; {{ kind.proposal.givesWay.join(', ') }}</template>
            </p>
          </div>
          <v-btn variant="outlined" :aria-label="`Take the nearest ${kind.by}`" @click="take(kind.proposal)">Take</v-btn>
        </article>
        <p class="figures">
          One tube more:
          <template v-for="(tube, i) in nearest.tubes" :key="tube.id"
            >{{ i ? ', ' : '' }}{{ tubes.byId.get(tube.id)?.name }} (to ΔE {{ tube.deltaE00.toFixed(1) }})</template
          >
        </p>
      </template>
      <p v-else class="quiet">Looking for the nearest…</p>
    </section>
    <div class="head">
      <h2>Instead</h2>
      <label class="minds"
        >minding
        <select v-model="minds" data-test="minding">
          <option v-for="emphasis in EMPHASES" :key="emphasis" :value="emphasis">{{ MINDS[emphasis] }}</option>
        </select></label
      >
    </div>
    <p v-if="!answer" class="quiet">Working out this palette’s recipes…</p>
    <p v-else-if="others.length === 0" class="quiet">Nothing really different comes near.</p>
    <article v-for="other in others" :key="short(other.mixture)" class="other" data-test="alternative">
      <div class="side"><ColourPair :target="target" :mixed="other.lab" :height="44" /></div>
      <div>
        <p class="better">{{ other.betterAt }}</p>
        <p class="figures">{{ short(other.mixture) }}</p>
        <p class="figures quiet">{{ valueDifference(other.valueError) }}, ΔE {{ other.deltaE00.toFixed(1) }}</p>
      </div>
      <v-btn variant="outlined" :aria-label="`Take ${short(other.mixture)} instead`" @click="take(other)">Take</v-btn>
    </article>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: calc(3 * var(--unit));
}
.minds {
  font-size: var(--size-note);
}
.minds select {
  min-height: 44px;
  padding: 0 var(--unit);
  border-bottom: 1px solid currentColor;
  color: inherit;
  background: var(--surround);
}
.beyond {
  margin-bottom: calc(4 * var(--unit));
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
</style>
