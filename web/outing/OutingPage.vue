<script setup lang="ts">
import { show, valueOfLightness, writeReturn, type Outing } from '@dusk/core';
import { computed, ref } from 'vue';
import { useKept } from './kept.ts';
import OutingPileCard from './OutingPileCard.vue';

/** A painting out of doors: picture, ledge, piles in the order to mix them; works alone. */
const props = defineProps<{ outing: Outing }>();
const { kept, news } = useKept(
  props.outing.id,
  props.outing.piles.map(({ id }) => id),
);
const grey = ref(false);
const squint = ref(false);
const mixed = computed(() => props.outing.piles.filter(({ id, isMixed }) => isMixed || kept[id]!.mixedAt).length);
const css = (lab: Parameters<typeof show>[0]): string => show(lab).css;
/** Above the line the warm ones, below it the cool. */
const placed = computed(() =>
  props.outing.piles.map((pile) => ({ pile, left: `${100 * pile.at}%`, top: `${50 - 38 * Math.max(-1, Math.min(1, pile.warmth))}%` })),
);
const groundAt = Math.min(1, valueOfLightness(props.outing.ground[0]) / 10);
const count = computed(() => news().length);
const toPile = (id: string): void => document.getElementById(id)?.scrollIntoView({ behavior: 'smooth', block: 'start' });

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
      <p>{{ mixed }} of {{ outing.piles.length }} piles mixed</p>
      <div class="keys">
        <button type="button" :aria-pressed="grey" @click="grey = !grey">grey</button>
        <button type="button" :aria-pressed="squint" @click="squint = !squint">squint</button>
      </div>
    </header>
    <div :class="{ squint }">
      <img v-for="picture in outing.pictures" :key="picture.name" :src="picture.src" :alt="picture.name" />
    </div>
    <nav class="ledge" aria-label="Piles, dark to light; warm above, cool below">
      <span class="ground" :style="{ left: `${100 * groundAt}%`, background: css(outing.ground) }" title="ground" />
      <button
        v-for="{ pile, left, top } in placed"
        :key="pile.id"
        type="button"
        class="dab"
        :class="{ there: pile.isMixed || kept[pile.id]!.mixedAt }"
        :style="{ left, top, background: css(pile.lab) }"
        :aria-label="`${pile.value} ${pile.name}`"
        @click="toPile(pile.id)"
      />
    </nav>
    <OutingPileCard v-for="pile in outing.piles" :id="pile.id" :key="pile.id" v-model="kept[pile.id]!" :pile="pile" />
    <section>
      <h2>Along with me</h2>
      <p v-for="tube in outing.tubes" :key="tube">{{ tube }}</p>
      <p v-for="caution in outing.cautions" :key="caution" class="note">{{ caution }}</p>
    </section>
    <footer>
      <button type="button" class="home" @click="takeHome">Take it home: {{ count }} {{ count === 1 ? 'pile' : 'piles' }}</button>
    </footer>
  </main>
</template>
