<script setup lang="ts">
import { show } from '@dusk/core';
import { mdiBrightness6, mdiClose } from '@mdi/js';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { stepsOf } from '../live/measures.ts';
import { useShortcuts } from '../live/useShortcuts.ts';
import ColourPair from '../parts/ColourPair.vue';
import { labOfDto, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';

/** One recipe to be read from two metres, step by step; a tap anywhere goes on. */
const route = useRoute();
const router = useRouter();
const piles = usePiles();
const tubes = useTubes();
const settings = useSettings();
const at = ref(0);
const dim = ref(false);

const pile = computed(() => piles.byId.get(String(route.params['pileId'])));
const steps = computed(() => (pile.value ? stepsOf(pile.value.measures, tubes.byId, pile.value.amountMl) : []));
/** Let-downs are steps of their own, before the pile. */
const pages = computed(() => [
  ...steps.value.flatMap((s) =>
    s.letdown ? [{ title: `First, ${s.name}`, lines: s.letdown.map((l) => ({ parts: l.parts, name: l.name })), chip: s.paint }] : [],
  ),
  ...steps.value.map((s, i) => ({ title: i === 0 ? 'Lay out' : 'Add', lines: [{ parts: s.parts, name: s.name }], chip: s.pileAfter })),
]);
const page = computed(() => pages.value[Math.min(at.value, pages.value.length - 1)]);
const parts = (n: number): string => String(Math.round(n * 100) / 100);

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

let lock: WakeLockSentinel | undefined;
onMounted(async () => (lock = await navigator.wakeLock?.request('screen').catch(() => undefined)));
onBeforeUnmount(() => void lock?.release());
</script>

<template>
  <section v-if="pile" class="easel judging" :class="{ dim }" :aria-label="`${pile.name} at the easel`" @click="go(1)">
    <header>
      <h1>{{ pile.name }}</h1>
      <p class="figures value">value {{ settings.valueText(pile.value) }}</p>
      <v-btn :icon="mdiBrightness6" aria-label="Dim" title="Dim (d)" @click.stop="dim = !dim" />
      <v-btn :icon="mdiClose" aria-label="Leave the easel" title="Leave (Esc)" @click.stop="leave" />
    </header>
    <ColourPair :target="pile.target && labOfDto(pile.target)" :mixed="labOfDto(pile.predicted)" :height="150" />
    <div v-if="page" class="step" aria-live="polite">
      <div class="chip" :style="{ background: show(page.chip).css }" />
      <div>
        <p class="title">{{ page.title }}</p>
        <p v-for="line in page.lines" :key="line.name" class="line figures">
          <strong>{{ parts(line.parts) }}</strong> {{ line.name }}
        </p>
      </div>
    </div>
    <p class="figures count">
      {{ Math.min(at + 1, pages.length) }} of {{ pages.length }}
      <span v-if="at < pages.length - 1">· tap or <kbd>Space</kbd> for the next</span>
    </p>
  </section>
</template>

<style scoped>
.easel {
  display: flex;
  flex-direction: column;
  gap: 22px;
  height: 100%;
  padding: 20px 40px 28px;
  cursor: pointer;
}
.dim {
  filter: brightness(0.55);
}
header {
  display: flex;
  align-items: baseline;
  gap: 24px;
}
h1 {
  flex: 1;
  font-size: 44px;
}
.value {
  font-size: 44px;
}
.step {
  flex: 1;
  display: grid;
  grid-template-columns: 260px 1fr;
  gap: 40px;
  align-items: center;
}
.chip {
  height: 100%;
}
.title {
  font-size: 40px;
}
.line {
  font-size: 76px;
  line-height: 1.1;
}
.count {
  font-size: 24px;
}
</style>
