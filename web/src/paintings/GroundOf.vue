<script setup lang="ts">
import { labOf, labToHex, washOver, WIPED, type Wiped } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, ref, watch } from 'vue';
import Dabs from '../chips/Dabs.vue';
import Choice from '../controls/Choice.vue';
import type { Tube } from '../stores/tubes.ts';

/** A ground that is made of a tube: a wash of it over white priming, wiped back so far. Each is shown as it comes out. */
const props = defineProps<{ tubes: readonly Tube[]; groundOf: PaintingDto['groundOf'] }>();
const emit = defineEmits<{ made: [made: { ground: string; groundOf: { tubeId: string; wiped: Wiped } }] }>();

const wiped = ref<Wiped>('wiped back');
watch(
  () => props.groundOf,
  (now) => now && (wiped.value = now.wiped),
  { immediate: true },
);
const colourOf = ({ paint }: Tube): string => labToHex(labOf(washOver(paint, wiped.value)));
const washes = computed(() =>
  props.tubes.map((tube) => ({
    value: tube.id,
    colour: colourOf(tube),
    title: tube.name,
    label: `a wash of ${tube.name}`,
    test: 'wash-of',
  })),
);
const WIPINGS = WIPED.map((value) => ({ value, title: value }));

function make(tube: Tube): void {
  emit('made', { ground: colourOf(tube), groundOf: { tubeId: tube.id, wiped: wiped.value } });
}
function makeOf(tubeId: string | undefined): void {
  const tube = props.tubes.find(({ id }) => id === tubeId);
  if (tube) make(tube);
}
function wipe(next: Wiped): void {
  wiped.value = next;
  makeOf(props.groundOf?.tubeId);
}
</script>

<template>
  <div class="stack-close">
    <p class="quiet">a wash of</p>
    <Dabs class="washes judging" :model-value="groundOf?.tubeId" :dabs="washes" @update:model-value="makeOf" />
    <Choice :model-value="wiped" label="and then" :items="WIPINGS" @update:model-value="wipe" />
  </div>
</template>

<style scoped>
.washes {
  padding: var(--unit);
}
</style>
