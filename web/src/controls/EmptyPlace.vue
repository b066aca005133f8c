<script setup lang="ts">
/** A place without anything in it yet: what it is for, and the one next step. */
defineProps<{ title: string }>();
</script>

<template>
  <section class="empty-place">
    <h1>{{ title }}</h1>
    <div class="says"><slot /></div>
    <div class="step"><slot name="step" /></div>
  </section>
</template>

<style scoped>
.empty-place {
  max-width: 560px;
  margin: 12vh auto 0;
  padding: 0 calc(6 * var(--unit));
}
.says {
  margin: calc(4 * var(--unit)) 0 calc(5 * var(--unit));
  font-size: var(--size-lead);
}
</style>
