<script setup lang="ts">
import { masstoneOf } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import type { Remade } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePiles } from '../stores/piles.ts';
import RemakeSheet from './RemakeSheet.vue';
import { newId } from '../floor/ids.ts';

/** The colour of a pile as it is now, mixed anew. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ pile: PileDto }>();
const router = useRouter();
const desk = useDesk();
const piles = usePiles();
const original = computed(() => desk.paintOfPile(props.pile.id));

async function take(remade: Remade): Promise<boolean> {
  const { id: remakeOfId, name, paintingId, ml, purpose, layer } = props.pile;
  const id = newId();
  const kept = await piles.make(
    [
      {
        do: 'pile.add',
        id,
        remakeOfId,
        ...(paintingId !== null && { paintingId }),
        name: `${name}, remade`.slice(0, 80),
        target: { kind: 'absolute', lab: labDto(masstoneOf(original.value)) },
        plan: mixtureSent(remade.mixture),
        ml,
        layer,
        purpose: { ...(purpose.thing && { thing: purpose.thing }), ...(purpose.zone && { zone: purpose.zone }) },
      },
    ],
    `“${name}” is to be remade`,
  );
  if (kept) await router.push({ name: 'mixing', params: { paintingId, pileId: id } });
  return kept;
}
</script>

<template>
  <RemakeSheet :id="pile.id" v-model="open" :name="pile.name" :paint="original" :ml="pile.ml" :on-taken="take" />
</template>
