<script setup lang="ts">
import { masstoneOf, mlText, paintOfMixture, tied, TIES, type Lab, type Mixture } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { computed, ref } from 'vue';
import Sheet from '../controls/Sheet.vue';
import Slider from '../controls/Slider.vue';
import { useDesk } from '../stores/useDesk.ts';
import { childOps, largerBy, noSteps } from './kin.ts';
import { usePiles } from '../stores/piles.ts';
import TurnedPiles from './TurnedPiles.vue';
import { useLeftAlone } from './useLeftAlone.ts';
import { newId } from '../floor/ids.ts';

/** A little of one pile let into all the others of its layer, or into those that are chosen, to tie them together. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ pile: PileDto }>();
const piles = usePiles();
const desk = useDesk();

const USUAL = 3;
const at = ref(USUAL);
const share = computed(() => TIES[at.value]!);
const leafOf = ({ id, stages }: PileDto) => ({ pile: id, ...(stages.length > 0 && { stage: stages.at(-1)!.id }) });
/** Piles that are there or to be mixed, and do not come from this one. */
const others = computed(() =>
  piles.byValue.filter(
    ({ id, layer, stages, there }) =>
      id !== props.pile.id && layer === props.pile.layer && (stages.length === 0 || there > 0) && !piles.restsOn(props.pile.id, id),
  ),
);
const { isIn, toggle } = useLeftAlone([open]);

interface Tied {
  readonly pile: PileDto;
  readonly plan: Mixture;
  readonly lab: Lab;
  readonly ml: number;
  readonly isIn: boolean;
}
const all = computed(() =>
  open.value
    ? others.value.map((pile): Tied => {
        const plan = tied(leafOf(pile), leafOf(props.pile), share.value);
        const whole = (pile.stages.length > 0 ? pile.there : pile.ml) / (1 - share.value);
        return {
          pile,
          plan,
          lab: masstoneOf(paintOfMixture(plan, (source) => desk.paintOf(source).paint)),
          ml: Math.min(500, Math.max(0.2, Math.round(10 * whole) / 10)),
          isIn: isIn(pile.id),
        };
      })
    : [],
);
const chosen = computed(() => all.value.filter(({ isIn }) => isIn));
/** What it takes of this pile. */
const takes = computed(() => chosen.value.reduce((sum, { ml }) => sum + ml * share.value, 0));
const isShort = computed(() => props.pile.stages.length > 0 && takes.value > props.pile.there * 1.02);

async function keep(): Promise<void> {
  const ops = chosen.value.flatMap(({ pile, plan, lab, ml }): Operation[] =>
    childOps(pile, {
      id: newId(),
      name: `${pile.name.slice(0, 60)}, tied`,
      lab,
      plan,
      ml,
      steps: noSteps(),
    }),
  );
  const larger = largerBy(props.pile, takes.value);
  if (await piles.make([...larger, ...ops], `A little of “${props.pile.name}” into ${chosen.value.length}`)) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" :label="`A little of ${pile.name} into all`" wide judging>
    <h2>A little of {{ pile.name }} into all</h2>
    <p class="quiet">It ties them together. Press the ones that are to stay as they are.</p>
    <Slider
      v-model="at"
      label="How much of it"
      :min="0"
      :max="TIES.length - 1"
      :step="1"
      :says="`1 of it to ${Math.round(1 / share) - 1}`"
    />
    <TurnedPiles :rows="all" says="a little into it" @toggle="toggle" />
    <p v-if="all.length === 0" class="quiet">There is no other pile of this layer yet.</p>
    <p class="figures" :class="{ strong: isShort }" data-test="tie-takes">
      It takes {{ mlText(takes) }} of {{ pile.name }}<template v-if="isShort">; {{ mlText(pile.there) }} lie there</template
      ><template v-else-if="pile.stages.length === 0">, which is planned larger by that</template>.
    </p>
    <div class="foot-keys">
      <v-btn @click="open = false">Not now</v-btn>
      <button type="button" class="main-key" :disabled="chosen.length === 0" data-test="keep-tied" @click="keep">
        Keep {{ chosen.length === 1 ? 'it' : `all ${chosen.length}` }}
      </button>
    </div>
  </Sheet>
</template>

<style scoped>
.strong {
  font-weight: 700;
}
</style>
