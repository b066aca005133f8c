<script setup lang="ts">
import {
  DAY_MS,
  CraftError,
  daySaid,
  fasterLike,
  FINISHING,
  lastDays,
  layerAsLaid,
  varnishFrom,
  VARNISHES,
  type LastDays,
  type Varnish,
} from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { computed, ref, watch } from 'vue';
import Field from '../controls/Field.vue';
import Pick from '../controls/Pick.vue';
import { counted } from '../floor/words.ts';
import { useLog, zone } from '../stores/log.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { sheetUrl } from '../studio/api.ts';

/** What the painting is, when it must hang, the last day of each layer, what is seen to, and the painting as a lesson. */
const props = defineProps<{ painting: PaintingDto }>();
const log = useLog();
const tubes = useTubes();
const settings = useSettings();
const paintings = usePaintings();
const MOST_TO_COME = 6;

const about = computed(() => props.painting.about);
const change = (part: Partial<PaintingDto['about']>): Promise<boolean> => log.changeAbout(props.painting, part);
const support = ref('');
const priming = ref('');
const dueOn = ref('');
watch(
  about,
  (now) => {
    support.value = now.support ?? '';
    priming.value = now.priming ?? '';
    dueOn.value = now.dueOn ?? '';
  },
  { immediate: true },
);
const VARNISH: Readonly<Record<Varnish, string>> = {
  none: 'none',
  breathing: 'one that breathes, soon',
  final: 'a final one, after months',
};
const TO_COME = Array.from({ length: MOST_TO_COME + 1 }, (_, value) => ({ value, title: String(value) }));
const OTHERS = computed(() => [
  { value: '', title: 'none' },
  ...paintings.all.filter(({ id }) => id !== props.painting.id).map(({ id, title }) => ({ value: id, title })),
]);

const passages = computed(() => log.passagesOf(props.painting.id));
const newest = computed(() => passages.value.flatMap(({ own }) => own).sort((one, other) => other.layer.at - one.layer.at)[0]);
/** What is still to come is taken to be like the last layer. */
const like = computed(() => newest.value?.layer ?? layerAsLaid({ how: 'normal' }, [], log.at, settings.settings.temperatureC ?? undefined));
const dryAt = computed(() => Math.max(log.at, ...passages.value.flatMap(({ dryAt: at }) => at?.[1] ?? [])));
const plan = computed((): LastDays | string | undefined => {
  const { dueOn: day, toCome = 1, varnish = 'none' } = about.value;
  if (!day) return undefined;
  const due = new Date(`${day}T12:00`).getTime();
  const layers = Array.from({ length: toCome }, (_, i) => ({
    name: toCome > 1 ? `layer ${i + 1} of ${toCome}` : 'the last layer',
    layer: like.value,
  }));
  try {
    return lastDays(due, layers, { now: log.at, free: dryAt.value, varnish, learnt: log.learnt });
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    return cause.message;
  }
});
const found = computed(() => (typeof plan.value === 'object' ? plan.value : undefined));
/** The tube that holds it up most, and one of the rack that is like it and dries sooner. */
const faster = computed(() => {
  const slow = like.value.paint.filter(({ id, drying, parts }) => id !== undefined && drying === 'slow' && parts > 0);
  const worst = slow.sort((one, other) => other.parts - one.parts)[0];
  const tube = tubes.byId.get(worst?.id ?? '');
  const other = tube && fasterLike(tube, tubes.all);
  const named = other && tubes.byId.get(other.id);
  return tube && named ? { tube, other: named, off: other.deltaE00 } : undefined;
});
const offSays = (off: number): string => (off < 3 ? 'a match' : off < 8 ? 'near' : 'another colour: look at it first');

const list = computed(() => (settings.settings.finishing.length > 0 ? settings.settings.finishing : FINISHING));
const seenTo = computed(() => new Set(about.value.seenTo ?? []));
const tick = (line: string): Promise<boolean> =>
  change({ seenTo: seenTo.value.has(line) ? [...seenTo.value].filter((one) => one !== line) : [...seenTo.value, line] });
const own = ref('');
const MOST_LINES = 40;
async function addLine(): Promise<void> {
  const line = own.value.trim();
  if (line === '' || list.value.includes(line) || list.value.length >= MOST_LINES) return;
  if (await settings.change({ finishing: [...list.value, line] })) own.value = '';
}
const varnishDays = computed(() => {
  const kind = about.value.varnish;
  if (!newest.value || !kind || kind === 'none') return '';
  const [from, to] = varnishFrom(newest.value.layer.at, dryAt.value, kind);
  return `${daySaid(from, log.at, zone)} to ${daySaid(to, log.at, zone)}`;
});
const LOOK_AGAIN_DAYS = 7;
const lookAgain = computed(() => daySaid(log.at + LOOK_AGAIN_DAYS * DAY_MS, log.at, zone));
const finish = (): Promise<boolean> =>
  change({ finishedAt: about.value.finishedAt === undefined ? new Date(log.at).toISOString() : undefined });
const lesson = (): void =>
  void window.open(sheetUrl({ sheet: 'lesson', paper: 'A4', paintingId: props.painting.id, zone }), '_blank', 'noopener');
</script>

<template>
  <div class="end">
    <section aria-label="The painting" class="asks">
      <h2>The painting</h2>
      <Field
        v-model="support"
        label="painted on: panel, linen, an old painting"
        maxlength="80"
        data-test="support"
        @change="change({ support: support.trim() })"
      />
      <Field v-model="priming" label="primed with" maxlength="80" @change="change({ priming: priming.trim() })" />
      <Field v-model="dueOn" type="date" label="it must hang on" data-test="due" @change="change({ dueOn })" />
      <Pick
        :model-value="about.varnish ?? 'none'"
        :options="VARNISHES.map((value) => ({ value, title: VARNISH[value] }))"
        label="varnish"
        alone
        data-test="varnish"
        @update:model-value="change({ varnish: $event })"
      />
      <Pick
        :model-value="about.toCome ?? 1"
        :options="TO_COME"
        label="layers still to come"
        alone
        data-test="to-come"
        @update:model-value="change({ toCome: $event })"
      />
      <Pick
        :model-value="about.followsId ?? ''"
        :options="OTHERS"
        label="an earlier one of this subject"
        alone
        @update:model-value="change({ followsId: $event || undefined })"
      />
      <RouterLink v-if="about.followsId" :to="{ name: 'mixing', params: { paintingId: about.followsId } }" class="link"
        >Its piles</RouterLink
      >
    </section>
    <section aria-label="The last day of each layer" class="last">
      <h2>The last day of each layer</h2>
      <p v-if="!about.dueOn" class="quiet">Say when it must hang; the days are reckoned backwards from there.</p>
      <p v-else-if="typeof plan === 'string'" class="failure" role="alert">{{ plan }}</p>
      <template v-if="found">
        <p v-if="found.short > 0" class="short" role="status" data-test="too-late">
          {{ counted(Math.ceil(found.short), 'day') }} short. One of these would win them:
        </p>
        <p v-else class="lead" data-test="in-time">In time.</p>
        <ol class="bare">
          <li v-for="one in found.layers" :key="one.name" data-test="last-day">
            <b>{{ one.name }}</b> by {{ daySaid(one.by, log.at, zone) }}
            <ul v-if="found.short > 0" class="bare">
              <li v-for="way in one.waysOut" :key="way.does">
                {{ way.says }}: {{ way.wins < 1.5 ? 'a day' : `${Math.round(way.wins)} days` }} sooner
              </li>
            </ul>
          </li>
        </ol>
        <p v-if="found.short > 0 && faster" data-test="faster-tube">
          {{ faster.other.name }} instead of {{ faster.tube.name }} dries sooner ({{ offSays(faster.off) }}).
        </p>
        <p v-if="found.varnishBy !== undefined">Varnish by {{ daySaid(found.varnishBy, log.at, zone) }}, as its label says.</p>
      </template>
    </section>
    <section aria-label="Finished?" class="finished">
      <h2>Finished?</h2>
      <v-checkbox
        v-for="line in list"
        :key="line"
        :model-value="seenTo.has(line)"
        :label="line"
        density="compact"
        hide-details
        data-test="seen-to"
        @update:model-value="tick(line)"
      />
      <form @submit.prevent="addLine"><Field v-model="own" label="one of your own" maxlength="120" @change="addLine" /></form>
      <p class="quiet">Look again {{ lookAgain }}, from three metres.</p>
      <p v-if="varnishDays">Varnish {{ varnishDays }}, as its label says.</p>
      <div class="wrapped">
        <v-btn variant="outlined" data-test="finish" @click="finish">{{
          about.finishedAt ? 'Not finished after all' : 'It is finished'
        }}</v-btn>
        <button type="button" class="main-key" data-test="lesson" @click="lesson">The painting as a lesson</button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.end {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: calc(8 * var(--unit));
  min-height: 0;
  overflow-y: auto;
}
section {
  display: grid;
  align-content: start;
  gap: calc(3 * var(--unit));
}
ol > li {
  padding: calc(2 * var(--unit)) 0;
  border-top: 1px solid rgba(var(--v-theme-on-background), 0.3);
}
ul > li {
  font-size: var(--size-note);
}
.lead {
  font-size: var(--size-lead);
}
.short {
  border-left: 4px solid currentColor;
  padding-left: calc(3 * var(--unit));
  font-weight: 700;
}
.link {
  min-height: 44px;
}
@media (orientation: portrait) {
  .end {
    grid-template-columns: minmax(0, 1fr);
    overflow: visible;
  }
}
</style>
