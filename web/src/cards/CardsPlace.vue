<script setup lang="ts">
import type { CardDto } from '@dusk/wire';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { usePaintings } from '../stores/paintings.ts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import { useNotices } from '../floor/notices.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useStudio } from '../studio/useStudio.ts';
import BringCards from './BringCards.vue';
import CardLine from './CardLine.vue';
import { useCards } from '../stores/cards.ts';
import Finder from './Finder.vue';
import { useFinding } from '../stores/finding.ts';
import OpenCard from './OpenCard.vue';
import SchemeGrid from './SchemeGrid.vue';
import SetDeeds from './SetDeeds.vue';

/** Mixtures that were kept: found by value first, by a colour, by words; opened beside the others. */
const route = useRoute();
const router = useRouter();
const paintings = usePaintings();
const cards = useCards();
const finding = useFinding();
const studio = useStudio();
const notices = useNotices();
const bringing = ref(false);

onMounted(async () => {
  await notices.attempt(() => studio.load('sets', ''));
  finding.wants = true;
});

const found = computed(() => finding.found?.cards ?? []);
const wanted = computed(() => String(route.params['cardId'] ?? ''));
/** A card by its address alone: it need not be among those that are shown. */
const byAddress = shallowRef<CardDto>();
const isNowhere = ref(false);
watch(
  [wanted, () => found.value.some(({ id }) => id === wanted.value), () => finding.found?.seq] as const,
  async ([id, isShown]) => {
    isNowhere.value = false;
    if (id === '' || isShown) return;
    const story = await notices.attempt(() => studio.ask('card', id));
    if (wanted.value !== id) return;
    byAddress.value = story?.card;
    isNowhere.value = story === undefined || story.card.deletedAt !== null;
  },
  { immediate: true },
);
const opened = computed(
  () =>
    found.value.find(({ id }) => id === wanted.value) ??
    (byAddress.value?.id === wanted.value && !isNowhere.value ? byAddress.value : undefined),
);
const box = useTemplateRef('box');
/** What is opened from a list that was scrolled begins at its top. */
watch(wanted, async () => {
  await nextTick();
  box.value?.scrollTo({ top: 0 });
  box.value?.querySelector('.one')?.scrollTo({ top: 0 });
});
const set = computed(() => cards.sets.find(({ id }) => id === finding.setId));
const go = (by: number): void => {
  const at = found.value.findIndex(({ id }) => id === opened.value?.id);
  const next = found.value[Math.min(Math.max(0, at + by), found.value.length - 1)];
  if (next) void router.replace({ name: 'cards', params: { cardId: next.id } });
};
/** A set that was put away is no longer looked into. */
watch(
  () => finding.setId && cards.sets.length > 0 && !set.value,
  (gone) => gone && (finding.setId = undefined),
);
const finder = ref<InstanceType<typeof Finder>>();
useShortcuts(() => [
  { key: 'ArrowDown', run: () => go(1), repeats: true },
  { key: 'ArrowUp', run: () => go(-1), repeats: true },
  { key: 'ArrowRight', run: () => go(1), repeats: true },
  { key: 'ArrowLeft', run: () => go(-1), repeats: true },
  { key: '/', run: () => finder.value?.focus() },
  { key: 'b', run: () => (bringing.value = true) },
]);
</script>

<template>
  <div class="cards judging">
    <EmptyPlace v-if="finding.found?.of === 0" title="No cards yet">
      A card is a mixture that outlives its painting: open a pile and press <kbd>c</kbd>, and it is here.
      <template #step>
        <RouterLink v-if="paintings.onEasel" class="main-key" :to="{ name: 'mixing', params: { paintingId: paintings.onEasel.id } }"
          >To the piles</RouterLink
        >
        <button type="button" class="link-key" @click="bringing = true">Bring cards&ensp;<kbd>b</kbd></button>
      </template>
    </EmptyPlace>
    <div v-else-if="finding.found" ref="box" class="box" :class="{ opened: opened || isNowhere }">
      <section class="list" aria-label="Cards that were found">
        <Finder ref="finder" @bring="bringing = true" />
        <p class="quiet figures count" role="status" data-test="found">{{ finding.found.total }} of {{ finding.found.of }}</p>
        <SetDeeds v-if="set" :set="set" />
        <SchemeGrid v-if="set?.kind === 'scheme'" :cards="found" />
        <nav v-else class="chips" aria-label="Cards">
          <CardLine v-for="card in found" :key="card.id" :card="card" :open="card.id === opened?.id" />
        </nav>
        <p v-if="finding.found.total > found.length" class="quiet figures">
          And {{ finding.found.total - found.length }} more: narrow the values, or say a word.
        </p>
        <p v-if="finding.found.total === 0" class="none">
          None is like that.
          <button type="button" class="link-key" @click="finding.clear()">Look at all of them</button>
        </p>
      </section>
      <section v-if="opened || isNowhere" class="one" aria-label="The open card">
        <OpenCard v-if="opened" :key="opened.id" :card="opened" />
        <p v-else class="beside" data-test="no-such-card">There is no card at this address any more. It may have been put away.</p>
      </section>
    </div>
    <BringCards v-model="bringing" />
  </div>
</template>

<style scoped>
.cards {
  height: 100%;
  min-height: 0;
}
.also {
  margin-left: calc(3 * var(--unit));
}
.box {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  height: 100%;
}
.box.opened {
  grid-template-columns: minmax(0, 1.72fr) minmax(0, 1fr);
}
.list,
.one {
  overflow-y: auto;
  min-height: 0;
  padding: calc(3 * var(--unit)) calc(6 * var(--unit));
}
.one {
  border-left: 1px solid var(--surround-line);
}
.chips {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(106px, 1fr));
  gap: calc(3 * var(--unit));
  padding: calc(2 * var(--unit)) 0;
}
.count {
  font-size: var(--size-note);
}
.beside {
  margin-top: calc(6 * var(--unit));
}
.none {
  margin-top: calc(4 * var(--unit));
}
/* With one open the arrow keys still lead through the others. */
@media (orientation: portrait), (max-width: 1000px) {
  .box.opened {
    grid-template-columns: minmax(0, 1fr);
    overflow-y: auto;
    align-content: start;
  }
  .list,
  .one {
    border: 0;
  }
  .box.opened .one {
    overflow-y: visible;
    min-height: auto;
  }
  /* What is open lies over the others. */
  .box.opened .list {
    display: none;
  }
}
@media (max-width: 600px) {
  .list,
  .one {
    padding: calc(2 * var(--unit)) calc(4 * var(--unit));
  }
}
</style>
