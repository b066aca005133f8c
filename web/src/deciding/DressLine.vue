<script setup lang="ts">
import { colourName, meanOf, valueOfLightness, type Lab } from '@dusk/core';
import { computed, ref, watch } from 'vue';
import type { LookedAt } from '../engine/pictures.ts';
import { useWhite } from '../floor/white.ts';
import { useToPaint } from '../picture/toPaint.ts';
import { useDress } from '../stores/dress.ts';
import { useLooking } from '../stores/looking.ts';
import { useManyPiles } from '../stores/manyPiles.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { useSettings } from '../stores/settings.ts';

/** What each step of the picture's values, or each shape of its plan, is painted with: a press or a pile dropped on it says. */
const props = defineProps<{ looked: LookedAt | undefined }>();
const dress = useDress();
const piles = usePiles();
const looking = useLooking();
const reference = useReference();
const settings = useSettings();
const white = useWhite();
const toPaint = useToPaint();
const many = useManyPiles();

/** Mean of what each part has; before shapes stands what no shape covers. */
const means = computed(() => (dress.byShapes ? props.looked?.means?.slice(1) : props.looked?.means));
const shares = computed(() => (dress.byShapes ? props.looked?.shares.slice(1) : props.looked?.shares) ?? []);
const rows = computed(() =>
  dress.parts.map((part, i) => {
    const mean = dress.byShapes ? part.own : means.value?.[i];
    const lab: Lab | undefined = part.dress === 'mean' ? mean : part.dress;
    const share = Math.round(100 * (shares.value[i] ?? 0));
    return {
      i,
      in: part.in,
      css: lab && white.shown(lab).css,
      ink: lab && lab[0] < 55 ? '#fff' : '#000',
      says: `${dress.nameOf(i)}, ${share} % of the picture: ${part.says}`,
      title: part.in === '' ? 'no pile' : part.says,
      mean,
    };
  }),
);
const bare = computed(() => rows.value.filter((row) => row.in === ''));
const ledge = computed(() =>
  piles.ofRank.map((pile) => ({
    id: pile.id,
    name: pile.name,
    css: piles.shownNow(pile),
    value: settings.valueText(valueOfLightness(lookNow(pile)[0])),
  })),
);

const isMixing = ref(false);
/** Piles for the parts that have none, each of the mean of what it has, at the part's value; they are on the ledge and in the picture at once. */
async function mixFor(wanted: readonly (typeof rows.value)[number][]): Promise<void> {
  const list = wanted.flatMap(({ i, mean }) => (mean ? [{ i, paint: looking.asPaint || dress.byShapes ? mean : toPaint(mean) }] : []));
  if (isMixing.value || list.length === 0) return;
  isMixing.value = true;
  try {
    const ids = await many.keep(list.map(({ paint }) => ({ paint })));
    if (ids.length === list.length) await dress.set(new Map(list.map(({ i }, k) => [i, ids[k]!])), 'Piles for the parts that had none');
  } finally {
    isMixing.value = false;
  }
}

// A pile that was let go of over a part is what it is painted with.
watch(
  () => looking.dropped,
  (dropped) => {
    if (!dropped) return;
    const part = document.elementFromPoint(dropped.x, dropped.y)?.closest<HTMLElement>('[data-part]');
    if (part) void dress.put(Number(part.dataset['part']), dropped.pileId);
    else if (document.elementFromPoint(dropped.x, dropped.y)?.closest('.picture')) {
      const { x, y } = dropped;
      const at = where(x, y);
      if (at !== undefined) void dress.put(at, dropped.pileId);
    }
  },
);
/** The part under a place of the window. */
function where(clientX: number, clientY: number): number | undefined {
  const place = reference.placeAt?.(clientX, clientY);
  const { pixels, gains } = reference;
  if (!place || !pixels) return undefined;
  const seen = meanOf(pixels, { ...place, radius: 1 }, gains);
  return dress.partAt(place.x / pixels.width, place.y / pixels.height, valueOfLightness((looking.asPaint ? toPaint(seen) : seen)[0]));
}
</script>

<template>
  <div class="dress">
    <div
      class="parts judging"
      role="group"
      :aria-label="dress.byShapes ? 'Shapes and their piles' : 'Steps of value and their piles, dark to light'"
    >
      <v-menu v-for="row in rows" :key="row.i">
        <template #activator="{ props: menu }">
          <button
            v-bind="menu"
            type="button"
            class="part"
            :class="{ bare: row.in === '' }"
            :style="{ background: row.css, color: row.css && row.ink }"
            :aria-label="row.says"
            :title="row.says"
            :data-part="row.i"
            data-test="part"
          >
            <span>{{ row.title }}</span>
          </button>
        </template>
        <v-list :aria-label="`What ${dress.nameOf(row.i)} is painted with`" class="choices">
          <v-list-item v-for="pile in ledge" :key="pile.id" :active="pile.id === row.in" @click="dress.put(row.i, pile.id)">
            <template #prepend><span class="chip" :style="{ background: pile.css }" /></template>
            <v-list-item-title>{{ pile.name }}</v-list-item-title>
            <template #append
              ><span class="figures">{{ pile.value }}</span></template
            >
          </v-list-item>
          <v-list-item v-if="row.in !== 'mean' && !dress.byShapes" @click="dress.put(row.i, 'mean')">
            <v-list-item-title>the mean of what it has</v-list-item-title>
          </v-list-item>
          <v-list-item v-if="row.mean" @click="mixFor([row])">
            <v-list-item-title>a new pile for it: {{ colourName(row.mean) }}</v-list-item-title>
          </v-list-item>
          <v-list-item v-if="row.in !== ''" @click="dress.put(row.i, '')"><v-list-item-title>nothing yet</v-list-item-title></v-list-item>
        </v-list>
      </v-menu>
    </div>
    <button v-if="piles.ofRank.length > 0" type="button" class="link-key" data-test="from-ledge" @click="dress.fromLedge(means)">
      from the ledge
    </button>
    <button v-if="bare.length > 0" type="button" class="link-key" data-test="mix-bare" :disabled="isMixing" @click="mixFor(bare)">
      {{ bare.length === 1 ? 'a pile for the bare one' : `piles for ${bare.length} bare` }}
    </button>
  </div>
</template>

<style scoped>
.dress {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--unit) calc(3 * var(--unit));
  min-width: 0;
}
.parts {
  display: flex;
  flex: 1 1 160px;
  min-width: 0;
  max-width: 100%;
  overflow-x: auto;
}
.part {
  flex: 1 0 44px;
  min-height: 44px;
  padding: 0 var(--unit);
  font-size: var(--size-note);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.part.bare {
  background: repeating-linear-gradient(135deg, #969696 0 5px, #787878 5px 6px);
  color: #000;
}
.chip {
  width: 36px;
  height: 36px;
  margin-right: calc(3 * var(--unit));
}
</style>
