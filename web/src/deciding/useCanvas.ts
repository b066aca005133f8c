import { asSeen, compareColours, CraftError, deltaE00, oneStep, SERVES_WITHIN, type Affine, type Lab, type Miss } from '@dusk/core';
import type { CanvasPhotoDto, ReferenceDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { CanvasSeen } from '../engine/photos.ts';
import { newId } from '../floor/ids.ts';
import { usePaintings } from '../stores/paintings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useTubes } from '../stores/tubes.ts';
import { pictureUrl } from '../studio/api.ts';
import { before, useStudio } from '../studio/useStudio.ts';

/** Both are compared so large, px along the longer side. */
const LONGEST = 480;
/** A pile that looks like what is there is what it was painted with, as near as this. */
const PAINTED_WITH = 12;

/** What went wrong with a photo, in a painter's words. */
const saidOf = (cause: unknown): string =>
  cause instanceof CraftError ? cause.message : 'This photo cannot be read here. Bring a JPEG, PNG, WebP or AVIF of your canvas.';

/** Photos of the canvas, held against the picture that is looked at. */
export const useCanvas = defineStore('canvas', () => {
  const reference = useReference();
  const paintings = usePaintings();
  const piles = usePiles();
  const tubes = useTubes();
  const desk = useDesk();
  const studio = useStudio();

  const photos = computed(() => (reference.reference ? paintings.canvasesOf(reference.reference.id) : []));
  const chosenId = ref<string>();
  const photo = computed<ReferenceDto | undefined>(() => photos.value.find(({ id }) => id === chosenId.value) ?? photos.value[0]);
  const seen = shallowRef<CanvasSeen & { readonly of: string }>();
  const isComparing = ref(false);
  const failure = ref('');
  /** The canvas could not be told from what is behind it. */
  const needsCorners = ref(false);
  /** Whether the canvas is shown in the place of the picture. */
  const isFlipped = ref(false);

  const size = computed(() => {
    const frame = reference.frame;
    if (!frame) return undefined;
    const by = Math.min(1, LONGEST / Math.max(frame.width, frame.height));
    return {
      width: Math.max(8, Math.round(frame.width * by)),
      height: Math.max(8, Math.round(frame.height * by)),
      transform: frame.toFrame.map((v) => v * by) as unknown as Affine,
    };
  });
  const ofPicture = () => {
    if (!reference.pixels || !size.value) return undefined;
    const { isKeyed, key, gains, pixels } = reference;
    return { pictureId: pixels.id, gains, key: isKeyed && key ? { plan: key.plan, ends: key.ends } : undefined, ...size.value };
  };

  let comparing: AbortController | undefined;
  async function compare(): Promise<void> {
    comparing?.abort();
    const row = photo.value;
    const needs = ofPicture();
    if (!row || !needs) {
      seen.value = undefined;
      return;
    }
    const own = (comparing = new AbortController());
    isComparing.value = true;
    failure.value = '';
    const started = performance.now();
    try {
      const { corners, white, meant = [] } = row.view.canvas!;
      const file = await studio.heldPicture(row.pictureId);
      const found = await unlessGivenUp(
        engine().ask(
          'canvas',
          {
            ...needs,
            photo: file ? { file } : { url: pictureUrl(row.pictureId) },
            corners: corners as never,
            white,
            meant: meant.map(({ points }) => points),
          },
          { signal: own.signal },
        ),
      );
      if (!found || own.signal.aborted) return;
      seen.value = { ...found, of: row.id };
      performance.measure('canvas compared', { start: started, end: performance.now() });
    } catch (cause) {
      if (!own.signal.aborted) failure.value = saidOf(cause);
    } finally {
      if (comparing === own) isComparing.value = false;
    }
  }
  watch(
    [
      () => photo.value?.id,
      () => photo.value?.version,
      () => photo.value?.pictureId,
      () => reference.pixels?.id,
      () => reference.gains.join(),
      () => reference.key,
      size,
    ],
    () => void (isOpen.value && compare()),
  );
  /** It is compared only where that is seen. */
  const isOpen = ref(false);
  function open(): () => void {
    isOpen.value = true;
    if (seen.value?.of !== photo.value?.id || !seen.value) void compare();
    return () => {
      isOpen.value = false;
      isFlipped.value = false;
      comparing?.abort();
      isComparing.value = false;
    };
  }

  /** A photo of the canvas; what is meant so in the last one stays so. */
  async function bring(file: File): Promise<void> {
    const painting = paintings.onEasel;
    const of = reference.reference?.id;
    const needs = ofPicture();
    if (!painting || of === undefined || !needs) return;
    isComparing.value = true;
    try {
      // Where the canvas stands is looked for before it is kept.
      const found = await unlessGivenUp(
        engine().ask('canvas', { ...needs, photo: { file }, corners: undefined, white: undefined, meant: [] }),
      );
      const pictureId = await paintings.pictureIdOf(file);
      if (!found || pictureId === undefined) return;
      const id = newId();
      const meant = photos.value[0]?.view.canvas?.meant;
      const canvas = { of, corners: [...found.corners], ...(meant && { meant: meant.map(({ points }) => ({ points: [...points] })) }) };
      const made = await studio.make(
        [
          { do: 'reference.add', id, paintingId: painting.id, pictureId, name: 'The canvas' },
          { do: 'reference.change', id, version: 1, view: { canvas } },
        ],
        'Brought a photo of the canvas',
      );
      if (!made) return;
      chosenId.value = id;
      needsCorners.value = !found.isFound;
    } catch (cause) {
      failure.value = saidOf(cause);
    } finally {
      isComparing.value = false;
    }
  }
  /** The stand-in camera before a canvas that was painted from the picture in haste. */
  async function standIn(): Promise<void> {
    const needs = ofPicture();
    if (!needs) return;
    const blob = await unlessGivenUp(engine().ask('standIn', { ...needs, seed: photos.value.length + 1 }));
    if (blob) await bring(new File([blob], 'The canvas.png', { type: 'image/png' }));
  }

  const change = (part: Partial<CanvasPhotoDto>, says: string): Promise<boolean> => {
    const row = photo.value!;
    const canvas = { ...row.view.canvas!, ...part };
    return studio.make(
      [{ do: 'reference.change', id: row.id, version: before(row.version, false), view: { ...row.view, canvas } as never }],
      says,
    );
  };
  /** Corners of the outline of a miss: what goes round its squares. */
  function outlineOf({ cells }: Miss): number[] {
    const { across, down } = seen.value!;
    const xs = cells.map((i) => i % across);
    const ys = cells.map((i) => Math.floor(i / across));
    const [x0, x1, y0, y1] = [
      Math.min(...xs) / across,
      (Math.max(...xs) + 1) / across,
      Math.min(...ys) / down,
      (Math.max(...ys) + 1) / down,
    ];
    return [x0, y0, x1, y0, x1, y1, x0, y1];
  }
  async function meanSo(miss: Miss): Promise<void> {
    const meant = photo.value?.view.canvas?.meant ?? [];
    if (miss.isMeant) {
      const covers = ({ points }: { readonly points: readonly number[] }): boolean =>
        miss.x >= points[0]! && miss.x <= points[2]! && miss.y >= points[1]! && miss.y <= points[5]!;
      await change({ meant: meant.filter((one) => !covers(one)) }, 'Not meant so after all');
    } else await change({ meant: [...meant, { points: outlineOf(miss) }] }, 'It is meant so');
  }

  /** The one thing that would mend a miss: a pile that is to lie there, or what is put into the one it was painted with. */
  function mendOf({ wanted, seen: is }: Miss): string {
    const apart = (lab: Lab) => (pile: (typeof piles.ofRank)[number]) => deltaE00(lookNow(pile), lab);
    const nearest = (lab: Lab) =>
      piles.ofRank.reduce<(typeof piles.ofRank)[number] | undefined>(
        (best, one) => (!best || apart(lab)(one) < apart(lab)(best) ? one : best),
        undefined,
      );
    const serves = nearest(wanted);
    if (serves && apart(wanted)(serves) <= SERVES_WITHIN) return `“${serves.name}” over it`;
    const own = nearest(is);
    if (own && apart(is)(own) <= PAINTED_WITH) {
      const palette = desk.paletteTubes.map(({ id, paint }) => ({ id, ...paint }));
      const step = oneStep(asSeen(desk.paintOfPile(own.id), is), wanted, palette);
      if (step && step.deltaE00 < 0.6 * deltaE00(is, wanted))
        return `“${own.name}” with some ${tubes.byId.get(step.by)?.name ?? 'of a tube'} in it`;
    }
    return `make it ${compareColours(wanted, is).words.join(', ')}`;
  }

  return { photos, photo, chosenId, seen, isComparing, failure, isFlipped, needsCorners, open, bring, standIn, change, meanSo, mendOf };
});
