<script setup lang="ts">
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import PaintKey from '../chips/PaintKey.vue';
import { useDesk } from '../stores/useDesk.ts';
import { usePiles } from '../stores/piles.ts';
import { leaveOut, mustHave, type Wished } from './wished.ts';

/** The palette's tubes: a press leaves one out and the answer changes at once; the key beside it says that it must be in. */
const props = defineProps<{ wished: Wished; piles?: readonly PileDto[] }>();
const desk = useDesk();
const store = usePiles();
/** Tubes, and piles where recipes may take from them. */
const all = computed(() => [
  ...(props.wished.from === 'piles' ? [] : desk.paletteTubes.map(({ id, name, masstone }) => ({ id, name, lab: masstone }))),
  ...(props.piles ?? []).map((pile) => ({ id: pile.id, name: pile.name, lab: store.seenNow(pile) })),
]);
const isOut = (id: string): boolean => props.wished.leftOut.includes(id);
const isMust = (id: string): boolean => props.wished.must.includes(id);
</script>

<template>
  <ul class="tubes" aria-label="Tubes of the palette">
    <li v-for="tube in all" :key="tube.id" :class="{ out: isOut(tube.id), must: isMust(tube.id) }">
      <PaintKey
        class="tube"
        :lab="tube.lab"
        :aria-label="isOut(tube.id) ? `${tube.name}, left out` : tube.name"
        :title="isOut(tube.id) ? 'Take it back' : 'Leave it out'"
        data-test="tube-key"
        @click="leaveOut(wished, tube.id)"
        >{{ tube.name }}</PaintKey
      >
      <button
        type="button"
        class="in"
        :aria-pressed="isMust(tube.id)"
        :aria-label="`with ${tube.name} in it`"
        title="Must be in it"
        @click="mustHave(wished, tube.id)"
      >
        put in
      </button>
    </li>
  </ul>
</template>

<style scoped>
.tubes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(186px, 100%), 1fr));
  gap: 0 calc(3 * var(--unit));
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: stretch;
}
.tube {
  font-size: var(--size-note);
}
.out :deep(.paint) {
  opacity: 0.25;
}
.out :deep(.name) {
  text-decoration: line-through;
}
.in {
  min-width: 44px;
  font-size: var(--size-note);
  color: var(--surround-soft);
}
.must .in {
  font-weight: 700;
  color: var(--surround-ink);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.must :deep(.name) {
  font-weight: 700;
}
</style>
