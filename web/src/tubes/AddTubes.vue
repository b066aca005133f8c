<script setup lang="ts">
import { CATALOGUE, CraftError, tubesSaid, type TubeSaid } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { computed, ref, watch } from 'vue';
import Pick from '../controls/Pick.vue';
import Sheet from '../controls/Sheet.vue';
import { newId } from '../floor/ids.ts';
import { counted } from '../floor/words.ts';
import { usePiles } from '../stores/piles.ts';
import { useTubes } from '../stores/tubes.ts';
import { useStudio } from '../studio/useStudio.ts';

/** One's own tubes, several at once: typed as they are said, pasted as a list or a table; each with the pigment it is taken for. */
const open = defineModel<boolean>({ required: true });
const studio = useStudio();
const tubes = useTubes();
const piles = usePiles();

const text = ref('');
const read = computed((): { readonly tubes: readonly TubeSaid[]; readonly wrong: string } => {
  try {
    return { tubes: tubesSaid(text.value), wrong: '' };
  } catch (cause) {
    if (cause instanceof CraftError) return { tubes: [], wrong: cause.message };
    throw cause;
  }
});
/** What the painter has put right, by what was said. */
const chosen = ref<Record<string, string>>({});
watch(open, () => {
  text.value = '';
  chosen.value = {};
});

const generic = computed(() => new Map(tubes.all.filter(({ maker }) => maker === '').map((tube) => [tube.pigment, tube])));
const everything = computed(() =>
  [...CATALOGUE.values()].map(({ slug, name, colourIndex }) => ({ value: slug as string, title: `${name}, ${colourIndex}` })),
);
const rows = computed(() =>
  read.value.tubes.map((one, i) => {
    const key = `${i} ${one.said}`;
    const slug = chosen.value[key] ?? one.pigments[0] ?? '';
    const likely = new Set<string>(one.pigments);
    const tube = generic.value.get(slug);
    return {
      ...one,
      key,
      slug,
      css: tube && piles.shown(tube.masstone),
      tint: tube && piles.shown(tube.tint),
      options: [
        ...(slug === '' ? [{ value: '', title: 'not known: choose what it is like' }] : []),
        ...everything.value.filter(({ value }) => likely.has(value)),
        ...everything.value.filter(({ value }) => !likely.has(value)),
      ],
      already: tubes.all.find(({ maker, name, pigment }) => maker !== '' && pigment === slug && name === one.name),
    };
  }),
);
const ready = computed(() => rows.value.filter(({ slug }) => slug !== ''));

/** What stands for a maker where none is told, so that a tube of one's own is known from the typical one. */
const MINE = 'mine';
const LONGEST_PIGMENT = 60;
async function add(): Promise<void> {
  const ops = ready.value.map(({ name, slug, maker, sizeMl, leftMl, pigments, contains }): Operation => ({
    do: 'tube.add',
    id: newId(),
    name,
    // What the catalogue lacks keeps the name it has, and begins like what was chosen.
    ...(pigments.length === 0
      ? { pigments: [name.slice(0, LONGEST_PIGMENT)], likeId: generic.value.get(slug)!.id }
      : { pigments: contains.length > 1 && slug === pigments[0] ? [...contains] : [slug] }),
    maker: maker || MINE,
    ...(sizeMl !== undefined && { sizeMl }),
    ...(leftMl !== undefined && { leftMl }),
  }));
  if (await studio.make(ops, `Added ${counted(ops.length, 'tube')}`)) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" label="Add tubes" wide judging>
    <form class="add figures stack" @submit.prevent="add">
      <h2>Your own tubes</h2>
      <v-textarea
        v-model="text"
        autofocus
        rows="3"
        auto-grow
        max-rows="10"
        maxlength="8000"
        variant="underlined"
        label="As you would say them, several at once, or a table that is pasted"
        placeholder="ult blue, y ochre, burnt s, PB28 40 ml"
        data-test="tubes-said"
      />
      <p v-if="read.wrong" role="alert">{{ read.wrong }}</p>
      <ul v-if="rows.length > 0" class="rows bare">
        <li v-for="row in rows" :key="row.key" data-test="tube-said">
          <span class="chips" aria-hidden="true"><span :style="{ background: row.css }" /><span :style="{ background: row.tint }" /></span>
          <span
            ><b>{{ row.name }}</b
            ><template v-if="row.maker || row.sizeMl">
              <br /><span class="quiet">{{ [row.maker, row.sizeMl && `${row.sizeMl} ml`].filter(Boolean).join(', ') }}</span></template
            ><template v-if="row.already"><br /><span class="quiet">one like it is in your rack: this is another</span></template></span
          >
          <Pick
            :model-value="row.slug"
            :options="row.options"
            :aria-label="`What ${row.name} is made of`"
            @update:model-value="chosen = { ...chosen, [row.key]: $event ?? '' }"
          />
        </li>
      </ul>
      <p class="quiet">Each begins as paint of its pigment typically is; what your piles teach of it is used from then on.</p>
      <div class="foot-keys">
        <v-btn @click="open = false">Not now</v-btn>
        <button type="submit" class="main-key" data-test="add-tubes" :disabled="ready.length === 0">
          {{ ready.length === 0 ? 'Add them' : `Add ${counted(ready.length, 'tube')}` }}
        </button>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
.rows li {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  min-height: 48px;
}
.chips {
  display: flex;
  align-self: stretch;
}
.chips span {
  flex: 1;
}
@media (max-width: 600px) {
  .rows li {
    grid-template-columns: 64px minmax(0, 1fr);
  }
  .rows .pick {
    grid-column: 1 / -1;
  }
}
</style>
