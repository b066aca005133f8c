<script setup lang="ts">
import { colourName, LEAST_PILES, valueOfLightness, type Lab } from '@dusk/core';
import { labDto, labOfDto } from '@dusk/wire/written';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import Sheet from '../controls/Sheet.vue';
import { newId } from '../floor/ids.ts';
import { counted, moment } from '../floor/words.ts';
import SaidColour from '../recipe/SaidColour.vue';
import { useManyPiles } from '../stores/manyPiles.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useWithin } from '../stores/useWithin.ts';
import { usePiles } from '../stores/piles.ts';
import { useSamples } from '../stores/samples.ts';
import { useSettings } from '../stores/settings.ts';
import { useStudio } from '../studio/useStudio.ts';

/** Before a view: colours said or set by eye, one after another, with the time and the light; later they become piles. */
const open = defineModel<boolean>({ required: true });
const studio = useStudio();
const paintings = usePaintings();
const within = useWithin();
const samples = useSamples();
const piles = usePiles();
const settings = useSettings();
const many = useManyPiles();
const LIGHTS = ['sun', 'sun, low', 'overcast', 'open shade', 'dusk', 'lamp'] as const;
/** The light stays what it was until it is said to be another. */
const light = useLocalStorage('dusk.noteLight', 'sun');
const FIRST: Lab = [50, 3, 9];
const lab = shallowRef<Lab>(FIRST);
const thing = ref('');
const said = useTemplateRef('said');
watch(open, () => fresh());
function fresh(): void {
  said.value?.clear();
  thing.value = '';
}

async function note(): Promise<void> {
  if (!said.value?.read()) return;
  const written = { words: said.value.text.trim(), thing: thing.value.trim() };
  const called = (written.thing || written.words || colourName(lab.value)).slice(0, 80);
  const op = {
    do: 'sample.add',
    id: newId(),
    paintingId: paintings.onEasel!.id,
    seen: labDto(lab.value),
    paint: labDto(within(lab.value)),
    thing: called,
    light: light.value.slice(0, 60),
  } as const;
  // The next can be said while this one is on its way; what was not kept comes back where nothing else stands yet.
  fresh();
  said.value.focus();
  if (await studio.make([op], `Noted ${called}`)) return;
  if (said.value?.text === '' && thing.value === '') {
    said.value.text = written.words;
    thing.value = written.thing;
  }
}

const withPile = computed(() => new Set(piles.list.map(({ sampleId }) => sampleId)));
const notes = computed(() =>
  samples.all
    .filter(({ referenceId, outline }) => referenceId === null && outline === null)
    .map((sample) => ({
      sample,
      css: piles.shown(labOfDto(sample.paint)),
      value: settings.valueText(valueOfLightness(labOfDto(sample.paint)[0])),
      when: [moment(sample.createdAt), sample.light].filter(Boolean).join(', '),
      hasPile: withPile.value.has(sample.id),
    }))
    .reverse(),
);
const bare = computed(() => notes.value.filter(({ hasPile }) => !hasPile));
const isKeeping = ref(false);
async function becomePiles(): Promise<void> {
  if (isKeeping.value) return;
  isKeeping.value = true;
  try {
    const wanted = bare.value.map(({ sample }) => ({ paint: labOfDto(sample.paint), name: sample.thing, sampleId: sample.id }));
    const made = await many.keep(wanted, { once: wanted.length >= LEAST_PILES });
    if (made.length > 0) open.value = false;
  } finally {
    isKeeping.value = false;
  }
}
</script>

<template>
  <Sheet v-model="open" label="Field notes" wide judging>
    <form class="notes figures stack" @submit.prevent="note">
      <h2>Before the view</h2>
      <v-combobox v-model="light" :items="LIGHTS" label="The light" maxlength="60" />
      <SaidColour ref="said" v-model="lab" focused label="The colour, as you see it">
        <ColourPair :target="lab" :height="72" />
      </SaidColour>
      <v-text-field v-model="thing" label="What it is" maxlength="80" />
      <div class="foot-keys">
        <v-btn @click="open = false">Enough</v-btn>
        <v-btn v-if="bare.length > 0" variant="outlined" data-test="note-piles" :loading="isKeeping" @click="becomePiles"
          >Make {{ counted(bare.length, 'pile') }} of them</v-btn
        >
        <button type="submit" class="main-key" data-test="note" :disabled="said?.isUnderstood === false">Note it</button>
      </div>
      <ul v-if="notes.length > 0" class="rows bare">
        <li v-for="one in notes" :key="one.sample.id" data-test="noted">
          <span class="chip squints" :style="{ background: one.css }" />
          <span
            ><b>{{ one.sample.thing }}</b
            ><br /><span class="quiet">{{ one.when }}{{ one.hasPile ? ', a pile' : '' }}</span></span
          >
          <span>{{ one.value }}</span>
        </li>
      </ul>
    </form>
  </Sheet>
</template>

<style scoped>
.rows li {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  min-height: 44px;
}
.chip {
  align-self: stretch;
  min-height: 44px;
}
</style>
