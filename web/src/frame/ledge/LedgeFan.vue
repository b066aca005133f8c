<script setup lang="ts">
import { onClickOutside, onKeyStroke } from '@vueuse/core';
import { nextTick, onMounted, useTemplateRef } from 'vue';
import type { RouteLocationRaw } from 'vue-router';

/** Piles that share a place on the ledge, fanned out over it: each large enough for a finger, dark to light. */
const props = defineProps<{
  dabs: readonly { readonly id: string; readonly css: string; readonly name: string; readonly value: string; readonly says: string }[];
  x: number;
  width: number;
  to: (id: string) => RouteLocationRaw;
}>();
const emit = defineEmits<{ close: [] }>();
const list = useTemplateRef('list');
const WIDTH_PX = 300;
const left = (): number => Math.max(4, Math.min(props.width - WIDTH_PX - 4, props.x - WIDTH_PX / 2));

onClickOutside(list, () => emit('close'));
onKeyStroke('Escape', (event) => {
  event.preventDefault();
  emit('close');
});
onMounted(async () => {
  await nextTick();
  list.value?.querySelector('a')?.focus();
});
</script>

<template>
  <nav ref="list" class="fan judging" aria-label="Piles that share this place" :style="{ left: `${left()}px`, width: `${WIDTH_PX}px` }">
    <RouterLink v-for="dab in dabs" :key="dab.id" :to="to(dab.id)" class="one" :aria-label="dab.says" @click="emit('close')">
      <span class="dab" :style="{ background: dab.css }" />
      <strong class="figures">{{ dab.value }}</strong>
      <span class="name">{{ dab.name }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.fan {
  position: absolute;
  bottom: calc(100% + var(--unit));
  z-index: 200;
  max-height: 50vh;
  overflow-y: auto;
  border: 1px solid var(--surround-ink);
}
.one {
  display: grid;
  grid-template-columns: 56px 44px minmax(0, 1fr);
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 52px;
  color: inherit;
  text-decoration: none;
}
.dab {
  height: 52px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
