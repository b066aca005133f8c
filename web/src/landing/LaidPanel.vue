<script setup lang="ts">
import { coversLaid, dropsInto, HABITS, LAID_HOW, LAID_TAKING, LAID_WITH, WITH_SAYS, wetBlend, type LaidWith } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, toRef } from 'vue';
import Dabs from '../chips/Dabs.vue';
import DrawnOut from '../chips/DrawnOut.vue';
import Choice from '../controls/Choice.vue';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';
import { counted } from '../floor/words.ts';
import { useWhite } from '../floor/white.ts';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { useDesk } from '../stores/useDesk.ts';
import AddedInPlace from './AddedInPlace.vue';
import Passage from './Passage.vue';
import { useLaying } from './useLaying.ts';

/** How a pile is laid, over what, with what, with what in the brush; what that does; how much of it is enough. */
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const desk = useDesk();
const white = useWhite();
const paintings = usePaintings();
const landing = useLanding();
const { lay, would, busy } = useLaying(toRef(props, 'pile'));

const laid = computed(() => props.pile.purpose.laid ?? {});
const over = computed(() => piles.byId.get(props.pile.purpose.overId ?? ''));
const isWet = computed(() => over.value !== undefined && laid.value.over === 'wet');
const so = computed(() => landing.soOf(props.pile));
const paint = computed(() => desk.paintOfPile(props.pile.id));

const HOW = [{ value: '' as const, title: 'not said' }, ...LAID_HOW.map((value) => ({ value, title: value }))];
const WITH = LAID_WITH.map((value) => ({ value, title: WITH_SAYS[value].called }));
const DRY_OR_WET = [
  { value: 'dry' as const, title: 'dry' },
  { value: 'wet' as const, title: 'still wet' },
];
const TAKES = LAID_TAKING.map((value) => ({ value, title: value }));
const HABIT = [{ value: null, title: 'as is said of each' }, ...HABITS.map((value) => ({ value, title: value }))];
const others = computed(() => piles.ofRank.filter(({ id }) => id !== props.pile.id));
const lying = computed(() => [
  { value: '', colour: white.shown(landing.groundLab).css, title: 'the ground', label: 'over the ground', test: 'over-ground' },
  ...others.value.map((one) => ({
    value: one.id,
    colour: piles.shownNow(one),
    title: one.name,
    label: `over ${one.name}`,
    test: 'over-pile',
  })),
]);

const along = computed<LaidWith>(() => laid.value.with ?? 'nothing');
const drops = computed(() => so.value && dropsInto(props.pile.ml, so.value));
const covers = computed(() => {
  const at = landing.landingOf(props.pile);
  if (!at) return '';
  const { coats } = coversLaid(paint.value, at);
  if (coats === null) return 'Laid so it never covers: what is below goes on showing.';
  return coats === 1 ? 'Covers what is below at once.' : `Covers what is below in ${coats} layers, laid so.`;
});
/** Where a brush joins it with the wet paint that it lies over or beside. */
const blend = computed(() => {
  if (!isWet.value || !over.value) return undefined;
  const { steps, warns, by } = wetBlend(desk.paintOfPile(over.value.id), paint.value);
  return {
    steps,
    advice:
      warns === 'mud'
        ? `Joined with a brush they go to mud (${by!.name}): leave a gap between them.`
        : warns
          ? `Joined with a brush they pass through ${by!.name}: leave a gap, if that is not meant.`
          : 'They join cleanly: lay the light side first, and wipe the brush before it goes back.',
  };
});
function overPile(id: string | undefined): void {
  // What is laid over it is said again for another.
  void lay({ over: undefined, takes: undefined }, { overId: id });
}
</script>

<template>
  <div class="stack" :aria-busy="busy">
    <Choice :model-value="laid.how ?? ''" label="Laid as" :items="HOW" @update:model-value="lay({ how: $event || undefined })" />
    <fieldset>
      <legend>over</legend>
      <Dabs class="judging" :model-value="over?.id ?? ''" :dabs="lying" @update:model-value="overPile($event || undefined)" />
      <p class="figures">{{ over?.name ?? 'the ground' }}</p>
    </fieldset>
    <Choice
      v-if="over"
      :model-value="isWet ? 'wet' : 'dry'"
      label="which is"
      :items="DRY_OR_WET"
      @update:model-value="lay({ over: $event, takes: undefined })"
    />
    <Choice
      v-if="isWet"
      :model-value="laid.takes ?? 'some'"
      label="taking up of it"
      :items="TAKES"
      @update:model-value="lay({ takes: $event })"
    />
    <DrawnOut :paint="paint" :ground="landing.ground" :called="pile.name" marked class="judging" />
    <p v-if="covers" class="figures says" data-test="covers">{{ covers }}</p>
    <p v-if="would?.layers" class="figures says" data-test="would">
      One layer does not come there. {{ counted(would.layers, 'layer') }} would come nearest<template
        v-if="(laid.layers ?? 1) !== would.layers"
        >: <button type="button" class="link-key" @click="lay({ layers: would!.layers })">lay it in {{ would.layers }}</button></template
      ><template v-else>; it is mixed for that</template>.
    </p>
    <p v-if="would?.whiteFirst" class="says" data-test="white-first">Nearer over white: a layer of white first, dry, then this.</p>
    <div v-if="blend" class="blend">
      <div class="strip judging">
        <span v-for="(lab, i) in blend.steps" :key="i" :style="{ background: white.shown(lab).css }" />
      </div>
      <p class="says" data-test="blend">{{ blend.advice }}</p>
    </div>
    <Passage :pile="pile" />
    <AddedInPlace :pile="pile" />
    <div class="pair">
      <Pick
        :model-value="along"
        :options="WITH"
        label="with"
        data-test="pile-with"
        @update:model-value="lay({ with: $event === 'nothing' ? undefined : $event })"
      />
      <Pick
        :model-value="laid.brushId ?? ''"
        :options="[{ value: '', title: 'clean' }, ...named(others)]"
        label="brush"
        data-test="pile-brush"
        @update:model-value="lay({ brushId: $event || undefined })"
      />
    </div>
    <template v-if="along !== 'nothing'">
      <p class="says">
        {{ WITH_SAYS[along].does }}<template v-if="drops"> About {{ counted(drops, 'drop') }} into this pile.</template>
      </p>
      <p class="caution" role="note" data-test="laid-caution">{{ WITH_SAYS[along].caution }}</p>
    </template>
    <Pick
      :model-value="paintings.onEasel?.habit ?? null"
      :options="HABIT"
      label="this painting is laid"
      alone
      data-test="habit"
      @update:model-value="paintings.change(pile.paintingId!, { habit: $event ?? null })"
    />
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  gap: 0 calc(4 * var(--unit));
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
}
.strip {
  display: flex;
  height: 28px;
}
.strip span {
  flex: 1;
}
.caution {
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
  font-weight: 700;
  font-size: var(--size-note);
}
</style>
