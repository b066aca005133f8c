<script setup lang="ts">
import { hexToLab, show, valueOfLightness } from '@dusk/core';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { useRoute } from 'vue-router';
import { describe } from '../../chips/words.ts';
import { lookNow, usePiles } from '../../mixing/piles.ts';
import { usePaintings } from '../../paintings/paintings.ts';
import { useReference } from '../../reference/reference.ts';
import { useSettings } from '../settings.ts';
import { spreadDiscs } from './spread.ts';

/** The strip of piles: left to right by value, above the line when warm and below when cool, as large as their amount. */
const route = useRoute();
const paintings = usePaintings();
const piles = usePiles();
const settings = useSettings();
const reference = useReference();

/** Share of the way from black to white, kept off the very ends. */
const across = (value: number): number => 3 + 94 * (value / 10);
/** Greys lie close to the line, strong colours far off: the root keeps small differences visible. */
const above = (temperature: number): number => Math.sign(temperature) * Math.min(1, Math.sqrt(Math.abs(temperature) / 50));
const sizeOf = (ml: number): number => Math.min(62, Math.max(26, 20 + 8 * Math.sqrt(ml)));

const strip = useTemplateRef('strip');
const { width, height } = useElementSize(strip, { width: 1280, height: 124 });

/** Planned: not mixed yet; gone: scraped off or used up; otherwise it lies on the palette. */
const SAYS = { planned: 'planned', there: 'on the palette', gone: 'no longer on the palette' } as const;

const blobs = computed(() => {
  const placed = piles.byValue.map((pile) => {
    const lab = lookNow(pile);
    const temperature = settings.temperatureOf(lab);
    const value = valueOfLightness(lab[0]);
    const state = pile.stages.length === 0 ? 'planned' : pile.there > 0 ? 'there' : 'gone';
    return {
      pile,
      css: show(lab).css,
      state,
      size: sizeOf(state === 'there' ? pile.there : pile.ml),
      x: (across(value) / 100) * width.value,
      y: height.value * (0.47 - 0.25 * above(temperature)),
      says: `${pile.name}, value ${settings.valueText(value)}, ${describe(lab, temperature)}, ${SAYS[state]}`,
    };
  });
  const xs = spreadDiscs(placed, width.value);
  return placed.map((blob, i) => ({ ...blob, at: xs[i]! }));
});

/** Marks carry their word on the side where there is room. */
const ROOM = 7;
const marks = computed(() => {
  const ends = reference.range && { darkest: across(reference.range.darkest), lightest: across(reference.range.lightest) };
  const ground = paintings.onEasel && across(valueOfLightness(hexToLab(paintings.onEasel.ground)[0]));
  const list: { says: string; at: number; left: boolean }[] = [];
  if (ends)
    list.push(
      { says: 'darkest', at: ends.darkest, left: ends.darkest > ROOM },
      { says: 'lightest', at: ends.lightest, left: ends.lightest > 100 - ROOM },
    );
  if (ground !== undefined)
    list.push({
      says: 'ground',
      at: ground,
      left: ends !== undefined && Math.abs(ends.lightest - ground) < ROOM && ground < ends.lightest,
    });
  return list;
});
const ticks = computed(() =>
  [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((v) => ({ at: across(v), text: settings.valueText(v).replace(/\.0$/, '') })),
);
</script>

<template>
  <section ref="strip" class="ledge judging" aria-label="Ledge: the piles of this painting, dark to light">
    <span class="side warm">warm</span>
    <span class="side cool">cool</span>
    <div class="line" />
    <span v-for="tick in ticks" :key="tick.at" class="tick figures" :style="{ left: `${tick.at}%` }">{{ tick.text }}</span>
    <span v-for="mark in marks" :key="mark.says" class="mark" :class="{ left: mark.left }" :style="{ left: `${mark.at}%` }">{{
      mark.says
    }}</span>
    <span v-for="blob in blobs" :key="`at ${blob.pile.id}`" class="true-value" :style="{ left: `${blob.x}px` }" />
    <RouterLink
      v-for="blob in blobs"
      :key="blob.pile.id"
      class="pile"
      :class="[blob.state, { open: route.params['pileId'] === blob.pile.id }]"
      :to="{ name: 'mixing', params: { paintingId: paintings.onEasel?.id, pileId: blob.pile.id } }"
      :aria-label="blob.says"
      :title="blob.says"
      :style="{ left: `${blob.at}px`, top: `${blob.y}px` }"
    >
      <span class="blob" :style="{ background: blob.css, width: `${blob.size}px`, height: `${blob.size}px` }" />
    </RouterLink>
    <p v-if="piles.list.length === 0" class="empty">Piles you keep lie here, dark to light.</p>
  </section>
</template>

<style scoped>
.ledge {
  grid-area: ledge;
  position: relative;
  overflow: hidden;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  top: 47%;
  border-top: 1px solid var(--surround-line);
}
.side {
  position: absolute;
  left: 10px;
  font-size: var(--size-note);
}
.warm {
  top: 24px;
}
.cool {
  bottom: 30px;
}
.tick {
  position: absolute;
  bottom: 2px;
  transform: translateX(-50%);
  font-size: var(--size-note);
}
.tick::before {
  content: '';
  position: absolute;
  left: 50%;
  bottom: 20px;
  height: 8px;
  border-left: 1px solid var(--surround-ink);
}
.mark {
  position: absolute;
  top: 0;
  padding-left: calc(2 * var(--unit));
  height: 22px;
  font-size: var(--size-note);
  border-left: 3px solid var(--surround-ink);
  white-space: nowrap;
}
.mark.left {
  transform: translateX(-100%);
  border-left: none;
  border-right: 3px solid var(--surround-ink);
  padding: 0 calc(2 * var(--unit)) 0 0;
}
.true-value {
  position: absolute;
  top: calc(47% - 4px);
  height: 9px;
  border-left: 1px solid var(--surround-ink);
}
.pile {
  position: absolute;
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border-radius: 50%;
  transform: translate(-50%, -50%);
}
.blob {
  border-radius: 50%;
}
.gone .blob {
  opacity: 0.3;
}
.planned .blob {
  outline: 1px dashed var(--surround-ink);
  outline-offset: 2px;
}
.pile.open::after {
  content: '';
  position: absolute;
  bottom: -7px;
  width: 26px;
  border-bottom: 3px solid var(--surround-ink);
}
.empty {
  position: absolute;
  left: 50%;
  top: 26%;
  transform: translateX(-50%);
}
</style>
