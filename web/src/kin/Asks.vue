<script setup lang="ts">
/** A question that stands before a deed, over whatever else is beside the pile. */
defineProps<{ label: string }>();
</script>

<template>
  <section class="asks" role="alertdialog" :aria-label="label">
    <slot />
  </section>
</template>

<style scoped>
.asks {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--surround);
  border: 2px solid currentColor;
  border-radius: 4px;
  padding: calc(3 * var(--unit));
  margin-bottom: calc(3 * var(--unit));
}
</style>
