<script setup lang="ts">
import { BACKUP } from '@dusk/wire/reads';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref } from 'vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import { useCopies } from '../stores/copies.ts';
import { moment } from '../floor/words.ts';
import { useSettings } from '../stores/settings.ts';

/** How old the newest copy of the studio is, where copies lie, and a copy to take along now. */
const store = useSettings();
const stand = useCopies();
const { copies } = storeToRefs(stand);
const folder = ref(store.settings.copiesFolder);
onMounted(() => void stand.read());

const HOUR_MS = 3600_000;
const age = computed(() => {
  if (!copies.value) return '';
  if (copies.value.newestAt === null)
    return copies.value.trouble ? 'No copy was made yet.' : 'No copy was made yet; the first comes with the first day’s work.';
  const hours = Math.max(0, (Date.now() - Date.parse(copies.value.newestAt)) / HOUR_MS);
  const old = hours < 1 ? 'less than an hour' : hours < 48 ? `${Math.round(hours)} hours` : `${Math.round(hours / 24)} days`;
  return `Last copied ${moment(copies.value.newestAt)}, ${old} ago; ${copies.value.kept} are kept in ${copies.value.folder}.`;
});
const KEPT = [0, 7, 14, 30, 60, 90].map((value) => ({ value, title: value === 0 ? 'none' : `the last ${value}` }));
const BACKUP_URL = `/api${BACKUP}`;
async function moveTo(): Promise<void> {
  if (folder.value.trim() === store.settings.copiesFolder) return;
  if (await store.change({ copiesFolder: folder.value.trim() })) await stand.read();
}
</script>

<template>
  <section class="copies" aria-label="Copies of the studio">
    <h3>Copies of the studio</h3>
    <p v-if="copies?.trouble" role="alert" class="trouble" data-test="copies-trouble">{{ copies.trouble }}</p>
    <p data-test="newest-copy">{{ age }}</p>
    <Choice
      label="Daily copies kept"
      :items="KEPT"
      :model-value="store.settings.copiesKept"
      @update:model-value="store.change({ copiesKept: $event })"
    />
    <Field v-model="folder" label="Their folder (empty: beside the studio)" maxlength="400" @blur="moveTo" @keydown.enter="moveTo" />
    <a class="take" :href="BACKUP_URL" download>Save a copy of everything…</a>
  </section>
</template>

<style scoped>
.copies {
  display: grid;
  gap: calc(2 * var(--unit));
  padding-top: calc(4 * var(--unit));
  border-top: 1px solid currentColor;
}
.take {
  justify-self: start;
  min-height: 44px;
  display: inline-grid;
  align-items: center;
  padding: 0 calc(4 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 4px;
  color: inherit;
  text-decoration: none;
}

.trouble {
  font-weight: 700;
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
}
p {
  overflow-wrap: anywhere;
}
</style>
