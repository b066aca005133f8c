<script setup lang="ts">
import { mdiDeleteOutline, mdiProjectorScreenOutline, mdiMinus, mdiPlus } from '@mdi/js';
import type { PileDto } from '@dusk/wire';
import { computed, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { inShort, stepsOf } from '../live/measures.ts';
import { closeness, valueDifference } from '../live/words.ts';
import { useBook } from '../stores/book.ts';
import { labOfDto, usePiles } from '../stores/piles.ts';
import { useTubes } from '../stores/tubes.ts';
import { sentMeasures, type PlainAnswer, type PlainRecipe } from '../workers/recipe.ts';
import { valueOfLightness } from '@dusk/core';
import ColourPair from './ColourPair.vue';
import EditableName from './EditableName.vue';
import RecipeSteps from './RecipeSteps.vue';
import TrustMark from './TrustMark.vue';
import ValueLine from './ValueLine.vue';

const props = defineProps<{ pile: PileDto }>();

const router = useRouter();
const piles = usePiles();
const book = useBook();
const tubes = useTubes();
const answer = shallowRef<PlainAnswer>();

const target = computed(() => props.pile.target && labOfDto(props.pile.target));
const mixed = computed(() => labOfDto(props.pile.predicted));
const valueError = computed(() => (target.value ? props.pile.value - valueOfLightness(target.value[0]) : 0));

/** The alternatives from today's palette, asked for again when the palette or the target changes. */
watch(
  [() => book.edition, () => book.ready, target],
  async () => (answer.value = target.value ? await book.solve(target.value) : undefined),
  { immediate: true },
);

const keyOf = (measures: PileDto['measures'] | PlainRecipe['measures']): string =>
  measures
    .map(({ parts, tubeId, letdown }) => `${parts} ${tubeId ?? letdown!.map((l) => `${l.parts} ${l.tubeId}`).join('+')}`)
    .sort()
    .join();
const others = computed(() => {
  const own = keyOf(props.pile.measures);
  return answer.value?.recipes.filter((r) => keyOf(r.measures) !== own).slice(0, 3) ?? [];
});
const short = (recipe: PlainRecipe): string => inShort(stepsOf(recipe.measures, tubes.byId, props.pile.amountMl));

const AMOUNTS = [1, 2, 3, 4, 6, 8, 12, 16, 24, 32, 48];
function resize(way: 1 | -1): void {
  const next = way > 0 ? AMOUNTS.find((a) => a > props.pile.amountMl) : [...AMOUNTS].reverse().find((a) => a < props.pile.amountMl);
  if (next !== undefined) void piles.change(props.pile.id, { amountMl: next });
}
async function remove(): Promise<void> {
  const { paintingId } = props.pile;
  if (await piles.remove(props.pile.id)) await router.replace({ name: 'mixing', params: { paintingId } });
}
const take = (recipe: PlainRecipe): Promise<void> => piles.change(props.pile.id, { measures: sentMeasures(recipe.measures) });
</script>

<template>
  <section class="open-pile judging" :aria-label="`Pile ${pile.name}`">
    <header>
      <EditableName :name="pile.name" label="Name of the pile" :most="80" @rename="piles.change(pile.id, { name: $event })" />
      <v-btn
        variant="outlined"
        :prepend-icon="mdiProjectorScreenOutline"
        :to="{ name: 'easel', params: { paintingId: pile.paintingId, pileId: pile.id } }"
        >At the easel</v-btn
      >
      <v-btn :icon="mdiDeleteOutline" aria-label="Scrape this pile off" title="Scrape this pile off" @click="remove" />
    </header>
    <ColourPair :target="target" :mixed="mixed" :height="136" />
    <div class="readings">
      <div v-if="target">
        <p class="quiet">wanted</p>
        <ValueLine :lab="target" large />
      </div>
      <div>
        <p class="quiet">mixed</p>
        <ValueLine :lab="mixed" large />
        <p v-if="pile.deltaE00 !== null" class="figures">
          {{ valueDifference(valueError) }}, {{ closeness(pile.deltaE00) }} <span class="quiet">(ΔE {{ pile.deltaE00.toFixed(1) }})</span>
        </p>
      </div>
    </div>
    <div class="mix">
      <div>
        <div class="amount">
          <h2>Recipe</h2>
          <span class="figures stepper">
            <v-btn :icon="mdiMinus" aria-label="Smaller pile" @click="resize(-1)" />
            {{ pile.amountMl }} ml
            <v-btn :icon="mdiPlus" aria-label="Larger pile" @click="resize(1)" />
          </span>
        </div>
        <RecipeSteps :measures="pile.measures" :amount-ml="pile.amountMl" chips beads data-test="kept-recipe" />
        <TrustMark :basis="pile.basis" />
        <p class="quiet steady figures">A tenth too much of each part would move it by ΔE {{ pile.steadiness.toFixed(1) }}.</p>
      </div>
      <div v-if="target">
        <h2>Instead</h2>
        <p v-if="!book.ready" class="quiet">Working out this palette’s recipes…</p>
        <p v-else-if="others.length === 0" class="quiet">Nothing really different comes near.</p>
        <article v-for="other in others" :key="short(other)" class="other" data-test="alternative">
          <div class="side"><ColourPair :target="target" :mixed="other.lab" :height="44" /></div>
          <div>
            <p class="better">{{ other.betterAt }}</p>
            <p class="figures">{{ short(other) }}</p>
            <p class="figures quiet">{{ valueDifference(other.valueError) }}, ΔE {{ other.deltaE00.toFixed(1) }}</p>
          </div>
          <v-btn variant="outlined" :aria-label="`Take ${short(other)} instead`" @click="take(other)">Take</v-btn>
        </article>
      </div>
    </div>
  </section>
</template>

<style scoped>
.open-pile {
  padding: 16px 28px 28px;
  overflow-y: auto;
}
header {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 14px;
}
.readings,
.mix {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 28px;
}
.readings {
  margin: 8px 0 14px;
}
.amount {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.stepper {
  font-size: 18px;
  white-space: nowrap;
}
.steady {
  font-size: 15px;
  margin-top: 4px;
}
.other {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 9px 0;
  border-top: 1px solid var(--surround-line);
  line-height: 1.25;
}
.better {
  font-weight: 700;
}
</style>
