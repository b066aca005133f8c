<script setup lang="ts">
import { mdiCameraOutline, mdiDeleteOutline, mdiImagePlusOutline, mdiSwapHorizontal } from '@mdi/js';
import type { ReferenceDto } from '@dusk/wire';
import type { PassingOn } from '@dusk/wire/limits';
import { SMALL } from '@dusk/wire/reads';
import { ref } from 'vue';
import EditableName from '../controls/EditableName.vue';
import { usePaintings } from '../stores/paintings.ts';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import { useReference } from '../stores/reference.ts';
import Pick from '../controls/Pick.vue';

/** The pictures of this painting: which one is looked at, where it is from, and what may be done with it. */
const emit = defineEmits<{ bring: []; camera: []; replace: [] }>();
const store = useReference();
const paintings = usePaintings();

const PASSING: readonly { readonly value: PassingOn; readonly title: string }[] = [
  { value: 'ask', title: 'not said: left out when passed on' },
  { value: 'mine', title: 'my own' },
  { value: 'free', title: 'free to pass on' },
  { value: 'no', title: 'to look at only, never passed on' },
];
const small = ({ pictureId }: ReferenceDto): string => `${pictureUrl(pictureId)}${SMALL}`;
const source = ref<string>();
async function saveSource(text: string): Promise<void> {
  source.value = undefined;
  if (text.trim() !== store.reference?.source) await store.change({ source: text.trim().slice(0, 300) }, 'Wrote where the picture is from');
}
</script>

<template>
  <div class="pictures stack-close">
    <div class="in-line">
      <button type="button" class="key" @click="emit('bring')">
        <v-icon :icon="mdiImagePlusOutline" aria-hidden="true" /> Bring another picture
      </button>
      <button type="button" class="key camera" @click="emit('camera')">
        <v-icon :icon="mdiCameraOutline" aria-hidden="true" /> Take a photo
      </button>
    </div>
    <p class="quiet">Or drop one on the window, or paste it.</p>
    <ul>
      <li v-for="one in store.all" :key="one.id" :class="{ chosen: one.id === store.reference?.id }">
        <button
          type="button"
          class="thumb"
          :aria-pressed="one.id === store.reference?.id"
          :aria-label="`Look at ${one.name}`"
          @click="store.choose(one.id)"
        >
          <img v-if="!isLocal(one.pictureId)" :src="small(one)" alt="" loading="lazy" />
          <span v-else>on its way</span>
        </button>
        <span class="title">{{ one.name }}</span>
      </li>
    </ul>
    <section v-if="store.reference" :key="store.reference.id" class="own stack-close" aria-label="The picture that is looked at">
      <EditableName
        :name="store.reference.name"
        label="Name of the picture"
        :most="120"
        :on-rename="(name, meanwhile) => store.change({ name }, `Called it “${name}”`, meanwhile)"
      />
      <p class="quiet figures">{{ store.reference.width }} × {{ store.reference.height }}; {{ store.reference.colours || 'sRGB' }}</p>
      <label class="from">
        <span>Where it is from</span>
        <input
          :value="source ?? store.reference.source"
          maxlength="300"
          placeholder="my own photo, Harbour, May"
          @change="saveSource(($event.target as HTMLInputElement).value)"
        />
      </label>
      <label class="from">
        <span>What may be done with it</span>
        <Pick
          :model-value="store.reference.passing"
          :options="PASSING"
          data-test="passing"
          aria-label="What may be done with it"
          @update:model-value="store.change({ passing: $event! }, 'Said what may be done with the picture')"
        />
      </label>
      <div class="in-line">
        <button type="button" class="key" title="Another picture in its place; the marks stay" @click="emit('replace')">
          <v-icon :icon="mdiSwapHorizontal" aria-hidden="true" /> Replace it
        </button>
        <v-btn
          :icon="mdiDeleteOutline"
          aria-label="Put this picture away"
          title="Put this picture away"
          @click="paintings.removeReference(store.reference.id)"
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.key {
  display: flex;
  align-items: center;
  gap: var(--unit);
  min-height: 44px;
  padding: 0 calc(3 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 3px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: calc(3 * var(--unit));
}
.thumb {
  width: 100%;
  height: 76px;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.chosen .thumb {
  outline: 2px solid var(--surround-ink);
  outline-offset: 3px;
}
.title {
  font-size: var(--size-note);
  overflow-wrap: anywhere;
}
.own {
  border-top: 1px solid var(--surround-line);
  padding-top: calc(3 * var(--unit));
}
.from {
  display: grid;
  font-size: var(--size-note);
}
.from input {
  min-height: 44px;
  border-bottom: 1px solid currentColor;
  font-size: var(--size-text);
}
.from option {
  color: #000;
  background: #fff;
}
/* A machine without a finger on it has no camera worth asking for. */
@media (pointer: fine) {
  .camera {
    display: none;
  }
}
</style>
