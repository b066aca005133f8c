<script setup lang="ts">
import { mdiCheck, mdiClose, mdiHandBackRightOutline } from '@mdi/js';
import type { Passage } from '../stores/log.ts';
import { answerOf, type Mark } from './answers.ts';

/** Areas, and whether each may be painted over at the moments that are asked about. */
defineProps<{ passages: readonly Passage[]; moments: readonly { readonly name: string }[]; chosen?: string | undefined }>();
const emit = defineEmits<{ choose: [areaId: string] }>();
const MARKS: Readonly<Record<Mark, string>> = { yes: mdiCheck, touch: mdiHandBackRightOutline, no: mdiClose };
</script>

<template>
  <table class="board">
    <thead>
      <tr>
        <th scope="col">May I paint over it?</th>
        <th v-for="moment in moments" :key="moment.name" scope="col">{{ moment.name }}</th>
        <th scope="col">dry</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="{ area, answers, dries } in passages"
        :key="area.id"
        :class="{ chosen: area.id === chosen }"
        data-test="passage"
        @click="emit('choose', area.id)"
      >
        <th scope="row">
          <button type="button" :aria-pressed="area.id === chosen" class="name" :data-area="area.name">{{ area.name }}</button>
        </th>
        <td v-for="{ name, may } in answers" :key="name" :class="answerOf(may).mark" :title="answerOf(may).means" data-test="answer">
          <v-icon :icon="MARKS[answerOf(may).mark]" size="20" aria-hidden="true" /> {{ answerOf(may).word }}
        </td>
        <td class="figures dries">{{ dries || '–' }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.board {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
}
thead th {
  padding: 0 calc(2 * var(--unit)) calc(2 * var(--unit)) 0;
  font-size: var(--size-note);
}
tbody tr {
  border-top: 1px solid rgba(var(--v-theme-on-background), 0.3);
  cursor: pointer;
}
td,
tbody th {
  padding: 0 calc(3 * var(--unit)) 0 0;
  height: 56px;
}
.name {
  min-height: 56px;
  padding-left: calc(2 * var(--unit));
  text-align: left;
  font-size: var(--size-lead);
}
.chosen {
  background: rgba(var(--v-theme-on-background), 0.1);
}
.chosen .name {
  font-weight: 700;
}
.yes {
  font-weight: 700;
}
.no {
  opacity: 0.85;
}
.dries {
  font-size: var(--size-note);
}
</style>
