<script setup lang="ts">
import { likeness } from '@dusk/core';
import { counted } from '../floor/words.ts';
import type { FilePreview, FileTubeDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import FileDrop from '../controls/FileDrop.vue';
import Sheet from '../controls/Sheet.vue';
import { useWhite } from '../floor/white.ts';
import { ApiError } from '../floor/apiError.ts';
import { sendCards } from '../studio/api.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useTubes } from '../stores/tubes.ts';
import { useFinding } from '../stores/finding.ts';
import { newId } from '../floor/ids.ts';
import TubePick from './TubePick.vue';

/** A file of cards from another studio: what it would do is shown before anything is kept. */
const open = defineModel<boolean>({ required: true });
const studio = useStudio();
const tubes = useTubes();
const finding = useFinding();
const white = useWhite();
const router = useRouter();
const preview = shallowRef<FilePreview>();
const failure = ref('');
const busy = ref(false);
/** Which of one's own tubes is to stand for each of the file's. */
const stands = ref<Record<string, string>>({});
watch(open, () => {
  preview.value = undefined;
  failure.value = '';
});

async function look(file: File): Promise<void> {
  busy.value = true;
  failure.value = '';
  preview.value = undefined;
  try {
    const seen = await sendCards(file, studio.studioId);
    stands.value = Object.fromEntries(seen.tubes.flatMap(({ tube, standsIn }) => (standsIn ? [[tube, standsIn.tubeId]] : [])));
    preview.value = seen;
  } catch (cause) {
    if (!(cause instanceof ApiError)) throw cause;
    failure.value = cause.message;
  } finally {
    busy.value = false;
  }
}

const news = computed(() => {
  if (!preview.value) return [];
  const { fresh, known, back, both, sets, palettes } = preview.value;
  const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;
  return [
    ...(fresh > 0 ? [`${many(fresh, 'card is', 'cards are')} new`] : []),
    ...(both > 0 ? [`${many(both, 'is', 'are')} written otherwise here: both stay, side by side`] : []),
    ...(back > 0 ? [`${many(back, 'was', 'were')} put away here and will come back`] : []),
    ...(known > 0 ? [`${many(known, 'is', 'are')} here already`] : []),
    ...(sets > 0 ? [many(sets, 'set comes along', 'sets come along')] : []),
    ...(palettes > 0 ? [`${many(palettes, 'palette comes along', 'palettes come along')}, of your tubes`] : []),
  ];
});
const isNothing = computed(
  () => preview.value && preview.value.fresh + preview.value.both + preview.value.back + preview.value.sets + preview.value.palettes === 0,
);
const differs = ({ tube, standsIn }: FileTubeDto): string => {
  if (!standsIn) return 'nothing here is like it';
  if (stands.value[tube] !== standsIn.tubeId) return 'as you chose';
  if (standsIn.difference < 0.5) return 'the same';
  return standsIn.by !== 'colour'
    ? `same pigment, ${likeness(standsIn.difference)}`
    : `only a like colour, ${likeness(standsIn.difference)}`;
};

async function bring(): Promise<void> {
  const { fileId, name, fresh, both } = preview.value!;
  const chosen = Object.entries(stands.value).map(([tube, tubeId]) => ({ tube, tubeId }));
  const made = await studio.make(
    [{ do: 'bringing.add', id: newId(), fileId, stands: chosen.slice(0, 400) }],
    `Brought ${counted(fresh + both, 'card')} from “${name}”`,
  );
  if (!made) return;
  await studio.load('sets', '');
  finding.clear();
  open.value = false;
  await router.push({ name: 'cards', params: {} });
}
</script>

<template>
  <Sheet v-model="open" label="Bring cards from a file" wide judging>
    <h2>Bring cards</h2>
    <FileDrop label="File of cards" accept=".json,application/json" @file="look">{{
      busy ? 'Looking at it…' : preview ? 'Another file' : 'Choose a file of cards, or drop it here'
    }}</FileDrop>
    <p v-if="failure" class="strong" role="alert">{{ failure }}</p>
    <template v-if="preview">
      <ul class="news" data-test="news">
        <li v-for="line in news" :key="line">{{ line }}.</li>
        <li v-for="line in preview.notes" :key="line" class="quiet">{{ line }}</li>
      </ul>
      <div v-if="preview.shown.length > 0" class="shown judging">
        <span
          v-for="(one, i) in preview.shown"
          :key="i"
          class="chip"
          :style="{ background: white.shown(labOfDto(one.lab)).css }"
          :title="one.name"
        />
      </div>
      <section v-if="!isNothing && preview.tubes.length > 0" aria-label="Their tubes and yours">
        <h3>Their tubes, and what stands for them here</h3>
        <ul class="tubes">
          <li v-for="tube in preview.tubes" :key="tube.tube" data-test="file-tube">
            <span class="dab" :style="{ background: white.shown(labOfDto(tube.lab)).css }" /><span
              class="dab"
              :style="{
                background: tubes.byId.get(stands[tube.tube] ?? '')
                  ? white.shown(tubes.byId.get(stands[tube.tube]!)!.masstone).css
                  : 'none',
              }"
            />
            <span
              ><b>{{ tube.name }}</b> <span class="quiet">{{ tube.colourIndex }}, {{ differs(tube) }}</span></span
            >
            <TubePick v-model="stands[tube.tube]" :aria-label="`What stands for ${tube.name}`" />
          </li>
        </ul>
      </section>
      <p v-if="isNothing">Everything in it is here already.</p>
    </template>
    <div class="foot-keys">
      <v-btn v-if="preview && !isNothing" variant="outlined" @click="bring">Bring them</v-btn>
      <v-btn @click="open = false">Not now</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.news {
  margin: 0;
  padding-left: calc(5 * var(--unit));
}
.shown {
  display: flex;
  padding: calc(2 * var(--unit));
}
.chip {
  flex: 1;
  height: 40px;
}
.tubes {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 40vh;
  overflow-y: auto;
}
.tubes li {
  display: grid;
  grid-template-columns: 22px 22px minmax(0, 1fr) minmax(120px, 240px);
  align-items: center;
  min-height: 46px;
  line-height: 1.15;
}
.tubes .dab {
  height: 32px;
}
.tubes li > :nth-child(3) {
  padding-left: calc(2 * var(--unit));
}
.strong {
  font-weight: 700;
}
</style>
