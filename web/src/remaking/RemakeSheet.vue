<script setup lang="ts">
import { likeness, CraftError, masstoneOf, type COMPARED_LIGHTS, type PaintCurves } from '@dusk/core';
import { computed, ref, shallowRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import { LAMP_NAMES } from '../floor/lamps.ts';
import Sheet from '../controls/Sheet.vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { Remade } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import TubeKeys from '../recipe/TubeKeys.vue';
import { useKnown } from '../recipe/useKnown.ts';
import { useWished, wishesOf } from '../recipe/wished.ts';

/** A colour from today's tubes, and how far the two will part under each lamp, told before it is mixed. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  /** What is remade: a pile's id, or a card's. */
  id: string;
  name: string;
  paint: PaintCurves;
  /** How much of it is wanted; as usual unless said. */
  ml?: number;
  /** Takes one; the sheet closes when it is taken. */
  onTaken: (remade: Remade) => Promise<boolean>;
}>();
const desk = useDesk();
const settings = useSettings();
const { short } = useKnown();
/** What is left out here is another's business than the recipe it came from. */
const wished = computed(() => useWished().of(`remake ${props.id}`));
const found = shallowRef<readonly Remade[]>();
const failure = ref('');
const lab = computed(() => masstoneOf(props.paint));

let asking: AbortController | undefined;
watch(
  [open, () => desk.desk, () => props.paint, () => JSON.stringify(wished.value), () => settings.settings.dulling] as const,
  async ([isOpen, laid, { K, S }, , dulling]) => {
    asking?.abort();
    failure.value = '';
    if (!isOpen || !laid) return;
    const own = (asking = new AbortController());
    try {
      const there = new Set(laid.laid.tubes.map(({ id }) => id));
      const wishes = { ...wishesOf(wished.value, dulling, (id) => there.has(id)), amountMl: props.ml ?? settings.settings.amountMl };
      found.value = await unlessGivenUp(engine().ask('remake', { original: { K, S }, wishes }, { desk: laid, signal: own.signal }));
    } catch (cause) {
      if (!(cause instanceof CraftError)) throw cause;
      found.value = undefined;
      failure.value = cause.message;
    }
  },
  { immediate: true },
);
const LIGHTS = Object.keys(LAMP_NAMES) as (typeof COMPARED_LIGHTS)[number][];
/** What cannot be told by an eye at the easel. */
const PASSES = 2;
const says = (remade: Remade): string => {
  const worst = LIGHTS.reduce((at, light) => (remade.differences[light] > remade.differences[at] ? light : at));
  if (remade.differences[worst] <= PASSES) return 'holds under every lamp';
  return remade.differences.D65 <= PASSES ? `parts by ${LAMP_NAMES[worst]}` : 'parts by day already';
};
async function take(remade: Remade): Promise<void> {
  if (await props.onTaken(remade)) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`Remake ${name} from today’s tubes`" wide judging>
    <h2>{{ name }}, from today’s tubes</h2>
    <TubeKeys :wished="wished" />
    <p v-if="failure" role="alert" class="strong">{{ failure }}</p>
    <article v-for="(remade, i) in found" :key="i" class="remade" data-test="remade">
      <div class="side"><ColourPair :target="lab" :mixed="remade.lab" :height="56" /></div>
      <div>
        <p class="figures">{{ short(remade.mixture) }}</p>
        <p class="strong">{{ says(remade) }}</p>
        <ul class="figures">
          <li v-for="light in LIGHTS" :key="light">{{ LAMP_NAMES[light] }}: {{ likeness(remade.differences[light]) }}</li>
        </ul>
      </div>
      <v-btn variant="outlined" :aria-label="`Remake it as ${short(remade.mixture)}`" @click="take(remade)">Take</v-btn>
    </article>
    <p v-if="!desk.palette" data-test="no-palette">
      Open a painting first: what this is mixed from are the tubes of the palette it is painted with.
    </p>
    <p v-else-if="desk.paletteTubes.length === 0">There is no tube on the palette: put some on it first.</p>
    <p v-else-if="desk.failure" role="alert">{{ desk.failure }}</p>
    <p v-else-if="found?.length === 0">Nothing like it comes of these tubes.</p>
    <p v-else-if="!found && !failure" class="quiet">Looking for it among today’s tubes…</p>
    <div class="foot-keys"><v-btn @click="open = false">Not now</v-btn></div>
  </Sheet>
</template>

<style scoped>
.remade {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) auto;
  gap: calc(4 * var(--unit));
  align-items: center;
  border-top: 1px solid var(--surround-line);
  padding-top: calc(3 * var(--unit));
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: var(--size-note);
}
.strong {
  font-weight: 700;
}
</style>
