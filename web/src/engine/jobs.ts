import {
  correct,
  correctAsSeen,
  nearestKinds,
  solve,
  trustInMixture,
  tubesInSteps,
  valueRange,
  type Basis,
  type Correction,
  type InSteps,
  type KnownDoubts,
  type Lab,
  type Leaf,
  type Mixture,
  type PaintCurves,
  type Palette,
  type PaletteMix,
  type PaletteTube,
  type Trust,
  type UnknownPile,
  type ValueRange,
  type Wishes,
  type WrongPile,
} from '@dusk/core';
import { PICTURE_LONGEST_SIDE } from '@dusk/wire/limits';
import { proposalOf, type NearestProposed, type Proposed } from './proposal.ts';

/** A tube as it is laid out: its curves in a state, and what they rest on. */
export interface LaidTube extends PaletteTube {
  readonly state: string;
  readonly basis: Basis;
}

/** A pile that is there and may be an ingredient. */
export interface LaidPile extends PaletteMix {
  readonly stage: string;
}

/** What recipes may be made from. */
export interface Laid {
  readonly tubes: readonly LaidTube[];
  readonly piles: readonly LaidPile[];
}

/** A desk with everything on it laid out. */
export interface Prepared {
  readonly laid: Laid;
  readonly palette: Palette;
}

/** A decoded picture with its darkest and lightest. */
export interface DecodedPicture {
  readonly image: ImageBitmap;
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
  readonly range: ValueRange;
}

/** How a name on a desk becomes a source. */
export function sourceOn({ tubes, piles }: Laid): (id: string) => Leaf {
  const sources = new Map<string, Leaf>([
    ...tubes.map(({ id, state }) => [id, { tube: id, state }] as const),
    ...piles.map(({ id, stage }) => [id, { pile: id, stage }] as const),
  ]);
  return (id) => sources.get(id)!;
}

/** Whatever may be asked: what it needs and what it answers. */
export interface Jobs {
  /** The best recipe and really different ones. */
  solve: { needs: { target: Lab; wishes?: Wishes }; answers: Proposed };
  /** Out of reach: the nearest in three ways, and the tubes of the rack that would help most. */
  nearest: { needs: { target: Lab; rack: readonly PaletteTube[] }; answers: NearestProposed };
  /** How far the prediction of a mixture can be trusted. */
  trust: {
    needs: { mixture: Mixture; paints: readonly (readonly [key: string, paint: PaintCurves, basis: Basis])[]; doubts?: KnownDoubts };
    answers: Trust;
  };
  /** What to add to a pile that came out wrong. */
  correct: { needs: WrongPile | UnknownPile; answers: Correction };
  /** A picture, decoded away from the page. */
  /** By its address, or the file itself while it is only in this browser. */
  picture: { needs: { url: string } | { file: Blob }; answers: DecodedPicture };
}
export type JobName = keyof Jobs;

/** Jobs that need a prepared desk. */
export const ON_DESK: readonly JobName[] = ['solve', 'nearest'];

/** Work that is done at once, as work in steps. */
function* asStep<T>(work: () => T): InSteps<T> {
  return work();
}

export const leafKey = (source: Leaf): string => ('tube' in source ? `${source.tube} ${source.state}` : `${source.pile} ${source.stage}`);

/** Every job but the picture's, as work in steps. */
export const DOING: {
  readonly [N in Exclude<JobName, 'picture'>]: (needs: Jobs[N]['needs'], desk: Prepared | undefined) => InSteps<Jobs[N]['answers']>;
} = {
  solve: ({ target, wishes }, desk) =>
    asStep(() => {
      const { reach, recipes } = solve(desk!.palette, target, wishes);
      return { reach, proposals: recipes.map((offer) => proposalOf(offer, sourceOn(desk!.laid))) };
    }),
  nearest: function* ({ target, rack }, desk) {
    const { byValue, byHue, overall } = nearestKinds(desk!.palette, target);
    yield 0.1;
    const sourceOf = sourceOn(desk!.laid);
    const kinds = [
      { by: 'in value', recipe: byValue },
      ...(byHue ? [{ by: 'in hue', recipe: byHue }] : []),
      { by: 'overall', recipe: overall },
    ];
    const tubes = yield* tubesInSteps(desk!.palette, rack, target);
    return { kinds: kinds.map(({ by, recipe }) => ({ by, proposal: proposalOf(recipe, sourceOf) })), tubes };
  },
  trust: ({ mixture, paints, doubts }) =>
    asStep(() => {
      const known = new Map(paints.map(([key, paint, basis]) => [key, { paint, basis }]));
      return trustInMixture(
        mixture,
        (source) => known.get(leafKey(source))!.paint,
        (source) => known.get(leafKey(source))!.basis,
        doubts,
      );
    }),
  correct: (pile) => asStep(() => ('stages' in pile ? correct(pile) : correctAsSeen(pile))),
};

/** A picture as the studio keeps it: its pixels as they are. */
async function fetched(url: string): Promise<ImageBitmap> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`The picture cannot be had: ${response.status}.`);
  return createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
}

/** A picture as the studio will keep it: upright, in sRGB, no larger than it keeps them. */
async function asKept(file: Blob): Promise<ImageBitmap> {
  const whole = await createImageBitmap(file);
  const scale = PICTURE_LONGEST_SIDE / Math.max(whole.width, whole.height);
  if (scale >= 1) return whole;
  const [resizeWidth, resizeHeight] = [whole.width, whole.height].map((side) => Math.round(side * scale));
  return createImageBitmap(whole, { resizeWidth: resizeWidth!, resizeHeight: resizeHeight!, resizeQuality: 'high' });
}

/** Decodes a picture and looks through it for its darkest and lightest. */
export async function decodePicture(from: Jobs['picture']['needs']): Promise<DecodedPicture> {
  const image = 'file' in from ? await asKept(from.file) : await fetched(from.url);
  const canvas = new OffscreenCanvas(image.width, image.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, image.width, image.height);
  return { image, data, width, height, range: valueRange({ data, width, height }) };
}
