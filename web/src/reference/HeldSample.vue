<script setup lang="ts">
import { mdiClose, mdiDeleteOutline } from '@mdi/js';
import { computed } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useLooking } from '../stores/looking.ts';
import { useSamples } from '../stores/samples.ts';

/** The mark that is held: its pile, and what may be done with it from another place. */
const props = defineProps<{ atAnother: boolean }>();
const emit = defineEmits<{ here: []; join: [] }>();
const samples = useSamples();
const looking = useLooking();
const paintings = usePaintings();
const held = computed(() => samples.selected!);
async function putAway(): Promise<void> {
  if (await samples.remove(held.value.sample.id)) looking.selectedId = undefined;
}
const says = computed(() => (props.atAnother ? 'held beside:' : 'kept:'));
</script>

<template>
  <div class="held" role="group" :aria-label="`Mark of ${held.name}`" data-test="held">
    <span class="quiet">{{ says }}</span>
    <RouterLink v-if="held.pile" :to="{ name: 'mixing', params: { paintingId: paintings.onEasel?.id, pileId: held.pile.id } }">{{
      held.name
    }}</RouterLink>
    <span v-else>{{ held.name }}</span>
    <span class="gap" />
    <template v-if="atAnother">
      <button type="button" title="the mark moves to the point (h)" @click="emit('here')">Move here</button>
      <button type="button" title="both areas as one colour (u)" @click="emit('join')">Join</button>
    </template>
    <v-btn v-if="!held.pile" :icon="mdiDeleteOutline" aria-label="Put this mark away" title="Put this mark away" @click="putAway" />
    <v-btn :icon="mdiClose" aria-label="Let go of the mark" title="Let go of the mark (Esc)" @click="looking.selectedId = undefined" />
  </div>
</template>

<style scoped>
.held {
  display: flex;
  align-items: center;
  gap: 0 calc(2 * var(--unit));
}
.held a {
  color: inherit;
  font-weight: 700;
  line-height: 1.15;
  min-width: 0;
  overflow-wrap: anywhere;
}
.held > .quiet,
.held button {
  flex: none;
}
.held button:not(.v-btn) {
  min-height: 44px;
  text-decoration: underline;
}
.gap {
  flex: 1;
}
</style>
