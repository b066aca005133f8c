<script setup lang="ts">
import Pick from '../controls/Pick.vue';
import { computed } from 'vue';
import { useTubes } from '../stores/tubes.ts';

/** One of the studio's tubes, told by its name and maker. */
const value = defineModel<string>();
const tubes = useTubes();
const options = computed(() => tubes.all.map(({ id, name, maker }) => ({ value: id, title: `${name}, ${maker || 'generic'}` })));
</script>

<template>
  <Pick v-model="value" :options="options" />
</template>
