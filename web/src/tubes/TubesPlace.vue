<script setup lang="ts">
import { computed, ref } from 'vue';
import Field from '../controls/Field.vue';
import { matches } from './search.ts';
import TubeSwatch from './TubeSwatch.vue';
import { useTubes } from '../stores/tubes.ts';

const tubes = useTubes();
const wanted = ref('');
const found = computed(() => tubes.all.filter((tube) => matches(tube, wanted.value)));
</script>

<template>
  <div class="place">
    <header>
      <div>
        <h1>Tubes</h1>
        <p class="quiet">As they come, and one part in nine of titanium white. Typical paint of each pigment: yours may differ.</p>
      </div>
      <div class="search"><Field v-model="wanted" label="Name, pigment or character" clearable /></div>
    </header>
    <div class="grid">
      <TubeSwatch v-for="tube in found" :key="tube.id" :tube="tube" />
    </div>
    <p v-if="found.length === 0">No tube of that name. Try a pigment, as PB29, or a word like transparent.</p>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: calc(8 * var(--unit));
  align-items: start;
  margin-bottom: calc(6 * var(--unit));
}
.search {
  flex: 0 1 320px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(460px, 100%), 1fr));
  gap: calc(4 * var(--unit)) calc(8 * var(--unit));
}
</style>
