<script setup lang="ts">
import type { SetKind } from '@dusk/core';
import { computed, ref } from 'vue';
import Field from '../controls/Field.vue';
import { useCards } from '../stores/cards.ts';
import { useFinding } from '../stores/finding.ts';
import Pick from '../controls/Pick.vue';

/** What was found, kept together under a name. */
const cards = useCards();
const finding = useFinding();
const KINDS: readonly { readonly value: SetKind; readonly title: string }[] = [
  { value: 'chosen', title: 'as they lie' },
  { value: 'scheme', title: 'by hue and value' },
  { value: 'kit', title: 'to take along' },
  { value: 'string', title: 'as a row of steps' },
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
    <Pick v-model="kind" :options="KINDS" label="laid out" />
    <v-btn variant="outlined" @click="keep">Keep the set</v-btn>
  </details>
</template>

<style scoped>
.together[open] {
  display: grid;
  gap: calc(2 * var(--unit));
}
</style>
