import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import { readPalettePhoto, type PaintFound } from '../reference/palettePhoto.ts';
import { PATCHES } from '../reference/besidePatch.ts';
import { linearReader, linearToLab, SRGB, type Pixels } from '../reference/pixels.ts';

/** A swatch that was found on a photographed card. */
export type SwatchFound = PaintFound;

/** A card as it was found: rows from the top, each from the left. */
export interface CardFound {
  readonly rows: readonly (readonly SwatchFound[])[];
  readonly paper: { readonly x: number; readonly y: number };
}

/** Swatches whose middles lie within this share of the photo's height are of one row. */
const SAME_ROW = 0.5;

/** Finds swatches and white paper on a photographed card. @throws CraftError as {@link readPalettePhoto} */
export function readSwatchCard(photo: Pixels): CardFound {
  const { paint, paper } = readPalettePhoto(photo);
  const aspect = photo.width / photo.height;
  const rows: PaintFound[][] = [];
  for (const one of [...paint].sort((a, b) => a.y - b.y)) {
    const row = rows.at(-1);
    const middle = row && row.reduce((sum, { y }) => sum + y, 0) / row.length;
    const height = one.width * aspect;
    if (row && Math.abs(one.y - middle!) < SAME_ROW * Math.max(height, row[0]!.width * aspect)) row.push(one);
    else rows.push([one]);
  }
  return { rows: rows.map((row) => row.sort((a, b) => a.x - b.x)), paper };
}

/** A small round place in a photo: its mean light, by channel, without what glares most. */
function lightAt(photo: Pixels, x: number, y: number, radius: number): [number, number, number] {
  const read = linearReader(photo);
  const sums: [number, number, number][] = [];
  const [cx, cy] = [x * photo.width, y * photo.height];
  const r = Math.max(2, radius);
  for (let py = Math.max(0, Math.ceil(cy - r)); py <= Math.min(photo.height - 1, cy + r); py++)
    for (let px = Math.max(0, Math.ceil(cx - r)); px <= Math.min(photo.width - 1, cx + r); px++) {
      if ((px - cx) ** 2 + (py - cy) ** 2 > r * r) continue;
      const at = 4 * (py * photo.width + px);
      sums.push([read(at, 0), read(at, 1), read(at, 2)]);
    }
  if (sums.length === 0) throw new CraftError('input', 'This place lies outside the photo.');
  const kept = sums.sort((a, b) => a[0] + a[1] + a[2] - (b[0] + b[1] + b[2])).slice(0, Math.max(1, Math.ceil(0.85 * sums.length)));
  return [0, 1, 2].map((c) => kept.reduce((sum, one) => sum + one[c]!, 0) / kept.length) as [number, number, number];
}

/** Reads a spot that a hand was moved to, against the white paper of the same photo. */
export function readSpot(photo: Pixels, spot: Pick<SwatchFound, 'x' | 'y' | 'width'>, paper: CardFound['paper']): Lab {
  const size = Math.max(photo.width, photo.height);
  const light = lightAt(photo, spot.x, spot.y, (spot.width * photo.width) / 5);
  const white = lightAt(photo, paper.x, paper.y, size * 0.012);
  const scaled = light.map((v, c) => Math.min(1.1, (v / Math.max(1e-4, white[c]!)) * PATCHES['white paper'])) as [number, number, number];
  return linearToLab(photo.space ?? SRGB, ...scaled);
}

/** Tints usual on a card: parts of white to one of the tube, straight first. */
export const USUAL_TINTS = [0, 2, 6, 20] as const;

/**
 * Which swatch of a row is which: as many as there are tints, from the straight one on; a row that begins at its lightest
 * end was laid the other way.
 * @throws CraftError for a row that has too few or too many
 */
export function tintsOfRow(
  row: readonly SwatchFound[],
  tints: readonly number[],
): { readonly found: SwatchFound; readonly white: number }[] {
  if (row.length > tints.length)
    throw new CraftError('input', `A row holds ${row.length} swatches, and ${tints.length} were to be there. Say how each was mixed.`);
  if (row.length < tints.length)
    throw new CraftError(
      'input',
      `${row.length === 0 ? 'No swatch was' : `Only ${row.length} of ${tints.length} swatches were`} found: half a card tells too little. Take the whole card in, or say how many tints there are.`,
    );
  const lightness = (one: SwatchFound): number => (one.lab as Lab)[0];
  const isBackwards = row.length > 1 && lightness(row[0]!) > lightness(row.at(-1)!) + 8;
  const ordered = isBackwards ? [...row].reverse() : row;
  return ordered.map((found, i) => ({ found, white: tints[i]! }));
}
