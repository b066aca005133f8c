<script setup lang="ts">
import { closeness, colourName, MATCH, valueOfLightness, type Lab } from '@dusk/core';
import { computed, ref, shallowRef, watch } from 'vue';
import Pick from '../controls/Pick.vue';
import Slider from '../controls/Slider.vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { Covered, MadeChip } from '../engine/rack.ts';
import { useWhite } from '../floor/white.ts';
import { percent } from '../floor/words.ts';
import { useLanding } from '../stores/landing.ts';
import { usePalettes } from '../stores/palettes.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import ChipGrid from './ChipGrid.vue';
import { rackTube, useChips, useKeepMade } from './useMade.ts';
import { usePictured } from './usePictured.ts';

/** Two palettes on the same chips, the same targets and the same picture, with what each cannot do. */
const props = defineProps<{ paletteId: string; tubes: readonly Tube[] }>();
const palettes = usePalettes();
const rackOf = useTubes();
const piles = usePiles();
const landing = useLanding();
const settings = useSettings();
const white = useWhite();
const { needs } = usePictured();

const others = computed(() => palettes.all.filter(({ id }) => id !== props.paletteId));
const chosen = ref('');
const other = computed(() => others.value.find(({ id }) => id === chosen.value) ?? others.value[0]);
const otherTubes = computed(() => (other.value?.tubeIds ?? []).flatMap((id) => rackOf.byId.get(id) ?? []));
const value = ref(5);
const STEP = 0.25;
const show = () => ({ value: value.value });
const one = useChips(() => props.tubes, show);
const two = useChips(() => otherTubes.value, show);
const { says, keep } = useKeepMade();
const full = (chip: MadeChip): string => `${colourName(chip.lab)}: ${says(chip)}`;
const rowSays = (step: number): string => (step === 0 ? 'dull' : '');

/** What is wanted in the painting on the easel. */
const MOST_TARGETS = 12;
const targets = computed(() =>
  piles.list.slice(0, MOST_TARGETS).map((pile) => ({ id: pile.id, name: pile.name, lab: landing.wantedOf(pile) ?? lookNow(pile) })),
);
interface Reached {
  readonly lab: Lab;
  readonly deltaE00: number;
}
const reached = shallowRef<readonly (readonly Reached[])[]>([]);
const covers = shallowRef<readonly (Covered | undefined)[]>([]);
let asking: AbortController | undefined;
watch(
  () =>
    JSON.stringify([props.tubes.map(({ stateId }) => stateId), otherTubes.value.map(({ stateId }) => stateId), targets.value, needs.value]),
  async () => {
    asking?.abort();
    const own = (asking = new AbortController());
    const both = [props.tubes, otherTubes.value].map((list) => list.map(rackTube));
    if (both.some((list) => list.length === 0)) return;
    const labs = targets.value.map(({ lab }) => lab);
    const signal = { signal: own.signal };
    const found = await Promise.all(both.map((list) => unlessGivenUp(engine().ask('nearTo', { tubes: list, targets: labs }, signal))));
    const covered = needs.value
      ? await Promise.all(both.map((list) => unlessGivenUp(engine().ask('cover', { ...needs.value!, tubes: list }, signal))))
      : [];
    if (own.signal.aborted) return;
    reached.value = found.map((list) => list ?? []);
    covers.value = covered;
  },
  { immediate: true },
);
const cannot = (side: 0 | 1): string => {
  const names = targets.value.filter((_, i) => (reached.value[side]?.[i]?.deltaE00 ?? 0) > MATCH).map(({ name }) => name);
  return names.length === 0 ? '' : `does not reach ${names.join(', ')}`;
};
const sides = computed(() =>
  [
    { name: palettes.byId.get(props.paletteId)?.name ?? '', sheet: one.value, beside: two.value, side: 0 as const },
    { name: other.value?.name ?? '', sheet: two.value, beside: one.value, side: 1 as const },
  ].map((side) => ({ ...side, cover: covers.value[side.side]?.cover, cannot: cannot(side.side) })),
);
</script>

<template>
  <p v-if="others.length === 0">There is no other palette yet.</p>
  <div v-else class="beside">
    <div class="asked">
      <Pick
        :model-value="other!.id"
        label="Beside"
        :options="others.map(({ id, name }) => ({ value: id, title: name }))"
        data-test="beside"
        @update:model-value="chosen = $event ?? ''"
      />
      <Slider v-model="value" label="Value" :min="0.5" :max="9.5" :step="STEP" :says="settings.valueText(value)" />
    </div>
    <div class="two">
      <section v-for="side in sides" :key="side.side" :aria-label="side.name">
        <h2>{{ side.name }}</h2>
        <p class="figures">
          <template v-if="side.cover">{{ percent(side.cover.match) }} of the picture matched, {{ percent(side.cover.not) }} not</template
          ><template v-if="side.cannot">; {{ side.cannot }}</template>
        </p>
        <ChipGrid
          v-if="side.sheet && side.sheet.chips.length > 0"
          :sheet="side.sheet"
          :label="`What ${side.name} makes`"
          :says="full"
          :row-says="rowSays"
          v-bind="side.beside ? { beside: side.beside } : {}"
          @take="keep"
        />
        <p v-else-if="side.sheet">Nothing of this value.</p>
      </section>
    </div>
    <section v-if="targets.length > 0" aria-label="The same targets">
      <h2>What is wanted for the painting</h2>
      <ul class="targets figures bare">
        <li v-for="(target, i) in targets" :key="target.id">
          <span class="three judging"
            ><span :style="{ background: reached[0]?.[i] && white.shown(reached[0][i].lab).css }" /><span
              class="wanted"
              :style="{ background: white.shown(target.lab).css }" /><span
              :style="{ background: reached[1]?.[i] && white.shown(reached[1][i].lab).css }"
          /></span>
          <span
            ><b>{{ settings.valueText(valueOfLightness(target.lab[0])) }}</b> {{ target.name }}</span
          >
          <span>{{ reached[0]?.[i] ? closeness(reached[0][i].deltaE00) : '' }}</span>
          <span>{{ reached[1]?.[i] ? closeness(reached[1][i].deltaE00) : '' }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.beside {
  display: grid;
  gap: calc(4 * var(--unit));
}
.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: calc(3 * var(--unit)) calc(6 * var(--unit));
}
.asked .slider {
  flex: 0 1 300px;
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: calc(4 * var(--unit));
}
.targets li {
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr) 160px 160px;
  align-items: center;
  gap: calc(3 * var(--unit));
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.18);
}
.three {
  display: flex;
  padding: 4px;
}
.three span {
  flex: 1;
  height: 34px;
}
.three .wanted {
  flex: 2;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .targets li {
    grid-template-columns: 110px minmax(0, 1fr);
  }
}
</style>
