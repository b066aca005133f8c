<script setup lang="ts">
import {
  colourFromWords,
  CraftError,
  labToMunsell,
  munsellToLab,
  strengthOf,
  underCeiling,
  valueOfLightness,
  writeMunsell,
  type Lab,
} from '@dusk/core';
import { mixtureDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import ColourPair from '../chips/ColourPair.vue';
import { closeness, firstName, valueDifference } from '../floor/words.ts';
import ValueLine from '../chips/ValueLine.vue';
import Sheet from '../controls/Sheet.vue';
import Slider from '../controls/Slider.vue';
import { engine } from '../engine/engine.ts';
import type { Proposal } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { usePiles } from '../stores/piles.ts';
import RecipeSteps from '../recipe/RecipeSteps.vue';

/** A pile for a colour that is in no picture: said in words, written in a notation, or dialled by value, hue and strength. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const desk = useDesk();
const piles = usePiles();
const paintings = usePaintings();
const settings = useSettings();

const text = ref('');
const name = ref('');
const wrong = ref('');
const lab = shallowRef<Lab>([50, 0, 0]);
const found = shallowRef<Proposal>();
watch(open, (now) => {
  clearTimeout(writing);
  if (!now) return;
  text.value = name.value = wrong.value = '';
  lab.value = [50, 3, 9];
});

const munsell = computed(() => labToMunsell(lab.value));
/** The hue that is dialled outlives greys, which have none. */
const hue = ref(15);
watch(munsell, ({ hue: own, chroma }) => {
  if (chroma > 0.4) hue.value = own;
});
const hueText = computed(() => writeMunsell({ hue: hue.value, value: 5, chroma: 6 }).split(' ')[0]!);
const ceiling = computed(() => paintings.onEasel?.ceiling ?? undefined);
function dial(part: { readonly value?: number; readonly hue?: number; readonly chroma?: number }): void {
  const { value, chroma } = munsell.value;
  if (part.hue !== undefined) hue.value = part.hue;
  lab.value = munsellToLab({ hue: hue.value, value: part.value ?? value, chroma: part.chroma ?? chroma });
  text.value = writeMunsell(labToMunsell(lab.value));
  wrong.value = '';
}
/** A word that is not known is told once the hand has stopped writing, or sooner by Enter. */
const WRITTEN_MS = 700;
let writing: ReturnType<typeof setTimeout> | undefined;
function write(): void {
  clearTimeout(writing);
  writing = setTimeout(() => read(true), WRITTEN_MS);
  read(false);
}
/** @param isWhole whether it is written to its end: what is not yet a colour is told only then */
function read(isWhole: boolean): void {
  wrong.value = '';
  if (text.value.trim() === '') return;
  try {
    lab.value = colourFromWords(text.value);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    if (isWhole) wrong.value = cause.message;
  }
}
const target = computed(() => underCeiling(lab.value, ceiling.value));
const isHeld = computed(() => target.value !== lab.value);
watch([open, target, () => desk.desk] as const, async ([isOpen, wanted, laid]) => {
  if (!isOpen || !laid) return;
  const answer = await engine()
    .follow(laid, wanted, { dulling: settings.settings.dulling, amountMl: settings.settings.amountMl })
    .catch(() => undefined);
  if (answer && wanted === target.value) found.value = answer.proposals[0];
});
async function keep(): Promise<void> {
  read(true);
  if (wrong.value || !found.value) return;
  const kept = await piles.keep({
    name: name.value.trim() || firstName(target.value, piles.names),
    lab: target.value,
    plan: mixtureDto(found.value.mixture),
    ml: settings.settings.amountMl,
  });
  if (!kept) return;
  open.value = false;
  await router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId: kept.pileId } });
}
</script>

<template>
  <Sheet v-model="open" label="A new pile" wide judging>
    <form class="new" @submit.prevent="keep">
      <h2>A colour to mix</h2>
      <label class="said"
        >Say it or write it
        <input
          v-model="text"
          autofocus
          maxlength="80"
          placeholder="dull warm green, value 4 · 7.5YR 4/6 · #8a6b4f"
          data-test="said-colour"
          @input="write"
          @change="read(true)"
        />
      </label>
      <p v-if="wrong" role="alert" class="strong">{{ wrong }}</p>
      <ColourPair :target="target" :mixed="found?.lab" :height="84" />
      <ValueLine :lab="target" />
      <p v-if="isHeld" class="figures">Held to how bright it may get, {{ ceiling }}.</p>
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
        <Slider
          label="hue"
          :min="0"
          :max="99.5"
          :step="0.5"
          :model-value="hue"
          :says="hueText"
          @update:model-value="dial({ hue: $event })"
        />
        <Slider
          label="strength"
          :min="0"
          :max="16"
          :step="0.2"
          :model-value="Math.min(16, munsell.chroma)"
          :says="strengthOf(lab).toFixed(1)"
          @update:model-value="dial({ chroma: $event })"
        />
      </div>
      <template v-if="found">
        <p class="figures">
          Mixed: <b>{{ valueDifference(found.valueError) }}</b>, {{ closeness(found.deltaE00) }}
        </p>
        <RecipeSteps :mixture="found.mixture" :amount-ml="settings.settings.amountMl" />
      </template>
      <label class="said">Name <input v-model="name" maxlength="80" :placeholder="firstName(target, piles.names)" /></label>
      <div class="foot-keys">
        <button type="button" class="plain" @click="open = false">Not now</button>
        <button type="submit" class="main-key" :disabled="!found">Keep this pile</button>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
.new {
  display: grid;
  gap: calc(3 * var(--unit));
}
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
.plain {
  min-height: 44px;
  text-decoration: underline;
}
</style>
