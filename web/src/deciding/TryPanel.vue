<script setup lang="ts">
import { colourName, type Affine, type Lab } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { TriedSaid } from '../engine/pictures.ts';
import Pick from '../controls/Pick.vue';
import { useShortcuts } from '../floor/useShortcuts.ts';
import SaidColour from '../recipe/SaidColour.vue';
import { useDress } from '../stores/dress.ts';
import { useLooking } from '../stores/looking.ts';
import { usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { useTrying } from '../stores/trying.ts';

/** A change is tried: drawn round, then darker, lighter, of another colour or pile, fading, elsewhere; trials lie side by side. */
const trying = useTrying();
const reference = useReference();
const looking = useLooking();
const piles = usePiles();
const dress = useDress();

onMounted(() => {
  looking.hand = 'draws';
  if (trying.trials.length > 0) trying.look(trying.trials.length - 1);
});
onUnmounted(() => {
  looking.hand = 'points';
  trying.look(undefined);
});

/** So large are trials beside one another, and what is asked of them, px. */
const SMALL_PX = 130;
const ASKED_PX = 420;
const sized = (longest: number) => {
  const { frame } = reference;
  if (!frame) return undefined;
  const by = longest / Math.max(frame.width, frame.height);
  return {
    width: Math.max(8, Math.round(frame.width * by)),
    height: Math.max(8, Math.round(frame.height * by)),
    transform: frame.toFrame.map((v) => v * by) as unknown as Affine,
  };
};
const asNow = (longest: number) => {
  const size = sized(longest);
  const { pixels, key, isKeyed, gains } = reference;
  if (!pixels || !size) return undefined;
  return {
    pictureId: pixels.id,
    gains,
    key: looking.asPaint && isKeyed && key ? { plan: key.plan, ends: key.ends } : undefined,
    squint: 0,
    ...size,
  };
};
interface Thumb {
  readonly at: number | undefined;
  readonly image: ImageData;
}
const thumbs = shallowRef<readonly Thumb[]>([]);
let drawing = 0;
watch(
  [() => trying.trials, () => reference.pixels?.id, () => reference.gains.join(), () => looking.asPaint],
  async () => {
    const own = ++drawing;
    const needs = asNow(SMALL_PX);
    if (!needs || trying.trials.length === 0) return void (thumbs.value = []);
    const found: Thumb[] = [];
    for (const [i, one] of [undefined, ...trying.trials].entries()) {
      const looked = await unlessGivenUp(
        engine().ask('look', { ...needs, look: { kind: 'colour' }, lost: false, trial: one && trying.askedOf(one) }),
      ).catch(() => undefined);
      if (own !== drawing || !looked) return;
      found.push({ at: i === 0 ? undefined : i - 1, image: new ImageData(looked.bytes, looked.width, looked.height) });
    }
    thumbs.value = found;
  },
  { immediate: true },
);
const paint = (canvas: unknown, { image }: Thumb): void => {
  if (!(canvas instanceof HTMLCanvasElement)) return;
  canvas.width = image.width;
  canvas.height = image.height;
  canvas.getContext('2d')!.putImageData(image, 0, 0);
};

/** What the trial does to the plan of values, and to the edges. */
const said = shallowRef<TriedSaid>();
let saying = 0;
watch(
  [() => trying.asked, () => reference.pixels?.id],
  async ([trial]) => {
    const own = ++saying;
    const needs = asNow(ASKED_PX);
    if (!needs || !trial || trial.length === 0) return void (said.value = undefined);
    const found = await unlessGivenUp(
      engine().ask('tried', { ...needs, squint: 4, trial, bounds: dress.bounds, range: reference.range ?? { darkest: 0, lightest: 10 } }),
    ).catch(() => undefined);
    if (own === saying) said.value = found;
  },
  { immediate: true },
);
const per = (shares: readonly number[]): string => shares.map((share) => Math.round(100 * share)).join(' · ');
const does = computed(() => {
  if (!said.value) return [];
  const { values, edges } = said.value;
  const hard = edges.map((shares) => Math.round(100 * (shares[0] ?? 0)));
  return [
    `Steps of value, dark to light: ${per(values[0])} % become ${per(values[1])} %.`,
    hard[0] === hard[1] ? `Hard edges stay ${hard[0]} %.` : `Hard edges, ${hard[0]} % of all, become ${hard[1]} %.`,
  ];
});

const lab = computed<Lab>({
  get: (): Lab => (trying.change?.to ? labOfDto(trying.change.to) : [50, 0, 0]),
  set: (to: Lab) => void trying.colour(to),
});
const foot = computed<Lab>({
  get: (): Lab => (trying.change?.fades ? labOfDto(trying.change.fades) : lab.value),
  set: (to: Lab) => void trying.fade(to),
});
const pile = computed({ get: () => trying.change?.pileId ?? '', set: (id: string) => void trying.pile(id) });
const choices = computed(() => [{ value: '', title: 'none of them' }, ...piles.ofRank.map(({ id, name }) => ({ value: id, title: name }))]);
const colouring = ref(false);
const STEP = 0.02;
useShortcuts(() =>
  trying.change
    ? [
        { key: 'ArrowLeft', run: () => void trying.move(-STEP, 0), repeats: true },
        { key: 'ArrowRight', run: () => void trying.move(STEP, 0), repeats: true },
        { key: 'ArrowUp', run: () => void trying.move(0, -STEP), repeats: true },
        { key: 'ArrowDown', run: () => void trying.move(0, STEP), repeats: true },
        { key: 'Delete', run: () => void trying.remove() },
      ]
    : [],
);
const toldOf = (i: number): string => {
  const one = trying.trial!.changes[i]!;
  const what = one.pileId ? (piles.byId.get(one.pileId)?.name ?? 'a pile') : one.to ? colourName(labOfDto(one.to)) : '';
  const by = one.lighter ? `${Math.abs(one.lighter)} ${one.lighter > 0 ? 'lighter' : 'darker'}` : '';
  const where = one.moveX || one.moveY ? 'elsewhere' : '';
  return [what, one.fades ? 'fading' : '', by, where].filter(Boolean).join(', ') || 'nothing yet';
};
</script>

<template>
  <div class="figures stack">
    <p v-if="trying.trials.length === 0">
      Draw round what you would change, then say how. The picture stays as it is; any look shows what becomes of values and edges.
    </p>
    <div v-if="thumbs.length > 0" class="side" role="group" aria-label="Trials, side by side">
      <button
        v-for="thumb in thumbs"
        :key="thumb.at ?? 'as it is'"
        type="button"
        :aria-pressed="trying.at === thumb.at"
        data-test="trial"
        @click="trying.look(thumb.at)"
      >
        <canvas :ref="(canvas) => paint(canvas, thumb)" />
        <span>{{ thumb.at === undefined ? 'As it is' : `Trial ${thumb.at + 1}` }}</span>
      </button>
      <v-btn @click="trying.begin()">Another trial</v-btn>
    </div>
    <template v-if="trying.trial">
      <ul v-if="trying.trial.changes.length > 1" class="changes">
        <li v-for="(_, i) in trying.trial.changes" :key="i">
          <button type="button" :aria-pressed="trying.changeAt === i" @click="trying.changeAt = i">{{ toldOf(i) }}</button>
        </li>
      </ul>
      <p v-if="trying.trial.changes.length === 0">Draw round what is to change.</p>
      <template v-if="trying.change">
        <div class="wrapped-close" role="group" aria-label="What is drawn round">
          <button type="button" class="key" @click="trying.lighter(-0.5)">darker</button>
          <button type="button" class="key" @click="trying.lighter(0.5)">lighter</button>
          <button type="button" class="key" :aria-pressed="colouring" @click="colouring = !colouring">another colour</button>
          <button type="button" class="key" @click="trying.remove()">as it was</button>
        </div>
        <Pick v-model="pile" label="Of a pile" :options="choices" data-test="try-pile" />
        <template v-if="colouring">
          <SaidColour v-model="lab" focused label="Its colour" />
          <v-checkbox
            :model-value="trying.change.fades !== undefined"
            label="Fading to another at its foot"
            @update:model-value="trying.fade($event ? foot : undefined)"
          />
          <SaidColour v-if="trying.change.fades" v-model="foot" label="At its foot" />
        </template>
        <p class="quiet">Arrow keys move it.</p>
      </template>
      <p v-for="line in does" :key="line" data-test="tried">{{ line }}</p>
      <p><v-btn @click="trying.removeTrial()">Take this trial away</v-btn></p>
    </template>
  </div>
</template>

<style scoped>
.side {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  align-items: center;
}
.side button:not(.v-btn) {
  display: grid;
  min-height: 44px;
  font-size: var(--size-note);
}
.side canvas {
  display: block;
  width: 104px;
}
.side [aria-pressed='true'],
.changes [aria-pressed='true'] {
  outline: 2px solid currentColor;
  outline-offset: 2px;
}
.key,
.changes button {
  min-height: 44px;
  padding: 0 calc(3 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 3px;
}
.changes {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  list-style: none;
  padding: 0;
  margin: 0;
}
</style>
