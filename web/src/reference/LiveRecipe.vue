<script setup lang="ts">
import { areaWarning, valueOfLightness, type Trust } from '@dusk/core';
import { refDebounced } from '@vueuse/core';
import { computed } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import TrustMark from '../chips/TrustMark.vue';
import ValueLine from '../chips/ValueLine.vue';
import { closeness, describe, valueDifference } from '../chips/words.ts';
import RecipeSteps from '../mixing/RecipeSteps.vue';
import { useKnown } from '../mixing/useKnown.ts';
import { useSettings } from '../shell/settings.ts';
import type { LiveReading } from './useLiveRecipe.ts';

/** What is under the pointer and the recipe for it, told while the pointer moves. */
const props = defineProps<{ live: LiveReading | undefined; trust: Trust | undefined; amountMl: number }>();
const emit = defineEmits<{ keep: [] }>();
const settings = useSettings();
const { short } = useKnown();

const recipe = computed(() => props.live?.answer?.proposals[0]);
const warning = computed(() => props.live && areaWarning(props.live));
const lost = computed(() => (props.live?.answer?.reach === 'in' ? '' : (recipe.value?.givesWay.join(', ') ?? '')));

/** For ears: what is under the point and what to mix for it, once the hand has come to rest. */
const REST_MS = 700;
const reading = computed(() => {
  if (!props.live) return '';
  const value = settings.valueText(valueOfLightness(props.live.lab[0]));
  const mix = recipe.value ? `; mix ${short(recipe.value.mixture)}, ${closeness(recipe.value.deltaE00)}` : '';
  return `Value ${value}, ${describe(props.live.lab, settings.temperatureOf(props.live.lab))}${mix}.`;
});
const said = refDebounced(reading, REST_MS);
</script>

<template>
  <div class="live">
    <p class="for-readers" role="status" data-test="said">{{ said }}</p>
    <template v-if="live">
      <div class="seen">
        <ColourPair :target="live.lab" :mixed="recipe?.lab" />
        <div class="captions quiet"><span>seen</span><span v-if="recipe">mixed</span></div>
        <ValueLine :lab="live.lab" large data-test="seen" />
        <p v-if="warning" class="warning">{{ warning }}</p>
        <button type="button" class="main-key keep" :disabled="!recipe" @click="emit('keep')">Keep this pile <kbd>k</kbd></button>
      </div>
      <div v-if="recipe" class="mixed">
        <p class="difference figures" data-test="difference">
          Mixed: <strong>{{ valueDifference(recipe.valueError) }}</strong>, {{ closeness(recipe.deltaE00) }}
          <span class="quiet"
            >(ΔE {{ recipe.deltaE00.toFixed(1) }}<template v-if="lost">; {{ lost }}</template
            >)</span
          >
        </p>
        <RecipeSteps :mixture="recipe.mixture" :amount-ml="amountMl" data-test="recipe" />
        <TrustMark :trust="trust" />
      </div>
    </template>
    <template v-else>
      <div class="seen">
        <h2>Point at a colour</h2>
        <p>
          Move over the picture, or give it the focus and use the arrow keys. What is under the ring, and what to mix for it, stands here.
        </p>
        <p>A press or <kbd>k</kbd> keeps it on the ledge.</p>
      </div>
    </template>
  </div>
</template>

<style scoped>
.live,
.seen,
.mixed {
  display: flex;
  flex-direction: column;
  min-width: 0;
  gap: calc(2 * var(--unit));
}
.captions {
  display: flex;
  font-size: var(--size-note);
  margin-top: -8px;
}
.captions span {
  flex: 1;
}
.difference strong {
  font-weight: 700;
}
.warning {
  font-weight: 700;
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
}
.keep {
  margin-top: var(--unit);
}
/* Upright there is width, not height: what is seen stands beside what to mix. */
@media (orientation: portrait) and (min-width: 601px) {
  .live {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: calc(6 * var(--unit));
  }
}
@media (max-width: 600px), (max-height: 520px) {
  .live,
  .seen,
  .mixed {
    gap: calc(2 * var(--unit));
  }
  .captions {
    display: none;
  }
}
</style>
