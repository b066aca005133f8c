import { hexToLab, labToHex, LEAST_PILES, type Lab } from '@dusk/core';
import type { Operation, PaintingDto, ReferenceDto, ShapeDto } from '@dusk/wire';
import { labDto, labOfDto } from '@dusk/wire/written';
import { MOST_FLAT_SHAPES } from '@dusk/wire/limits';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { newId } from '../floor/ids.ts';
import { usePaintings } from '../stores/paintings.ts';
import { MOST_AT_ONCE, useManyPiles } from '../stores/manyPiles.ts';
import { usePiles } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import { useStudio } from '../studio/useStudio.ts';

/** Pixels of the longer side of a picture that is made of its shapes. */
const LONGEST = 1200;
/** A canvas whose size is not said is drawn so: width to height. */
const USUAL_RATIO = 4 / 3;
/** A hand that does not move for so long rests, ms. */
const REST_MS = 450;
/** px. */
interface Sides {
  readonly width: number;
  readonly height: number;
}
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

  /** What is on its way to the studio, by the picture it is of: it counts until it is there. */
  const ahead = shallowRef<ReadonlyMap<string, readonly ShapeDto[]>>(new Map());
  function setAhead(of: string, shapes: readonly ShapeDto[] | undefined): void {
    const next = new Map(ahead.value);
    if (shapes) next.set(of, shapes);
    else next.delete(of);
    ahead.value = next;
  }
  /** Shapes of a picture, whichever is looked at. */
  const shapesOf = (of: string): readonly ShapeDto[] => ahead.value.get(of) ?? studio.rows.references.get(of)?.view.shapes ?? [];
  const isHere = (of: string): boolean => reference.reference?.id === of;
  const shapes = computed<readonly ShapeDto[]>(() => ahead.value.get(reference.reference?.id ?? '') ?? reference.view.shapes ?? []);
  const at = ref<number>();
  const selected = computed(() => (at.value === undefined ? undefined : shapes.value[at.value]));
  const isBlank = computed(() => reference.view.blank ?? false);
  // What is selected is of the picture that is looked at.
  watch(
    () => reference.reference?.id,
    () => (at.value = undefined),
    { flush: 'sync' },
  );
  const groundLab = computed(() => hexToLab(paintings.onEasel?.ground ?? '#808080'));

  /** The shapes as a picture: flat colours on the ground. */
  async function drawn(list: readonly ShapeDto[], ground: string, { width, height }: Sides): Promise<File> {
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d')!;
    context.fillStyle = ground;
    context.fillRect(0, 0, width, height);
    for (const { points, lab } of list) {
      context.fillStyle = labToHex(labOfDto(lab));
      context.beginPath();
      for (let i = 0; i < points.length; i += 2) context.lineTo(points[i]! * width, points[i + 1]! * height);
      context.fill();
    }
    return new File([await canvas.convertToBlob({ type: 'image/png' })], 'A value plan.png', { type: 'image/png' });
  }

  const sidesOf = ({ canvas }: PaintingDto): Sides => {
    const ratio = canvas ? canvas.widthMm / canvas.heightMm : USUAL_RATIO;
    const [width, height] = ratio >= 1 ? [LONGEST, Math.round(LONGEST / ratio)] : [Math.round(LONGEST * ratio), LONGEST];
    return { width: Math.max(1, width), height: Math.max(1, height) };
  };

  /** A plan on an empty canvas of the painting's proportions becomes the picture. @returns whether it was made */
  async function begin(): Promise<boolean> {
    const painting = paintings.onEasel;
    if (!painting) return false;
    const pictureId = await paintings.pictureIdOf(await drawn([], painting.ground, sidesOf(painting)));
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

  /**
   * Keeps the shapes of a picture, which need not be the one that is looked at any more; a picture that is
   * made of them is drawn anew with them. What was kept before need not be answered yet.
   */
  async function keep(of: string, next: readonly ShapeDto[], says: string): Promise<void> {
    setAhead(of, next);
    if (isHere(of)) reference.tryView({ shapes: next });
    try {
      await save(of, next, says);
    } finally {
      if (ahead.value.get(of) === next) {
        setAhead(of, undefined);
        if (isHere(of)) reference.tryView(undefined);
      }
    }
  }
  let drawing: Promise<unknown> = Promise.resolve();
  /** The plan as a picture, one after the other. */
  function pictureOf({ id, paintingId, width, height }: ReferenceDto, next: readonly ShapeDto[]): Promise<string | undefined> {
    const painting = paintings.byId.get(paintingId);
    const sides = (isHere(id) && reference.pixels) || (width > 0 ? { width, height } : painting ? sidesOf(painting) : undefined);
    const own = drawing.then(async () => sides && paintings.pictureIdOf(await drawn(next, painting?.ground ?? '#808080', sides)));
    drawing = own.catch(() => undefined);
    return own;
  }
  async function save(of: string, next: readonly ShapeDto[], says: string): Promise<void> {
    const row = studio.rows.references.get(of);
    if (!row) return;
    const pictureId = row.view.blank ? await pictureOf(row, next) : undefined;
    const { version, view } = studio.rows.references.get(of) ?? row;
    const shapes = next.map((shape) => ({ ...shape, points: [...shape.points] }));
    await studio.make(
      [{ do: 'reference.change', id: of, version, ...(pictureId && { pictureId }), view: { ...view, shapes } as never }],
      says,
    );
  }
  /** Keeps the shapes of the picture that is looked at. */
  async function keepHere(next: readonly ShapeDto[], says: string): Promise<void> {
    if (reference.reference) await keep(reference.reference.id, next, says);
  }

  const called = (shape: ShapeDto | undefined, i: number): string => shape?.thing || `shape ${i + 1}`;
  /** @param points corners in shares of the picture's sides */
  async function add(points: readonly number[], lab: Lab = UNSAID): Promise<void> {
    if (shapes.value.length >= MOST_FLAT_SHAPES) return;
    at.value = shapes.value.length;
    await keepHere([...shapes.value, { points, lab: labDto(lab) }], 'Drew a shape');
  }
  function change(part: Partial<ShapeDto>, says: string): Promise<void> {
    const i = at.value;
    if (i === undefined || !selected.value) return Promise.resolve();
    return keepHere(
      shapes.value.map((shape, k) => (k === i ? { ...shape, ...part } : shape)),
      says,
    );
  }
  /** Shows how it would be, while a hand still moves. */
  function tryOn(part: Partial<ShapeDto>): void {
    const next = shapes.value.map((shape, k) => (k === at.value ? { ...shape, ...part } : shape));
    const of = reference.reference?.id;
    if (of !== undefined && ahead.value.has(of)) setAhead(of, next);
    reference.tryView({ shapes: next });
  }
  async function remove(): Promise<void> {
    const i = at.value;
    if (i === undefined) return;
    at.value = undefined;
    await keepHere(
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
    const of = reference.reference?.id;
    if (i === undefined || of === undefined) return;
    tryOn({ lab: labDto(lab), pileId: undefined });
    clearTimeout(resting);
    kept = async () => {
      kept = undefined;
      const next = shapesOf(of).map((shape, k) => (k === i ? { ...shape, lab: labDto(lab), pileId: undefined } : shape));
      if (next[i]) await keep(of, next as readonly ShapeDto[], `Said the colour of ${called(next[i] as ShapeDto, i)}`);
    };
    resting = setTimeout(() => void kept?.(), REST_MS);
  }
  /** What is still under the hand is on its way. */
  function atRest(): void {
    clearTimeout(resting);
    void kept?.();
  }
  // Another shape, or another picture, is another hand's work.
  watch(at, atRest, { flush: 'sync' });

  /** Shapes that have no pile yet. */
  const bare = computed(() => shapes.value.flatMap((shape, i) => (shape.pileId && piles.byId.has(shape.pileId) ? [] : [{ shape, i }])));
  /** The shapes that have no pile become piles in one step, each sampled where it lies; they are dressed in them. */
  async function becomePiles(once: boolean): Promise<boolean> {
    atRest();
    const { pixels, reference: row } = reference;
    if (!pixels || !row) return false;
    const wanted = bare.value.slice(0, MOST_AT_ONCE).map(({ shape }) => {
      const lab = labOfDto(shape.lab);
      const outline = samples.drawn(shape.points.map((v, k) => v * (k % 2 === 0 ? pixels.width : pixels.height)));
      return {
        shape,
        paint: lab,
        ...(shape.thing && { name: shape.thing }),
        sample: { referenceId: row.id, outline, seen: lab, zone: '', thing: shape.thing ?? '', valueOnly: false },
      };
    });
    const ids = await many.keep(wanted, {
      once: once && wanted.length >= LEAST_PILES,
      // The shapes as they are by then: what lies where one lay that was asked for is dressed.
      also: (made): Operation[] => {
        const now = studio.rows.references.get(row.id);
        if (!now) return [];
        const dressed = shapesOf(row.id).map((shape) => {
          const one = wanted.find((other) => other.shape.points.join() === shape.points.join());
          const pileId = one && made.get(one);
          return { ...shape, points: [...shape.points], ...(pileId !== undefined && { pileId }) };
        });
        return [{ do: 'reference.change', id: row.id, version: now.version, view: { ...now.view, shapes: dressed } as never }];
      },
    });
    return ids.length > 0;
  }

  /** Things of the plan and their colours: what can be spoken of. */
  const spokenOf = computed(
    () =>
      new Map(shapes.value.flatMap((shape, i) => (i === at.value || !shape.thing ? [] : [[shape.thing, labOfDto(shape.lab)] as const]))),
  );

  return { shapes, at, selected, isBlank, groundLab, bare, spokenOf, begin, add, change, tryOn, remove, moved, say, called, becomePiles };
});
