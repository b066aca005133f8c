<script setup lang="ts">
import { closeness, type Lab } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labOfDto, mixtureSent } from '@dusk/wire/written';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { counted } from '../floor/words.ts';
import Sheet from '../controls/Sheet.vue';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import type { Proposal } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePalettes } from '../stores/palettes.ts';
import { useSettings } from '../stores/settings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useKnown } from '../recipe/useKnown.ts';
import { useWhite } from '../floor/white.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';

/**
 * The painting's piles from another palette: two palettes beside one another on the same colours, each with
 * how near it comes; what is still to be mixed is taken over in one step.
 */
const open = defineModel<boolean>({ required: true });
const piles = usePiles();
const desk = useDesk();
const palettes = usePalettes();
const settings = useSettings();
const white = useWhite();
const { short } = useKnown();

type Side = 'one' | 'other';
const SIDES: readonly Side[] = ['one', 'other'];
const chosen = ref<Record<Side, string>>({ one: '', other: '' });
/** Recipes by palette and pile, as they are found. */
const found = shallowRef<ReadonlyMap<string, Proposal>>(new Map());
/** What a recipe was found for: as the palette and the pile stand now. */
const keyOf = (paletteId: string, pile: PileDto): string =>
  `${paletteId} ${palettes.byId.get(paletteId)?.version} ${pile.id} ${pile.version}`;
const wantedOf = (pile: PileDto): Lab => (pile.target ? labOfDto(pile.target.lab) : lookNow(pile));
/** What may be made anew is what is planned; where nothing is, all of them are compared. */
const rows = computed(() => piles.byValue.filter(({ stages }) => stages.length === 0));
const shown = computed(() => (rows.value.length > 0 ? rows.value : piles.ofRank));

let asking: AbortController | undefined;
const clear = (): void => asking?.abort();
onScopeDispose(clear);
// Opened by its address it is there before the palette is.
watch(
  [open, () => desk.palette?.id] as const,
  ([isOpen, paletteId], [wasOpen]) => {
    if (!isOpen) clear();
    else if (!wasOpen || chosen.value.one === '') chosen.value = { one: paletteId ?? '', other: wasOpen ? chosen.value.other : '' };
  },
  { immediate: true },
);
watch(
  [open, () => SIDES.flatMap((side) => shown.value.map((pile) => keyOf(chosen.value[side], pile))).join()] as const,
  async ([isOpen]) => {
    clear();
    if (!isOpen) return;
    const own = (asking = new AbortController());
    for (const side of SIDES) {
      const palette = palettes.byId.get(chosen.value[side]);
      if (!palette || palette.tubeIds.length === 0) continue;
      const laid = await desk.layTubes(palette.tubeIds, own.signal);
      if (!laid) return;
      await ask(laid, palette.id, own.signal);
      engine().clear(laid);
      if (own.signal.aborted) return;
    }
  },
  { immediate: true },
);
async function ask(laid: Desk, paletteId: string, signal: AbortSignal): Promise<void> {
  for (const pile of shown.value) {
    const key = keyOf(paletteId, pile);
    if (found.value.has(key)) continue;
    const wishes = { amountMl: pile.ml, alternatives: 0, dulling: settings.settings.dulling };
    const answer = await unlessGivenUp(engine().ask('solve', { target: wantedOf(pile), wishes }, { signal, desk: laid }));
    if (signal.aborted) return;
    if (answer?.proposals[0]) found.value = new Map([...found.value, [key, answer.proposals[0]]]);
  }
}

const optionsOf = (side: Side): { value: string; title: string }[] => [
  ...(side === 'other' ? [{ value: '', title: 'no other' }] : []),
  ...named(palettes.all),
];
const proposalOf = (side: Side, pile: PileDto): Proposal | undefined => found.value.get(keyOf(chosen.value[side], pile));
const isCurrent = computed(() => chosen.value.one === desk.palette?.id);
/** What is taken over: everything the palette strands, or all that is planned where it strands nothing. */
const taken = computed(() => {
  const stranded = rows.value.filter(({ id }) => piles.stranded.has(id));
  return stranded.length > 0 ? stranded : rows.value;
});
const isReady = computed(() => isCurrent.value && taken.value.length > 0 && taken.value.every((pile) => proposalOf('one', pile)));
async function take(): Promise<void> {
  const ops = taken.value.map((pile): Operation => ({
    do: 'pile.change',
    id: pile.id,
    version: pile.version,
    plan: mixtureSent(proposalOf('one', pile)!.mixture),
  }));
  if (await piles.make(ops, `${counted(ops.length, 'pile')} remade from “${desk.palette!.name}”`)) open.value = false;
}
const TITLES: Readonly<Record<Side, string>> = { one: 'from', other: 'beside' };
</script>

<template>
  <Sheet v-model="open" label="These piles from another palette" wide judging>
    <h2>These piles from another palette</h2>
    <table>
      <thead>
        <tr>
          <th scope="col">wanted</th>
          <th v-for="side in SIDES" :key="side" scope="col">
            <Pick v-model="chosen[side]" :options="optionsOf(side)" :label="TITLES[side]" :data-test="`palette-${side}`" />
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="pile in shown" :key="pile.id" data-test="remade-row">
          <th scope="row">
            <span class="chip" :style="{ background: white.shown(wantedOf(pile)).css }" />
            <span
              >{{ pile.name
              }}<small v-if="piles.stranded.has(pile.id)" class="quiet"> · {{ piles.stranded.get(pile.id)!.join(', ') }} gone</small></span
            >
          </th>
          <td v-for="side in SIDES" :key="side">
            <template v-if="chosen[side]">
              <template v-if="proposalOf(side, pile)">
                <span class="chip" :style="{ background: white.shown(proposalOf(side, pile)!.lab).css }" />
                <span class="figures"
                  ><b>{{ closeness(proposalOf(side, pile)!.deltaE00) }}</b>
                  <small class="quiet">{{ short(proposalOf(side, pile)!.mixture, pile.ml) }}</small></span
                >
              </template>
              <span v-else class="quiet">…</span>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length === 0" class="quiet">All of them are mixed already: this only compares.</p>
    <p v-else-if="!isCurrent" class="quiet">Put that palette on the easel to take these over.</p>
    <div class="foot-keys">
      <v-btn @click="open = false">Not now</v-btn>
      <button v-if="rows.length > 0" type="button" class="main-key" :disabled="!isReady" data-test="remake-all" @click="take">
        Remake {{ counted(taken.length, 'pile') }}
      </button>
    </div>
  </Sheet>
</template>

<style scoped>
table {
  width: 100%;
  border-spacing: 0 var(--unit);
  margin: calc(2 * var(--unit)) 0;
}
th,
td {
  text-align: left;
  vertical-align: middle;
  font-weight: 400;
  padding-right: calc(2 * var(--unit));
}
tbody th,
tbody td {
  line-height: 1.2;
}
.chip {
  float: left;
  width: 56px;
  height: 48px;
  margin-right: calc(2 * var(--unit));
}
small {
  display: block;
  font-size: var(--size-note);
}
th label {
  display: flex;
  align-items: baseline;
  gap: calc(2 * var(--unit));
}
</style>
