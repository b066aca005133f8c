<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { onMounted, useAttrs, useId, useTemplateRef } from 'vue';

/** A line to write on, its name above it. */
defineOptions({ inheritAttrs: false });
const text = defineModel<string>({ required: true });
defineProps<{ label: string; clearable?: boolean }>();
const id = useId();
const input = useTemplateRef('input');
function clear(): void {
  text.value = '';
  input.value?.focus();
}
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
    <div class="line">
      <input :id="id" ref="input" v-model="text" type="text" autocomplete="off" spellcheck="false" v-bind="$attrs" />
      <v-btn v-if="clearable && text" :icon="mdiClose" aria-label="Clear" @click="clear" />
    </div>
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
.line {
  display: flex;
  align-items: center;
  border-bottom: 2px solid currentColor;
}
.line:focus-within {
  border-bottom-color: rgb(var(--v-theme-secondary));
}
/* No colour of the studio's beside what is judged. */
.judging .line:focus-within {
  border-bottom-color: var(--surround-ink);
}
input {
  flex: 1;
  min-width: 0;
  min-height: 44px;
  font-size: var(--size-lead);
}
input:focus-visible {
  outline: none;
}
</style>
