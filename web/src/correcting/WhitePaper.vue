<script setup lang="ts">
import { show, type Lab } from '@dusk/core';
import { ref, watch } from 'vue';
import { useWhite } from '../floor/white.ts';
import Sheet from '../controls/Sheet.vue';

/** The screen's white is set to a piece of white paper held beside it, once per light. */
const white = useWhite();
const lab = ref<Lab>([97, 0, 3]);
watch(
  () => white.setting,
  (open) => open && (lab.value = white.white ? white.lab : [97, 0, 3]),
);

const STEP = 2;
const by = (dL: number, da: number, db: number): void => {
  const [L, a, b] = lab.value;
  lab.value = [Math.min(100, Math.max(40, L + dL)), Math.min(30, Math.max(-30, a + da)), Math.min(40, Math.max(-30, b + db))];
};
const KEYS = [
  { word: 'lighter', run: () => by(STEP, 0, 0) },
  { word: 'darker', run: () => by(-STEP, 0, 0) },
  { word: 'yellower', run: () => by(0, 0, STEP) },
  { word: 'bluer', run: () => by(0, 0, -STEP) },
  { word: 'pinker', run: () => by(0, STEP / 2, 0) },
  { word: 'greener', run: () => by(0, -STEP / 2, 0) },
] as const;
</script>

<template>
  <Sheet v-model="white.setting" label="Set the white" wide judging>
    <h2>A screen is not a lamp</h2>
    <p>Hold a piece of white paper beside this patch, in the light you paint in, until the patch looks like the paper.</p>
    <div class="paper" :style="{ background: show(lab).css }" data-test="paper" />
    <div class="keys">
      <button v-for="key in KEYS" :key="key.word" type="button" class="key" @click="key.run()">{{ key.word }}</button>
    </div>
    <div class="foot">
      <button type="button" class="quiet-key" @click="white.giveUp()">The paper is brighter than this screen</button>
      <button type="button" class="main-key" @click="white.set(lab)">It looks like the paper</button>
    </div>
  </Sheet>
</template>

<style scoped>
.paper {
  height: 220px;
}
.keys {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: calc(2 * var(--unit));
}
.key,
.quiet-key {
  min-height: 54px;
  border: 1px solid currentColor;
  border-radius: 4px;
  font-weight: 700;
  padding: 0 calc(3 * var(--unit));
}
.foot {
  display: flex;
  justify-content: space-between;
  gap: calc(3 * var(--unit));
}
.quiet-key {
  font-weight: 400;
}
@media (max-width: 640px) {
  .keys {
    grid-template-columns: repeat(3, 1fr);
  }
  .foot {
    flex-direction: column;
  }
}
</style>
