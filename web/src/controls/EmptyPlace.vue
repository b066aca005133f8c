<script setup lang="ts">
/** A place without anything in it yet: what lies there once there is, what it is for, and the one next step; what else may be done stands below. */
defineProps<{ title: string }>();

/** Piles as they lie on the ledge, dark to light: of greys, so that no colour is promised. */
const DABS = ['#1d1d1d', '#3f3f3f', '#626262', '#8d8d8d', '#b9b9b9', '#e4e4e4'];
</script>

<template>
  <section class="empty-place">
    <svg viewBox="0 0 240 64" aria-hidden="true" class="dabs">
      <line x1="0" y1="44" x2="240" y2="44" stroke="currentColor" stroke-width="1.5" />
      <ellipse v-for="(dab, i) in DABS" :key="dab" :cx="22 + 39 * i" :cy="44 - (i % 2) * 14" rx="15" ry="12" :fill="dab" />
    </svg>
    <h1>{{ title }}</h1>
    <p><slot /></p>
    <div class="wrapped steps"><slot name="step" /></div>
    <p v-if="$slots['more']" class="more"><slot name="more" /></p>
  </section>
</template>

<style scoped>
.empty-place {
  display: grid;
  align-content: start;
  justify-items: start;
  gap: calc(4 * var(--unit));
  width: min(100%, 600px);
  margin: 0 auto;
  padding: min(10vh, 80px) calc(4 * var(--unit)) calc(4 * var(--unit));
  font-size: var(--size-lead);
}
.dabs {
  width: min(100%, 300px);
  padding: calc(2 * var(--unit));
  background: #7a7a7a;
  color: #111;
}
.steps {
  gap: calc(2 * var(--unit)) calc(5 * var(--unit));
  align-items: center;
}
.steps :deep(a) {
  text-decoration: none;
}
.more {
  font-size: var(--size-note);
}
</style>
