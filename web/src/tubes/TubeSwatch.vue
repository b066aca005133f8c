<script setup lang="ts">
import { show, valueOfLightness, type Spectrum } from '@dusk/core';
import { computed } from 'vue';
import DrawnOut from '../chips/DrawnOut.vue';
import { useSettings } from '../stores/settings.ts';
import { learntOf } from './learnt.ts';
import type { Tube } from '../stores/tubes.ts';

/** A tube by its two tell-tale colours: as it comes, and one part in nine of white. */
const props = defineProps<{
  tube: Tube;
  note?: string;
  /** Drawn out thin instead. */
  drawn?: boolean;
  ground?: Spectrum;
  /** Its name leads to its own page, and so does a press on its chips. */
  linked?: boolean;
}>();
const settings = useSettings();

/** What else is known of it, told when a hand is over it. */
const says = computed(() => [props.tube.maker || 'generic', props.tube.colourIndex, props.tube.character].filter(Boolean).join(' · '));
const masstone = computed(() => show(props.tube.masstone).css);
const tint = computed(() => show(props.tube.tint).css);
/** Its values straight and in the tint; a white has one. */
const values = computed(() =>
  [...new Set([props.tube.masstone, props.tube.tint].map((lab) => settings.valueText(valueOfLightness(lab[0]))))].join(' to '),
);
</script>

<template>
  <article class="tube" :class="{ linked }" :title="says">
    <DrawnOut v-if="drawn" class="chips judging" :paint="tube.paint" :called="tube.name" v-bind="ground ? { ground } : {}" />
    <div v-else class="chips judging">
      <div class="chip masstone" :style="{ background: masstone }" title="straight from the tube" />
      <div class="chip" :style="{ background: tint }" title="with nine times as much white" />
    </div>
    <div class="words">
      <h3>
        <RouterLink v-if="linked" :to="{ name: 'tube', params: { tubeId: tube.id } }">{{ tube.name }}</RouterLink><template v-else>{{
          tube.name
        }}</template>
      </h3>
      <p class="quiet small figures">
        {{ values }}<template v-if="tube.maker">, {{ tube.maker }}</template>
      </p>
      <p v-if="note" class="small">{{ note }}</p>
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
  contain-intrinsic-size: auto 150px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-content: start;
  align-items: start;
  gap: var(--unit);
}
.chips {
  grid-column: 1 / -1;
  display: flex;
  padding: calc(2 * var(--unit));
}
.drawn-out.chips {
  display: block;
}
.chip {
  flex: 1;
  height: 72px;
}
.masstone {
  flex: 2;
}
h3 {
  font-size: var(--size-text);
}
h3 a {
  color: inherit;
}
/* The whole swatch is the link's. */
.linked {
  position: relative;
}
.linked h3 a::after {
  content: '';
  position: absolute;
  inset: 0;
}
.small {
  font-size: var(--size-note);
  line-height: 1.2;
}
/* No colour beside a chip: what asks for care is told by weight. */
.caution {
  font-weight: 700;
}
</style>
