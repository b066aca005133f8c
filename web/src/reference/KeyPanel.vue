<script setup lang="ts">
import { contrastsOf, hexToLab, USUAL_HELD, valueOfLightness, type KeyPlan, type Lab } from '@dusk/core';
import { useDebounceFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import Dabs from '../chips/Dabs.vue';
import Slider from '../controls/Slider.vue';
import GroundOf from '../paintings/GroundOf.vue';
import { GROUNDS } from '../paintings/grounds.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useNotices } from '../floor/notices.ts';
import { useSettings } from '../stores/settings.ts';
import KeyStrip from './KeyStrip.vue';
import { keyPlanOf, useReference } from '../stores/reference.ts';

/** How the picture's range is put onto paint, and the ground it is put on. */
const props = defineProps<{ seen: Lab | undefined }>();
const store = useReference();
const settings = useSettings();
const paintings = usePaintings();
const desk = useDesk();
const notices = useNotices();

const plan = computed(() => keyPlanOf(store.view));
const KINDS = [
  { value: 'as it is', title: 'As it is' },
  { value: 'fitted', title: 'Fitted to paint' },
  { value: 'moved', title: 'Low or high' },
] as const;
const SAYS: Readonly<Record<KeyPlan['kind'], string>> = {
  'as it is': 'Painted as it is seen; what lies beyond paint is marked.',
  fitted:
    'The darkest thing on the darkest this palette mixes, the lightest below white, straight between them. What is held back is for highlights and accents; lamps keep their glow.',
  moved: 'The value that is picked comes to lie at another and takes the rest with it, as far as paint goes.',
};
/** What is held back at either end of the paint. */
const ENDS = [
  { name: 'held', label: 'Held back for highlights', says: 'Held white back' },
  { name: 'heldDark', label: 'Held back for the darkest accents', says: 'Held the dark back' },
] as const;
const pointValue = computed(() => props.seen && valueOfLightness(props.seen[0]));

function planFor(kind: KeyPlan['kind']): KeyPlan {
  const { held, heldDark } = plan.value.kind === 'as it is' ? { held: USUAL_HELD, heldDark: 0 } : plan.value;
  if (kind === 'as it is') return { kind };
  if (kind === 'fitted') return { kind, held, heldDark };
  const from = Math.round(10 * (pointValue.value ?? ((store.range?.darkest ?? 0) + (store.range?.lightest ?? 10)) / 2)) / 10;
  return { kind, held, heldDark, from, to: from };
}
const choose = (kind: KeyPlan['kind']): Promise<void> => store.see({ key: planFor(kind) }, `Key: ${kind}`);
const kind = computed({ get: () => plan.value.kind, set: (to) => void choose(to) });
const keyed = computed(() => (plan.value.kind === 'as it is' ? undefined : plan.value));
const moved = computed(() => (plan.value.kind === 'moved' ? plan.value : undefined));
const text = (value: number): string => settings.valueText(value);
/** Values from which what is lighter than any thing is worth telling. */
const ABOVE = 0.3;
const lamps = computed(() => {
  const { range, light } = store;
  const brightest = light?.spread.brightest;
  return range && brightest !== undefined && brightest > range.lightest + ABOVE ? text(brightest) : '';
});
const become = (by: number): string => (Math.abs(by - 1) < 0.05 ? 'stay as they are' : `become ${by.toFixed(1)} times as strong`);
const contrasts = computed(() => {
  if (!store.key || !keyed.value) return '';
  const [below, above] = contrastsOf(store.key);
  return above === undefined
    ? `Its contrasts ${become(below!)}.`
    : `Contrasts below the picked value ${become(below!)}, those above it ${become(above)}.`;
});

const TAKEN = [
  { value: 'colours' as const, title: 'its colours' },
  { value: 'values' as const, title: 'its values alone' },
];
const grounds = GROUNDS.map(({ value, title }) => ({ value: value as string, colour: value, title }));
/** A dim or a misty scene has no white and no black. */
/** As a hand has moved it, until it is kept. */
const moving = ref<[number, number]>();
const REST_MS = 350;
const keepSoon = useDebounceFn(async () => {
  if (moving.value) await keepBetween(moving.value);
  moving.value = undefined;
}, REST_MS);
function setEnds(to: readonly number[]): void {
  moving.value = [to[0]!, to[1]!];
  void keepSoon();
}
const ends = computed<[number, number]>(() => {
  if (moving.value) return moving.value;
  const { between } = paintings.onEasel ?? {};
  return between ? [between.darkest, between.lightest] : [0, 10];
});
const LEAST_BETWEEN = 0.5;
async function keepBetween(to: readonly number[]): Promise<void> {
  const [darkest, lightest] = [to[0]!, Math.max(to[1]!, to[0]! + LEAST_BETWEEN)];
  const isAll = darkest <= 0 && lightest >= 10;
  await paintings.change(paintings.onEasel!.id, {
    between: isAll ? null : { darkest: Math.min(9.5, darkest), lightest: Math.min(10, lightest) },
  });
}

/** The ground as it is written. */
const ground = ref('');
watch(
  () => paintings.onEasel?.ground,
  (now) => (ground.value = now ?? ''),
  { immediate: true },
);
async function setGround(hex: string): Promise<void> {
  const tidy = hex
    .trim()
    .toLowerCase()
    .replace(/^([0-9a-f]{6})$/, '#$1');
  if (!/^#[0-9a-f]{6}$/.test(tidy)) return void notices.refused('A ground is a colour like #b5a48c.');
  if (tidy !== paintings.onEasel!.ground) await paintings.change(paintings.onEasel!.id, { ground: tidy, groundOf: null });
}
</script>

<template>
  <div class="key-panel figures">
    <section aria-label="Key">
      <Choice v-model="kind" label="How its range goes onto paint" :items="KINDS" />
      <p class="quiet">{{ SAYS[plan.kind] }}</p>
      <p v-if="store.range && store.ends">
        Seen {{ text(store.range.darkest) }} to {{ text(store.range.lightest) }}; this palette paints {{ text(store.ends.darkest) }} to
        {{ text(store.ends.lightest) }}.
        <span v-if="lamps" data-test="lamps">Lamps and glints in it reach {{ lamps }}.</span>
      </p>
      <p v-if="contrasts" data-test="contrasts">{{ contrasts }}</p>
      <template v-if="keyed">
        <Slider
          v-for="end in ENDS"
          :key="end.name"
          :label="end.label"
          :min="0"
          :max="3"
          :step="0.1"
          :says="(keyed[end.name] ?? 0).toFixed(1)"
          :model-value="keyed[end.name] ?? 0"
          @update:model-value="store.tryView({ key: { ...keyed, [end.name]: $event } })"
          @done="store.see({ key: { ...keyed, [end.name]: $event } }, end.says)"
        />
      </template>
      <template v-if="moved">
        <div class="picked">
          <span>Picked: value {{ text(moved.from) }}</span>
          <button
            type="button"
            class="key framed-key"
            :disabled="pointValue === undefined"
            @click="store.see({ key: { ...moved, from: pointValue!, to: pointValue! } }, 'Picked a value')"
          >
            Take the point’s<template v-if="pointValue !== undefined">, {{ text(pointValue) }}</template>
          </button>
        </div>
        <Slider
          label="Painted at"
          :min="store.ends?.darkest ?? 0"
          :max="store.ends?.lightest ?? 10"
          :step="0.1"
          :says="text(moved.to)"
          :model-value="moved.to"
          @update:model-value="store.tryView({ key: { ...moved, to: $event } })"
          @done="store.see({ key: { ...moved, to: $event } }, 'Moved the key')"
        />
      </template>
    </section>
    <Choice
      :model-value="paintings.onEasel?.valueOnly ? 'values' : 'colours'"
      label="Taken from its pictures"
      :items="TAKEN"
      @update:model-value="paintings.change(paintings.onEasel!.id, { valueOnly: $event === 'values' })"
    />
    <section aria-label="How dark and how light it may get">
      <p>It keeps between {{ text(ends[0]) }} and {{ text(ends[1]) }}{{ paintings.onEasel?.between ? '' : ', all that paint can be' }}</p>
      <v-range-slider
        :model-value="ends"
        :min="0"
        :max="10"
        :step="0.5"
        strict
        aria-label="How dark and how light it may get"
        data-test="between"
        @update:model-value="setEnds"
      />
    </section>
    <KeyStrip v-if="store.key" :lit-key="store.key" :range="store.range" :at="pointValue" />
    <section aria-label="Ground" class="ground">
      <p>Ground: value {{ text(valueOfLightness(hexToLab(paintings.onEasel!.ground)[0])) }}, shown round the picture</p>
      <div class="grounds wrapped">
        <Dabs :model-value="paintings.onEasel?.ground" :dabs="grounds" @update:model-value="setGround($event ?? '')" />
        <form @submit.prevent="setGround(ground)">
          <input v-model="ground" aria-label="Ground as typed" maxlength="7" spellcheck="false" @change="setGround(ground)" />
        </form>
      </div>
      <GroundOf
        :tubes="desk.paletteTubes"
        :ground-of="paintings.onEasel!.groundOf"
        @made="paintings.change(paintings.onEasel!.id, $event)"
      />
    </section>
  </div>
</template>

<style scoped>
.key-panel,
section {
  display: grid;
  gap: calc(2 * var(--unit));
  align-content: start;
}
.picked {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 calc(2 * var(--unit));
}
.key:disabled {
  opacity: 0.5;
}
.grounds input {
  width: 88px;
  min-height: 44px;
  border-bottom: 1px solid currentColor;
}
@media (orientation: portrait) and (min-width: 601px) {
  .key-panel {
    grid-template-columns: 1fr 1fr;
    gap: calc(3 * var(--unit)) calc(6 * var(--unit));
  }
}
</style>
