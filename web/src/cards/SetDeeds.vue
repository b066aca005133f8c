<script setup lang="ts">
import { mdiDeleteOutline, mdiExportVariant, mdiPrinterOutline } from '@mdi/js';
import type { SetDto } from '@dusk/wire';
import { ref } from 'vue';
import EditableName from '../controls/EditableName.vue';
import { useCards } from '../stores/cards.ts';
import OutSheet from '../printing/OutSheet.vue';
import PrintSheet from '../printing/PrintSheet.vue';

/** An open set: what it is called, and what is done with all of it. */
const props = defineProps<{ set: SetDto }>();
const cards = useCards();
const printing = ref(false);
const goingOut = ref(false);
</script>

<template>
  <header class="set-deeds">
    <EditableName
      :name="set.name"
      label="Name of the set"
      :most="120"
      :on-rename="(name) => cards.changeSet(props.set, { name }, `Called it “${name}”`)"
    />
    <v-btn :icon="mdiPrinterOutline" aria-label="Print the set" title="Print the set" @click="printing = true" />
    <v-btn :icon="mdiExportVariant" aria-label="The set to a file" title="To a file" @click="goingOut = true" />
    <v-btn :icon="mdiDeleteOutline" aria-label="Put the set away; its cards stay" title="Put the set away" @click="cards.removeSet(set)" />
    <PrintSheet v-model="printing" :title="set.name" :of="{ setId: set.id }" :sheets="['row', 'cards', 'kit']" />
    <OutSheet v-model="goingOut" :title="set.name" :of="{ setId: set.id }" />
  </header>
</template>

<style scoped>
.set-deeds {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, auto);
  gap: var(--unit);
  align-items: center;
  padding-bottom: calc(2 * var(--unit));
}
</style>
