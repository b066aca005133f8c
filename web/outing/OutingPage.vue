<script setup lang="ts">
import { show, valueOfLightness, writeReturn, type Outing, type OutingPile } from '@dusk/core';
import { computed, nextTick, ref } from 'vue';
import { useKept } from './kept.ts';
import OutingPileCard from './OutingPileCard.vue';

/** A painting out of doors: picture, ledge, piles dark to light, of which one is open; works alone. */
const props = defineProps<{ outing: Outing }>();
const { kept, news } = useKept(
  props.outing.id,
  props.outing.piles.map(({ id }) => id),
);
const grey = ref(false);
const squint = ref(false);
const mixed = computed(() => props.outing.piles.filter(isMixed).length);
const css = (lab: Parameters<typeof show>[0]): string => show(lab).css;
/** Above the line the warm ones, below it the cool. */
const placed = computed(() =>
  props.outing.piles.map((pile) => ({ pile, left: `${100 * pile.at}%`, top: `${50 - 38 * Math.max(-1, Math.min(1, pile.warmth))}%` })),
);
const groundAt = Math.min(1, valueOfLightness(props.outing.ground[0]) / 10);
const count = computed(() => news().length);
const isMixed = ({ id, isMixed: before }: OutingPile): boolean => before || kept[id]!.mixedAt !== undefined;

/** The pile that is open; the others are a line each, so that sixty are gone through with a thumb. */
const opened = ref<string>();
async function toPile(id: string): Promise<void> {
  opened.value = id;
  await nextTick();
  document.getElementById(id)?.scrollIntoView({ block: 'start' });
}
const byValue = computed(() => [...props.outing.piles].sort((one, other) => one.at - other.at));
/** A press on the ledge means the nearest in value: dabs lie on one another there. */
function pressed(event: MouseEvent): void {
  const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const at = (event.clientX - left) / width;
  const nearest = byValue.value.reduce<OutingPile | undefined>(
    (best, one) => (best && Math.abs(best.at - at) <= Math.abs(one.at - at) ? best : one),
    undefined,
  );
  if (nearest) void toPile(nearest.id);
}
/** One key a step of value, said in the studio's scale. */
const STEPS = 10;
const steps = computed(() => {
  const first = new Map<number, OutingPile>();
  for (const pile of byValue.value) {
    const step = Math.min(STEPS - 1, Math.floor(pile.at * STEPS));
    if (!first.has(step)) first.set(step, pile);
  }
  return [...first.values()];
});

function takeHome(): void {
  const { id, paintingId, title } = props.outing;
  const file = new Blob([writeReturn({ outing: id, paintingId, title, news: news() })], { type: 'application/json' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = `${title.replace(/[^\p{L}\p{N} ,-]/gu, '_')}, home.json`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
</script>

<template>
  <main :class="{ grey }">
    <header>
      <h1>{{ outing.title }}</h1>
      <p>{{ mixed }} of {{ outing.piles.length }} {{ outing.piles.length === 1 ? 'pile' : 'piles' }} mixed</p>
      <div class="keys">
        <button type="button" :aria-pressed="grey" @click="grey = !grey">grey</button>
        <button type="button" :aria-pressed="squint" @click="squint = !squint">squint</button>
      </div>
    </header>
    <div :class="{ squint }">
      <img v-for="picture in outing.pictures" :key="picture.name" :src="picture.src" :alt="picture.name" />
    </div>
    <div class="around ledge" aria-hidden="true" @click="pressed">
      <span class="ground" :style="{ left: `${100 * groundAt}%`, background: css(outing.ground) }" title="ground" />
      <span
        v-for="{ pile, left, top } in placed"
        :key="pile.id"
        class="dab"
        :class="{ there: isMixed(pile) }"
        :style="{ left, top, background: css(pile.lab) }"
      />
    </div>
    <nav class="steps" aria-label="To the piles of a value">
      <button v-for="pile in steps" :key="pile.id" type="button" @click="toPile(pile.id)">{{ pile.value }}</button>
    </nav>
    <OutingPileCard
      v-for="pile in byValue"
      :id="pile.id"
      :key="pile.id"
      v-model="kept[pile.id]!"
      :pile="pile"
      :open="opened === pile.id"
      @toggle="opened = opened === pile.id ? undefined : pile.id"
    />
    <section>
      <h2>Along with me</h2>
      <p v-for="tube in outing.tubes" :key="tube">{{ tube }}</p>
      <p v-for="caution in outing.cautions" :key="caution">{{ caution }}</p>
    </section>
    <footer>
      <button type="button" class="home" @click="takeHome">Take it home: {{ count }} {{ count === 1 ? 'pile' : 'piles' }}</button>
    </footer>
  </main>
</template>
