import { hexToLab, labToHex, LEAST_PILES, type Lab } from '@dusk/core';
import type { Operation, ShapeDto } from '@dusk/wire';
import { labDto, labOfDto } from '@dusk/wire/written';
import { MOST_FLAT_SHAPES } from '@dusk/wire/limits';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { newId } from '../floor/ids.ts';
import { usePaintings } from '../stores/paintings.ts';
import { MOST_AT_ONCE, useManyPiles } from '../stores/manyPiles.ts';
import { usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import { before, useStudio } from '../studio/useStudio.ts';

/** Pixels of the longer side of a picture that is made of its shapes. */
const LONGEST = 1200;
/** A canvas whose size is not said is drawn so: width to height. */
const USUAL_RATIO = 4 / 3;
/** A hand that does not move for so long rests, ms. */
const REST_MS = 450;
/** Value, hue and strength of a shape of which nothing is said yet. */
const UNSAID: Lab = [50, 0, 0];

/** The value plan of the picture that is looked at, or one without a picture: a few flat shapes, each a target as samples are. */
export const usePlan = defineStore('plan', () => {
  const reference = useReference();
  const paintings = usePaintings();
  const piles = usePiles();
  const samples = useSamples();
  const studio = useStudio();
  const many = useManyPiles();

  /** What is on its way to the studio: it counts until it is there. */
  const ahead = shallowRef<{ readonly of: string; readonly shapes: readonly ShapeDto[] }>();
  const shapes = computed<readonly ShapeDto[]>(() =>
    ahead.value?.of === reference.reference?.id ? (ahead.value?.shapes ?? []) : (reference.view.shapes ?? []),
  );
  const at = ref<number>();
  const selected = computed(() => (at.value === undefined ? undefined : shapes.value[at.value]));
  const isBlank = computed(() => reference.view.blank ?? false);
  const groundLab = computed(() => hexToLab(paintings.onEasel?.ground ?? '#808080'));

  /** The shapes as a picture: flat colours on the ground. */
  async function drawn(list: readonly ShapeDto[], width: number, height: number): Promise<File> {
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d')!;
    context.fillStyle = paintings.onEasel?.ground ?? '#808080';
    context.fillRect(0, 0, width, height);
    for (const { points, lab } of list) {
      context.fillStyle = labToHex(labOfDto(lab));
      context.beginPath();
      for (let i = 0; i < points.length; i += 2) context.lineTo(points[i]! * width, points[i + 1]! * height);
      context.fill();
    }
    return new File([await canvas.convertToBlob({ type: 'image/png' })], 'A value plan.png', { type: 'image/png' });
  }

  /** A plan on an empty canvas of the painting's proportions becomes the picture. @returns whether it was made */
  async function begin(): Promise<boolean> {
    const painting = paintings.onEasel;
    if (!painting) return false;
    const ratio = painting.canvas ? painting.canvas.widthMm / painting.canvas.heightMm : USUAL_RATIO;
    const [width, height] = ratio >= 1 ? [LONGEST, Math.round(LONGEST / ratio)] : [Math.round(LONGEST * ratio), LONGEST];
    const pictureId = await paintings.pictureIdOf(await drawn([], Math.max(1, width), Math.max(1, height)));
    if (pictureId === undefined) return false;
    const id = newId();
    reference.choose(id);
    at.value = undefined;
    return studio.make(
      [
        { do: 'reference.add', id, paintingId: painting.id, pictureId, name: 'A value plan' },
        { do: 'reference.change', id, version: 1, view: { blank: true, shapes: [] } },
      ],
      'Began a value plan',
    );
  }

  /** Keeps the shapes; a picture that is made of them is drawn anew with them. */
  async function keep(next: readonly ShapeDto[], says: string): Promise<void> {
    const of = reference.reference?.id;
    if (of === undefined) return;
    const own = (ahead.value = { of, shapes: next });
    reference.tryView({ shapes: next });
    // One after the other: each rests on the version before it.
    await (saving = saving.then(() => save(own, says)));
    if (ahead.value !== own) return;
    ahead.value = undefined;
    reference.tryView(undefined);
  }
  let saving: Promise<unknown> = Promise.resolve();
  async function save({ of, shapes: next }: NonNullable<typeof ahead.value>, says: string): Promise<void> {
    const { pixels, reference: row } = reference;
    if (row?.id !== of) return;
    const sent = next.map((shape) => ({ ...shape, points: [...shape.points] }));
    const pictureId = isBlank.value && pixels ? await paintings.pictureIdOf(await drawn(next, pixels.width, pixels.height)) : undefined;
    const view = { ...row.view, shapes: sent } as never;
    await studio.make(
      [{ do: 'reference.change', id: row.id, version: before(row.version, false), ...(pictureId && { pictureId }), view }],
      says,
    );
  }

  const called = (shape: ShapeDto | undefined, i: number): string => shape?.thing || `shape ${i + 1}`;
  /** @param points corners in shares of the picture's sides */
  async function add(points: readonly number[], lab: Lab = UNSAID): Promise<void> {
    if (shapes.value.length >= MOST_FLAT_SHAPES) return;
    at.value = shapes.value.length;
    await keep([...shapes.value, { points, lab: labDto(lab) }], 'Drew a shape');
  }
  function change(part: Partial<ShapeDto>, says: string): Promise<void> {
    const i = at.value;
    if (i === undefined || !selected.value) return Promise.resolve();
    return keep(
      shapes.value.map((shape, k) => (k === i ? { ...shape, ...part } : shape)),
      says,
    );
  }
  /** Shows how it would be, while a hand still moves. */
  function tryOn(part: Partial<ShapeDto>): void {
    const next = shapes.value.map((shape, k) => (k === at.value ? { ...shape, ...part } : shape));
    if (ahead.value) ahead.value = { ...ahead.value, shapes: next };
    reference.tryView({ shapes: next });
  }
  async function remove(): Promise<void> {
    const i = at.value;
    if (i === undefined) return;
    at.value = undefined;
    await keep(
      shapes.value.filter((_, k) => k !== i),
      `Took ${called(shapes.value[i], i)} away`,
    );
  }
  /** Moves the selected shape by shares of the sides, as far as the canvas goes. */
  function moved(dx: number, dy: number): number[] | undefined {
    const points = selected.value?.points;
    if (!points) return undefined;
    const xs = points.filter((_, i) => i % 2 === 0);
    const ys = points.filter((_, i) => i % 2 === 1);
    const within = (by: number, of: readonly number[]): number => Math.min(1 - Math.max(...of), Math.max(-Math.min(...of), by));
    const [x, y] = [within(dx, xs), within(dy, ys)];
    return points.map((v, i) => v + (i % 2 === 0 ? x : y));
  }

  /** A colour that is said or dialled is seen at once, and kept once the hand rests. */
  let resting: ReturnType<typeof setTimeout> | undefined;
  let kept: (() => Promise<void>) | undefined;
  function say(lab: Lab): void {
    const i = at.value;
    if (i === undefined) return;
    tryOn({ lab: labDto(lab), pileId: undefined });
    clearTimeout(resting);
    kept = async () => {
      kept = undefined;
      const next = shapes.value.map((shape, k) => (k === i ? { ...shape, lab: labDto(lab), pileId: undefined } : shape));
      await keep(next as readonly ShapeDto[], `Said the colour of ${called(next[i] as ShapeDto, i)}`);
    };
    resting = setTimeout(() => void kept?.(), REST_MS);
  }
  /** What is still under the hand is kept, and what is on its way is there. */
  async function settled(): Promise<void> {
    clearTimeout(resting);
    await kept?.();
    await saving;
  }

  /** Shapes that have no pile yet. */
  const bare = computed(() => shapes.value.flatMap((shape, i) => (shape.pileId && piles.byId.has(shape.pileId) ? [] : [{ shape, i }])));
  /** The shapes that have no pile become piles in one step, each sampled where it lies; they are dressed in them. */
  async function becomePiles(once: boolean): Promise<boolean> {
    await settled();
    const { pixels, reference: row } = reference;
    if (!pixels || !row) return false;
    const wanted = bare.value.slice(0, MOST_AT_ONCE);
    const ids = await many.keep(
      wanted.map(({ shape }) => {
        const lab = labOfDto(shape.lab);
        const outline = samples.drawn(shape.points.map((v, k) => v * (k % 2 === 0 ? pixels.width : pixels.height)));
        return {
          paint: lab,
          ...(shape.thing && { name: shape.thing }),
          sample: { referenceId: row.id, outline, seen: lab, zone: '', thing: shape.thing ?? '', valueOnly: false },
        };
      }),
      {
        once: once && wanted.length >= LEAST_PILES,
        also: (made): Operation[] => {
          const { view, version } = reference.reference ?? row;
          if (made.length !== wanted.length || reference.reference?.id !== row.id) return [];
          const dressed = shapes.value.map((shape, i) => {
            const k = wanted.findIndex((one) => one.i === i);
            return { ...shape, points: [...shape.points], ...(k >= 0 && { pileId: made[k]! }) };
          });
          return [{ do: 'reference.change', id: row.id, version, view: { ...view, shapes: dressed } as never }];
        },
      },
    );
    return ids.length > 0;
  }

  /** Things of the plan and their colours: what can be spoken of. */
  const spokenOf = computed(
    () =>
      new Map(shapes.value.flatMap((shape, i) => (i === at.value || !shape.thing ? [] : [[shape.thing, labOfDto(shape.lab)] as const]))),
  );

  return { shapes, at, selected, isBlank, groundLab, bare, spokenOf, begin, add, change, tryOn, remove, moved, say, called, becomePiles };
});
