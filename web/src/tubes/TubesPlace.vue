<script setup lang="ts">
import { mdiPlus } from '@mdi/js';
import { temperatureWord } from '@dusk/core';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import { bySlices } from '../floor/bySlices.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { rackFor } from './search.ts';
import { useLanding } from '../stores/landing.ts';
import { useSettings } from '../stores/settings.ts';
import AlikeLines from './AlikeLines.vue';
import TubeSwatch from './TubeSwatch.vue';
import { useTubes } from '../stores/tubes.ts';

const tubes = useTubes();
const wanted = ref('');
const settings = useSettings();
/** Dark to light, as a rack is looked along, or nearest first. */
const own = computed(() => tubes.all.filter(({ maker }) => maker !== ''));
const away = computed(() => [...tubes.byId.values()].filter(({ deletedAt }) => deletedAt !== null));
const which = ref<'own' | 'all' | 'away'>('all');
// Whoever has tubes of their own looks for those.
watch(
  () => own.value.length > 0,
  (has) => (which.value = has ? 'own' : 'all'),
  { immediate: true },
);
const WHICH = computed(() => [
  ...(own.value.length > 0 ? [{ value: 'own' as const, title: 'mine' }] : []),
  { value: 'all' as const, title: 'all' },
  ...(away.value.length > 0 ? [{ value: 'away' as const, title: 'put away' }] : []),
]);
const rack = computed(() => (which.value === 'own' ? own.value : which.value === 'away' ? away.value : tubes.all));
const found = computed(() => rackFor(rack.value, wanted.value ?? '', (lab) => temperatureWord(settings.temperatureOf(lab))));
const landing = useLanding();
const shown = ref<'chips' | 'drawn'>('chips');
const SHOWN = [
  { value: 'chips' as const, title: 'as it comes, and with white' },
  { value: 'drawn' as const, title: 'drawn out thin' },
];
const AddTubes = defineAsyncComponent(() => import('./AddTubes.vue'));
const adding = ref(false);
const wasAsked = ref(false);
watch(adding, (now) => now && (wasAsked.value = true));
useShortcuts(() => [{ key: 'n', run: () => (adding.value = true) }]);
const SLICE = 12;
const laid = bySlices(() => found.value, SLICE);
</script>

<template>
  <div class="place">
    <header>
      <div>
        <h1>Tubes</h1>
        <p class="quiet">
          Dark to light<template v-if="shown === 'chips'">, and one part in nine of white beside each</template
          ><template v-else>, drawn out from a loaded stroke to a wash over black, white and the ground: what covers, what glows</template>.
          Typical paint: yours may differ.
        </p>
        <p class="own">
          <v-btn variant="outlined" :prepend-icon="mdiPlus" data-test="add" @click="adding = true">Add your tubes&ensp;<kbd>n</kbd></v-btn>
        </p>
        <AlikeLines v-if="own.length > 1 && which !== 'away'" :rack="own" />
      </div>
      <div class="search">
        <Choice v-if="WHICH.length > 1" v-model="which" label="Which" :items="WHICH" />
        <Choice v-model="shown" label="Each tube" :items="SHOWN" />
        <Field v-model="wanted" label="Name, pigment or character" placeholder="transparent, value 3 to 5, like olive green" clearable />
      </div>
    </header>
    <div class="grid">
      <TubeSwatch v-for="tube in laid" :key="tube.id" :tube="tube" :drawn="shown === 'drawn'" :ground="landing.ground" linked />
    </div>
    <AddTubes v-if="wasAsked" v-model="adding" />
    <p v-if="found.length === 0">No tube is like that. Try a pigment, as PB29, a word like transparent, or a value.</p>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: calc(8 * var(--unit));
  align-items: start;
  margin-bottom: calc(6 * var(--unit));
}
.own {
  margin-top: calc(3 * var(--unit));
}
.search {
  flex: 0 1 420px;
  display: grid;
  gap: calc(3 * var(--unit));
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: calc(5 * var(--unit)) calc(4 * var(--unit));
}
</style>
