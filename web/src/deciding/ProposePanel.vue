<script setup lang="ts">
import { FEWEST_PROPOSED, MOST_PROPOSED } from '@dusk/core';
import { computed, onMounted, ref } from 'vue';
import { counted } from '../floor/words.ts';
import { useWhite } from '../floor/white.ts';
import { ofValueAlone, useToPaint } from '../picture/toPaint.ts';
import { useLooking } from '../stores/looking.ts';
import { useManyPiles } from '../stores/manyPiles.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useProposals } from '../stores/proposals.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import { useSettings } from '../stores/settings.ts';
import { saysOf } from './said.ts';

/** The few colours of the picture that matter, proposed: taken, moved or refused, and those that are taken become piles in one step. */
const proposals = useProposals();
const reference = useReference();
const samples = useSamples();
const settings = useSettings();
const paintings = usePaintings();
const looking = useLooking();
const white = useWhite();
const toPaint = useToPaint();
const many = useManyPiles();

onMounted(() => {
  if (proposals.list.length === 0) void proposals.look();
});
const rows = computed(() =>
  proposals.list.map((one) => ({
    ...one,
    css: white.shown(one.lab).css,
    says: saysOf(one, settings),
    share: one.share < 0.01 ? 'under 1 %' : `${Math.round(100 * one.share)} %`,
  })),
);
const taken = computed(() => proposals.list.filter(({ isRefused }) => !isRefused));
function count(by: 1 | -1): void {
  proposals.most = Math.min(MOST_PROPOSED, Math.max(FEWEST_PROPOSED, proposals.most + by));
  void proposals.look();
}

/** What is to be known of the picture's ends before anything is mixed. */
const ends = computed(() => {
  const said = proposals.ends();
  if (!said) return [];
  return [
    ...(said.noTrueDark
      ? [
          'It has no true dark: nothing in it is near the darkest that this palette mixes. Say where yours will be, and judge the rest by it.',
        ]
      : []),
    ...(said.isUsedUp ? ['Its things are as light as paint gets already: nothing is left for the highlights. Key holds some back.'] : []),
    ...(said.noTrueLight ? ['Nothing in it is light: tube white is for a highlight here, if for anything.'] : []),
  ];
});

const once = ref(true);
const isKeeping = ref(false);
let keeping: AbortController | undefined;
async function keep(): Promise<void> {
  if (isKeeping.value || !reference.reference) return;
  isKeeping.value = true;
  keeping = new AbortController();
  const valueOnly = paintings.onEasel?.valueOnly ?? false;
  const referenceId = reference.reference.id;
  try {
    const ids = await many.keep(
      taken.value.map(({ lab, outline, as }) => ({
        paint: valueOnly ? ofValueAlone(toPaint(lab), [50, 0, 0]) : toPaint(lab),
        sample: {
          referenceId,
          outline: samples.sent(outline),
          seen: lab,
          zone: as === 'accent' ? 'accent' : '',
          thing: '',
          valueOnly,
        },
      })),
      { once: once.value, signal: keeping.signal },
    );
    if (ids.length === 0) return;
    looking.marks = true;
    looking.panel = 'colour';
    proposals.clear();
  } finally {
    isKeeping.value = false;
  }
}
</script>

<template>
  <div class="propose figures">
    <section aria-label="Colours that matter">
      <p class="count">
        <button type="button" class="key" aria-label="Fewer colours" :disabled="proposals.most <= FEWEST_PROPOSED" @click="count(-1)">
          −
        </button>
        <span>{{ proposals.most }} colours, the darkest and the lightest</span>
        <button type="button" class="key" aria-label="More colours" :disabled="proposals.most >= MOST_PROPOSED" @click="count(1)">+</button>
      </p>
      <div class="make">
        <v-checkbox v-model="once" label="What they share is mixed once" />
        <button type="button" class="main-key" data-test="keep-proposed" :disabled="taken.length === 0 || isKeeping" @click="keep">
          {{ isKeeping ? 'Finding how to mix them…' : `Make ${counted(taken.length, 'pile')} of them` }}
        </button>
        <v-btn v-if="isKeeping" @click="keeping?.abort()">Leave off</v-btn>
      </div>
      <template v-if="proposals.isLooking">
        <v-progress-linear indeterminate aria-label="Looking through the picture" />
        <v-btn @click="proposals.leaveOff()">Leave off</v-btn>
      </template>
      <ul class="rows judging bare">
        <li v-for="row in rows" :key="row.id">
          <button
            type="button"
            class="row"
            :class="{ refused: row.isRefused }"
            :aria-pressed="!row.isRefused"
            :title="row.isRefused ? 'take it after all' : 'not this one'"
            data-test="proposed"
            @click="proposals.refuse(row.id)"
          >
            <span class="chip squints" :style="{ background: row.css }" />
            <span class="says">{{ row.says }}</span>
            <span class="share">{{ row.share }}</span>
          </button>
        </li>
      </ul>
      <p v-for="said in ends" :key="said" class="said" data-test="ends-said">{{ said }}</p>
    </section>
  </div>
</template>

<style scoped>
.propose,
.propose > section {
  display: grid;
  gap: calc(2 * var(--unit));
}
.propose {
  gap: calc(6 * var(--unit));
}
.count {
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
}
.row {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  align-items: center;
  gap: calc(3 * var(--unit));
  width: 100%;
  min-height: 44px;
  text-align: left;
}
.chip {
  align-self: stretch;
}
.refused .chip {
  width: 20px;
}
.refused .says {
  text-decoration: line-through;
}
.share {
  font-size: var(--size-note);
}
.make {
  display: flex;
  flex-wrap: wrap-reverse;
  align-items: center;
  gap: var(--unit) calc(4 * var(--unit));
}
@media (orientation: portrait) and (min-width: 601px) {
  .rows {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: var(--unit) calc(6 * var(--unit));
  }
}
</style>
