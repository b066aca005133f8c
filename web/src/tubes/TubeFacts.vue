<script setup lang="ts">
import type { Needs, Operation } from '@dusk/wire';
import Field from '../controls/Field.vue';
import Pick from '../controls/Pick.vue';
import { useStudio } from '../studio/useStudio.ts';
import type { Tube } from '../stores/tubes.ts';

/** What is said of one's own tube: all of it may be left out, and is then as its pigment usually is. */
const props = defineProps<{ tube: Tube }>();
const studio = useStudio();
type Part = Omit<Needs<'tube.change'>, 'id' | 'version'>;
function change(part: Part): void {
  const op: Operation = { do: 'tube.change', id: props.tube.id, version: props.tube.version, ...part };
  void studio.make([op], `Changed “${props.tube.name}”`);
}
/** A figure as it is typed; nothing for what is empty or none. */
const figure = (text: string): number | null => {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
};
function keep(field: 'sizeMl' | 'leftMl' | 'density', text: string): void {
  const value = figure(text);
  if (value !== props.tube[field]) change({ [field]: value } as Part);
}
function keepText(field: 'maker' | 'note' | 'caution', text: string): void {
  if (text.trim() === (field === 'caution' ? (props.tube.own.includes('caution') ? props.tube.caution : '') : props.tube[field])) return;
  change({ [field]: field === 'caution' && text.trim() === '' ? null : text.trim() } as Part);
}
const DRYING = [
  { value: 'fast' as const, title: 'fast' },
  { value: 'medium' as const, title: 'neither fast nor slow' },
  { value: 'slow' as const, title: 'slowly' },
];
const LIGHT = (['I', 'II', 'III', 'IV'] as const).map((value) => ({
  value,
  title: { I: 'holds its colour', II: 'holds it well', III: 'fades in time', IV: 'fades soon' }[value],
}));
const text = (event: Event): string => (event.target as HTMLInputElement).value;
</script>

<template>
  <details class="facts">
    <summary>Size, what is left, drying, cautions</summary>
    <div class="fields">
      <Field :model-value="tube.maker" label="Maker" maxlength="80" @change="keepText('maker', text($event))" />
      <Field :model-value="String(tube.sizeMl ?? '')" label="Size, ml" inputmode="decimal" @change="keep('sizeMl', text($event))" />
      <Field :model-value="String(tube.leftMl ?? '')" label="Left in it, ml" inputmode="decimal" @change="keep('leftMl', text($event))" />
      <Pick :model-value="tube.drying" :options="DRYING" label="dries" @update:model-value="$event && change({ drying: $event })" />
      <Pick
        :model-value="tube.lightfastness"
        :options="LIGHT"
        label="in light"
        @update:model-value="$event && change({ lightfastness: $event })"
      />
      <Field
        :model-value="tube.own.includes('caution') ? tube.caution : ''"
        label="A caution on its label"
        maxlength="80"
        @change="keepText('caution', text($event))"
      />
      <Field class="wide" :model-value="tube.note" label="Note" maxlength="2000" @change="keepText('note', text($event))" />
    </div>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  cursor: pointer;
  font-size: var(--size-lead);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: calc(3 * var(--unit)) calc(5 * var(--unit));
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
</style>
