<script setup lang="ts">
import { DAY_MS, LAID_HOW, LAID_WITH, WITH_SAYS, windowOf, windowSaid, timeOf, paintFor, type LaidHow, type LaidWith } from '@dusk/core';
import type { AreaOutline, Needs, Operation, PaintingDto } from '@dusk/wire';
import { isWhole } from '@dusk/wire/stories';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import Choice from '../controls/Choice.vue';
import Field from '../controls/Field.vue';
import Pick from '../controls/Pick.vue';
import Sheet from '../controls/Sheet.vue';
import { newId } from '../floor/ids.ts';
import { useLanding } from '../stores/landing.ts';
import { useLog, zone, type Advice } from '../stores/log.ts';
import { usePiles } from '../stores/piles.ts';

/** A layer: where, of which piles, how it is laid. What it will do, and what is advised, is told before it is kept. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ painting: PaintingDto; areaId: string | undefined }>();
const Outline = defineAsyncComponent(() => import('../landing/Outline.vue'));
const log = useLog();
const piles = usePiles();
const landing = useLanding();

const WHOLE = 'the whole';
const areas = computed(() => log.ofPainting(props.painting.id));
const where = ref<string[]>([]);
const named = ref('');
const outline = ref<AreaOutline>();
const drawing = ref(false);
const chosen = ref<string[]>([]);
const how = ref<LaidHow>('normal');
const along = ref<LaidWith>('nothing');
const mixed = computed(() => piles.ofRank.filter(({ stages }) => stages.length > 0 && stages.at(-1)!.kind !== 'scraped'));
const HOW = LAID_HOW.map((value) => ({ value, title: value }));
const WITH = LAID_WITH.map((value) => ({ value, title: WITH_SAYS[value].called }));

watch(
  open,
  (now) => {
    if (!now) return;
    where.value = props.areaId !== undefined ? [props.areaId] : [];
    named.value = areas.value.length === 0 ? WHOLE : '';
    outline.value = undefined;
    drawing.value = false;
    chosen.value = [];
    const last = areas.value.find(({ id }) => id === props.areaId);
    how.value = (last && log.lastOf(last)?.laid.how) ?? 'normal';
    along.value = (last && log.lastOf(last)?.laid.with) ?? 'nothing';
  },
  { immediate: true },
);
const toggle = (list: readonly string[], id: string): string[] => (list.includes(id) ? list.filter((one) => one !== id) : [...list, id]);

/** A pile goes where it was said it would: how that is laid is how this is. */
function take(id: string): void {
  chosen.value = toggle(chosen.value, id);
  const pile = piles.byId.get(id)!;
  if (chosen.value.length !== 1 || chosen.value[0] !== id) return;
  how.value = landing.soOf(pile)?.how ?? how.value;
  along.value = pile.purpose.laid?.with ?? along.value;
}
const LEAST_ML = 0.1;
/** So much of each pile is taken to lie there: by the size of the canvas where that is known. */
const UNSAID_ML = 0.5;
function mlOf(): number {
  const { canvas } = props.painting;
  const cm2 = canvas ? (canvas.widthMm * canvas.heightMm) / 100 / Math.max(1, areas.value.length) : undefined;
  const all = cm2 === undefined ? UNSAID_ML : paintFor({ cm2, so: { how: how.value } });
  return Math.max(LEAST_ML, all / Math.max(1, chosen.value.length));
}
const additions = (): Needs<'deed.add'>['additions'] =>
  chosen.value.map((id) => {
    const pile = piles.byId.get(id)!;
    const ml = Math.max(LEAST_ML, Math.min(mlOf(), pile.there || UNSAID_ML));
    return { id: newId(), stageId: pile.stages.at(-1)!.id, ml, low: ml / 3, high: ml * 3 };
  });
const laid = computed(() => ({ how: how.value, ...(along.value !== 'nothing' && { with: along.value }) }));
const layer = computed(() => log.layerOf(laid.value, chosen.value.length > 0 ? additions() : [], log.at));
const dries = computed(() => {
  const [from, to] = windowOf(timeOf(undefined, layer.value, log.learnt));
  return windowSaid([log.at + from * DAY_MS, log.at + to * DAY_MS], log.at, zone);
});
const advice = computed((): readonly (Advice & { readonly areaId: string })[] =>
  where.value.flatMap((id) => {
    const area = areas.value.find((one) => one.id === id);
    return area ? log.adviceFor(area, layer.value).map((one) => ({ ...one, areaId: id })) : [];
  }),
);
const isReady = computed(() => where.value.length > 0 || named.value.trim() !== '');
async function keep(): Promise<void> {
  const ops: Operation[] = [];
  const ids = [...where.value];
  const name = named.value.trim();
  if (name !== '') {
    const id = newId();
    ops.push({
      do: 'area.add',
      id,
      paintingId: props.painting.id,
      name,
      ...(outline.value && { outline: outline.value.map(({ x, y }) => ({ x, y })) }),
    });
    ids.push(id);
  }
  for (const id of ids) {
    const against = advice.value.find(({ areaId }) => areaId === id)?.verdict;
    ops.push(log.deed(id, 'laid', { additions: additions(), laid: { ...laid.value, ...(against && { against }) } }));
  }
  const names = ids.map((id) => areas.value.find((one) => one.id === id)?.name ?? name);
  if (await log.make(ops, `Laid on ${names.join(', ')}`)) open.value = false;
}
function drew(points: { x: number; y: number }[]): void {
  drawing.value = false;
  if (points.length >= 3) outline.value = points;
}
</script>

<template>
  <Sheet v-model="open" label="Lay a layer" wide judging>
    <Outline v-if="drawing" :already="outline ?? []" @drawn="drew" @close="drawing = false" />
    <template v-else>
      <h2>A layer</h2>
      <fieldset>
        <legend>Where</legend>
        <div class="wrapped">
          <button
            v-for="area in areas"
            :key="area.id"
            type="button"
            class="word"
            :aria-pressed="where.includes(area.id)"
            data-test="lay-where"
            @click="where = toggle(where, area.id)"
          >
            {{ area.name }}
          </button>
          <button
            v-if="!areas.some(isWhole)"
            type="button"
            class="word"
            :aria-pressed="named === WHOLE"
            @click="named = named === WHOLE ? '' : WHOLE"
          >
            {{ WHOLE }}
          </button>
        </div>
        <div class="new">
          <Field v-model="named" label="or a new passage: sky, bowl, the whole" maxlength="80" data-test="new-area" />
          <v-btn variant="outlined" :disabled="named.trim() === ''" data-test="draw-area" @click="drawing = true">{{
            outline ? 'Drawn; again' : 'Draw round it'
          }}</v-btn>
        </div>
      </fieldset>
      <fieldset>
        <legend>Of</legend>
        <p v-if="mixed.length === 0" class="quiet">No pile is mixed yet: it is kept as a layer of paint that is not known.</p>
        <div class="wrapped">
          <button
            v-for="pile in mixed"
            :key="pile.id"
            type="button"
            class="pile"
            :aria-pressed="chosen.includes(pile.id)"
            :title="pile.name"
            data-test="lay-pile"
            @click="take(pile.id)"
          >
            <span class="dab" :style="{ background: piles.shownNow(pile) }" /><span class="name">{{ pile.name }}</span>
          </button>
        </div>
      </fieldset>
      <Choice v-model="how" label="Laid as" :items="HOW" />
      <Pick v-model="along" :options="WITH" label="with" data-test="lay-with" />
      <p v-if="along !== 'nothing'" class="caution" role="note">{{ WITH_SAYS[along].caution }}</p>
      <p class="figures dries" data-test="lay-dries">Dry to the touch {{ dries }}.</p>
      <p v-for="one in advice" :key="`${one.areaId} ${one.over}`" class="advice" role="status" data-test="lay-advice">
        Over {{ one.over }}: {{ one.says }}
      </p>
      <div class="foot-keys">
        <v-btn @click="open = false">Not now</v-btn>
        <button type="button" class="main-key" :disabled="!isReady" data-test="laid" @click="keep">
          {{ advice.length > 0 ? 'Laid all the same' : 'Laid' }}
        </button>
      </div>
    </template>
  </Sheet>
</template>

<style scoped>
.word,
.pile {
  min-height: 44px;
  border-width: 1px;
  border-radius: 3px;
}
.word {
  padding: 0 calc(3 * var(--unit));
}
.word[aria-pressed='true'] {
  background: var(--surround-ink);
  color: var(--on-ink);
}
.pile {
  display: grid;
  width: 104px;
  padding: var(--unit);
  border-color: transparent;
  text-align: left;
}
.pile[aria-pressed='true'] {
  border: 2px solid currentColor;
}
.dab {
  height: 40px;
}
.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  font-size: var(--size-note);
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
  gap: calc(3 * var(--unit));
  margin-top: calc(2 * var(--unit));
}
.dries {
  font-size: var(--size-lead);
}
.advice,
.caution {
  border-left: 4px solid currentColor;
  padding-left: calc(3 * var(--unit));
}
.advice {
  font-weight: 700;
}
.caution {
  font-size: var(--size-note);
}
</style>
