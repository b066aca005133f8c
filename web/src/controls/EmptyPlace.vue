<script setup lang="ts">
/** A place without anything in it yet: what it is for, and the one next step. */
defineProps<{ title: string }>();
</script>

<template>
  <v-empty-state class="empty-place">
    <template #headline
      ><h1>{{ title }}</h1></template
    >
    <template #text><slot /></template>
    <template #actions><slot name="step" /></template>
  </v-empty-state>
</template>

<style scoped>
.empty-place {
  align-items: start;
  justify-content: start;
  max-width: 640px;
  margin: 10vh auto 0;
  text-align: left;
  font-size: var(--size-lead);
}
</style>
