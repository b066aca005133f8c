<script setup lang="ts">
import { beliefOf, type Beliefs } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed } from 'vue';
import { learntOf } from '../tubes/learnt.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { usePiles } from '../stores/piles.ts';

/** What this pile taught, in one sentence with its figure; it can be refused. */
const props = defineProps<{ pile: PileDto; without: Beliefs | undefined }>();
const tubes = useTubes();
const piles = usePiles();

const looks = computed(() => props.pile.stages.flatMap((s) => s.looks).filter((l) => l.beliefId !== null));
const learning = computed(() => looks.value.filter((l) => !l.refused));
/** The tube of which this pile taught most: whose strength it moved furthest. */
const tube = computed((): Tube | undefined => {
  const inPile = Object.keys(piles.contentOf(props.pile.id)?.tubes ?? {}).flatMap((id) => tubes.byId.get(id) ?? []);
  const moved = ({ id, learnt }: Tube): number =>
    learnt ? Math.abs(Math.log(learnt.strength / (props.without ? beliefOf(props.without, id).strength : 1))) : -1;
  return inPile.filter((t) => t.learnt).sort((a, b) => moved(b) - moved(a))[0];
});
const refuse = (): Promise<boolean> =>
  piles.make(
    learning.value.map((l) => ({ do: 'belief.refuse', id: l.beliefId! })),
    `Not learnt from “${props.pile.name}”`,
  );
const accept = (): Promise<boolean> =>
  piles.make(
    looks.value.filter((l) => l.refused).map((l) => ({ do: 'belief.accept', id: l.beliefId! })),
    `Learnt from “${props.pile.name}”`,
  );
</script>

<template>
  <p v-if="looks.length > 0" class="learnt figures" data-test="learnt">
    <template v-if="learning.length > 0">
      {{ tube ? learntOf(tube) : 'Nothing to speak of was learnt.' }}
      <button type="button" class="link" @click="refuse">Don’t learn this</button>
    </template>
    <template v-else>
      Nothing is learnt from this pile.
      <button type="button" class="link" @click="accept">Learn it after all</button>
    </template>
  </p>
</template>

<style scoped>
.learnt {
  font-size: var(--size-note);
}
.link {
  text-decoration: underline;
  min-height: 24px;
}
</style>
