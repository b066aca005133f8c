<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue';

/** A name that is changed where it stands; leaving it saves, Escape takes it back. */
const props = defineProps<{
  name: string;
  label: string;
  most: number;
  /**
   * Saves it; answers whether it is saved, or kept until it can be.
   * @param meanwhile whether it was changed elsewhere while a hand was on it, so that there are two sides
   */
  onRename: (name: string, meanwhile: boolean) => Promise<boolean>;
}>();

const text = ref(props.name);
const field = useTemplateRef('field');
const hasHand = (): boolean => field.value?.$el.contains(document.activeElement) === true;
/** As it was when a hand was laid on it. */
let taken = props.name;
/** A name that comes from elsewhere waits while a hand is on this one. */
watch(
  () => props.name,
  (name) => {
    if (!hasHand()) text.value = name;
  },
);

async function save(): Promise<void> {
  const name = text.value.trim();
  if (name === '') text.value = props.name;
  // A name that was not saved is not shown as if it were.
  else if (name !== props.name && !(await props.onRename(name, props.name !== taken))) text.value = props.name;
}
async function back(): Promise<void> {
  text.value = props.name;
  await nextTick();
  field.value?.blur();
}
</script>

<template>
  <v-text-field
    ref="field"
    v-model="text"
    class="name"
    :aria-label="label"
    :maxlength="most"
    spellcheck="false"
    @focus="taken = name"
    @blur="save"
    @keydown.enter="field?.blur()"
    @keydown.esc.stop="back"
  />
</template>

<style scoped>
.name :deep(.v-field__input) {
  min-height: 44px;
  padding: 0;
  font-size: var(--size-title);
  font-weight: 500;
}
@media (max-width: 600px) {
  .name :deep(.v-field__input) {
    font-size: var(--size-lead);
  }
}
</style>
