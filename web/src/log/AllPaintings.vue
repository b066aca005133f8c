<script setup lang="ts">
import { SMALL } from '@dusk/wire/reads';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useLog } from '../stores/log.ts';
import { usePaintings } from '../stores/paintings.ts';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import Board from './Board.vue';

/** Every painting that is under way: what may be worked on tonight, tomorrow, at the weekend. */
const emit = defineEmits<{ open: [] }>();
const log = useLog();
const paintings = usePaintings();
const router = useRouter();
const MOST = 60;
const rows = computed(() =>
  paintings.all
    .filter(({ id, about }) => about.finishedAt === undefined && log.byPainting.has(id))
    .slice(-MOST)
    .reverse()
    .map((painting) => {
      const picture = paintings.referencesOf(painting.id).at(-1);
      return {
        painting,
        passages: log.passagesOf(painting.id),
        picture: picture && !isLocal(picture.pictureId) ? pictureUrl(picture.pictureId) + SMALL : '',
      };
    }),
);
async function open(paintingId: string): Promise<void> {
  await router.push({ name: 'log', params: { paintingId } });
  emit('open');
}
</script>

<template>
  <div class="all">
    <p v-if="rows.length === 0" class="first">Nothing was laid on any painting yet. A layer is laid on the first tab, in two taps.</p>
    <section v-for="{ painting, passages, picture } in rows" :key="painting.id" class="one" data-test="board-painting">
      <button type="button" class="open" :title="`To ${painting.title}`" @click="open(painting.id)">
        <img v-if="picture" :src="picture" alt="" />
        <span v-else class="ground" :style="{ background: painting.ground }" />
        <span class="title">{{ painting.title }}</span>
      </button>
      <Board :passages="passages" :moments="log.moments" @choose="open(painting.id)" />
    </section>
  </div>
</template>

<style scoped>
.all {
  min-height: 0;
  overflow-y: auto;
}
.one {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: calc(6 * var(--unit));
  padding: calc(4 * var(--unit)) 0;
  border-top: 1px solid rgba(var(--v-theme-on-background), 0.3);
}
.open {
  display: grid;
  align-content: start;
  gap: calc(2 * var(--unit));
  text-align: left;
}
.open img,
.ground {
  width: 100%;
  height: 110px;
  object-fit: cover;
}
.title {
  font-size: var(--size-lead);
  line-height: 1.15;
}
.first {
  font-size: var(--size-lead);
}
@media (orientation: portrait) {
  .all {
    overflow: visible;
  }
  .one {
    grid-template-columns: 120px minmax(0, 1fr);
  }
}
</style>
