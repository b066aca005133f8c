<script setup lang="ts">
import { mdiDeleteOutline, mdiProjectorScreenOutline, mdiMinus, mdiPlus } from '@mdi/js';
import { labOf, mixCurves, reflectance, show, trustIn, valueOfLightness, type Illuminant, type KnownPortion } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { inShort, stepsOf } from '../live/measures.ts';
import { closeness, valueDifference } from '../live/words.ts';
import { useBook } from '../stores/book.ts';
import { labOfDto, usePiles } from '../stores/piles.ts';
import { useTubes } from '../stores/tubes.ts';
import { sentMeasures, type PlainAnswer, type PlainNearest, type PlainRecipe } from '../workers/recipe.ts';
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

/** The tubes in the pile with their parts, let-downs opened; curves as they are known today. */
const portions = computed((): KnownPortion[] =>
  props.pile.measures.flatMap(({ parts, tubeId, letdown }) => {
    const inside = letdown ?? [{ tubeId: tubeId!, parts: 1 }];
    const whole = inside.reduce((sum, l) => sum + l.parts, 0);
    return inside.map((l) => {
      const tube = tubes.byId.get(l.tubeId)!;
      return { paint: tube.paint, basis: tube.basis, parts: (parts * l.parts) / whole };
    });
  }),
);
const errorEstimate = computed(() => trustIn(portions.value).errorEstimate);

/** The pile as it looks under other lamps, to an eye that is used to them. */
const LAMPS: readonly (readonly [light: Illuminant, name: string])[] = [
  ['D65', 'daylight'],
  ['A', 'filament lamp'],
  ['LED', 'LED (modelled)'],
  ['F10', 'three-band tube'],
];
const underLamps = computed(() => {
  const seen = reflectance(mixCurves(portions.value));
  return LAMPS.map(([light, name]) => ({ name, lab: labOf(seen, light) }));
});

/** Out of reach: the nearest in three ways, and which tube would help; this takes a moment, so it is asked apart. */
const nearest = shallowRef<PlainNearest>();
watch([() => answer.value, target], async () => {
  nearest.value = undefined;
  if (answer.value?.reach === 'out' && target.value) nearest.value = await book.nearest(target.value);
});

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
    <div class="lamps" role="group" aria-label="The pile under other lamps">
      <figure v-for="lamp in underLamps" :key="lamp.name">
        <div class="lamp" :style="{ background: show(lamp.lab).css }" />
        <figcaption class="quiet">{{ lamp.name }}</figcaption>
      </figure>
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
        <TrustMark :basis="pile.basis" :error-estimate="errorEstimate" />
        <p class="quiet steady figures">A tenth too much of each part would move it by ΔE {{ pile.steadiness.toFixed(1) }}.</p>
      </div>
      <div v-if="target">
        <section v-if="answer?.reach === 'out'" class="beyond" aria-label="Out of reach">
          <h2>Out of reach of this palette</h2>
          <template v-if="nearest">
            <article v-for="kind in nearest.kinds" :key="kind.by" class="other">
              <div class="side"><ColourPair :target="target" :mixed="kind.recipe.lab" :height="44" /></div>
              <div>
                <p class="better">nearest {{ kind.by }}</p>
                <p class="figures">{{ short(kind.recipe) }}</p>
                <p class="figures quiet">
                  ΔE {{ kind.recipe.deltaE00.toFixed(1) }}<template v-if="kind.givesWay.length">; {{ kind.givesWay.join(', ') }}</template>
                </p>
              </div>
              <v-btn variant="outlined" :aria-label="`Take the nearest ${kind.by}`" @click="take(kind.recipe)">Take</v-btn>
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
.lamps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  margin-bottom: 14px;
}
.lamps figure {
  margin: 0;
}
.lamp {
  height: 30px;
}
.lamps figcaption {
  font-size: 14px;
}
.beyond {
  margin-bottom: 16px;
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
