import { movedBy, readOutline, resized, WIDE, type AreaReading, type LinearRgb, type Outline } from '@dusk/core';
import { PIECE_LONGEST_SIDE } from '@dusk/wire/limits';
import { PIECE } from '@dusk/wire/reads';
import { pictureUrl } from '../studio/api.ts';
import type { Picture } from '../stores/reference.ts';

/** The box round an area and all that it is joined with, in whole pixels within a picture. */
function boxOf(outline: Outline, width: number, height: number) {
  const alone = [outline, ...(outline.more ?? [])];
  const xs = alone.flatMap(({ x, radius, points }) => points?.filter((_, i) => i % 2 === 0) ?? [x - radius, x + radius]);
  const ys = alone.flatMap(({ y, radius, points }) => points?.filter((_, i) => i % 2 === 1) ?? [y - radius, y + radius]);
  const from = (values: readonly number[], most: number): number => Math.min(most - 1, Math.max(0, Math.floor(Math.min(...values)) - 1));
  const to = (values: readonly number[], most: number): number => Math.min(most, Math.max(1, Math.ceil(Math.max(...values)) + 2));
  const [left, top] = [from(xs, width), from(ys, height)];
  return { left, top, width: to(xs, width) - left, height: to(ys, height) - top };
}

interface Finer {
  /** Of the picture itself, px. */
  readonly ownWidth: number;
  readonly gains: LinearRgb;
  /** Whether what was read in the copy was at the edge of its space, or as light as that says. */
  readonly isOver: boolean;
  readonly signal: AbortSignal;
}

/**
 * Reads an area from the picture's own pixels, a piece of which the studio sends; in a wide space, where
 * it is as strong or as light as the space of the copy can say. Nothing where the copy is as fine, the area so large that the copy tells as much, or the studio is away.
 * @param outline in the pixels of the copy
 */
export async function readFiner(
  picture: Picture,
  outline: Outline,
  { ownWidth, gains, isOver, signal }: Finer,
): Promise<AreaReading | undefined> {
  const finer = ownWidth / picture.width;
  const wide = isOver && picture.space.name !== 'srgb';
  if (finer <= 1 && !wide) return undefined;
  const own = resized(outline, finer);
  // The copy's height was rounded: a row less is safely within.
  const box = boxOf(own, ownWidth, Math.floor((picture.height - 0.5) * finer));
  if (Math.max(box.width, box.height) > PIECE_LONGEST_SIDE) return undefined;
  const query = new URLSearchParams(Object.entries(box).map(([name, px]) => [name, String(px)]));
  if (wide) query.set('wide', '1');
  // Told to stop it may break off in the middle of the answer, and so may a studio that goes away.
  const file = await fetch(`${pictureUrl(picture.id)}${PIECE}?${query}`, { signal })
    .then((response) => (response.ok ? response.blob() : undefined))
    .catch(() => undefined);
  if (!file || signal.aborted) return undefined;
  const image = await createImageBitmap(file, { colorSpaceConversion: 'none' });
  const context = new OffscreenCanvas(box.width, box.height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  image.close();
  const { data } = context.getImageData(0, 0, box.width, box.height);
  const piece = { data, width: box.width, height: box.height, space: wide ? WIDE : picture.space, marksLost: wide };
  return readOutline(piece, movedBy(own, -box.left, -box.top), gains);
}
