<script setup lang="ts">
import { closenessWithin, type Lab } from '@dusk/core';
import { mixtureDto } from '@dusk/wire/written';
import { until } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import ColourPair from '../chips/ColourPair.vue';
import SaidColour from '../recipe/SaidColour.vue';
import { firstName, valueDifference } from '../floor/words.ts';
import ValueLine from '../chips/ValueLine.vue';
import Sheet from '../controls/Sheet.vue';
import { engine } from '../engine/engine.ts';
import type { Proposed } from '../engine/proposal.ts';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useWithin } from '../stores/useWithin.ts';
import { useSettings } from '../stores/settings.ts';
import { usePiles } from '../stores/piles.ts';
import RecipeSteps from '../recipe/RecipeSteps.vue';

/** A pile for a colour that is in no picture: said in words, written in a notation, or dialled by value, hue and strength. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const landing = useLanding();
const piles = usePiles();
const paintings = usePaintings();
const within = useWithin();
const settings = useSettings();

const said = useTemplateRef('said');
const isUnderstood = computed((): boolean => said.value?.isUnderstood ?? true);
const name = ref('');
const lab = shallowRef<Lab>([50, 3, 9]);
const answer = shallowRef<Proposed>();
const found = computed(() => answer.value?.proposals[0]);
/** The colour that was found for: what was said a moment ago may still be on its way. */
const foundFor = shallowRef<Lab>();
const ANSWER_MS = 4000;
watch(open, (now) => {
  if (!now) return;
  said.value?.clear();
  name.value = '';
  lab.value = [50, 3, 9];
});

/** Within what the painting may get. */
const target = computed(() => within(lab.value));
const isHeld = computed(() => target.value !== lab.value);
watch(
  [open, target, () => landing.deskFor(target.value)] as const,
  async ([isOpen, wanted, laid]) => {
    if (!isOpen || !laid) return;
    const followed = await engine()
      .follow(laid, wanted, { dulling: settings.settings.dulling, amountMl: settings.settings.amountMl })
      .catch(() => undefined);
    if (!followed || wanted !== target.value) return;
    answer.value = followed;
    foundFor.value = wanted;
  },
  { immediate: true },
);
async function keep(): Promise<void> {
  if (!said.value?.read()) return;
  await until(() => foundFor.value === target.value).toBe(true, { timeout: ANSWER_MS });
  if (!found.value || foundFor.value !== target.value) return;
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
    <form class="stack" @submit.prevent="keep">
      <h2>A colour to mix</h2>
      <SaidColour ref="said" v-model="lab" focused>
        <ColourPair :target="target" :mixed="found?.lab" :height="84" />
        <ValueLine :lab="target" />
        <p v-if="isHeld" class="figures">Held to how bright, how dark and how light this painting may get.</p>
      </SaidColour>
      <template v-if="found && isUnderstood">
        <p class="figures">
          Mixed: <b>{{ valueDifference(found.valueError) }}</b>, {{ closenessWithin(found, answer!.reach) }}
        </p>
        <RecipeSteps :mixture="found.mixture" :amount-ml="settings.settings.amountMl" />
      </template>
      <label class="said"
        >Name <input v-model="name" maxlength="80" :placeholder="isUnderstood ? firstName(target, piles.names) : ''"
      /></label>
      <div class="foot-keys">
        <button type="button" class="link-key" @click="open = false">Not now</button>
        <button type="submit" class="main-key" :disabled="!found || !isUnderstood">Keep this pile</button>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
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
</style>
