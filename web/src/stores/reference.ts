import {
  frameOf,
  gainsOf,
  layKey,
  SHOWN_SPACES,
  USUAL_HELD,
  type Frame,
  type Key,
  type KeyPlan,
  type LinearRgb,
  type Pixels,
  type RgbSpace,
  type ValueRange,
} from '@dusk/core';
import type { Needs, ReferenceDto, ViewDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { PictureLight } from '../engine/pictures.ts';
import { useDesk } from './useDesk.ts';
import { usePaintings } from './paintings.ts';
import { pictureUrl } from '../studio/api.ts';
import { isLocal } from '../studio/queue.ts';
import { before, useStudio } from '../studio/useStudio.ts';
import { useLooking } from './looking.ts';

/** A picture decoded once, so that areas of it can be read at any time. */
export interface Picture extends Pixels {
  readonly id: string;
  readonly image: ImageBitmap;
  readonly space: RgbSpace;
}

const LEAST_RADIUS = 1;
const MOST_RADIUS = 60;
const USUAL_RADIUS = 8;
const LEAST_RANGE = 0.1;
const AS_IT_IS: LinearRgb = [1, 1, 1];

/** A key as it is kept, for the engine. */
export function keyPlanOf({ key }: ViewDto): KeyPlan {
  if (!key || key.kind === 'as it is') return { kind: 'as it is' };
  const held = { held: key.held ?? USUAL_HELD, heldDark: key.heldDark ?? 0 };
  return key.kind === 'fitted' ? { kind: 'fitted', ...held } : { kind: 'moved', from: key.from!, to: key.to!, ...held };
}

/** The reference pictures of the painting on the easel, which of them is looked at, and how it is cut, lit and keyed. */
export const useReference = defineStore('reference', () => {
  const paintings = usePaintings();
  const studio = useStudio();
  const desk = useDesk();
  const looking = useLooking();
  const chosen = useLocalStorage<Record<string, string>>('dusk.references', {});
  const pixels = shallowRef<Picture>();
  const light = shallowRef<PictureLight>();
  const ends = shallowRef<ValueRange>();
  const failure = ref('');
  const radius = useLocalStorage('dusk.areaRadius', USUAL_RADIUS);

  const all = computed(() => (paintings.onEasel ? paintings.referencesOf(paintings.onEasel.id) : []));
  /** The picture asked for, or else the newest. */
  const reference = computed<ReferenceDto | undefined>(() => {
    const id = paintings.onEasel && chosen.value[paintings.onEasel.id];
    return all.value.find((r) => r.id === id) ?? all.value.at(-1);
  });
  watch(
    () => reference.value?.id ?? '',
    (id) => (looking.pictureId = id),
    { immediate: true, flush: 'sync' },
  );
  function choose(id: string): void {
    if (!paintings.onEasel) return;
    chosen.value = { ...chosen.value, [paintings.onEasel.id]: id };
  }
  /** The next picture, or the one before. */
  function turnTo(by: 1 | -1): void {
    const at = all.value.findIndex((r) => r.id === reference.value?.id);
    const next = all.value[(at + by + all.value.length) % all.value.length];
    if (next) choose(next.id);
  }

  let decoding: AbortController | undefined;
  watch(
    () => ({ of: reference.value?.id, id: reference.value?.pictureId }),
    async ({ of, id }, was) => {
      if (was && id === was.id && of === was.of) return;
      decoding?.abort();
      failure.value = '';
      // A picture that has gone to the studio is the one that is shown already, until the studio's own is there.
      // So is a plan that is drawn anew: as large as it was, until its new pixels are there.
      const isSame =
        was?.id !== undefined && (isLocal(was.id) || reference.value?.view.blank === true) && of === was.of && pixels.value !== undefined;
      if (!isSame) pixels.value = light.value = undefined;
      if (!id) return;
      const own = (decoding = new AbortController());
      try {
        const file = await studio.heldPicture(id);
        const space = file ? 'srgb' : (reference.value?.space ?? 'srgb');
        const needs = file ? { id, space, file } : { id, space, url: pictureUrl(id) };
        const decoded = await unlessGivenUp(engine().ask('picture', needs, { signal: own.signal }));
        if (!decoded || own.signal.aborted) return;
        pixels.value = { ...decoded, id, space: SHOWN_SPACES[space]! };
      } catch {
        if (own.signal.aborted || isSame) return;
        // What this browser cannot read the studio may: it is shown once it has arrived.
        failure.value = isLocal(id)
          ? 'This picture is on its way to the studio, and is seen once it is there.'
          : 'The picture cannot be shown. Reload the page, or bring the picture again.';
      }
    },
    { immediate: true },
  );

  /** How it is seen while a hand is still moving something. */
  const draft = shallowRef<ViewDto>();
  const view = computed<ViewDto>(() => draft.value ?? reference.value?.view ?? {});
  /** Own pixels to those of the copy that is read. */
  const perOwn = computed(() => (pixels.value && reference.value?.width ? pixels.value.width / reference.value.width : 1));
  /** Sides of the picture once it is turned, which crops are shares of. */
  const turnedSides = computed<readonly [width: number, height: number]>(() => {
    const { width, height } = pixels.value ?? { width: 0, height: 0 };
    return (view.value.turn ?? 0) % 2 === 1 ? [height, width] : [width, height];
  });
  const mirrored = computed(() => (view.value.mirror ?? false) !== looking.mirror);
  const frame = computed<Frame | undefined>(() => {
    if (!pixels.value) return undefined;
    const { turn, straighten, crop } = view.value;
    return frameOf({ turn, straighten, crop, mirror: mirrored.value }, pixels.value.width, pixels.value.height);
  });
  const gains = computed<LinearRgb>(() => {
    const { exposure, neutral, kelvin } = view.value;
    try {
      return gainsOf({ exposure, neutral: neutral && labOfDto(neutral), kelvin }, pixels.value?.space);
    } catch {
      return AS_IT_IS;
    }
  });
  const gainsText = computed(() => gains.value.join());

  let spreading: AbortController | undefined;
  watch(
    [pixels, gainsText],
    async () => {
      spreading?.abort();
      if (!pixels.value) return;
      const own = (spreading = new AbortController());
      const found = await unlessGivenUp(
        engine().ask('light', { pictureId: pixels.value.id, gains: gains.value }, { signal: own.signal }),
      ).catch(() => undefined);
      if (found && !own.signal.aborted) light.value = found;
    },
    { immediate: true },
  );
  const range = computed<ValueRange | undefined>(() => light.value?.spread.range);

  watch(
    () => desk.desk,
    async (laid) => {
      ends.value = undefined;
      if (!laid) return;
      const found = await unlessGivenUp(engine().ask('ends', {}, { desk: laid })).catch(() => undefined);
      if (desk.desk === laid) ends.value = found;
    },
    { immediate: true },
  );
  const plan = computed(() => keyPlanOf(view.value));
  /** What paint may be here: what the palette can mix, within the values that the painting keeps between. */
  const paintEnds = computed<ValueRange | undefined>(() => {
    const between = paintings.onEasel?.between;
    if (!ends.value || !between) return ends.value;
    const darkest = Math.max(ends.value.darkest, between.darkest);
    return { darkest, lightest: Math.max(darkest + LEAST_RANGE, Math.min(ends.value.lightest, between.lightest)) };
  });
  /** The key, once it is known what the picture holds and what paint can do; as it is until then. */
  const key = computed<Key | undefined>(() =>
    range.value && paintEnds.value
      ? layKey(plan.value, { seen: range.value, brightest: light.value?.spread.brightest, paint: paintEnds.value })
      : undefined,
  );
  const isKeyed = computed(() => key.value !== undefined && plan.value.kind !== 'as it is');

  const change = (part: Omit<Needs<'reference.change'>, 'id' | 'version'>, says: string, meanwhile = false): Promise<boolean> => {
    const { id, version } = reference.value!;
    return studio.make([{ do: 'reference.change', id, ...part, version: before(version, meanwhile) }], says);
  };
  /** Sets how it is seen: what is given, the rest as it was; nothing given takes that away. */
  async function see(part: Partial<Record<keyof ViewDto, unknown>>, says: string): Promise<void> {
    // What is on its way counts: it is what the hand sees.
    const own = view.value;
    const next = Object.fromEntries(Object.entries({ ...own, ...part }).filter(([, value]) => value !== undefined)) as ViewDto;
    draft.value = next;
    try {
      await change({ view: next as unknown as NonNullable<Needs<'reference.change'>['view']> }, says);
    } finally {
      if (draft.value === next) draft.value = undefined;
    }
  }
  /** Shows how it would be seen, while a hand still moves. */
  function tryView(part: ViewDto | undefined): void {
    draft.value = part && { ...(reference.value?.view ?? {}), ...part };
  }
  watch(reference, (now, was) => {
    if (now?.id !== was?.id) draft.value = undefined;
  });

  /** The place of the picture under a place of the window, while it is shown. */
  const placeAt = shallowRef<(clientX: number, clientY: number) => { readonly x: number; readonly y: number } | undefined>();

  function resize(factor: number): void {
    radius.value = Math.min(MOST_RADIUS, Math.max(LEAST_RADIUS, Math.round(radius.value * factor) + (factor > 1 ? 1 : -1)));
  }

  return {
    all,
    reference,
    choose,
    turnTo,
    pixels,
    failure,
    light,
    range,
    radius,
    resize,
    placeAt,
    view,
    frame,
    mirrored,
    turnedSides,
    gains,
    perOwn,
    ends,
    paintEnds,
    key,
    isKeyed,
    change,
    see,
    tryView,
  };
});
