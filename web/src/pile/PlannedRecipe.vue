<script setup lang="ts">
import { mdiMinus, mdiPlus } from '@mdi/js';
import { measuredAnew, type Trust } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { mixtureSent } from '@dusk/wire/written';
import { shallowRef, toRef, watch } from 'vue';
import MeasureSwitch from '../chips/MeasureSwitch.vue';
import TrustMark from '../chips/TrustMark.vue';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useTubes } from '../stores/tubes.ts';
import { handlingOf } from '../recipe/handling.ts';
import { useDone } from '../recipe/done.ts';
import { useCeiling } from './useCeiling.ts';
import { usePiles } from '../stores/piles.ts';
import RecipeSteps from '../recipe/RecipeSteps.vue';

/** The plan of a pile that is not mixed yet: what to measure, and the one next thing to do. */
const props = defineProps<{ pile: PileDto }>();
const emit = defineEmits<{ mixed: []; remake: [] }>();
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();
const done = useDone();
const paintings = usePaintings();
const ceiling = useCeiling(toRef(props, 'pile'));

const trust = shallowRef<Trust>();
watch(
  () => props.pile.plan,
  async (plan) => {
    trust.value = undefined;
    const found = await desk.trust(plan);
    if (props.pile.plan === plan) trust.value = found;
  },
  { immediate: true },
);

const AMOUNTS = [1, 2, 3, 4, 6, 8, 12, 16, 24, 32, 48];
function resize(way: 1 | -1): void {
  const next = way > 0 ? AMOUNTS.find((a) => a > props.pile.ml) : [...AMOUNTS].reverse().find((a) => a < props.pile.ml);
  if (next === undefined) return;
  // As much as is wanted is part of how it is measured; the paint is the same.
  const nozzleOf = handlingOf(tubes.byId);
  const plan = measuredAnew(props.pile.plan, (source) => ({ ...desk.paintOf(source).paint, nozzleMm: nozzleOf(source).nozzleMm }), next);
  void piles.change(props.pile.id, { ml: next, plan: mixtureSent(plan) }, `“${props.pile.name}” is to be ${next} ml`);
}
</script>

<template>
  <div class="planned">
    <div class="head">
      <h2>Mix this</h2>
      <span class="figures stepper">
        <v-btn :icon="mdiMinus" aria-label="Smaller pile" @click="resize(-1)" />
        {{ pile.ml }} ml
        <v-btn :icon="mdiPlus" aria-label="Larger pile" @click="resize(1)" />
      </span>
    </div>
    <MeasureSwitch />
    <RecipeSteps
      :mixture="pile.plan"
      :amount-ml="pile.ml"
      :done="done.stepsOf(pile)"
      chips
      beads
      data-test="kept-recipe"
      @tick="done.tick(pile, $event)"
    />
    <p v-if="piles.stranded.has(pile.id)" class="beyond" role="status" data-test="stranded">
      Not on this palette: {{ piles.stranded.get(pile.id)!.join(', ') }}.
      <button type="button" class="link-key" @click="emit('remake')">Mix it from what is</button>
    </p>
    <p v-if="ceiling.above.value" class="beyond figures" data-test="above-ceiling">
      Brighter ({{ ceiling.above.value.toFixed(1) }}) than it may get ({{ paintings.onEasel?.ceiling }}).
      <button type="button" class="link-key" @click="ceiling.bringUnder()">Bring it under</button>
    </p>
    <div class="do stays-upright">
      <button type="button" class="main-key" @click="emit('mixed')">Mixed <kbd>Space</kbd></button>
      <RouterLink class="key" :to="{ name: 'easel', params: { paintingId: pile.paintingId, pileId: pile.id } }">At the easel</RouterLink>
      <RouterLink
        v-if="pile.string"
        class="key"
        :to="{ name: 'easel-plan', params: { paintingId: pile.paintingId }, query: { string: pile.string.id } }"
        >Its steps at the easel</RouterLink
      >
    </div>
    <TrustMark :trust="trust" />
  </div>
</template>

<style scoped>
.planned {
  display: flex;
  flex-direction: column;
}
/* On a phone the paint comes before the way it is told. */
@media (max-width: 600px) and (orientation: portrait) {
  .planned > .measures {
    order: 2;
  }
  .planned > .trust {
    order: 3;
  }
}
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.stepper {
  font-size: var(--size-lead);
  white-space: nowrap;
}
.do {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: calc(2 * var(--unit));
  margin: calc(3 * var(--unit)) 0;
}
.key {
  display: grid;
  grid-auto-flow: column;
  justify-content: center;
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 56px;
  border: 1px solid currentColor;
  border-radius: 4px;
  color: inherit;
  text-decoration: none;
}
.beyond {
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
  margin-top: calc(2 * var(--unit));
  font-weight: 700;
}
</style>
