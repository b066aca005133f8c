<script setup lang="ts">
import { CraftError, PART_WORDS, type Leaf } from '@dusk/core';
import type { Operation } from '@dusk/wire';
import { mixtureDto, mixtureSent } from '@dusk/wire/written';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useTubes } from '../stores/tubes.ts';
import { mixAsPlanned } from '../recipe/deeds.ts';
import { handlingOf, sourceName } from '../recipe/handling.ts';
import { ingredientsOf, saysSize, UNITS, type LoggedLine, type Unit } from '../recipe/logged.ts';
import { usePiles } from '../stores/piles.ts';
import Sheet from '../controls/Sheet.vue';
import { newId } from '../floor/ids.ts';
import Pick from '../controls/Pick.vue';

/** A pile that was mixed without the product: its tubes or piles, in parts, beads, grams or words. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const paintings = usePaintings();
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();

interface Row {
  readonly key: string;
  amount: string;
}
const unit = ref<Unit>('words');
const name = ref('');
const ml = ref('4');
const rows = ref<Row[]>([]);
const failure = ref('');
watch(open, () => {
  rows.value = [];
  name.value = failure.value = '';
});

const sources = computed(() => [
  ...desk.paletteTubes.map((t) => ({ key: `tube ${t.id}`, source: { tube: t.id, state: t.stateId } as Leaf })),
  ...piles.list
    .filter((p) => p.there > 0)
    .map((p) => ({ key: `pile ${p.id}`, source: { pile: p.id, stage: p.stages.at(-1)!.id } as Leaf })),
]);
const sourceOf = (key: string): Leaf => sources.value.find((s) => s.key === key)!.source;
const nameOf = (source: Leaf): string => sourceName(source, tubes.byId, piles.byId);
const left = computed(() => sources.value.filter((s) => rows.value.every((r) => r.key !== s.key)));
const lines = computed((): LoggedLine[] => rows.value.map(({ key, amount }) => ({ source: sourceOf(key), amount, unit: unit.value })));
const add = (key: string): void =>
  void rows.value.push({ key, amount: unit.value === 'words' ? 'some' : unit.value === 'parts' ? '1' : '' });
watch(unit, (u) => rows.value.forEach((row) => (row.amount = u === 'words' ? 'some' : u === 'parts' ? '1' : '')));

async function log(): Promise<void> {
  failure.value = '';
  try {
    const ingredients = ingredientsOf(lines.value, handlingOf(tubes.byId));
    const size = saysSize(lines.value) ? ingredients.reduce((sum, { parts }) => sum + parts, 0) : Number(ml.value.replace(',', '.'));
    if (!(size >= 0.1 && size <= 500)) throw new CraftError('input', 'A pile is 0.1 to 500 ml.');
    const id = newId();
    const plan = mixtureDto({ heaps: [{ ingredients }] });
    const paintingId = paintings.onEasel!.id;
    const called = name.value.trim() || 'mixed by eye';
    const added: Operation = { do: 'pile.add', id, paintingId, name: called, plan: mixtureSent(plan), ml: size };
    const asMixed = mixAsPlanned({ id, paintingId, name: called, plan, ml: size }, 'parts', tubes.byId, piles.byId);
    if (!(await piles.make([added, ...asMixed], `Logged “${called}”`))) return;
    open.value = false;
    await router.push({ name: 'mixing', params: { paintingId, pileId: id } });
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    failure.value = cause.message;
  }
}
</script>

<template>
  <Sheet v-model="open" label="A pile I mixed myself" wide>
    <form @submit.prevent="log">
      <h2>I mixed one myself</h2>
      <p class="quiet">What went in, as well as you remember it. Words stay uncertain, and the pile says so.</p>
      <label class="name">Name <input v-model="name" maxlength="80" placeholder="mixed by eye" /></label>
      <div class="units" role="radiogroup" aria-label="Measured in">
        <label v-for="u in UNITS" :key="u"
          ><input v-model="unit" type="radio" :value="u" /> {{ u === 'mm' ? 'beads, mm' : u === 'g' ? 'grams' : u }}</label
        >
      </div>
      <ul class="bare">
        <li v-for="(row, i) in rows" :key="row.key" class="row">
          <span>{{ nameOf(sourceOf(row.key)) }}</span>
          <Pick
            v-if="unit === 'words'"
            v-model="row.amount"
            :options="PART_WORDS.map((word) => ({ value: word as string, title: word }))"
            :aria-label="`How much ${nameOf(sourceOf(row.key))}`"
          />
          <input v-else v-model="row.amount" inputmode="decimal" :aria-label="`How much ${nameOf(sourceOf(row.key))}`" />
          <button type="button" class="link-key" :aria-label="`Without ${nameOf(sourceOf(row.key))}`" @click="rows.splice(i, 1)">
            without
          </button>
        </li>
      </ul>
      <div class="sources" role="group" aria-label="What went in">
        <button v-for="s in left" :key="s.key" type="button" class="source" @click="add(s.key)">{{ nameOf(s.source) }}</button>
      </div>
      <label v-if="!saysSize(lines) || lines.length === 0" class="name">How large, ml <input v-model="ml" inputmode="decimal" /></label>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <div class="foot">
        <button type="button" class="link-key" @click="open = false">Not now</button>
        <button type="submit" class="main-key" :disabled="rows.length === 0">It lies on the palette</button>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
form {
  display: grid;
  gap: calc(3 * var(--unit));
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  gap: calc(3 * var(--unit));
  align-items: center;
  min-height: 48px;
}
input:not([type='radio']) {
  min-height: 44px;
  padding: 0 calc(2 * var(--unit));
  color: inherit;
  border-bottom: 1px solid currentColor;
}
.name {
  display: flex;
  gap: calc(3 * var(--unit));
  align-items: center;
}
.units,
.sources,
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit)) calc(4 * var(--unit));
  align-items: center;
}
.units label {
  min-height: 44px;
  display: flex;
  gap: calc(2 * var(--unit));
  align-items: center;
}
.source {
  min-height: 44px;
  padding: 0 calc(4 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 4px;
}
.failure {
  font-weight: 700;
}
.foot {
  justify-content: flex-end;
}
</style>
