<script setup lang="ts" generic="T">
/** Colours in a row, one of which is pressed; what each is called is told when a hand is over it, and to ears. */
const chosen = defineModel<T>();
defineProps<{
  dabs: readonly { readonly value: T; readonly colour: string; readonly title: string; readonly label?: string; readonly test?: string }[];
}>();
</script>

<template>
  <div class="wrapped-close">
    <button
      v-for="(dab, i) in dabs"
      :key="i"
      type="button"
      class="dab"
      :class="{ chosen: dab.value === chosen }"
      :style="{ background: dab.colour }"
      :aria-pressed="dab.value === chosen"
      :aria-label="dab.label ?? dab.title"
      :title="dab.title"
      :data-test="dab.test"
      @click="chosen = dab.value"
    />
  </div>
</template>

<style scoped>
.dab {
  width: 44px;
  height: 44px;
  border: 3px solid transparent;
}
.chosen {
  border-color: currentColor;
}
</style>
