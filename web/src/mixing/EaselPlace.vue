<script setup lang="ts">
import { mdiBrightness6, mdiChevronLeft, mdiClose } from '@mdi/js';
import { show, valueOfLightness } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { useWakeLock } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { mlText, mmText, partsText } from '../chips/words.ts';
import { useSettings } from '../shell/settings.ts';
import { useShortcuts } from '../shell/useShortcuts.ts';
import { lookNow, usePiles } from './piles.ts';
import type { Step } from './steps.ts';
import { useKnown } from './useKnown.ts';

/** One recipe to be read from two metres, step by step; a tap anywhere goes on. */
const route = useRoute();
const router = useRouter();
const piles = usePiles();
const settings = useSettings();
const { heapsOf } = useKnown();
const at = ref(0);
const dim = ref(false);

const pile = computed(() => piles.byId.get(String(route.params['pileId'])));
const heaps = computed(() => (pile.value ? heapsOf(pile.value.plan, pile.value.ml) : []));
const line = ({ name, parts, beadMm, ml }: Step) => ({ name, parts: partsText(parts), amount: `${mmText(beadMm)} · ${mlText(ml)}` });
/** Heaps that are mixed first are steps of their own, before the pile. */
const pages = computed(() => [
  ...heaps.value.slice(0, -1).map((heap) => ({ title: `First, ${heap.name}`, lines: heap.steps.map(line), chip: heap.colour })),
  ...(heaps.value.at(-1)?.steps ?? []).map((step, i) => ({ title: i === 0 ? 'Lay out' : 'Add', lines: [line(step)], chip: step.after })),
]);
const page = computed(() => pages.value[Math.min(at.value, pages.value.length - 1)]);
const halves = computed(() => {
  const mixed = pile.value && { what: 'mixed', lab: lookNow(pile.value) };
  return [...(pile.value?.target ? [{ what: 'wanted', lab: labOfDto(pile.value.target.lab) }] : []), ...(mixed ? [mixed] : [])];
});

const go = (by: number): void => {
  at.value = Math.min(Math.max(0, at.value + by), pages.value.length - 1);
};
const leave = (): void =>
  void router.push({ name: 'mixing', params: { paintingId: route.params['paintingId'], pileId: route.params['pileId'] } });

useShortcuts(() => [
  { key: ' ', run: () => go(1) },
  { key: 'ArrowRight', run: () => go(1) },
  { key: 'ArrowLeft', run: () => go(-1) },
  { key: 'Escape', run: leave },
  { key: 'd', run: () => (dim.value = !dim.value) },
]);

const { request, release } = useWakeLock();
onMounted(() => void request('screen').catch(() => undefined));
onBeforeUnmount(() => void release());
</script>

<template>
  <section v-if="pile" class="easel judging" :class="{ dim }" :aria-label="`${pile.name} at the easel`" @click="go(1)">
    <header>
      <h1>{{ pile.name }}</h1>
      <p class="figures value">value {{ settings.valueText(valueOfLightness(halves.at(-1)!.lab[0])) }}</p>
      <v-btn :icon="mdiBrightness6" aria-label="Dim" title="Dim (d)" @click.stop="dim = !dim" />
      <v-btn :icon="mdiClose" aria-label="Leave the easel" title="Leave (Esc)" @click.stop="leave" />
    </header>
    <div class="pair">
      <figure v-for="half in halves" :key="half.what">
        <div class="half" :style="{ background: show(half.lab).css }" />
        <figcaption>{{ half.what }}</figcaption>
      </figure>
    </div>
    <div v-if="page" class="step" aria-live="polite">
      <figure class="after">
        <div class="chip" :style="{ background: show(page.chip).css }" />
        <figcaption>the pile then</figcaption>
      </figure>
      <div>
        <p class="title">{{ page.title }}</p>
        <p v-for="part in page.lines" :key="part.name" class="line figures">
          <strong>{{ part.parts }}</strong> {{ part.name }} <span class="amount">{{ part.amount }}</span>
        </p>
      </div>
    </div>
    <footer class="figures count">
      <v-btn :icon="mdiChevronLeft" size="56" :disabled="at === 0" aria-label="A step back" title="A step back (←)" @click.stop="go(-1)" />
      <span
        >{{ Math.min(at + 1, pages.length) }} of {{ pages.length }}
        <span v-if="at < pages.length - 1">· tap or <kbd>Space</kbd> for the next</span></span
      >
    </footer>
  </section>
</template>

<style scoped>
.easel {
  display: flex;
  flex-direction: column;
  gap: calc(4 * var(--unit));
  height: 100%;
  padding: calc(5 * var(--unit)) calc(10 * var(--unit)) calc(5 * var(--unit));
  cursor: pointer;
  overflow: hidden;
}
.dim {
  filter: brightness(0.55);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: calc(3 * var(--unit)) calc(6 * var(--unit));
}
h1 {
  flex: 1;
  font-size: var(--size-figure);
  overflow-wrap: anywhere;
}
.value {
  font-size: var(--size-figure);
}
figure {
  margin: 0;
}
figcaption {
  font-size: var(--size-lead);
}
.pair {
  display: flex;
}
.pair figure {
  flex: 1;
}
.half {
  height: 120px;
}
.step {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(140px, 260px) 1fr;
  gap: calc(10 * var(--unit));
  align-items: center;
  min-height: 0;
}
.after {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.chip {
  flex: 1;
}
.title {
  font-size: var(--size-figure);
}
.line {
  font-size: var(--size-far);
  line-height: 1.1;
}
.amount {
  font-size: var(--size-figure);
  white-space: nowrap;
}
.count {
  display: flex;
  align-items: center;
  gap: calc(4 * var(--unit));
  font-size: var(--size-lead);
}
@media (orientation: portrait) {
  .easel {
    padding: calc(3 * var(--unit)) calc(5 * var(--unit));
  }
  .step {
    grid-template: minmax(0, 2fr) minmax(0, 3fr) / minmax(0, 1fr);
    gap: calc(4 * var(--unit));
    align-items: start;
  }
}
/* A phone, or a window hardly higher than a hand, is read from nearer. */
@media (max-width: 600px), (max-height: 520px) {
  .easel {
    gap: calc(2 * var(--unit));
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
  h1,
  .value,
  .title,
  .amount {
    font-size: var(--size-title);
  }
  h1 {
    flex-basis: 100%;
    order: -1;
  }
  .line {
    font-size: var(--size-figure);
  }
  .half {
    height: 64px;
  }
}
@media (max-height: 520px) {
  .pair {
    display: none;
  }
}
</style>
