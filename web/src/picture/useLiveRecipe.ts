import {
  proposeZone,
  readOutline,
  surroundNote,
  surroundOf,
  type AreaReading,
  type Lab,
  type Outline,
  type Trust,
  type Zone,
} from '@dusk/core';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { engine } from '../engine/engine.ts';
import type { Proposed } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useLanding } from '../stores/landing.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { readFiner } from './finer.ts';
import { useReference } from '../stores/reference.ts';
import { usePoints } from './points.ts';
import { ofValueAlone, useToPaint } from './toPaint.ts';

/** A place in a picture, in the pixels of the copy that is read. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is under the pointer, and the best recipe for it. */
export interface LiveReading extends AreaReading {
  readonly outline: Outline;
  /** Whether it was read in the picture's own pixels, not in those of the copy. */
  readonly isOwn: boolean;
  /** The colour that is to be painted: through the key, or of its value alone. */
  readonly paint: Lab;
  /** Whether only its value counted when it was read. */
  readonly valueOnly: boolean;
  readonly answer: Proposed | undefined;
}

/** What is told once the hand is still. */
export interface StillReading {
  readonly of: LiveReading;
  readonly zone: Zone | undefined;
  readonly note: string | undefined;
}

/** The hand is still once it has not moved for so long; how sure a recipe is, and what zone it is, is then asked. */
const STILL_MS = 120;
/** A point is written down once it has rested. */
const REMEMBER_MS = 400;
/** A hand that stays so long within so small a part of the picture's width means that place; what it passes over it does not mean. */
const DWELL_MS = 250;
const DWELL_WITHIN = 0.006;

/**
 * Follows a place in a picture: reads the area and asks for the recipe, of which only the newest is
 * answered; how far it can be trusted comes a moment later.
 */
export function useLiveRecipe() {
  const reference = useReference();
  const store = useDesk();
  const landing = useLanding();
  const toPaint = useToPaint();
  const paintings = usePaintings();
  const settings = useSettings();
  const points = usePoints();
  const place = ref<Place>();
  const drawn = shallowRef<Outline>();
  const live = shallowRef<LiveReading>();
  const trust = shallowRef<Trust>();
  const still = shallowRef<StillReading>();
  /** Only its value is meant: hue and chroma are of this colour. */
  const valueOnly = ref(false);
  const hueOf = shallowRef<Lab>([50, 0, 0]);
  const leftOut = ref<string[]>([]);
  /** What was read in the picture's own pixels, once the hand was still. */
  let finer: { readonly outline: Outline; readonly of: string; readonly reading: AreaReading } | undefined;
  let asking: AbortController | undefined;
  let resting: ReturnType<typeof setTimeout> | undefined;
  let remembering: ReturnType<typeof setTimeout> | undefined;
  /** What was last dwelt on or pressed, and where the hand began to dwell. */
  const meant = shallowRef<Outline>();
  let dwelling: ReturnType<typeof setTimeout> | undefined;
  let anchor: Place | undefined;

  const outline = computed<Outline | undefined>(() => drawn.value ?? (place.value && { ...place.value, radius: reference.radius }));
  /** Whether the hand means the place that is read. */
  const isMeant = computed(
    () =>
      meant.value !== undefined &&
      outline.value?.x === meant.value.x &&
      outline.value.y === meant.value.y &&
      drawn.value === (meant.value.points || meant.value.more ? meant.value : undefined),
  );
  const exclude = computed(() => leftOut.value.filter((id) => store.paletteTubes.some((tube) => tube.id === id)));

  const readIn = (): string => `${reference.pixels?.id} ${reference.gains.join()}`;
  /** Reads once more, in the picture's own pixels; what that changes is shown. */
  async function lookCloser({ outline: at, isOwn, atEdge, clipped }: LiveReading, signal: AbortSignal): Promise<void> {
    const { pixels, reference: row, gains } = reference;
    if (isOwn || !pixels || !row) return;
    const of = readIn();
    const reading = await readFiner(pixels, at, { ownWidth: row.ownWidth, gains, isOver: atEdge + clipped > 0, signal });
    if (!reading || signal.aborted || outline.value !== at || of !== readIn()) return;
    finer = { outline: at, of, reading };
    await follow(performance.now());
  }

  function whenStill(reading: LiveReading): void {
    asking?.abort();
    clearTimeout(resting);
    resting = setTimeout(async () => {
      const picture = reference.pixels;
      const { light, gains } = reference;
      if (picture && light && live.value === reading) {
        const zone = proposeZone(picture, reading.outline, reading.lab, { ...light, gains });
        still.value = { of: reading, zone, note: surroundNote(reading.lab, surroundOf(picture, reading.outline, gains)) };
      }
      const own = (asking = new AbortController());
      void lookCloser(reading, own.signal);
      const mixture = reading.answer?.proposals[0]?.mixture;
      if (!mixture) return;
      const found = await store.trust(mixture, own.signal);
      if (live.value === reading) trust.value = found;
    }, STILL_MS);
  }

  const paintOf = (seen: Lab): Lab => (valueOnly.value ? ofValueAlone(toPaint(seen), hueOf.value) : toPaint(seen));

  /** @param since when the painter moved, to measure how closely the recipe follows */
  async function follow(since: number): Promise<void> {
    const picture = reference.pixels;
    const at = outline.value;
    if (!picture || !at) return;
    const isOwn = finer?.outline === at && finer.of === readIn();
    const reading = isOwn ? finer!.reading : readOutline(picture, at, reference.gains);
    const paint = paintOf(reading.lab);
    const ofValueOnly = valueOnly.value;
    const desk = landing.deskFor(paint);
    const wishes = {
      dulling: settings.settings.dulling,
      amountMl: settings.settings.amountMl,
      ...(exclude.value.length > 0 && { exclude: exclude.value }),
    };
    const answer =
      desk &&
      (await engine()
        .follow(desk, paint, wishes)
        .catch(() => undefined));
    // A newer place answers for itself.
    if (at !== outline.value || desk !== landing.deskFor(paint) || (desk && !answer && exclude.value.length === 0)) return;
    live.value = { ...reading, outline: at, isOwn, paint, valueOnly: ofValueOnly, answer };
    trust.value = undefined;
    await nextTick();
    performance.measure('recipe follows', { start: since, end: performance.now() });
    whenStill(live.value);
  }

  function remember(): void {
    clearTimeout(remembering);
    const id = reference.reference?.id;
    const at = place.value;
    if (!id || !at) return;
    remembering = setTimeout(() => {
      points.value = { ...points.value, [id]: { x: at.x / reference.perOwn, y: at.y / reference.perOwn } };
    }, REMEMBER_MS);
  }

  function mean(): void {
    clearTimeout(dwelling);
    anchor = undefined;
    meant.value = outline.value;
  }
  function dwell(at: Place): void {
    const within = DWELL_WITHIN * (reference.pixels?.width ?? 0);
    if (anchor && Math.hypot(at.x - anchor.x, at.y - anchor.y) <= within) return;
    anchor = at;
    clearTimeout(dwelling);
    dwelling = setTimeout(mean, DWELL_MS);
  }
  /** The hand has left the picture: what it last meant holds, not what it passed over on its way. */
  function goBack(): void {
    clearTimeout(dwelling);
    anchor = undefined;
    const last = meant.value;
    if (!last || isMeant.value) return;
    if (last.points || last.more) holdOutline(last);
    else pointAt(last, performance.now(), true);
  }

  /** @param settled whether it was pressed or stepped there; else it counts once the hand stays */
  function pointAt({ x, y }: Place, since: number = performance.now(), settled = false): void {
    if (drawn.value || place.value?.x !== x || place.value.y !== y) goTo({ x, y }, since);
    if (settled) mean();
    else dwell({ x, y });
  }
  function goTo(next: Place, since: number): void {
    drawn.value = undefined;
    place.value = next;
    void follow(since);
    remember();
  }
  /** An area as it is, drawn or joined, becomes what is looked at. */
  function holdOutline(next: Outline, since: number = performance.now()): void {
    place.value = { x: next.x, y: next.y };
    drawn.value = next;
    mean();
    void follow(since);
    remember();
  }

  // The point of a picture is where it was when it was last looked at.
  watch(
    () => (reference.pixels ? reference.reference?.id : undefined),
    (id) => {
      if (!id) {
        place.value = drawn.value = live.value = meant.value = undefined;
        return;
      }
      const at = points.value[id];
      if (at && !place.value) pointAt({ x: at.x * reference.perOwn, y: at.y * reference.perOwn }, performance.now(), true);
    },
    { immediate: true },
  );
  watch(
    [
      () => reference.radius,
      () => store.desk,
      () => landing.byHabit,
      () => reference.pixels,
      () => settings.settings.dulling,
      () => settings.settings.amountMl,
      () => reference.gains.join(),
      () => reference.key,
      () => paintings.onEasel?.ceiling,
      valueOnly,
      hueOf,
      exclude,
    ],
    () => void follow(performance.now()),
  );
  return { place, outline, live, trust, still, isMeant, pointAt, goBack, holdOutline, valueOnly, hueOf, leftOut, exclude };
}
