<script setup lang="ts">
import { hexToLab, show, valueOfLightness } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, ref, watch } from 'vue';
import Field from '../controls/Field.vue';
import Sheet from '../controls/Sheet.vue';
import GroundOf from './GroundOf.vue';
import { GROUNDS } from './grounds.ts';
import { palettesToChoose } from '../stores/palettesToChoose.ts';
import { useSettings } from '../stores/settings.ts';
import { usePaintings } from '../stores/paintings.ts';

/** What a painting is called, which tubes it keeps to, and what it is painted on: asked when it is begun, changed at any time. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ painting: PaintingDto | undefined }>();
const emit = defineEmits<{ begun: [paintingId: string] }>();
const paintings = usePaintings();
const settings = useSettings();

const title = ref('');
const paletteId = ref<string>();
const ground = ref<string>(GROUNDS[0].value);
const groundOf = ref<PaintingDto['groundOf']>(null);
const choices = computed(palettesToChoose);
const chosen = computed(() => choices.value.find(({ id }) => id === paletteId.value));
const grounds = computed(() =>
  GROUNDS.some(({ value }) => value === ground.value) ? GROUNDS : [...GROUNDS, { value: ground.value, title: 'as it is' }],
);
const valueOf = (hex: string): string => settings.valueText(valueOfLightness(hexToLab(hex)[0]));

// It comes with the first press, and is open then.
watch(
  open,
  (now) => {
    if (!now) return;
    title.value = props.painting?.title ?? '';
    paletteId.value = props.painting?.paletteId ?? choices.value[0]?.id;
    ground.value = props.painting?.ground ?? GROUNDS[0].value;
    groundOf.value = props.painting?.groundOf ?? null;
  },
  { immediate: true },
);

function made(of: { readonly ground: string; readonly groundOf: NonNullable<PaintingDto['groundOf']> }): void {
  ground.value = of.ground;
  groundOf.value = of.groundOf;
}

async function save(): Promise<void> {
  const palette = chosen.value;
  const called = title.value.trim();
  if (called === '' || !palette) return;
  const fields = { title: called, paletteId: palette.id, ground: ground.value };
  if (props.painting) {
    if (await paintings.change(props.painting.id, { ...fields, groundOf: groundOf.value })) open.value = false;
    return;
  }
  const paintingId = await paintings.add(
    { ...fields, ...(groundOf.value && { groundOf: groundOf.value }) },
    palette.isNew ? palette : undefined,
  );
  if (!paintingId) return;
  open.value = false;
  emit('begun', paintingId);
}
</script>

<template>
  <Sheet v-model="open" :label="painting ? 'Change the painting' : 'Begin a painting'" wide>
    <form class="form" @submit.prevent="save">
      <h2>{{ painting ? 'This painting' : 'Begin a painting' }}</h2>
      <Field v-model="title" label="Title" maxlength="120" autofocus />
      <fieldset>
        <legend>Its palette</legend>
        <label v-for="choice in choices" :key="choice.id" class="row" :class="{ chosen: choice.id === paletteId }">
          <input v-model="paletteId" type="radio" name="palette" :value="choice.id" />
          <span class="name">{{ choice.name }}</span>
          <span class="dabs judging" aria-hidden="true"
            ><span
              v-for="tube in choice.tubes"
              :key="tube.id"
              class="dab"
              :title="tube.name"
              :style="{ background: show(tube.masstone).css }"
          /></span>
          <span class="holds">{{ choice.tubes.map((tube) => tube.name).join(', ') }}</span>
        </label>
      </fieldset>
      <fieldset>
        <legend>Its ground: the toned surface under the paint. Values are judged against it, and it is marked on the ledge.</legend>
        <div class="grounds">
          <label v-for="one in grounds" :key="one.value" class="ground" :class="{ chosen: one.value === ground }">
            <input v-model="ground" type="radio" name="ground" :value="one.value" @change="groundOf = null" />
            <span class="patch" :style="{ background: one.value }" />
            <span class="figures">{{ one.title }}, {{ valueOf(one.value) }}</span>
          </label>
        </div>
        <GroundOf v-if="chosen" :tubes="chosen.tubes" :ground-of="groundOf" @made="made" />
      </fieldset>
      <div class="foot-keys">
        <v-btn @click="open = false">Not now</v-btn>
        <button type="submit" class="main-key" :disabled="title.trim() === '' || !paletteId">{{ painting ? 'Keep' : 'Begin' }}</button>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
.form {
  display: grid;
  gap: calc(5 * var(--unit));
}
legend {
  padding: 0 0 calc(2 * var(--unit));
  font-size: var(--size-note);
}
.row,
.ground {
  position: relative;
  display: grid;
  border: 1px solid transparent;
  cursor: pointer;
}
.row {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 calc(3 * var(--unit));
  align-items: center;
  padding: calc(2 * var(--unit));
}
.row input,
.ground input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
.chosen {
  border-color: currentColor;
}
.row:has(:focus-visible),
.ground:has(:focus-visible) {
  outline: 3px solid rgb(var(--v-theme-secondary));
}
.dabs {
  display: flex;
  gap: var(--unit);
  padding: var(--unit);
}
.dab {
  flex: 1;
  height: 24px;
}
.holds {
  grid-column: 1 / 3;
  font-size: var(--size-note);
  line-height: 1.2;
}
.grounds {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: calc(2 * var(--unit));
}
.ground {
  font-size: var(--size-note);
  padding: var(--unit);
}
.patch {
  height: 40px;
}
</style>
