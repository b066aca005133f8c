<script setup lang="ts">
import {
  areaWarning,
  beyondPaint,
  closenessWithin,
  compareColours,
  isNearWhite,
  reachOf,
  strengthOf,
  valueOfLightness,
  type Trust,
} from '@dusk/core';
import { refDebounced } from '@vueuse/core';
import { computed } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import MeasureSwitch from '../chips/MeasureSwitch.vue';
import TrustMark from '../chips/TrustMark.vue';
import ValueLine from '../chips/ValueLine.vue';
import { describe, valueDifference } from '../floor/words.ts';
import RecipeSteps from '../recipe/RecipeSteps.vue';
import { useKnown } from '../recipe/useKnown.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import type { LiveReading, StillReading } from '../picture/useLiveRecipe.ts';

/** What is under the pointer and the recipe for it, told while the pointer moves. */
const props = defineProps<{
  live: LiveReading | undefined;
  still: StillReading | undefined;
  trust: Trust | undefined;
  amountMl: number;
  held: boolean;
}>();
const emit = defineEmits<{ keep: []; near: [] }>();
const settings = useSettings();
const reference = useReference();
const paintings = usePaintings();
const samples = useSamples();
const { short } = useKnown();

const recipe = computed(() => props.live?.answer?.proposals[0]);
const lost = computed(() => (!recipe.value || reachOf(recipe.value) === 'in' ? '' : recipe.value.givesWay.join(', ')));
const near = computed(() => (recipe.value ? closenessWithin(recipe.value, props.live!.answer!.reach) : ''));
const seenValue = computed(() => props.live && settings.valueText(valueOfLightness(props.live.lab[0])));
const isChanged = computed(
  () => props.live !== undefined && props.live.paint !== props.live.lab && Math.abs(props.live.paint[0] - props.live.lab[0]) > 0.3,
);
const ceiling = computed(() => paintings.onEasel?.ceiling ?? undefined);
/** Whether what is seen is stronger than the painting bears, and is held under that. */
const isHeldUnder = computed(
  () => ceiling.value !== undefined && props.live !== undefined && strengthOf(props.live.lab) > ceiling.value + 0.05 && !isChanged.value,
);

const isGlint = computed(() => props.still?.of === props.live && props.still?.zone === 'highlight');
/** Whatever is to be minded about this place, the gravest first. */
const warnings = computed(() => {
  const { live } = props;
  if (!live) return [];
  const list: string[] = [];
  const warning = areaWarning(live);
  if (warning) list.push(warning);
  if (live.parts) {
    const [main, other] = live.parts;
    list.push(
      `Not one colour: ${(100 * main.share).toFixed(0)} % of value ${settings.valueText(valueOfLightness(main.lab[0]))}, ${(100 * other.share).toFixed(0)} % of ${settings.valueText(valueOfLightness(other.lab[0]))}.`,
    );
  } else if (live.leftOut > 0.04) list.push(`${(100 * live.leftOut).toFixed(0)} % of the area is another colour, and is left out.`);
  const beyond = reference.key && !reference.isKeyed ? beyondPaint(live.lab, reference.key.ends) : undefined;
  if (beyond) list.push(`${beyond.by.toFixed(1)} ${beyond.way} than this palette can paint.`);
  if (reference.ends && isNearWhite(live.paint, reference.ends) && !isGlint.value)
    list.push('As light as tube white: nothing is left for the highlights.');
  return list;
});
const calm = computed(() => {
  const { live } = props;
  if (!live || warnings.value.length > 0) return '';
  return 'one colour, nothing clipped';
});
const note = computed(() => (props.still?.of === props.live ? props.still?.note : undefined));

/** Beside a mark that is held: how this differs from it. */
const beside = computed(() => {
  const held = samples.selected;
  if (!props.live || !held || props.held) return undefined;
  const { words, value, deltaE00 } = compareColours(props.live.paint, held.lab, settings.settings.warmBlue);
  return {
    name: held.name,
    words: words.join(', '),
    figures: `${value > 0 ? '+' : ''}${value.toFixed(1)}, told apart by ${deltaE00.toFixed(1)}`,
  };
});

/** Chips leave room for what to mix. */
const CHIPS_PX = 96;

/** For ears: what is under the point and what to mix for it, once the hand has come to rest. */
const REST_MS = 700;
const reading = computed(() => {
  if (!props.live) return '';
  const value = settings.valueText(valueOfLightness(props.live.paint[0]));
  const mix = recipe.value ? `; mix ${short(recipe.value.mixture)}, ${near.value}` : '';
  return `Value ${value}, ${describe(props.live.paint, settings.temperatureOf(props.live.paint))}${mix}.`;
});
const said = refDebounced(reading, REST_MS);
</script>

<template>
  <div class="live">
    <p class="for-readers" role="status" data-test="said">{{ said }}</p>
    <template v-if="live">
      <div class="seen">
        <ColourPair :target="live.paint" :mixed="recipe?.lab" :height="CHIPS_PX" />
        <div class="captions quiet">
          <span>{{ isChanged || isHeldUnder ? 'to paint' : 'seen' }}</span><span v-if="recipe">mixed</span>
        </div>
        <ValueLine :lab="live.paint" large data-test="seen" />
        <p v-if="isChanged" class="quiet figures" data-test="through-key">seen {{ seenValue }}, as it will look in paint</p>
        <p v-if="isHeldUnder" class="quiet figures" data-test="under-ceiling">no brighter than {{ ceiling }}</p>
      </div>
      <div class="mixed">
        <template v-if="recipe">
          <p class="difference figures" data-test="difference">
            Mixed: <strong>{{ valueDifference(recipe.valueError) }}</strong>, {{ near }}
            <span v-if="lost" class="quiet">({{ lost }})</span>
          </p>
          <RecipeSteps :mixture="recipe.mixture" :amount-ml="amountMl" data-test="recipe" />
        </template>
        <p v-else-if="reference.ends">Nothing is left to mix with: take a tube back.</p>
        <div class="keys">
          <p v-if="recipe" class="in-a-line figures" data-test="recipe-line">{{ short(recipe.mixture) }}</p>
          <button type="button" class="main-key keep" :disabled="!recipe" @click="emit('keep')">Keep this pile <kbd>k</kbd></button>
          <button type="button" class="near link-key" aria-label="Cards near it" title="Cards near it (/)" @click="emit('near')">
            Cards <kbd>/</kbd>
          </button>
        </div>
      </div>
      <div class="below">
        <slot name="place" />
        <p v-for="warning in warnings" :key="warning" class="warning">{{ warning }}</p>
        <p v-if="calm" class="quiet note" data-test="calm">{{ calm }}</p>
        <p v-if="beside" class="beside figures" data-test="beside">
          Beside {{ beside.name }}: <strong>{{ beside.words }}</strong> <span class="quiet">({{ beside.figures }})</span>
        </p>
        <slot name="tubes" :mixture="recipe?.mixture" />
        <MeasureSwitch />
        <TrustMark v-if="recipe" :trust="trust" />
        <p v-if="note" class="quiet note" data-test="surround-note">{{ note }}</p>
      </div>
    </template>
    <template v-else>
      <div class="seen">
        <h2>Point at a colour</h2>
        <p>
          Move over the picture, or give it the focus and use the arrow keys. What is under the ring, and what to mix for it, stands here.
        </p>
        <p>A press or <kbd>k</kbd> keeps it on the ledge.</p>
        <slot name="tubes" :mixture="undefined" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: center;
}
.live,
.seen,
.mixed,
.below {
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
.difference strong,
.beside strong {
  font-weight: 700;
}
.warning {
  font-weight: 700;
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
}
.note {
  font-size: var(--size-note);
}
.in-a-line {
  display: none;
}
/* What keeps it is in sight whatever stands above it. */
.keys {
  position: sticky;
  bottom: 0;
  z-index: 2;
  padding: var(--unit) 0;
  background: var(--surround);
}
/* Upright there is width, not height: what is seen stands beside what to mix. */
@media (orientation: portrait) and (min-width: 601px) {
  .live {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: calc(2 * var(--unit)) calc(6 * var(--unit));
  }
  .below {
    grid-column: 1 / -1;
  }
}
/* On a phone, or at twice its size, the recipe is one line beside the key that keeps it; drawn out, it stands below. */
@media (max-width: 600px) and (orientation: portrait), (max-height: 520px) {
  .captions,
  .near,
  .keep kbd {
    display: none;
  }
  .mixed > .recipe,
  .mixed > .difference {
    order: 1;
  }
  .live :deep(.chips) {
    height: 52px !important;
  }
  .live,
  .seen {
    gap: var(--unit);
  }
  .live :deep(.large) {
    flex-wrap: nowrap;
    white-space: nowrap;
    overflow: hidden;
  }
  .seen :deep(figcaption) {
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
    line-height: 1.2;
  }
  .live :deep(.large strong) {
    font-size: var(--size-title);
  }
  .keys {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .in-a-line {
    display: block;
    line-height: 1.2;
  }
}
@media (max-height: 520px) {
  .keys {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--unit);
  }
  .keep {
    min-height: 44px;
    margin: 0;
  }
  .in-a-line {
    font-size: var(--size-note);
  }
  .live :deep(.chips) {
    height: 44px !important;
  }
}
</style>
