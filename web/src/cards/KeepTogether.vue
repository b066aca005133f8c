<script setup lang="ts">
import type { SetKind } from '@dusk/core';
import { computed, ref } from 'vue';
import Field from '../controls/Field.vue';
import { useCards } from '../stores/cards.ts';
import { useFinding } from '../stores/finding.ts';

/** What was found, kept together under a name. */
const cards = useCards();
const finding = useFinding();
const KINDS: readonly (readonly [kind: SetKind, title: string])[] = [
  ['chosen', 'as they lie'],
  ['scheme', 'by hue and value'],
  ['kit', 'to take along'],
  ['string', 'as a row of steps'],
];
const name = ref('');
const kind = ref<SetKind>('chosen');
const usual = computed(() => finding.near?.says ?? (finding.by.words || `${finding.found?.cards.length ?? 0} cards`));
async function keep(): Promise<void> {
  const made = await cards.keepTogether(finding.found!.cards, kind.value, name.value.trim() || usual.value);
  if (!made) return;
  name.value = '';
  finding.clear();
  finding.setId = made;
}
</script>

<template>
  <details class="together">
    <summary>keep these {{ finding.found!.cards.length }} together</summary>
    <Field v-model="name" label="Called" :placeholder="usual" @keydown.enter="keep" />
    <label
      >laid out
      <select v-model="kind">
        <option v-for="[one, title] in KINDS" :key="one" :value="one">{{ title }}</option>
      </select></label
    >
    <v-btn variant="outlined" @click="keep">Keep the set</v-btn>
  </details>
</template>

<style scoped>
.together[open] {
  display: grid;
  gap: calc(2 * var(--unit));
}
select {
  min-height: 44px;
  color: inherit;
  background: var(--surround);
  border-bottom: 1px solid currentColor;
}
</style>
