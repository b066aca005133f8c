<script setup lang="ts">
import { EDGES, evenSteps, FEWEST_STEPS, MOST_STEPS, temperatureWord, type ReachMap } from '@dusk/core';
import { computed } from 'vue';
import type { LookedAt } from '../engine/pictures.ts';
import { useSight } from '../floor/sight.ts';
import { useLooking } from '../stores/looking.ts';
import { usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import StepStrip from './StepStrip.vue';

/** What the look that is on says, and the amount it is set by. */
const props = defineProps<{
  looked: LookedAt | undefined;
  reach: ReachMap | undefined;
  sweeping: number | undefined;
  sweepFailed: boolean;
  bounds: readonly number[];
  warmth: number | undefined;
}>();
const emit = defineEmits<{ cancel: []; again: [] }>();
const looking = useLooking();
const store = useReference();
const sight = useSight();

const per = (share: number | undefined): string => {
  const cent = 100 * (share ?? 0);
  return `${cent > 0 && cent < 1 ? '<1' : cent.toFixed(0)} %`;
};
const piles = usePiles();
const lit = computed(() => piles.byId.get(looking.lit ?? ''));
const shares = computed(() => props.looked?.shares ?? []);
const hasSquint = computed(() => sight.squint || looking.look === 'edges');

const setSteps = (count: number): Promise<void> =>
  store.see(
    { steps: evenSteps(Math.min(MOST_STEPS, Math.max(FEWEST_STEPS, count)), store.range ?? { darkest: 0, lightest: 10 }) },
    `Cut the values into ${count}`,
  );
const pivot = computed(() => store.view.pivot ?? 0);
const pivotWord = computed(() =>
  Math.abs(pivot.value) < 0.5 ? 'neutral grey' : `what is ${temperatureWord(pivot.value)} (${pivot.value.toFixed(0)})`,
);
defineExpose({ setSteps });
</script>

<template>
  <div class="look-line figures" role="status" data-test="look-line">
    <span v-if="lit" data-test="lit"
      >“{{ lit.name }}” serves {{ per(shares[0]) }} of the picture as it is, {{ per(shares[1]) }} a step lighter or darker (lined).</span
    >
    <template v-else-if="looking.look === 'values'">
      <StepStrip :bounds="bounds" :shares="shares" @bounds="store.see({ steps: $event }, 'Moved a boundary of the values')" />
      <span class="amount">
        <button type="button" aria-label="Fewer steps" :disabled="bounds.length + 1 <= FEWEST_STEPS" @click="setSteps(bounds.length)">
          −
        </button>
        <span>{{ bounds.length + 1 }} steps</span>
        <button type="button" aria-label="More steps" :disabled="bounds.length + 1 >= MOST_STEPS" @click="setSteps(bounds.length + 2)">
          +
        </button>
      </span>
    </template>
    <template v-else-if="looking.look === 'warmth'">
      <span>Amber is warmer, hatched blue cooler than {{ pivotWord }}: {{ per(shares[0]) }} warm, {{ per(shares[2]) }} cool.</span>
      <button
        v-if="warmth !== undefined"
        type="button"
        class="link-key"
        @click="store.see({ pivot: warmth }, 'Warm and cool are told from the point')"
      >
        tell it from the point
      </button>
      <button
        v-if="pivot !== 0"
        type="button"
        class="link-key"
        @click="store.see({ pivot: undefined }, 'Warm and cool are told from grey')"
      >
        from grey
      </button>
    </template>
    <span v-else-if="looking.look === 'strength'"
      >The lighter, the brighter the colour: {{ per(shares[0]) }} grey, {{ per(shares[1]) }} dull, {{ per(shares[2]) }} middling,
      {{ per(shares[3]) }} strong.</span
    >
    <span v-else-if="looking.look === 'edges'"
      >Edges after the squint:
      <template v-for="(edge, i) in EDGES" :key="edge">{{ per(shares[i]) }} {{ edge }}{{ ['; ', '; ', '.'][i] }}</template> Black is hard,
      thin soft, broken white lost.</span
    >
    <template v-else-if="looking.look === 'reach'">
      <template v-if="sweeping !== undefined">
        <span>Looking through the picture… {{ per(sweeping) }}</span>
        <button type="button" class="link-key" @click="emit('cancel')">Leave off</button>
      </template>
      <template v-else-if="sweepFailed">
        <span>The picture could not be looked through.</span>
        <button type="button" class="link-key" @click="emit('again')">Look through it again</button>
      </template>
      <span v-else-if="reach">Hatched is out of reach of this palette: {{ per(reach.out) }} of the picture.</span>
    </template>
    <slot v-else-if="looking.look === 'piles'" />
    <span v-if="looked?.lost" data-test="lost"
      >Lost in the photo: {{ per(looked.lost[0]) }} of the light (hatched dark), {{ per(looked.lost[1]) }} of the dark (hatched
      light).</span
    >
    <span v-if="hasSquint" class="amount">
      <button type="button" aria-label="Squint less" @click="looking.squintBy(-1)">−</button>
      <span :data-squint="looking.squint">{{
        looking.squint < 6 ? 'eyes a little closed' : looking.squint < 14 ? 'eyes half closed' : 'eyes nearly closed'
      }}</span>
      <button type="button" aria-label="Squint more" @click="looking.squintBy(1)">+</button>
    </span>
    <span v-if="looking.asPaint" class="quiet">As it is to be painted, through the key.</span>
  </div>
</template>

<style scoped>
.look-line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 calc(4 * var(--unit));
  min-height: 44px;
  font-size: var(--size-note);
  line-height: 1.25;
}
.amount {
  display: flex;
  align-items: center;
}
.amount button {
  width: 44px;
  height: 44px;
  font-size: var(--size-lead);
}
.amount button:disabled {
  opacity: 0.4;
}
</style>
