<script setup lang="ts">
import { amountInWords, CraftError, measuredAnew, mlText, passageFromWords, shareEnclosed, SHOWING_THROUGH, type LaidSo } from '@dusk/core';
import type { MixtureSent, PassageDto, PileDto } from '@dusk/wire';
import { mixtureSent } from '@dusk/wire/written';
import { computed, defineAsyncComponent, ref } from 'vue';
import Field from '../controls/Field.vue';
import Pick from '../controls/Pick.vue';
import Sheet from '../controls/Sheet.vue';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { useTubes } from '../stores/tubes.ts';
import { purposeWith, said, type Part } from '../stores/purpose.ts';
import { useDesk } from '../stores/useDesk.ts';
import { handlingOf } from '../recipe/handling.ts';

/** Enough of a pile: for a passage that is drawn round on the picture or said in words, as it is laid. */
const props = defineProps<{ pile: PileDto }>();
const Outline = defineAsyncComponent(() => import('./Outline.vue'));
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();
const paintings = usePaintings();
const landing = useLanding();

const NORMALLY: LaidSo = { how: 'normal' };
const passage = computed(() => props.pile.purpose.passage);
const so = computed(() => landing.soOf(props.pile) ?? NORMALLY);
const canvas = computed(() => paintings.onEasel?.canvas ?? undefined);
const words = ref('');
const refusal = ref('');
const drawing = ref(false);
const exactly = ref(false);

const neededFor = (of: PassageDto): number => landing.neededFor(props.pile, of)!;
const needed = computed(() => passage.value && neededFor(passage.value));
const isShort = computed(() => landing.willNotLast(props.pile));
const MOST_ML = 500;
const LEAST_ML = 0.5;

/** A pile of another size: as much as is wanted is part of how it is measured. */
function sized(ml: number): { readonly ml: number; readonly plan: MixtureSent } {
  const next = Math.min(MOST_ML, Math.max(LEAST_ML, Math.ceil(ml * 2) / 2));
  const nozzleOf = handlingOf(tubes.byId);
  const plan = measuredAnew(props.pile.plan, (source) => ({ ...desk.paintOf(source).paint, nozzleMm: nozzleOf(source).nozzleMm }), next);
  return { ml: next, plan: mixtureSent(plan) };
}
/** What a pile is enough for; one that is still to be mixed becomes so large in the same change. */
function keep(next: PassageDto | undefined): Promise<boolean> {
  const purpose = purposeWith(props.pile.purpose, { passage: next });
  const wants = next && neededFor(next);
  const isPlanned = props.pile.stages.length === 0;
  const grows = isPlanned && wants !== undefined && wants > props.pile.ml;
  return piles.change(props.pile.id, { purpose, ...(grows && sized(wants)) }, `What “${props.pile.name}” is enough for`);
}
const withPart = (part: Part<Pick<PassageDto, 'open' | 'heldBack'>>): Promise<boolean> => {
  const { open, heldBack } = { ...passage.value!, ...part };
  return keep(said<PassageDto>({ ...passage.value!, open: open || undefined, heldBack: heldBack || undefined }));
};
function saidSo(): void {
  refusal.value = '';
  if (words.value.trim() === '') return;
  try {
    const cm2 = passageFromWords(words.value);
    const all = canvas.value && (canvas.value.widthMm * canvas.value.heightMm) / 100;
    if (all !== undefined && cm2 > all * 1.001)
      throw new CraftError('input', `That is more than the whole canvas (${Math.round(all)} cm²).`);
    const { open, heldBack } = passage.value ?? {};
    void keep(said<PassageDto>({ cm2, open, heldBack }));
    words.value = '';
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    refusal.value = cause.message;
  }
}
async function drawn(outline: { x: number; y: number }[]): Promise<void> {
  drawing.value = false;
  refusal.value = '';
  const share = shareEnclosed(outline);
  if (!canvas.value) {
    refusal.value = 'How large the canvas is is not known: say it under the grid in Reference, or say the size here in words.';
    return;
  }
  const cm2 = (share * canvas.value.widthMm * canvas.value.heightMm) / 100;
  if (cm2 < 0.1) {
    refusal.value = 'That outline holds nothing: draw once round the passage.';
    return;
  }
  await keep({ ...passage.value, cm2, outline });
}
function enough(): void {
  const next = sized(needed.value!);
  void piles.change(props.pile.id, next, `“${props.pile.name}” is to be ${next.ml} ml`);
}
const OPEN = [{ value: 0, title: 'none of it' }, ...Object.entries(SHOWING_THROUGH).map(([title, value]) => ({ value, title }))];
const HELD = [
  { value: 0, title: 'nothing' },
  { value: 0.1, title: 'a tenth' },
  { value: 0.25, title: 'a quarter' },
];
const DENSITY = 1.5;
</script>

<template>
  <section aria-label="Enough of it" class="passage stack-close">
    <h2>Enough for</h2>
    <div class="asks">
      <form @submit.prevent="saidSo">
        <Field v-model="words" label="a hand, two palms, 12 x 8 cm" maxlength="40" data-test="passage-words" @change="saidSo" />
      </form>
      <v-btn variant="outlined" data-test="draw-passage" @click="drawing = true">Draw round it</v-btn>
    </div>
    <p v-if="refusal" role="alert" class="failure" data-test="passage-refused">{{ refusal }}</p>
    <template v-if="passage && needed !== undefined">
      <p class="figures enough" data-test="enough">
        <strong>{{ amountInWords(needed) }}</strong>
        <template v-if="passage.outline"> for what is drawn round</template> ({{ Math.round(passage.cm2) }} cm², laid {{ so.how
        }}<template v-if="(so.layers ?? 1) > 1">, {{ so.layers }} layers</template>)
        <button type="button" class="link-key" :aria-expanded="exactly" @click="exactly = !exactly">
          {{ exactly ? 'less' : 'in ml' }}
        </button>
        <span v-if="exactly"> {{ mlText(needed) }}, about {{ (needed * DENSITY).toFixed(1) }} g</span>
      </p>
      <p v-if="needed > MOST_ML" class="failure">More than one pile can be: mix it in {{ Math.ceil(needed / MOST_ML) }}.</p>
      <p v-else-if="isShort" class="short" role="status" data-test="wont-last">
        It won’t last{{ pile.stages.length > 0 ? ': mix more before it is gone' : ` as it is planned (${mlText(pile.ml)})` }}.
        <button v-if="pile.stages.length === 0" type="button" class="link-key" data-test="make-enough" @click="enough">
          Make it enough
        </button>
      </p>
      <div class="pair">
        <Pick
          :model-value="passage.open ?? 0"
          :options="OPEN"
          label="left open"
          data-test="left-open"
          @update:model-value="withPart({ open: $event })"
        />
        <Pick
          :model-value="passage.heldBack ?? 0"
          :options="HELD"
          label="held back"
          data-test="held-back"
          @update:model-value="withPart({ heldBack: $event })"
        />
        <v-btn variant="text" @click="keep(undefined)">Not said</v-btn>
      </div>
    </template>
    <Sheet v-model="drawing" label="Draw round what it is for" wide>
      <Outline v-if="drawing" :already="passage?.outline ?? []" @drawn="drawn" @close="drawing = false" />
    </Sheet>
  </section>
</template>

<style scoped>
.asks {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: calc(3 * var(--unit));
  align-items: end;
}
.enough strong {
  font-size: var(--size-lead);
}
.short {
  border-left: 4px solid currentColor;
  padding-left: calc(2 * var(--unit));
  font-weight: 700;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
}
</style>
