<script setup lang="ts">
import { computed } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useLooking } from '../stores/looking.ts';
import PictureStage from './PictureStage.vue';
import { useReference } from '../stores/reference.ts';
import { useFollowing } from './following.ts';
import { usePoints } from './points.ts';

/** The picture by itself, in a window of its own, in this browser or another: it follows looks, marks, grid and point of the one that is worked in. */
const store = useReference();
const looking = useLooking();
const paintings = usePaintings();
const points = usePoints();
useFollowing();
const outline = computed(() => {
  const at = store.reference && points.value[store.reference.id];
  return at ? { x: at.x * store.perOwn, y: at.y * store.perOwn, radius: store.radius } : undefined;
});
</script>

<template>
  <section class="alone judging" :aria-label="`Reference of ${paintings.onEasel?.title}, alone`">
    <PictureStage
      v-if="store.pixels && store.reference"
      :name="store.reference.name"
      :outline="looking.marks ? outline : undefined"
      alone
    />
    <p v-else>{{ store.failure || 'There is no picture to look at yet.' }}</p>
  </section>
</template>

<style scoped>
.alone {
  height: 100%;
  padding: calc(4 * var(--unit));
}
</style>
