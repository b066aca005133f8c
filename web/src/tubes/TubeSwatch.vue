<script setup lang="ts">
import { show, valueOfLightness } from '@dusk/core';
import { computed } from 'vue';
import { useSettings } from '../stores/settings.ts';
import { learntOf } from './learnt.ts';
import type { Tube } from '../stores/tubes.ts';

/** A tube by its two tell-tale colours: as it comes, and one part in nine of white. */
const props = defineProps<{ tube: Tube; note?: string }>();
const settings = useSettings();

const masstone = computed(() => show(props.tube.masstone).css);
const tint = computed(() => show(props.tube.tint).css);
const values = computed(() =>
  [props.tube.masstone, props.tube.tint].map((lab) => settings.valueText(valueOfLightness(lab[0]))).join(' / '),
);
</script>

<template>
  <article class="tube">
    <div class="chips judging">
      <div class="chip" :style="{ background: masstone }" title="masstone" />
      <div class="chip" :style="{ background: tint }" title="1 : 9 with titanium white" />
    </div>
    <div class="words">
      <h3>{{ tube.name }}</h3>
      <p class="quiet small figures">{{ tube.maker || 'generic' }} · {{ tube.colourIndex }} · value {{ values }}</p>
      <p class="small">{{ note ?? tube.character }}</p>
      <p v-if="tube.learnt" class="small figures">{{ learntOf(tube) }}</p>
      <p v-if="tube.caution !== 'none'" class="small caution">
        {{ tube.caution === 'fugitive' ? 'fugitive: fades in light' : `${tube.caution}: see the label and safety data sheet` }}
      </p>
    </div>
    <slot />
  </article>
</template>

<style scoped>
/* A rack of sixty is not laid out where it is not seen. */
.tube {
  content-visibility: auto;
  contain-intrinsic-size: auto 96px;
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr) auto;
  gap: calc(4 * var(--unit));
  align-items: center;
}
.chips {
  display: flex;
  padding: calc(2 * var(--unit));
}
.chip {
  flex: 1;
  height: 56px;
}
.small {
  font-size: var(--size-note);
  line-height: 1.25;
}
/* No colour beside a chip: what asks for care is told by weight. */
.caution {
  font-weight: 700;
}
@media (max-width: 600px) {
  .tube {
    grid-template-columns: 84px minmax(0, 1fr) auto;
    gap: calc(2 * var(--unit));
  }
}
</style>
