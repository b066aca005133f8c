<script setup lang="ts">
import { hexToLab, valueOfLightness, type Lab } from '@dusk/core';
import { useElementSize, useWindowSize } from '@vueuse/core';
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useWhite } from '../../floor/white.ts';
import { useRoute, useRouter } from 'vue-router';
import { describe } from '../../floor/words.ts';
import { usePiles } from '../../stores/piles.ts';
import { usePaintings } from '../../stores/paintings.ts';
import { useLooking } from '../../stores/looking.ts';
import { useReference } from '../../stores/reference.ts';
import { MOST_NEIGHBOURS } from '@dusk/wire/limits';
import { useSettings } from '../../stores/settings.ts';
import { layDabs, meantBy, sizeOf, type Strip } from './lay.ts';
import LedgeFan from './LedgeFan.vue';
import { useLifting, type Lifted } from './useLifting.ts';

/** The strip of piles: left to right by value, which is never moved; above the line when warm and below when cool, as large as their amount. */
const white = useWhite();
const route = useRoute();
const router = useRouter();
const paintings = usePaintings();
const piles = usePiles();
const settings = useSettings();
const reference = useReference();

/** Share of the way from black to white, kept off the very ends. */
const across = (value: number): number => 3 + 94 * (value / 10);
/** Greys lie close to the line, strong colours far off: the root keeps small differences visible. */
const warmthOf = (temperature: number): number => Math.sign(temperature) * Math.min(1, Math.sqrt(Math.abs(temperature) / 50));

const strip = useTemplateRef('strip');
const { width } = useElementSize(strip, { width: 1280, height: 138 });
const { height: windowHeight } = useWindowSize();
/** On a narrower strip as many piles are a larger crowd. */
const USUAL_WIDTH_PX = 1280;
/** Above the line the marks, below it the scale. */
const MARKS_PX = 18;
const SCALE_PX = 24;
/** The strip never takes more of the window than this, less where the window is small. */
const MOST_OF_WINDOW = 0.3;
const MOST_OF_SMALL = 0.19;
const isSmall = computed(() => windowHeight.value <= 520 || width.value <= 600);
const mostHalf = computed(() => {
  const most = (isSmall.value ? MOST_OF_SMALL : MOST_OF_WINDOW) * windowHeight.value;
  return Math.max(22, (most - MARKS_PX - SCALE_PX) / 2);
});

/** Planned: not mixed yet; gone: scraped off or used up; otherwise it lies on the palette. */
const SAYS = { planned: 'planned', there: 'on the palette', gone: 'no longer on the palette' } as const;

const ceiling = computed(() => paintings.onEasel?.ceiling ?? undefined);
/** How strong a colour is; fetched where a painting has a ceiling. */
const strengthOf = shallowRef<(lab: Lab) => number>();
watch(
  ceiling,
  async (value) => {
    if (value !== undefined)
      strengthOf.value ??= await import('../../stores/useWithin.ts').then((one) => one.strengthOf).catch(() => undefined);
  },
  { immediate: true },
);
const dabs = computed(() => {
  const all = piles.ofRank;
  return all.map((pile) => {
    const lab = piles.seenNow(pile);
    const temperature = settings.temperatureOf(lab);
    const value = valueOfLightness(lab[0]);
    const state = pile.stages.length === 0 ? ('planned' as const) : pile.there > 0 ? ('there' as const) : ('gone' as const);
    const isOther = pile.layer !== (paintings.onEasel?.layer ?? 1);
    const isAbove = ceiling.value !== undefined && (strengthOf.value?.(lab) ?? 0) > ceiling.value + 0.05;
    return {
      id: pile.id,
      isOther,
      isAbove,
      isStranded: piles.stranded.has(pile.id),
      number: value,
      name: pile.name,
      css: white.shown(lab).css,
      state,
      size: sizeOf(state === 'there' ? pile.there : pile.ml, (all.length * USUAL_WIDTH_PX) / Math.max(320, width.value)),
      x: (across(value) / 100) * width.value,
      warmth: warmthOf(temperature),
      value: settings.valueText(value),
      says: `${pile.name}, value ${settings.valueText(value)}, ${describe(lab, temperature)}, ${SAYS[state]}${isOther ? `, layer ${pile.layer}` : ''}${isAbove ? ', brighter than it may get' : ''}${piles.stranded.has(pile.id) ? `, not on this palette: ${piles.stranded.get(pile.id)!.join(', ')}` : ''}`,
    };
  });
});

/** While a hand is over the strip, what lies there stays where it is. */
const underHand = ref(false);
const placed = shallowRef<Strip>({ laid: [], half: 48 });
watch(
  [dabs, mostHalf, underHand],
  () => {
    const fixed = underHand.value ? new Map(placed.value.laid.map(({ id, up }) => [id, up])) : undefined;
    placed.value = layDabs(dabs.value, underHand.value ? placed.value.half : mostHalf.value, fixed);
  },
  { immediate: true },
);
const half = computed(() => placed.value.half);
const line = computed(() => MARKS_PX + half.value);
const blobs = computed(() => {
  const at = new Map(placed.value.laid.map((one) => [one.id, one]));
  return dabs.value.flatMap((dab) => {
    const one = at.get(dab.id);
    // The smaller lies on the larger, so that its middle is seen.
    return one ? [{ ...dab, x: one.x, y: line.value - one.up, z: 100 - one.size }] : [];
  });
});

const to = (id: string) => ({ name: 'mixing', params: { paintingId: paintings.onEasel?.id, pileId: id } });
const fan = shallowRef<{ readonly ids: readonly string[]; readonly x: number }>();
const fanned = computed(() => dabs.value.filter(({ id }) => fan.value?.ids.includes(id)));

/** A press means the nearest, whichever dab lies on top; where several share a place they fan out. */
function onPress(event: MouseEvent): void {
  if ((event.target as Element).closest('.fan')) return;
  if (event.metaKey || event.ctrlKey || event.shiftKey || event.button !== 0) return;
  // A key's press on a link has no place.
  if (event.detail === 0) return;
  // The end of a drag is no press.
  if (justDropped.value) {
    event.preventDefault();
    event.stopPropagation();
    return;
  }
  const { left, top } = strip.value!.getBoundingClientRect();
  const by = event instanceof PointerEvent && event.pointerType === 'touch' ? 'touch' : 'mouse';
  const ids = meantBy(placed.value.laid, event.clientX - left, line.value - (event.clientY - top), by);
  event.preventDefault();
  if (ids.length > 1) fan.value = { ids, x: event.clientX - left };
  else {
    fan.value = undefined;
    if (ids[0] !== undefined) void router.push(to(ids[0]));
  }
}

/** Dabs are picked up: dropped on another they are to be mixed, held to what is judged they are neighbours. */
const placeOf = (clientX: number, clientY: number): readonly [number, number] => {
  const { left, top } = strip.value!.getBoundingClientRect();
  return [clientX - left, line.value - (clientY - top)];
};
function dabAt(clientX: number, clientY: number, but?: string): string | undefined {
  const [x, up] = placeOf(clientX, clientY);
  const within = placed.value.laid.filter((dab) => dab.id !== but && Math.hypot(dab.x - x, dab.up - up) <= Math.max(22, dab.size / 2));
  return within.sort((one, other) => Math.hypot(one.x - x, one.up - up) - Math.hypot(other.x - x, other.up - up))[0]?.id;
}
/** On the line, not far above or below it. */
const LINE_PX = 10;
function isLine(clientX: number, clientY: number): boolean {
  const { left, right } = strip.value!.getBoundingClientRect();
  return clientX >= left && clientX <= right && Math.abs(placeOf(clientX, clientY)[1]) <= LINE_PX;
}
async function dropped({ id, onto, overStage, overLine, x, y }: Lifted): Promise<void> {
  looking.dropped = { pileId: id, x, y };
  if (onto !== undefined) await router.push({ ...to(onto), query: { with: id } });
  // Into all of them.
  else if (overLine) await router.push({ ...to(id), query: { into: 'all' } });
  else if (overStage && openedId.value && openedId.value !== id) await standBeside(openedId.value, id);
}
async function standBeside(own: string, pileId: string): Promise<void> {
  const { purpose, name } = piles.byId.get(own)!;
  const known = (purpose.neighbours ?? []).filter((one) => one.pileId !== pileId).slice(-(MOST_NEIGHBOURS - 1));
  await piles.change(
    own,
    { purpose: { ...purpose, neighbours: [...known, { pileId }] } as never },
    `“${piles.byId.get(pileId)!.name}” stands beside “${name}”`,
  );
}
const looking = useLooking();
const { lifted, justDropped } = useLifting(strip, { dabAt, isLine, dropped: (what) => void dropped(what) });
// What is picked up lights the places that it serves.
let litBefore: string | undefined;
watch(
  () => lifted.value?.id,
  (id, was) => {
    // Where the picture is shown in piles it is carried there to be laid, not to be looked for.
    if (looking.look === 'piles') return;
    if (was === undefined) litBefore = looking.lit;
    looking.lit = id ?? litBefore;
  },
);
const carried = computed(() => dabs.value.find(({ id }) => id === lifted.value?.id));
const ontoName = computed(() => dabs.value.find(({ id }) => id === lifted.value?.onto)?.name);

/** A stretch of value without a pile of this layer, where the rest lie closer. */
const GAP = 1.5;
const FEWEST = 3;
const gaps = computed(() => {
  const values = dabs.value.filter(({ isOther, state }) => !isOther && state !== 'gone').map(({ number }) => number);
  if (values.length < FEWEST) return [];
  return values.slice(1).flatMap((next, i) => {
    const from = values[i]!;
    if (next - from < GAP) return [];
    return [{ from: across(from), to: across(next), says: `${settings.valueText(from)} to ${settings.valueText(next)}: no pile` }];
  });
});

/** One stop for the tab key: the pile that is open, or the darkest; arrows go on from there. */
const openedId = computed(() => String(route.params['pileId'] ?? ''));
const held = ref('');
const tabStop = computed(() => [held.value, openedId.value].find((id) => dabs.value.some((dab) => dab.id === id)) ?? dabs.value[0]?.id);
async function onKey(event: KeyboardEvent): Promise<void> {
  const list = dabs.value;
  const at = list.findIndex((dab) => dab.id === tabStop.value);
  const next = { ArrowLeft: at - 1, ArrowRight: at + 1, Home: 0, End: list.length - 1 }[event.key];
  if (next === undefined || event.altKey || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  event.stopPropagation();
  held.value = list[Math.min(list.length - 1, Math.max(0, next))]?.id ?? '';
  await nextTick();
  strip.value?.querySelector<HTMLElement>('a[tabindex="0"]')?.focus();
}

/** Marks carry their word on the side where there is room. */
const MARK_PX = 66;
const marks = computed(() => {
  const room = Math.max(7, (100 * MARK_PX) / Math.max(1, width.value));
  const ends = reference.range && { darkest: across(reference.range.darkest), lightest: across(reference.range.lightest) };
  const ground = paintings.onEasel && across(valueOfLightness(hexToLab(paintings.onEasel.ground)[0]));
  /** A ground that lies just above the lightest has its word on its other side. */
  const isBeyond = ends !== undefined && ground !== undefined && ground >= ends.lightest && ground - ends.lightest < room;
  const list: { says: string; at: number; left: boolean; means: string }[] = [];
  if (ends)
    list.push(
      { says: 'darkest', at: ends.darkest, left: ends.darkest > room, means: 'the darkest place of the reference' },
      { says: 'lightest', at: ends.lightest, left: ends.lightest > 100 - room || isBeyond, means: 'the lightest place of the reference' },
    );
  if (ground !== undefined)
    list.push({
      says: 'ground',
      at: ground,
      left: ends !== undefined && Math.abs(ends.lightest - ground) < room && ground < ends.lightest,
      means: 'the toned surface under the paint: a pile to its right looks light on it, one to its left dark',
    });
  return list;
});
const ticks = computed(() =>
  [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((v) => ({ at: across(v), text: settings.valueText(v).replace(/\.0$/, '') })),
);
</script>

<template>
  <section
    ref="strip"
    class="ledge judging"
    :aria-label="`Ledge: the piles of ${paintings.onEasel?.title}, dark to light`"
    :style="{ height: `${MARKS_PX + 2 * half + SCALE_PX}px`, '--line': `${line}px` }"
    @pointerenter="underHand = true"
    @pointerleave="underHand = false"
    @click.capture="onPress"
    @keydown="onKey"
  >
    <span class="side warm">warm</span>
    <span class="side cool">cool</span>
    <div class="line" :class="{ under: lifted?.overLine }" />
    <span
      v-for="gap in gaps"
      :key="gap.from"
      class="gap"
      :title="gap.says"
      :style="{ left: `calc(${gap.from}% + 20px)`, width: `calc(${gap.to - gap.from}% - 40px)` }"
      ><span class="for-readers">{{ gap.says }}</span></span
    >
    <span v-for="tick in ticks" :key="tick.at" class="tick figures" :style="{ left: `${tick.at}%` }">{{ tick.text }}</span>
    <span
      v-for="mark in marks"
      :key="mark.says"
      class="mark"
      :class="{ left: mark.left }"
      :style="{ left: `${mark.at}%` }"
      :title="mark.means"
      >{{ mark.says }}</span
    >
    <RouterLink
      v-for="blob in blobs"
      :key="blob.id"
      class="pile"
      :class="[
        blob.state,
        {
          open: openedId === blob.id,
          other: blob.isOther,
          above: blob.isAbove,
          stranded: blob.isStranded,
          onto: lifted?.onto === blob.id,
          away: lifted?.id === blob.id,
        },
      ]"
      :to="to(blob.id)"
      :tabindex="blob.id === tabStop ? 0 : -1"
      :aria-label="blob.says"
      :title="blob.says"
      :style="{ left: `${blob.x}px`, top: `${blob.y}px`, width: `${blob.size}px`, height: `${blob.size}px`, zIndex: blob.z }"
      @focus="held = blob.id"
    >
      <span class="blob squints" :style="{ background: blob.css }" />
    </RouterLink>
    <div v-if="lifted && carried" class="lifted" :style="{ left: `${lifted.x}px`, top: `${lifted.y}px` }" aria-hidden="true">
      <span class="blob" :style="{ background: carried.css }" />
      <span class="into">{{ ontoName ? `into one with ${ontoName}` : lifted.overStage ? 'stand beside' : carried.name }}</span>
    </div>
    <p v-if="piles.list.length === 0" class="empty">Piles you keep lie here, dark to light.</p>
    <LedgeFan v-if="fan" :dabs="fanned" :x="fan.x" :width="width" :to="to" @close="fan = undefined" />
  </section>
</template>

<style scoped>
.ledge {
  grid-area: ledge;
  position: relative;
  isolation: isolate;
  cursor: default;
  touch-action: manipulation;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  top: var(--line);
  border-top: 1px solid var(--surround-line);
}
.side {
  position: absolute;
  left: calc(2 * var(--unit));
  font-size: var(--size-note);
  line-height: 1;
}
.warm {
  top: calc(var(--line) - 20px);
}
.cool {
  top: calc(var(--line) + 6px);
}
.tick {
  position: absolute;
  bottom: 0;
  transform: translateX(-50%);
  font-size: var(--size-note);
  line-height: 18px;
}
.tick::before {
  content: '';
  position: absolute;
  left: 50%;
  bottom: 18px;
  height: 6px;
  border-left: 1px solid var(--surround-ink);
}
.mark {
  position: absolute;
  top: 0;
  padding-left: var(--unit);
  height: 18px;
  line-height: 18px;
  font-size: var(--size-note);
  border-left: 3px solid var(--surround-ink);
  white-space: nowrap;
}
.mark.left {
  transform: translateX(-100%);
  border-left: none;
  border-right: 3px solid var(--surround-ink);
  padding: 0 var(--unit) 0 0;
}
.pile {
  position: absolute;
  display: block;
  border-radius: 50%;
  transform: translate(-50%, -50%);
}
.blob {
  display: block;
  width: 100%;
  height: 100%;
  border-radius: 50%;
}
/* Where a value is missing. */
.gap {
  position: absolute;
  top: calc(var(--line) - 4px);
  height: 9px;
  border: solid var(--surround-soft);
  border-width: 0 2px;
}
.gap::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 4px;
  border-top: 1px dashed var(--surround-soft);
}
.pile {
  touch-action: none;
}
.other .blob {
  opacity: 0.35;
}
/* To be mixed from a tube that is not on the palette: a bar under the dab. */
.stranded::before {
  content: '';
  position: absolute;
  left: 15%;
  right: 15%;
  bottom: -8px;
  border-top: 3px dotted var(--surround-ink);
}
/* Stronger than the painting bears: a bar over the dab. */
.above::after {
  content: '';
  position: absolute;
  left: 15%;
  right: 15%;
  top: -7px;
  border-top: 3px solid var(--surround-ink);
}
.onto {
  outline: 3px dashed var(--surround-ink);
  outline-offset: 4px;
  z-index: 102 !important;
}
.away {
  opacity: 0.4;
}
.lifted {
  position: fixed;
  z-index: 300;
  display: flex;
  align-items: center;
  gap: calc(2 * var(--unit));
  transform: translate(-26px, -26px);
  pointer-events: none;
  white-space: nowrap;
}
.lifted .blob {
  width: 52px;
  height: 52px;
}
.into {
  padding: var(--unit) calc(2 * var(--unit));
  background: var(--surround);
  color: var(--surround-ink);
}
.gone .blob {
  opacity: 0.3;
}
/* Not mixed yet: an open ring about a smaller dab. */
.planned .blob {
  border: 3px solid var(--surround);
  outline: 1px dashed var(--surround-ink);
  outline-offset: -1px;
  background-clip: padding-box;
}
.pile.open {
  z-index: 101 !important;
  outline: 3px solid var(--surround-ink);
  outline-offset: 2px;
}
.empty {
  position: absolute;
  left: 50%;
  top: calc(var(--line) - 30px);
  transform: translateX(-50%);
  white-space: nowrap;
}
@media (forced-colors: active) {
  .blob {
    forced-color-adjust: none;
  }
}
</style>
