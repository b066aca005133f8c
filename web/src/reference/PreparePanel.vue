<script setup lang="ts">
import { mdiFlipHorizontal, mdiImageFrame, mdiRotateLeft, mdiRotateRight } from '@mdi/js';
import { cropTo, meanOf, turnedCrop, type Outline } from '@dusk/core';
import { labDto } from '@dusk/wire/written';
import { computed, ref, watch } from 'vue';
import Slider from '../controls/Slider.vue';
import { usePaintings } from '../stores/paintings.ts';
import { useNotices } from '../floor/notices.ts';
import { fitsCanvas, squareOn, USUAL_GRID } from '../picture/grid.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';

/** How the picture is cut, turned, lit and lined: parameters, its own pixels stay as they came. */
const props = defineProps<{ outline: Outline | undefined }>();
const store = useReference();
const paintings = usePaintings();
const looking = useLooking();
const notices = useNotices();
const view = computed(() => store.view);

/** What was cut out turns along. Seen in a mirror a turn to the right is one to the left. */
function turn(seen: 1 | -1): Promise<void> {
  const by = store.mirrored ? (seen === 1 ? -1 : 1) : seen;
  const { crop, turn: so = 0 } = view.value;
  return store.see({ turn: (so + by + 4) % 4, crop: crop && turnedCrop(crop, by) }, 'Turned the picture');
}
const straighten = computed(() => view.value.straighten ?? 0);
const exposure = computed(() => view.value.exposure ?? 0);
/** Lights by the hour and by the lamp, K. */
const LIGHTS = [
  { name: 'candle', kelvin: 2500 },
  { name: 'lamp', kelvin: 2850 },
  { name: 'low sun', kelvin: 3600 },
  { name: 'morning', kelvin: 4500 },
  { name: 'noon', kelvin: 5400 },
  { name: 'cloud', kelvin: 6500 },
  { name: 'open shade', kelvin: 7600 },
  { name: 'blue hour', kelvin: 9500 },
] as const;
const unlessNone = (value: number, none: number): number | undefined => (value === none ? undefined : value);

/** The canvas in cm, as it is written. */
const width = ref('');
const height = ref('');
watch(
  () => paintings.onEasel?.canvas,
  (canvas) => {
    width.value = canvas ? String(canvas.widthMm / 10) : '';
    height.value = canvas ? String(canvas.heightMm / 10) : '';
  },
  { immediate: true },
);
const canvas = computed(() => {
  const [w, h] = [width.value, height.value].map((text) => Number(text.trim().replace(',', '.')) * 10);
  return w && h && w >= 10 && h >= 10 && w <= 20_000 && h <= 20_000 ? { widthMm: w, heightMm: h } : undefined;
});
async function cropToCanvas(): Promise<void> {
  const { onEasel } = paintings;
  if (!canvas.value || !store.pixels || !onEasel) return void notices.refused('Write how wide and how high the canvas is, in centimetres.');
  const known = onEasel.canvas;
  if (!known || known.widthMm !== canvas.value.widthMm || known.heightMm !== canvas.value.heightMm)
    await paintings.change(onEasel.id, { canvas: canvas.value });
  const [w, h] = store.turnedSides;
  await store.see({ crop: cropTo(canvas.value.widthMm / canvas.value.heightMm, w, h) }, 'Framed as the canvas');
}
async function neutralHere(): Promise<void> {
  if (!props.outline || !store.pixels) return void notices.refused('Point at what is white or grey in the picture first.');
  const [L, a, b] = meanOf(store.pixels, props.outline);
  if (L < 8) return void notices.refused('This place is too dark to be the white or grey of the picture. Point at a lighter one.');
  await store.see({ neutral: labDto([Math.min(100, L), a, b]), kelvin: undefined }, 'Took the colour out of the light');
}
const isLit = computed(() => view.value.neutral !== undefined || view.value.kelvin !== undefined);

const grid = computed(() => view.value.grid ?? USUAL_GRID);
async function setGrid(part: Partial<typeof USUAL_GRID>): Promise<void> {
  looking.grid = true;
  await store.see({ grid: { ...grid.value, ...part } }, 'Changed the grid');
}
/** Centimetres are told only where the picture is cut as the canvas is. */
const isFitting = computed(() => {
  const known = paintings.onEasel?.canvas;
  return known && store.frame ? fitsCanvas(known, store.frame) : undefined;
});
const within = (n: number): number => Math.min(40, Math.max(1, n));
</script>

<template>
  <div class="prepare">
    <section aria-label="Cut and turned">
      <div class="keys">
        <v-btn :icon="mdiRotateLeft" aria-label="Turn left" title="Turn left" @click="turn(-1)" />
        <v-btn :icon="mdiRotateRight" aria-label="Turn right" title="Turn right" @click="turn(1)" />
        <v-btn
          :icon="mdiFlipHorizontal"
          aria-label="Mirror"
          title="Mirror"
          :aria-pressed="view.mirror ?? false"
          @click="store.see({ mirror: view.mirror ? undefined : true }, 'Mirrored the picture')"
        />
        <button
          type="button"
          class="key"
          :class="{ on: looking.hand === 'crops' }"
          :aria-pressed="looking.hand === 'crops'"
          @click="looking.hand = looking.hand === 'crops' ? 'points' : 'crops'"
        >
          <v-icon :icon="mdiImageFrame" aria-hidden="true" /> Hold a frame before it
        </button>
        <button v-if="view.crop" type="button" class="key" @click="store.see({ crop: undefined }, 'The whole picture again')">
          All of it
        </button>
      </div>
      <form class="canvas" @submit.prevent="cropToCanvas">
        <label>Canvas <input v-model="width" inputmode="decimal" aria-label="Width of the canvas in cm" placeholder="60" /></label>
        <label>× <input v-model="height" inputmode="decimal" aria-label="Height of the canvas in cm" placeholder="40" /> cm</label>
        <button type="submit" class="key">Frame it so</button>
      </form>
      <Slider
        label="Held level"
        :min="-15"
        :max="15"
        :step="0.1"
        :says="`${straighten.toFixed(1)}°`"
        :model-value="straighten"
        @update:model-value="store.tryView({ straighten: $event })"
        @done="store.see({ straighten: unlessNone($event, 0) }, 'Held the picture level')"
      />
    </section>
    <section aria-label="Light of the photo">
      <Slider
        label="More or less light"
        :min="-3"
        :max="3"
        :step="0.1"
        :says="exposure === 0 ? 'as it is' : `${Math.abs(exposure).toFixed(1)} ${exposure > 0 ? 'lighter' : 'darker'}`"
        :model-value="exposure"
        @update:model-value="store.tryView({ exposure: $event })"
        @done="store.see({ exposure: unlessNone($event, 0) }, 'Changed how much light there is')"
      />
      <div class="keys">
        <button type="button" class="key" @click="neutralHere">The point is white or grey</button>
        <button v-if="isLit" type="button" class="key" @click="store.see({ neutral: undefined, kelvin: undefined }, 'The light as it was')">
          Light as it was
        </button>
      </div>
      <p class="or">or it was taken by</p>
      <div class="lights" role="radiogroup" aria-label="The light it was taken in">
        <button
          v-for="light in LIGHTS"
          :key="light.kelvin"
          type="button"
          role="radio"
          class="light link-key"
          :aria-checked="view.kelvin === light.kelvin"
          @click="store.see({ kelvin: light.kelvin, neutral: undefined }, `It was taken by ${light.name}`)"
        >
          {{ light.name }}
        </button>
      </div>
    </section>
    <section aria-label="Grid" class="figures">
      <div class="keys">
        <button type="button" class="key" :class="{ on: looking.grid }" :aria-pressed="looking.grid" @click="looking.grid = !looking.grid">
          Grid
        </button>
        <span class="count">
          <button type="button" aria-label="Fewer squares across" @click="setGrid({ across: within(grid.across - 1) })">−</button
          >{{ grid.across
          }}<button type="button" aria-label="More squares across" @click="setGrid({ across: within(grid.across + 1) })">+</button>
        </span>
        ×
        <span class="count">
          <button type="button" aria-label="Fewer squares down" @click="setGrid({ down: within(grid.down - 1) })">−</button>{{ grid.down
          }}<button type="button" aria-label="More squares down" @click="setGrid({ down: within(grid.down + 1) })">+</button>
        </span>
      </div>
      <div class="keys">
        <button
          type="button"
          class="key"
          :class="{ on: grid.diagonals }"
          :aria-pressed="grid.diagonals"
          @click="setGrid({ diagonals: !grid.diagonals })"
        >
          Diagonals
        </button>
        <button
          type="button"
          class="key"
          :class="{ on: grid.thirds }"
          :aria-pressed="grid.thirds"
          @click="setGrid({ thirds: !grid.thirds })"
        >
          Thirds
        </button>
      </div>
      <p v-if="isFitting" data-test="square">A square is {{ squareOn(paintings.onEasel!.canvas!, grid) }} on the canvas.</p>
      <template v-else-if="isFitting === false">
        <p data-test="square">The picture has other proportions than the canvas: a square has no size on it until it is framed so.</p>
        <button type="button" class="key" @click="cropToCanvas">Frame it as the canvas</button>
      </template>
      <p v-else class="quiet">With the size of the canvas a square says how large it is on it.</p>
    </section>
  </div>
</template>

<style scoped>
.prepare,
section {
  display: grid;
  gap: calc(2 * var(--unit));
}
.prepare {
  gap: calc(4 * var(--unit));
}
section + section {
  border-top: 1px solid var(--surround-line);
  padding-top: calc(3 * var(--unit));
}
.keys,
.canvas {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--unit) calc(2 * var(--unit));
}
.key {
  display: flex;
  align-items: center;
  gap: var(--unit);
  min-height: 44px;
  padding: 0 calc(3 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 3px;
}
.on {
  border-color: var(--surround-ink);
  background: var(--surround-ink);
  color: var(--on-ink);
}
.or {
  font-size: var(--size-note);
}
.lights {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
}
.light[aria-checked='true'] {
  font-weight: 700;
  text-decoration-thickness: 3px;
}
.canvas input {
  width: 58px;
  min-height: 44px;
  border-bottom: 1px solid currentColor;
}
.count {
  display: flex;
  align-items: center;
}
.count button {
  width: 44px;
  height: 44px;
  font-size: var(--size-lead);
}
@media (orientation: portrait) and (min-width: 601px) {
  .prepare {
    grid-template-columns: 1fr 1fr;
  }
  section + section {
    border-top: 0;
    padding-top: 0;
  }
}
</style>
