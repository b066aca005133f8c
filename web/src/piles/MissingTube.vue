<script setup lang="ts">
import { likeness, colourFromWords, CraftError, mixtureOf, show, type Lab, type Recall, type Suspect, shareText } from '@dusk/core';
import { mixtureDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import PaintKey from '../chips/PaintKey.vue';
import Field from '../controls/Field.vue';
import Sheet from '../controls/Sheet.vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useTubes } from '../stores/tubes.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import Pick from '../controls/Pick.vue';
import { named } from '../controls/options.ts';

/** A mixture of which all tubes but one are remembered: the likely other one, ranked, or what to look at to tell. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const desk = useDesk();
const piles = usePiles();
const tubes = useTubes();
const paintings = usePaintings();

const known = ref<string[]>([]);
const text = ref('');
const tintText = ref('');
const tintParts = ref('9');
const wrong = ref('');
const lab = shallowRef<Lab>();
const tint = shallowRef<Lab>();
const answer = shallowRef<Recall>();
watch(open, (now) => {
  if (!now) return;
  known.value = [];
  text.value = tintText.value = wrong.value = '';
  lab.value = tint.value = answer.value = undefined;
});

/** One tube of each pigment: those on the palette first. */
const all = computed(() => [...desk.paletteTubes, ...desk.rack]);
const white = computed(() => all.value.find(({ masstone, pigment }) => masstone[0] > 90 && /white/.test(pigment)));
const toggle = (id: string): void =>
  void (known.value = known.value.includes(id) ? known.value.filter((one) => one !== id) : [...known.value, id]);

function read(): void {
  wrong.value = '';
  try {
    lab.value = text.value.trim() === '' ? undefined : colourFromWords(text.value);
    tint.value = tintText.value.trim() === '' ? undefined : colourFromWords(tintText.value);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    wrong.value = cause.message;
  }
}
/** The pile it looked like. */
const as = ref<string>();
watch(as, (id) => {
  const pile = piles.byId.get(id ?? '');
  if (!pile) return;
  lab.value = lookNow(pile);
  text.value = lab.value.map((v) => v.toFixed(1)).join(' ');
});

let asking: AbortController | undefined;
watch([lab, tint, tintParts, known] as const, async ([seen, pale, partsSaid, names]) => {
  asking?.abort();
  answer.value = undefined;
  if (!seen || names.length === 0) return;
  const own = (asking = new AbortController());
  const paletteTube = (id: string) => {
    const { paint } = tubes.byId.get(id)!;
    return { id, K: paint.K, S: paint.S };
  };
  const parts = Number(partsSaid.replace(',', '.'));
  const isTinted = pale !== undefined && white.value !== undefined && parts > 0 && parts <= 99;
  const found = await unlessGivenUp(
    engine().ask(
      'recall',
      {
        known: names.map(paletteTube),
        candidates: all.value.filter(({ id }) => !names.includes(id)).map(({ id }) => paletteTube(id)),
        seen,
        ...(isTinted && { tint: { lab: pale, white: paletteTube(white.value!.id), parts } }),
      },
      { signal: own.signal },
    ),
  );
  if (!own.signal.aborted) answer.value = found;
});
const nameOf = (id: string): string => tubes.byId.get(id)?.name ?? 'a tube';
const SHOWN = 4;
const suspects = computed(() => answer.value?.suspects.slice(0, SHOWN) ?? []);
const advice = computed(() => {
  const first = answer.value?.suspects[0];
  return answer.value && (answer.value.certain && first ? `${nameOf(first.id)} is the likely one.` : answer.value.advice);
});
const sharesOf = ({ shares }: Suspect): string =>
  Object.entries(shares)
    .sort((a, b) => b[1] - a[1])
    .map(([id, share]) => `${shareText(share)} ${nameOf(id)}`)
    .join(', ');
async function take(suspect: Suspect): Promise<void> {
  const least = Math.min(...Object.values(suspect.shares).filter((share) => share > 0.002));
  const plan = mixtureOf(
    Object.entries(suspect.shares)
      .filter(([, share]) => share > 0.002)
      .map(([tube, share]) => ({ tube, parts: Number((share / least).toFixed(2)) })),
  );
  const kept = await piles.keep({ name: `with ${nameOf(suspect.id)}`, lab: lab.value!, plan: mixtureDto(plan), ml: 4 });
  if (!kept) return;
  open.value = false;
  await router.push({ name: 'mixing', params: { paintingId: paintings.onEasel!.id, pileId: kept.pileId } });
}
</script>

<template>
  <Sheet v-model="open" label="A tube that is forgotten" wide judging>
    <h2>All its tubes but one</h2>
    <div class="tubes" role="group" aria-label="Tubes that were in it">
      <PaintKey v-for="tube in all" :key="tube.id" :lab="tube.masstone" :pressed="known.includes(tube.id)" @click="toggle(tube.id)">{{
        tube.name
      }}</PaintKey>
    </div>
    <div class="looked">
      <Field
        v-model="text"
        label="How it looked"
        placeholder="#6d6a5c · 2.5Y 4/1 · warm grey, value 4"
        data-test="recall-seen"
        @update:model-value="read"
      />
      <Pick v-model="as" :options="named(piles.byValue)" label="or as" placeholder="a pile here" data-test="seen-as" />
    </div>
    <div class="looked">
      <Field v-model="tintText" label="A tint of it with white, if there is one" @update:model-value="read" />
      <Field v-model="tintParts" label="parts white to one" />
    </div>
    <p v-if="wrong" role="alert" class="strong">{{ wrong }}</p>
    <p v-if="advice" class="strong" role="status" data-test="recall-advice">{{ advice }}</p>
    <article v-for="suspect in suspects" :key="suspect.id" class="suspect" data-test="suspect">
      <span class="large" :style="{ background: show(tubes.byId.get(suspect.id)!.masstone).css }" />
      <div>
        <p class="strong figures">{{ nameOf(suspect.id) }}, {{ (100 * suspect.likelihood).toFixed(0) }} %</p>
        <p class="figures">{{ sharesOf(suspect) }}</p>
        <p class="quiet figures">
          with it: {{ likeness(suspect.deltaE00)
          }}<template v-if="suspect.tintDeltaE00 !== undefined">, its tint {{ likeness(suspect.tintDeltaE00) }}</template>
        </p>
      </div>
      <v-btn variant="outlined" :aria-label="`Keep it with ${nameOf(suspect.id)}`" @click="take(suspect)">Keep</v-btn>
    </article>
    <p v-if="!answer" class="quiet">Press the tubes you remember, and say how it looked.</p>
    <div class="foot-keys"><v-btn @click="open = false">Not now</v-btn></div>
  </Sheet>
</template>

<style scoped>
.tubes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(170px, 100%), 1fr));
  gap: 0 calc(3 * var(--unit));
  max-height: 240px;
  overflow-y: auto;
}
.looked {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 180px;
  gap: calc(4 * var(--unit));
  align-items: end;
}
.as {
  font-size: var(--size-note);
}
/* Fields shrink. */
.looked > * {
  min-width: 0;
}
.large {
  height: 52px;
}
.suspect {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr) auto;
  gap: calc(4 * var(--unit));
  align-items: center;
  border-top: 1px solid var(--surround-line);
  padding-top: calc(2 * var(--unit));
}
.strong {
  font-weight: 700;
}
</style>
