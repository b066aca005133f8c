<script setup lang="ts">
import { colourFromWords, CraftError, labToMunsell, munsellToLab, strengthOf, valueOfLightness, writeMunsell, type Lab } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import Slider from '../controls/Slider.vue';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSamples } from '../stores/samples.ts';
import { useSettings } from '../stores/settings.ts';

/** A colour that is said in words, written in a notation, or dialled by value, hue and strength. */
const lab = defineModel<Lab>({ required: true });
const props = withDefaults(defineProps<{ label?: string; focused?: boolean; also?: ReadonlyMap<string, Lab> }>(), {
  label: 'Say it or write it',
});
const piles = usePiles();
const samples = useSamples();
const settings = useSettings();

const text = ref('');
const wrong = ref('');
/** Whether what stands there is a colour, or nothing stands there: what isn't understood has no chip, and nothing of it is kept. */
const isUnderstood = ref(true);
/** The colour before the line that is being written: what its first words meant is not left behind when the whole is refused. */
let before: Lab | undefined;
const munsell = computed(() => labToMunsell(lab.value));
/** The hue that is dialled outlives greys, which have none. */
const hue = ref(15);
watch(
  munsell,
  ({ hue: own, chroma }) => {
    if (chroma > 0.4) hue.value = own;
  },
  { immediate: true },
);
const hueText = computed(() => writeMunsell({ hue: hue.value, value: 5, chroma: 6 }).split(' ')[0]!);
function dial(part: { readonly value?: number; readonly hue?: number; readonly chroma?: number }): void {
  const { value, chroma } = munsell.value;
  if (part.hue !== undefined) hue.value = part.hue;
  lab.value = munsellToLab({ hue: hue.value, value: part.value ?? value, chroma: part.chroma ?? chroma });
  text.value = writeMunsell(labToMunsell(lab.value));
  wrong.value = '';
  isUnderstood.value = true;
  before = undefined;
}
/** A word that is not known is told once the hand has stopped writing, or sooner by Enter. */
const WRITTEN_MS = 700;
let writing: ReturnType<typeof setTimeout> | undefined;
function write(): void {
  clearTimeout(writing);
  before ??= lab.value;
  writing = setTimeout(() => read(true), WRITTEN_MS);
  read(false);
}
/**
 * @param isWhole whether it is written to its end: what is not yet a colour is told only then
 * @returns whether what is written is a colour, or nothing is written
 */
function read(isWhole: boolean): boolean {
  wrong.value = '';
  try {
    if (text.value.trim() !== '') lab.value = colourFromWords(text.value, spokenOf.value);
    isUnderstood.value = true;
    if (isWhole) before = undefined;
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    isUnderstood.value = false;
    if (isWhole) {
      wrong.value = cause.message;
      if (before) lab.value = before;
    }
  }
  return isUnderstood.value;
}
/** Piles by their names and things, newest last: what can be spoken of. */
const spokenOf = computed(() => {
  const named = new Map<string, Lab>();
  for (const sample of samples.all) if (sample.thing) named.set(sample.thing, labOfDto(sample.paint));
  for (const pile of piles.list) named.set(pile.name, lookNow(pile));
  for (const [name, own] of props.also ?? []) named.set(name, own);
  const newest = [...piles.list].sort((one, other) => other.createdAt.localeCompare(one.createdAt)).map(lookNow);
  const these = [...[...(props.also?.values() ?? [])].reverse(), ...newest];
  return { named, these: these.slice(0, 2), last: these[0] };
});
/** Nothing is said yet. */
function clear(): void {
  clearTimeout(writing);
  text.value = wrong.value = '';
  isUnderstood.value = true;
  before = undefined;
}
// A browser minds `autofocus` only while a page loads: a field that comes later takes the focus by hand.
const field = useTemplateRef('field');
onMounted(() => props.focused && field.value?.focus({ preventScroll: true }));
defineExpose({ read: () => read(true), clear, text, isUnderstood, focus: () => field.value?.focus() });
</script>

<template>
  <div class="stack">
    <label class="said"
      >{{ label }}
      <input
        ref="field"
        v-model="text"
        :autofocus="focused"
        maxlength="80"
        placeholder="dull warm green, value 4 · a little darker than the wall"
        data-test="said-colour"
        @input="write"
        @change="read(true)"
      />
    </label>
    <p v-if="wrong" role="alert" class="strong">{{ wrong }}</p>
    <slot v-if="isUnderstood" />
    <div class="dials">
      <Slider
        label="value"
        :min="0.5"
        :max="9.7"
        :step="0.1"
        :model-value="munsell.value"
        :says="settings.valueText(valueOfLightness(lab[0]))"
        @update:model-value="dial({ value: $event })"
      />
      <Slider label="hue" :min="0" :max="99.5" :step="0.5" :model-value="hue" :says="hueText" @update:model-value="dial({ hue: $event })" />
      <Slider
        label="how bright"
        :min="0"
        :max="16"
        :step="0.2"
        :model-value="Math.min(16, munsell.chroma)"
        :says="strengthOf(lab).toFixed(1)"
        @update:model-value="dial({ chroma: $event })"
      />
    </div>
  </div>
</template>

<style scoped>
.dials {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: calc(2 * var(--unit)) calc(6 * var(--unit));
}
.said {
  display: grid;
  gap: var(--unit);
  font-size: var(--size-note);
}
.said input {
  min-height: 44px;
  font-size: var(--size-lead);
  color: inherit;
  border-bottom: 1px solid currentColor;
}
.strong {
  font-weight: 700;
}
</style>
