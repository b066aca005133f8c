<script setup lang="ts">
import { onMounted, useAttrs, useId, useTemplateRef } from 'vue';

/** A line to write on, its name above it, where it does not move. */
defineOptions({ inheritAttrs: false });
const text = defineModel<string>({ required: true });
defineProps<{ label: string; clearable?: boolean }>();
const id = useId();
const input = useTemplateRef('input');
const attrs = useAttrs();
// A browser minds `autofocus` only while a page loads: a field that comes later takes the focus by hand.
onMounted(() => {
  if (attrs['autofocus'] !== undefined && attrs['autofocus'] !== false) input.value?.focus();
});
defineExpose({ focus: () => input.value?.focus() });
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <v-text-field
      :id="id"
      ref="input"
      :model-value="text"
      :clearable="clearable ?? false"
      autocomplete="off"
      spellcheck="false"
      v-bind="$attrs"
      @update:model-value="text = $event ?? ''"
    />
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
}
label {
  font-size: var(--size-note);
}
</style>
