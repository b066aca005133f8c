// Pictures in the worker: decoded, held, and looked at in the ways a painter looks.
import {
  dressed,
  drawServing,
  partsByShapes,
  partsBySteps,
  through,
  binOf,
  drawEdges,
  findGlints,
  hatch,
  isGlint,
  layKey,
  lightOf,
  markLost,
  SHOWN_SPACES,
  squinted,
  strengthMap,
  toBytes,
  valueSpread,
  valueSteps,
  warmthMap,
  withTrial,
  type Affine,
  type Dress,
  type Lab,
  type Glints,
  type KeyEnds,
  type KeyPlan,
  type LightPlane,
  type LinearRgb,
  type Looked,
  type Pixels,
  type RgbSpace,
  type TrialChange,
  type ValueRange,
  type ValueSpread,
  type WarmBlue,
} from '@dusk/core';
import { PICTURE_LONGEST_SIDE, type PictureSpace } from '@dusk/wire/limits';

/** By its address, or the file itself while it is only in this browser. */
export type PictureNeeds = { readonly id: string; readonly space: PictureSpace } & ({ readonly url: string } | { readonly file: Blob });

/** A picture's numbers; `image` holds them too, to be drawn with. */
export interface DecodedPicture {
  readonly image: ImageBitmap;
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

export interface LightNeeds {
  readonly pictureId: string;
  readonly gains: LinearRgb;
}
/** What a picture as a whole tells of the light in it. */
export interface PictureLight {
  readonly spread: ValueSpread;
  readonly glints: Glints;
}

/** A key as it is sent. */
export interface KeySent {
  readonly plan: KeyPlan;
  readonly ends: KeyEnds;
}
export interface ProposeNeeds extends LightNeeds {
  readonly most: number;
}
export interface StudyNeeds extends LightNeeds {
  readonly values: number;
}
export interface ReachNeeds extends LightNeeds {
  readonly key: KeySent | undefined;
}

export type LookAsked =
  | { readonly kind: 'colour' }
  | { readonly kind: 'values'; readonly bounds: readonly number[]; readonly range: ValueRange }
  | { readonly kind: 'warmth'; readonly pivot: number; readonly warmBlue: WarmBlue }
  | { readonly kind: 'strength' }
  | { readonly kind: 'edges'; readonly bounds: readonly number[] }
  | { readonly kind: 'reach'; readonly table: Uint8Array }
  /** Each step of value in what it is dressed in. */
  | { readonly kind: 'piles'; readonly bounds: readonly number[]; readonly dress: readonly Dress[] }
  /** Each shape in what it is dressed in, the rest bare: corners in shares of the picture's sides. */
  | { readonly kind: 'shapes'; readonly shapes: readonly (readonly number[])[]; readonly dress: readonly Dress[] }
  /** Where a colour serves. */
  | { readonly kind: 'serving'; readonly pile: Lab };

export interface LookNeeds extends ReachNeeds {
  readonly look: LookAsked;
  /** As large as it is shown, px, and how the picture's pixels come there. */
  readonly width: number;
  readonly height: number;
  readonly transform: Affine;
  /** Deviation of the blur, px as shown; 0 for none. */
  readonly squint: number;
  /** Whether what the photo has lost is marked. */
  readonly lost: boolean;
  /** A trial that is looked through: corners and moves in shares of the picture's sides. */
  readonly trial?: readonly TrialChange[] | undefined;
}
export interface LookedAt {
  readonly bytes: Uint8ClampedArray<ArrayBuffer>;
  readonly width: number;
  readonly height: number;
  readonly space: PictureSpace;
  /** Share of the area in each part of the look, in the order of its legend. */
  readonly shares: readonly number[];
  readonly lost: readonly [clipped: number, crushed: number] | undefined;
  /** Mean colour of what each part has, where it is redrawn in flat colours. */
  readonly means?: readonly Lab[];
}

interface Held extends Pixels {
  readonly image: ImageBitmap;
  readonly space: RgbSpace;
  glints?: Glints;
}
/** Pictures that may be looked at, the newest last. */
const held = new Map<string, Held>();
const MOST_HELD = 2;

function hold(id: string, picture: Held): void {
  held.delete(id);
  held.set(id, picture);
  const oldest = held.keys().next().value!;
  if (held.size <= MOST_HELD) return;
  held.get(oldest)!.image.close();
  held.delete(oldest);
}

export function pictureOf(id: string): Held {
  const picture = held.get(id);
  if (!picture) throw new Error('This picture is not held any more.');
  return picture;
}

/** A picture as the studio keeps it: its numbers as they are. */
export async function fetched(url: string): Promise<ImageBitmap> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`The picture cannot be had: ${response.status}.`);
  return createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
}

/** A picture as the studio will keep it: upright, in sRGB, no larger than it is looked at. */
export async function asKept(file: Blob): Promise<ImageBitmap> {
  const whole = await createImageBitmap(file);
  const scale = PICTURE_LONGEST_SIDE / Math.max(whole.width, whole.height);
  if (scale >= 1) return whole;
  const [resizeWidth, resizeHeight] = [whole.width, whole.height].map((side) => Math.round(side * scale));
  const smaller = await createImageBitmap(whole, { resizeWidth: resizeWidth!, resizeHeight: resizeHeight!, resizeQuality: 'high' });
  whole.close();
  return smaller;
}

/** The numbers of a picture as it is. */
export function pixelsOf(image: ImageBitmap): ImageData {
  const context = new OffscreenCanvas(image.width, image.height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height);
}

/** Decodes a picture and holds it. */
export async function decodePicture(needs: PictureNeeds): Promise<DecodedPicture> {
  const isFile = 'file' in needs;
  const image = isFile ? await asKept(needs.file) : await fetched(needs.url);
  const { data, width, height } = pixelsOf(image);
  hold(needs.id, { image, data, width, height, space: SHOWN_SPACES[isFile ? 'srgb' : needs.space]! });
  return { image: await createImageBitmap(image), data: data.slice(), width, height };
}

const glintsOf = (picture: Held): Glints => (picture.glints ??= findGlints(picture));

export function lightIn({ pictureId, gains }: LightNeeds): PictureLight {
  const picture = pictureOf(pictureId);
  const glints = glintsOf(picture);
  return { glints, spread: valueSpread(picture, gains, (x, y) => isGlint(glints, x, y)) };
}

/** A picture's numbers, cut, turned and as large as it is shown. */
export function framed({ image, space }: Held, { width, height, transform }: Pick<LookNeeds, 'width' | 'height' | 'transform'>): Pixels {
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.setTransform(...transform);
  context.drawImage(image, 0, 0);
  return { data: context.getImageData(0, 0, width, height).data, width, height, space };
}

/** Corners in shares of a picture's sides, in the pixels that are shown. */
const cornersShown = (points: readonly number[], { width, height }: Pixels, transform: Affine): number[] =>
  points.flatMap((x, i) => (i % 2 === 0 ? through(transform, x * width, points[i + 1]! * height) : []));

function lookedAt(needs: LookNeeds, plane: LightPlane, pixels: Pixels): Looked & { readonly means?: readonly Lab[] } {
  const { look, squint } = needs;
  switch (look.kind) {
    case 'colour':
      return { bytes: toBytes(plane), shares: [] };
    case 'values':
      return valueSteps(plane, look.bounds, look.range);
    case 'warmth':
      return warmthMap(plane, look.pivot, look.warmBlue);
    case 'strength':
      return strengthMap(plane);
    case 'edges':
      return drawEdges(plane, look.bounds, squint);
    case 'reach': {
      const bytes = toBytes(plane);
      const mask = new Uint8Array(bytes.length / 4);
      for (let i = 0, at = 0; i < mask.length; i++, at += 4)
        mask[i] = look.table[binOf(pixels.data[at]!, pixels.data[at + 1]!, pixels.data[at + 2]!)]!;
      return { bytes, shares: [hatch(bytes, mask, plane.width)] };
    }
    case 'piles':
      return dressed(plane, partsBySteps(plane, look.bounds), look.dress);
    case 'shapes': {
      const shapes = look.shapes.map((points) => cornersShown(points, pictureOf(needs.pictureId), needs.transform));
      return dressed(plane, partsByShapes(plane, shapes), [undefined, ...look.dress]);
    }
    case 'serving':
      return drawServing(plane, look.pile);
  }
}

/** The plane with a trial laid over it. */
function tried(plane: LightPlane, { trial, transform }: Pick<LookNeeds, 'trial' | 'transform'>, picture: Pixels): LightPlane {
  if (!trial || trial.length === 0) return plane;
  const { width, height } = picture;
  const [a, b, c, d] = transform;
  return withTrial(
    plane,
    trial.map(({ move, points, ...change }) => {
      const [dx, dy] = move ? [move[0] * width, move[1] * height] : [0, 0];
      return {
        ...change,
        points: cornersShown(points, picture, transform),
        ...(move && { move: [a * dx + c * dy, b * dx + d * dy] as const }),
      };
    }),
  );
}

/** What a trial does to the picture: shares of its steps of value, and of its edges, before and with it. */
export interface TriedSaid {
  readonly values: readonly [before: readonly number[], after: readonly number[]];
  readonly edges: readonly [before: readonly number[], after: readonly number[]];
}
export interface TriedNeeds extends Omit<LookNeeds, 'look' | 'lost'> {
  readonly bounds: readonly number[];
  readonly range: ValueRange;
}
export function sayTried(needs: TriedNeeds): TriedSaid {
  const picture = pictureOf(needs.pictureId);
  const before = lightOf(framed(picture, needs), needs.gains, needs.key && layKey(needs.key.plan, needs.key.ends));
  const after = tried(before, needs, picture);
  const values = (plane: LightPlane) => valueSteps(plane, needs.bounds, needs.range).shares;
  const edges = (plane: LightPlane) => drawEdges(plane, needs.bounds, needs.squint).shares;
  return { values: [values(before), values(after)], edges: [edges(before), edges(after)] };
}

export function lookAt(needs: LookNeeds): LookedAt {
  const picture = pictureOf(needs.pictureId);
  const pixels = framed(picture, needs);
  const plane = tried(lightOf(pixels, needs.gains, needs.key && layKey(needs.key.plan, needs.key.ends)), needs, picture);
  // Edges are judged at the squint, not drawn in it.
  const seen = needs.look.kind === 'edges' ? plane : squinted(plane, needs.squint);
  const { bytes, shares, means } = lookedAt(needs, seen, pixels);
  const lost = needs.lost ? markLost(bytes, pixels) : undefined;
  // Greys and maps are the same numbers in either space.
  return {
    bytes,
    width: needs.width,
    height: needs.height,
    space: picture.space.name as PictureSpace,
    shares,
    lost,
    ...(means && { means }),
  };
}
