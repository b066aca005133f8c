// Photos in the worker: of the canvas, of a palette with its piles, of a card of swatches.
import {
  asSeen,
  canvasLight,
  compareCanvas,
  findCanvas,
  flattened,
  paintedInHaste,
  photographedCanvas,
  WHOLE_PHOTO,
  deltaE00,
  matchPalette,
  oneStep,
  photographed,
  readPalettePhoto,
  readSpot,
  readSwatchCard,
  standInCardCamera,
  layKey,
  lightOf,
  toBytes,
  withoutOffset,
  type Affine,
  type CanvasCompared,
  type LitBy,
  type Quad,
  type Lab,
  type PaintCurves,
  type PaletteMatched,
  type PaletteScene,
  type CardFound,
  type Swatch,
  type Pixels,
} from '@dusk/core';
import { pictureOf, fetched, asKept, pixelsOf, framed, type ReachNeeds, type LookNeeds } from './pictures.ts';

/** A photo of the canvas that is held against the picture as it is to be painted. */
export interface CanvasNeeds extends ReachNeeds {
  /** As large as both are compared, and how the picture's pixels come there. */
  readonly width: number;
  readonly height: number;
  readonly transform: Affine;
  readonly photo: { readonly url: string } | { readonly file: Blob };
  /** Where the canvas stands in it, where that is known. */
  readonly corners: Quad | undefined;
  readonly white: { readonly x: number; readonly y: number } | undefined;
  readonly meant: readonly (readonly number[])[];
}
export interface CanvasSeen extends CanvasCompared {
  readonly corners: Quad;
  /** Whether the canvas was found in the photo, where it was not told. */
  readonly isFound: boolean;
  readonly by: LitBy;
  /** The canvas laid flat, in the light of the reference. */
  readonly flat: ImageBitmap;
  readonly photo: ImageBitmap;
}

const imageOf = ({ width, height, data }: Pixels): Promise<ImageBitmap> =>
  createImageBitmap(new ImageData(new Uint8ClampedArray(data as Uint8ClampedArray), width, height));

export async function holdCanvas(needs: CanvasNeeds): Promise<CanvasSeen> {
  const { width, height } = needs;
  const image = 'file' in needs.photo ? await asKept(needs.photo.file) : await fetched(needs.photo.url);
  const photo = pixelsOf(image);
  const corners = needs.corners ?? findCanvas(photo);
  const wanted = lightOf(framed(pictureOf(needs.pictureId), needs), needs.gains, needs.key && layKey(needs.key.plan, needs.key.ends));
  const flat = flattened(photo, corners ?? WHOLE_PHOTO, width, height);
  const { gains, by } = canvasLight(photo, corners ?? WHOLE_PHOTO, flat, wanted, needs.white);
  const seen = lightOf(flat, gains);
  return {
    ...compareCanvas(wanted, seen, needs.meant),
    corners: corners ?? WHOLE_PHOTO,
    isFound: corners !== undefined,
    by,
    flat: await imageOf({ data: toBytes(seen), width, height }),
    photo: image,
  };
}

export interface StandInNeeds extends Pick<LookNeeds, 'pictureId' | 'gains' | 'key' | 'width' | 'height' | 'transform'> {
  readonly seed: number;
}
/** What the stand-in camera gives of a canvas that was painted from the picture in a hurry. */
export async function standInCanvas({ seed, ...needs }: StandInNeeds): Promise<Blob> {
  const wanted = lightOf(framed(pictureOf(needs.pictureId), needs), needs.gains, needs.key && layKey(needs.key.plan, needs.key.ends));
  const { data, width, height } = photographedCanvas(paintedInHaste(wanted, seed), { light: 'lamp', paper: true, glare: true, seed });
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(data as Uint8ClampedArray), width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

/** A palette's photo: a file, or what the stand-in camera gives of piles that lie there. */
export interface PaletteNeeds {
  readonly of: { readonly file: Blob } | { readonly scene: PaletteScene };
  readonly piles: readonly (PaletteLaid & PaintCurves)[];
  readonly tubes: readonly (PaintCurves & { readonly id: string })[];
}
/** A pile that may be in the photo: how it should lie there now, and how it is to look in the end. */
interface PaletteLaid {
  readonly id: string;
  readonly lab: Lab;
  readonly wanted: Lab;
}
export interface PaletteSeen extends PaletteMatched {
  readonly image: ImageBitmap;
  /** What is off, and the one tube that would bring it nearest to what is wanted. */
  readonly off: readonly { readonly id: string; readonly by: string; readonly deltaE00: number }[];
}
/** Nearer than this to what is wanted a pile is let be, ΔE00: a photo tells no less. */
const LET_BE = 3;

/** Finds the piles in a photo of a palette, and says of those that are off by what one thing. */
export async function seePalette({ of, piles, tubes }: PaletteNeeds): Promise<PaletteSeen> {
  const pixels = 'scene' in of ? photographed(of.scene) : pixelsOf(await asKept(of.file));
  const matched = matchPalette(readPalettePhoto(pixels).paint, piles);
  const image = await createImageBitmap(new ImageData(new Uint8ClampedArray(pixels.data), pixels.width, pixels.height));
  const off = matched.matches.flatMap(({ id, paint: { lab } }) => {
    const { K, S, wanted } = piles.find((one) => one.id === id)!;
    const seen = withoutOffset(lab, matched.offset);
    if (deltaE00(seen, wanted) < LET_BE) return [];
    const step = oneStep(asSeen({ K, S }, seen), wanted, tubes);
    return step ? [{ id, ...step }] : [];
  });
  return { ...matched, image, off };
}

/** A photographed card: a file, or what the stand-in camera gives of swatches of tubes as they are said to be. */
export interface CardNeeds {
  readonly of:
    | { readonly file: Blob }
    | {
        readonly rows: readonly (readonly Swatch[])[];
        readonly typical: readonly (readonly [id: string, paint: PaintCurves])[];
        readonly seed: number;
      };
}
export interface CardSeen extends CardFound {
  readonly image: ImageBitmap;
}
/** A spot on such a photo, read against its paper; shares of its sides. */
export interface SpotNeeds {
  readonly image: ImageBitmap;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly paper: { readonly x: number; readonly y: number };
}
export const seeSpot = ({ image, x, y, width, paper }: SpotNeeds): Lab => readSpot(pixelsOf(image), { x, y, width }, paper);

export async function seeCard({ of }: CardNeeds): Promise<CardSeen> {
  const typical = 'typical' in of ? new Map(of.typical) : undefined;
  const pixels =
    'file' in of ? pixelsOf(await asKept(of.file)) : await standInCardCamera((id) => typical!.get(id)!, of.seed).photograph(of.rows);
  return { ...readSwatchCard(pixels), image: await imageOf(pixels) };
}
