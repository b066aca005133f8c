<script setup lang="ts">
/** A file that is chosen, or dropped here. */
defineProps<{ label: string; accept: string }>();
const emit = defineEmits<{ file: [file: File] }>();
function take(files: FileList | null | undefined): void {
  const file = files?.[0];
  if (file) emit('file', file);
}
</script>

<template>
  <label class="drop" @dragover.prevent @drop.prevent="take($event.dataTransfer?.files)"
    ><slot />
    <input class="file" type="file" :accept="accept" :aria-label="label" @change="take(($event.target as HTMLInputElement).files)"
  /></label>
</template>

<style scoped>
.drop {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 72px;
  padding: 0 calc(4 * var(--unit));
  border: 1px dashed currentColor;
  cursor: pointer;
}
.drop:has(:focus-visible) {
  outline: 3px solid rgb(var(--v-theme-secondary));
}
.file {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
