<script setup lang="ts">
import { isPile, leavesOf, valueOfLightness, wordForParts } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import { useWhite } from '../floor/white.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { tubesIn } from './kin.ts';
import { lookNow, usePiles } from '../stores/piles.ts';

/** The family a pile belongs to: its mothers above, its children below with what each takes beside it; and the tubes it comes to. */
const white = useWhite();
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const desk = useDesk();
const tubes = useTubes();
const settings = useSettings();

interface Line {
  readonly pile: PileDto;
  readonly depth: number;
  readonly takes: string;
}
const nameOf = (id: string): string => tubes.byId.get(id)?.name ?? piles.byId.get(id)?.name ?? 'something that is gone';

/** What a pile takes beside one of its mothers. */
function beside(child: PileDto, motherId: string): string {
  const shares = new Map<string, number>();
  for (const { source, share } of leavesOf(child.plan)) {
    const id = isPile(source) ? source.pile : source.tube;
    if (id !== motherId) shares.set(id, (shares.get(id) ?? 0) + share);
  }
  const all = [...shares].sort((a, b) => b[1] - a[1]).map(([id, share]) => `${wordForParts(OF_TWELVE * share)} ${nameOf(id)}`);
  return all.length > 0 ? `with ${all.join(', ')}` : '';
}

/** Words for amounts are told of a pile of so many parts. */
const OF_TWELVE = 12;
const MOST_DEEP = 12;
const lines = computed((): readonly Line[] => {
  const list: Line[] = [];
  const known = new Set<string>();
  const tops: string[] = [];
  const up = (id: string, deep: number): void => {
    const mothers = deep > MOST_DEEP ? [] : piles.mothersOf(id).filter((mother) => piles.byId.has(mother));
    if (mothers.length === 0 && !tops.includes(id)) tops.push(id);
    for (const mother of mothers) up(mother, deep + 1);
  };
  up(props.pile.id, 0);
  const down = (id: string, depth: number, from?: string): void => {
    const pile = piles.byId.get(id)!;
    list.push({ pile, depth, takes: from === undefined ? '' : beside(pile, from) });
    // Where a child has two mothers it stands under both; its own children once.
    if (known.has(id) || depth > MOST_DEEP) return;
    known.add(id);
    for (const child of piles.childrenOf(id)) down(child.id, depth + 1, id);
  };
  for (const top of tops) down(top, 0);
  return list;
});
const flat = computed(() => {
  const own = props.pile.stages.length > 0 ? Object.entries(desk.flatOfPile(props.pile.id)) : tubesIn(props.pile.plan, desk.flatOfPile);
  return [...own].sort((a, b) => b[1] - a[1]).map(([id, share]) => `${(100 * share).toFixed(1)} % ${nameOf(id)}`);
});
const value = (pile: PileDto): string => settings.valueText(valueOfLightness(lookNow(pile)[0]));
</script>

<template>
  <section aria-label="Family">
    <h2>{{ lines.length > 1 ? 'Mixed from one another' : 'Nothing is mixed from it yet' }}</h2>
    <ul v-if="lines.length > 1" class="bare" data-test="family">
      <li v-for="(line, i) in lines" :key="`${line.pile.id} ${i}`" :style="{ '--depth': Math.min(5, line.depth) }">
        <RouterLink
          class="line"
          :class="{ own: line.pile.id === pile.id }"
          :aria-current="line.pile.id === pile.id ? 'true' : undefined"
          :to="{ name: 'mixing', params: { paintingId: line.pile.paintingId, pileId: line.pile.id } }"
        >
          <span class="chip" :style="{ background: white.shown(lookNow(line.pile)).css }" />
          <span class="figures"
            ><b>{{ value(line.pile) }}</b> {{ line.pile.name }}<br v-if="line.takes" /><span class="quiet takes">{{
              line.takes
            }}</span></span
          >
        </RouterLink>
      </li>
    </ul>
    <details class="figures flat">
      <summary>in tubes</summary>
      <span data-test="flat">{{ flat.join(', ') }}</span>
    </details>
  </section>
</template>

<style scoped>
li {
  padding-left: calc(var(--depth) * 22px);
  position: relative;
}
/* A line from the mother down to each child. */
li:not([style*='--depth: 0'])::before {
  content: '';
  position: absolute;
  left: calc(var(--depth) * 22px - 12px);
  top: 0;
  height: 50%;
  width: 10px;
  border-left: 1px solid var(--surround-soft);
  border-bottom: 1px solid var(--surround-soft);
}
.line {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr);
  gap: calc(2 * var(--unit));
  align-items: center;
  min-height: 44px;
  color: inherit;
  text-decoration: none;
  line-height: 1.15;
}
.own {
  font-weight: 700;
}
.chip {
  height: 30px;
}
.takes {
  font-size: var(--size-note);
  font-weight: 400;
}
.flat {
  font-size: var(--size-note);
  margin-top: calc(2 * var(--unit));
}
</style>
