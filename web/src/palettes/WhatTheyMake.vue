<script setup lang="ts">
import { colourName, valueOfLightness, type ChipFamily } from '@dusk/core';
import { computed, ref, shallowRef, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import Slider from '../controls/Slider.vue';
import type { Made, MadeChip } from '../engine/rack.ts';
import { useShortcuts } from '../floor/useShortcuts.ts';
import { useWhite } from '../floor/white.ts';
import { askedFor } from '../stores/asked.ts';
import { useSettings } from '../stores/settings.ts';
import type { Tube } from '../stores/tubes.ts';
import ChipGrid from './ChipGrid.vue';
import { useChips, useKeepMade } from './useMade.ts';

/** What the tubes of a palette make, two or three in one heap: at one value, or a family; any of it kept with one press. */
const props = defineProps<{ tubes: readonly Tube[] }>();
const settings = useSettings();
const white = useWhite();

const SHOWN: readonly { readonly value: 'value' | ChipFamily; readonly title: string }[] = [
  { value: 'value', title: 'one value' },
  { value: 'greys', title: 'greys' },
  { value: 'greens', title: 'greens' },
  { value: 'skins', title: 'skins' },
  { value: 'skies', title: 'skies' },
];
const shown = ref<'value' | ChipFamily>('value');
const value = ref(5);
const STEP = 0.25;
const away = shallowRef<readonly string[]>([]);
watch(
  () => props.tubes.map(({ id }) => id).join(),
  () => (away.value = []),
);
const gone = computed(() =>
  props.tubes
    .filter(({ id }) => away.value.includes(id))
    .map(({ name }) => name)
    .join(', '),
);
const turn = (id: string): void =>
  void (away.value = away.value.includes(id) ? away.value.filter((one) => one !== id) : [...away.value, id]);

const wanted = ref('');
const sought = computed(() =>
  wanted.value.trim() === '' ? undefined : (askedFor(wanted.value, []).near ?? askedFor(`like ${wanted.value}`, []).near),
);
// A colour that is sought is looked for at its own value.
watch(sought, (now) => now && (value.value = Math.round(valueOfLightness(now.lab[0]) / STEP) * STEP));

const sheet = useChips(
  () => props.tubes,
  () => (shown.value === 'value' ? { value: value.value } : { family: shown.value }),
  () => away.value,
  () => sought.value?.lab,
);
const { says, keep, isKeeping, where } = useKeepMade();
const over = ref<Made>();
watch(sheet, () => (over.value = undefined));
const told = computed(() => over.value ?? sheet.value?.near[0]);
const rowSays = (step: number): string =>
  sheet.value?.by === 'value' ? settings.valueText(step) : step === 0 ? 'dull' : step === brightest.value ? 'bright' : '';
const brightest = computed(() => Math.max(...(sheet.value?.chips ?? []).map(({ row }) => sheet.value!.steps[row]!)));
const full = (chip: Made): string => `${colourName(chip.lab)}, ${settings.valueText(valueOfLightness(chip.lab[0]))}: ${says(chip)}`;
const by = (n: number) => () => void (value.value = Math.min(9.5, Math.max(0.5, value.value + n)));
useShortcuts(() => [
  { key: ',', run: by(-STEP) },
  { key: '.', run: by(STEP) },
]);
const ends = computed(() => {
  const found = sheet.value?.ends;
  if (!found) return [];
  const one = (title: string, made: Made | undefined) => (made ? [{ title, made }] : []);
  return [
    ...one('darkest', found.darkest),
    ...one('best black', found.black),
    ...one('best grey', found.grey),
    ...one('lightest', found.lightest),
    ...found.strongest.map((made) => ({ title: '', made })),
  ];
});
</script>

<template>
  <div class="made stack">
    <div class="asked">
      <Choice v-model="shown" label="Show" :items="SHOWN" />
      <Slider
        v-if="shown === 'value'"
        v-model="value"
        class="value"
        label="Value"
        :min="0.5"
        :max="9.5"
        :step="STEP"
        :says="settings.valueText(value)"
      />
      <Field v-model="wanted" class="sought" label="Near a colour" placeholder="dusty blue, #8a6b4f" clearable />
    </div>
    <div class="above">
      <div class="told" aria-live="polite">
        <template v-if="told">
          <span class="large judging" data-chip="told"><span :style="{ background: white.shown(told.lab).css }" /></span>
          <span
            ><b class="figures">{{ settings.valueText(valueOfLightness(told.lab[0])) }}</b> {{ colourName(told.lab) }}<br />{{
              says(told)
            }}</span
          >
          <button type="button" class="main-key" :disabled="isKeeping" data-test="keep-made" @click="keep(told)">Keep</button>
        </template>
        <p v-else class="quiet">A press on a chip keeps it as {{ where }}; a press on a tube shows what is left without it.</p>
      </div>
      <div class="tubes judging" role="group" aria-label="Tubes in use: a press takes one away, and lays it back">
        <button
          v-for="tube in tubes"
          :key="tube.id"
          type="button"
          class="dab"
          :aria-label="tube.name"
          :aria-pressed="!away.includes(tube.id)"
          :title="away.includes(tube.id) ? `Lay ${tube.name} back` : `What is left without ${tube.name}`"
          @click="turn(tube.id)"
        >
          <span :style="{ background: white.shown(tube.masstone).css }" />
        </button>
      </div>
    </div>
    <p v-if="away.length > 0" role="status">Without {{ gone }}.</p>
    <p v-if="sheet && sheet.chips.length === 0" role="status">
      These tubes make nothing {{ shown === 'value' ? 'of this value' : 'of this family' }}.
    </p>
    <ChipGrid
      v-else-if="sheet"
      :sheet="sheet"
      label="What these tubes make"
      :says="(chip: MadeChip) => full(chip)"
      :row-says="rowSays"
      v-bind="sought ? { near: sheet.near.map(({ lab }) => lab) } : {}"
      @over="over = $event"
      @take="keep"
    />
    <section v-if="ends.length > 0" aria-label="What this palette has at its ends" class="ends judging">
      <button
        v-for="(end, i) in ends"
        :key="i"
        type="button"
        class="end"
        :aria-label="`${end.title || 'strongest'}: ${full(end.made)}`"
        :title="full(end.made)"
        @pointerenter="over = end.made"
        @focus="over = end.made"
        @click="keep(end.made)"
      >
        <span :style="{ background: white.shown(end.made.lab).css }" /><small>{{
          end.title || (i === 4 ? 'strongest of each hue' : '')
        }}</small>
      </button>
    </section>
  </div>
</template>

<style scoped>
.asked {
  display: grid;
  grid-template-columns: auto minmax(140px, 1fr) minmax(180px, 1fr);
  gap: calc(2 * var(--unit)) calc(5 * var(--unit));
  align-items: end;
}
.sought {
  grid-column: 3;
}
.above {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: stretch;
  gap: calc(4 * var(--unit));
}
.tubes {
  display: flex;
  flex-wrap: wrap;
  align-content: center;
  max-width: 420px;
  padding: var(--unit);
}
.dab {
  position: relative;
  width: 34px;
  height: 44px;
  padding: 3px;
}
.dab span {
  display: block;
  height: 100%;
}
.dab[aria-pressed='false'] span {
  opacity: 0.25;
}
.dab[aria-pressed='false']::after {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 50%;
  border-top: 2px solid currentColor;
  transform: rotate(-50deg);
}
.told {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(4 * var(--unit));
  min-height: 56px;
}
.told p {
  grid-column: 1 / -1;
}
.large {
  align-self: stretch;
  padding: calc(2 * var(--unit));
  display: grid;
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  padding: calc(2 * var(--unit));
}
.end {
  display: grid;
  flex: 1 1 48px;
  max-width: 90px;
  text-align: left;
  white-space: nowrap;
  overflow: visible;
}
.end span {
  height: 34px;
}
small {
  font-size: var(--size-note);
  min-height: 1.3em;
}
@media (max-width: 800px) {
  .asked {
    grid-template-columns: minmax(0, 1fr);
  }
  .sought {
    grid-column: 1;
  }
  .above {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
