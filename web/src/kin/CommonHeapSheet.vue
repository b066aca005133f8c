<script setup lang="ts">
import { COMMON_HEAP, colourName, commonHeapMl, mlText, shareOfPile, withPileRenamed, type CommonHeap } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';
import { computed } from 'vue';
import { counted } from '../floor/words.ts';
import Sheet from '../controls/Sheet.vue';
import { usePiles } from '../stores/piles.ts';
import TurnedPiles from './TurnedPiles.vue';
import { useLeftAlone } from './useLeftAlone.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { useWhite } from '../floor/white.ts';
import { newId } from '../floor/ids.ts';

/** One heap for several planned piles: what it is, and what each pile becomes with it. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ common: CommonHeap }>();
const piles = usePiles();
const white = useWhite();
const { short, shortWith } = useKnown();

const { isIn, toggle } = useLeftAlone([open, () => props.common]);
const name = computed(() => `${colourName(props.common.lab)} for ${chosen.value.length}`);
const heap = computed(() => new Map([[COMMON_HEAP, { name: colourName(props.common.lab), mixture: props.common.mixture }]]));
const rows = computed(() =>
  piles.byValue.flatMap((pile) => {
    const recipe = props.common.piles.find((one) => one.id === pile.id)?.recipe;
    if (!recipe) return [];
    const note = shortWith(recipe.mixture, heap.value, pile.ml);
    return [{ pile, lab: recipe.lab, isIn: isIn(pile.id), note, recipe }];
  }),
);
const chosen = computed(() => rows.value.filter(({ isIn }) => isIn));
const ml = computed(() =>
  commonHeapMl(chosen.value.reduce((sum, { pile, recipe }) => sum + pile.ml * shareOfPile(recipe.mixture, COMMON_HEAP), 0)),
);

async function keep(): Promise<void> {
  const heapId = newId();
  const { paintingId, layer } = chosen.value[0]!.pile;
  const ops: Operation[] = [
    {
      do: 'pile.add',
      id: heapId,
      ...(paintingId !== null && { paintingId }),
      name: name.value,
      target: { kind: 'absolute', lab: labDto(props.common.lab) },
      plan: mixtureSent(props.common.mixture),
      ml: ml.value,
      layer,
    },
    ...chosen.value.map(({ pile, recipe }): Operation => ({
      do: 'pile.change',
      id: pile.id,
      version: pile.version,
      plan: mixtureSent(withPileRenamed(recipe.mixture, COMMON_HEAP, heapId)),
    })),
  ];
  if (await piles.make(ops, `One ${name.value} of these piles`)) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`One ${name} of these piles`" wide judging>
    <h2>One {{ name }} of these piles</h2>
    <p class="heap">
      <span class="chip" :style="{ background: white.shown(common.lab).css }" />
      <span class="figures"
        ><b>{{ short(common.mixture, ml) }}</b
        ><br />{{ mlText(ml) }}, mixed first; then each takes from it. {{ counted(common.saved, 'thing') }} fewer to measure.</span
      >
    </p>
    <p class="quiet">As they are planned, and as they become. Press the ones that are to stay as they are.</p>
    <TurnedPiles :rows="rows" says="take from it" @toggle="toggle" />
    <div class="foot-keys">
      <v-btn @click="open = false">Not now</v-btn>
      <button type="button" class="main-key" :disabled="chosen.length < 2" data-test="keep-common" @click="keep">Mix it for them</button>
    </div>
  </Sheet>
</template>

<style scoped>
.heap {
  display: flex;
  gap: calc(3 * var(--unit));
  align-items: center;
  margin: calc(3 * var(--unit)) 0;
  line-height: 1.4;
}
.chip {
  flex: none;
  width: 112px;
  height: 72px;
}
</style>
