<script setup lang="ts">
import { computed } from 'vue';
import Asks from './Asks.vue';
import { useMothers } from './mothers.ts';

/** Piles are planned from the one that changes: what is to become of them is the painter's to say. */
const props = defineProps<{ pileId: string }>();
const mothers = useMothers();
/** What was asked of another pile is answered there. */
const asked = computed(() => (mothers.asked?.pile.id === props.pileId ? mothers.asked : undefined));
</script>

<template>
  <Asks v-if="asked" label="What becomes of what is mixed from it" data-test="mother-asks">
    <p>
      <b>{{ asked.children.map(({ name }) => name).join(', ') }}</b>
      {{ asked.children.length === 1 ? 'is' : 'are' }} planned from this pile.
    </p>
    <div class="keys">
      <button type="button" @click="mothers.answer('follow')"><b>They follow</b><br />and change with it</button>
      <button type="button" @click="mothers.answer('hold')"><b>They keep their colours</b><br />and take something else beside it</button>
      <button type="button" @click="mothers.answer('stand')"><b>They stand by themselves</b><br />of the tubes they were to have</button>
      <button type="button" @click="mothers.leave()"><b>Leave it</b><br />as it is</button>
    </div>
  </Asks>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(200px, 100%), 1fr));
  gap: calc(2 * var(--unit));
  margin-top: calc(2 * var(--unit));
}
button {
  min-height: 56px;
  padding: var(--unit) calc(2 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 4px;
  line-height: 1.2;
  font-size: var(--size-note);
}
b {
  font-size: var(--size-text);
}
</style>
