<script setup lang="ts">
import { labToLch, type Lab } from '@dusk/core';
import { computed } from 'vue';
import type { MadeChip, MadeSheet } from '../engine/rack.ts';
import { useWhite } from '../floor/white.ts';

/** What tubes make, chip by chip: hue across, strength or value down. A press takes one. */
const props = defineProps<{
  sheet: MadeSheet;
  label: string;
  /** What each chip is made of, in words. */
  says: (chip: MadeChip) => string;
  rowSays: (step: number) => string;
  /** A colour that is sought: the chips near it stand out. */
  near?: readonly Lab[];
  /** Another sheet of the same kind that lies beside: both have the same rows and columns. */
  beside?: MadeSheet;
}>();
const emit = defineEmits<{ over: [chip: MadeChip]; take: [chip: MadeChip] }>();
const white = useWhite();

const all = computed(() => [...props.sheet.chips, ...(props.beside?.chips ?? [])]);
/** The strongest row is at the top; rows above what is made are left out. */
const rows = computed(() => {
  const used = all.value.map(({ row }) => row);
  if (used.length === 0) return [];
  const [from, to] = [Math.min(...used), Math.max(...used)];
  const list = Array.from({ length: to - from + 1 }, (_, i) => from + i);
  return props.sheet.by === 'strength' ? list.reverse() : list;
});
const columns = computed(() => {
  const used = new Set(all.value.map(({ column }) => column));
  const [from, to] = [Math.min(...used), Math.max(...used)];
  return used.size === 0 ? [] : Array.from({ length: to - from + 1 }, (_, i) => from + i);
});
const at = computed(() => new Map(props.sheet.chips.map((chip) => [`${chip.row} ${chip.column}`, chip])));
const isNear = (chip: MadeChip): boolean =>
  props.near?.some((lab) => Math.hypot(lab[0] - chip.lab[0], lab[1] - chip.lab[1], lab[2] - chip.lab[2]) < 5) ?? false;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
};
/** By arrows from chip to chip, past cells that nothing makes. */
function go(event: KeyboardEvent, row: number, column: number): void {
  const by = ARROWS[event.key];
  if (!by) return;
  event.preventDefault();
  const [down, right] = by;
  for (let i = rows.value.indexOf(row) + down, j = columns.value.indexOf(column) + right; ; i += down, j += right) {
    const [r, c] = [rows.value[i], columns.value[j]];
    if (r === undefined || c === undefined) return;
    const next = at.value.get(`${r} ${c}`);
    if (!next) continue;
    const grid = (event.currentTarget as HTMLElement).closest('.chips');
    grid?.querySelector<HTMLElement>(`[data-place="${r} ${c}"]`)?.focus();
    return;
  }
}
/** Hues as painters say them, under their columns. */
const FEW_HUES: Readonly<Record<string, string>> = {
  orange: 'red',
  leaf: 'green',
  sea: 'green',
  turquoise: 'blue',
  sky: 'blue',
  purple: 'violet',
  rose: 'violet',
};
const HUES = ['red', 'orange', 'yellow', 'leaf', 'green', 'sea', 'turquoise', 'sky', 'blue', 'violet', 'purple', 'rose'] as const;
const hueOf = (column: number): string => {
  const one = all.value.find((chip) => chip.column === column);
  const hue = one ? labToLch(one.lab)[2] : (column * 360) / props.sheet.columns;
  const word = HUES[Math.floor((((hue - 15 + 360) % 360) / 360) * HUES.length)]!;
  return props.beside ? (FEW_HUES[word] ?? word) : word;
};
const underneath = computed(() => {
  let last = '';
  return columns.value.map((column) => {
    const own = hueOf(column);
    const said = own === last ? '' : own;
    last = own;
    return said;
  });
});
</script>

<template>
  <div
    class="chips judging figures"
    role="group"
    :aria-label="label"
    :style="{ '--columns': columns.length, '--rows': rows.length }"
    data-test="chips"
  >
    <template v-for="row in rows" :key="row">
      <span class="side">{{ rowSays(sheet.steps[row]!) }}</span>
      <template v-for="column in columns" :key="column">
        <button
          v-if="at.get(`${row} ${column}`)"
          type="button"
          class="chip"
          :class="{ near: isNear(at.get(`${row} ${column}`)!) }"
          :data-place="`${row} ${column}`"
          data-chip="made"
          :style="{ background: white.shown(at.get(`${row} ${column}`)!.lab).css }"
          :aria-label="says(at.get(`${row} ${column}`)!)"
          :title="says(at.get(`${row} ${column}`)!)"
          @pointerenter="emit('over', at.get(`${row} ${column}`)!)"
          @focus="emit('over', at.get(`${row} ${column}`)!)"
          @keydown="go($event, row, column)"
          @click="emit('take', at.get(`${row} ${column}`)!)"
        />
        <span v-else />
      </template>
    </template>
    <span />
    <span v-for="(said, i) in underneath" :key="i" class="under">{{ said }}</span>
  </div>
</template>

<style scoped>
.chips {
  display: grid;
  grid-template-columns: 44px repeat(var(--columns), minmax(0, 1fr));
  gap: 2px;
  padding: calc(3 * var(--unit));
}
.chip {
  min-width: 0;
  height: clamp(15px, calc((100dvh - var(--beside, 560px)) / var(--rows)), 42px);
  padding: 0;
  border: 0;
  cursor: pointer;
}
.chip:hover,
.chip:focus-visible,
.near {
  outline: 2px solid var(--surround-ink);
  outline-offset: 0;
  position: relative;
}
.side {
  align-self: center;
  font-size: var(--size-note);
  text-align: right;
  padding-right: var(--unit);
}
.under {
  font-size: var(--size-note);
  white-space: nowrap;
}
@media (orientation: portrait) {
  .chips {
    --beside: 780px;
  }
}
@media (pointer: coarse) {
  .chip {
    height: clamp(28px, calc((100dvh - var(--beside, 560px)) / var(--rows)), 44px);
  }
}
@media (max-width: 600px) {
  .chips {
    grid-template-columns: 30px repeat(var(--columns), minmax(0, 1fr));
    padding: var(--unit);
    gap: 1px;
  }
  .under {
    writing-mode: vertical-rl;
  }
}
</style>
