import {
  COMMON_HEAP,
  commonHeapInSteps,
  correct,
  inLayersInSteps,
  layPalette,
  planDay,
  viewingThere,
  correctAsSeen,
  layKey,
  mixtureOfRecipe,
  nearestKinds,
  nextPiles,
  paintRange,
  placeOf,
  planString,
  polish,
  proposeInSteps,
  studyInSteps,
  reachOver,
  recall,
  rederive,
  solve,
  trustInMixture,
  tubesInSteps,
  type Basis,
  type CommonHeap,
  type DayPile,
  type DayPlan,
  type Few,
  type DayWishes,
  type HowItWould,
  type Landing,
  type Correction,
  type InSteps,
  type KnownDoubts,
  type Lab,
  type Leaf,
  type Mixture,
  type NextPile,
  type Offer,
  type PaintCurves,
  type Palette,
  type PaletteMix,
  type PaletteTube,
  type PlannedPile,
  type ProposedColour,
  type ValueStudy,
  type ReachMap,
  type Recall,
  type Remembered,
  type StringWish,
  type Trust,
  type UnknownPile,
  type ValueRange,
  type Viewing,
  type Wishes,
  type WrongPile,
} from '@dusk/core';
import type { CanvasNeeds, CanvasSeen, CardNeeds, CardSeen, SpotNeeds, StandInNeeds, PaletteNeeds, PaletteSeen } from './photos.ts';
import {
  pictureOf,
  type DecodedPicture,
  type TriedNeeds,
  type TriedSaid,
  type LightNeeds,
  type LookNeeds,
  type LookedAt,
  type PictureLight,
  type PictureNeeds,
  type ProposeNeeds,
  type StudyNeeds,
  type ReachNeeds,
} from './pictures.ts';
import {
  alike,
  coverPicture,
  earn,
  few,
  fit,
  makeChips,
  nearTo,
  type AlikeFound,
  type AlikeNeeds,
  type Covered,
  type CoverNeeds,
  type Earned,
  type EarnNeeds,
  type FewNeeds,
  type FitNeeds,
  type Fitted,
  type MadeNeeds,
  type MadeSheet,
  type NearNeeds,
} from './rack.ts';
import { proposalOf, type NearestProposed, type Proposed, type ProposedString, type Remade } from './proposal.ts';

/** A tube as it is laid out: its curves in a state, and what they rest on. */
export interface LaidTube extends PaletteTube {
  readonly state: string;
  readonly basis: Basis;
}

/** A pile that may be an ingredient: as it lies there, or as it is planned. */
export interface LaidPile extends PaletteMix {
  readonly stage?: string;
}

/** What recipes may be made from. */
export interface Laid {
  readonly tubes: readonly LaidTube[];
  readonly piles: readonly LaidPile[];
  /** Where its paint lands; a pile on the palette unless said. */
  readonly viewing?: Viewing;
}

/** A desk with everything on it laid out. */
export interface Prepared {
  readonly laid: Laid;
  readonly palette: Palette;
}

/** How a name on a desk becomes a source. */
export function sourceOn({ tubes, piles }: Laid): (id: string) => Leaf {
  const sources = new Map<string, Leaf>([
    ...tubes.map(({ id, state }) => [id, { tube: id, state }] as const),
    ...piles.map(({ id, stage }) => [id, { pile: id, ...(stage !== undefined && { stage }) }] as const),
  ]);
  return (id) => sources.get(id)!;
}

/** Whatever may be asked: what it needs and what it answers. */
export interface Jobs {
  /** The best recipe and really different ones. */
  solve: { needs: { target: Lab; wishes?: Wishes; exactly?: boolean }; answers: Proposed };
  /** Ways to the next pile from one on the desk, its own tubes first. */
  next: { needs: { pileId: string; target: Lab; amountMl: number }; answers: readonly NextPile[] };
  /** What would do where one layer of a pile does not: more of them, or white first. */
  layers: { needs: { landing: Landing; target: Lab }; answers: HowItWould };
  /** Piles in the order of a day, as many as fit its time. */
  day: { needs: { piles: readonly DayPile[]; wishes: DayWishes }; answers: DayPlan };
  /** One heap that several planned piles can begin with, where there is one. */
  common: { needs: { piles: readonly PlannedPile[] }; answers: CommonHeap | undefined };
  /** A string of piles as one plan. */
  string: { needs: { wish: StringWish; ml: number }; answers: ProposedString };
  /** The colour of a paint from other tubes, and how the two part under each light. */
  remake: { needs: { original: PaintCurves; wishes?: Wishes }; answers: readonly Remade[] };
  /** The likely missing tube of a half remembered mixture. */
  recall: { needs: Remembered; answers: Recall };
  /** Out of reach: the nearest in three ways, and the tubes of the rack that would help most. */
  nearest: { needs: { target: Lab; rack: readonly PaletteTube[] }; answers: NearestProposed };
  /** How far the prediction of a mixture can be trusted. */
  trust: {
    needs: { mixture: Mixture; paints: readonly (readonly [key: string, paint: PaintCurves, basis: Basis])[]; doubts?: KnownDoubts };
    answers: Trust;
  };
  /** What to add to a pile that came out wrong. */
  correct: { needs: WrongPile | UnknownPile; answers: Correction };
  /** Values of the darkest and lightest that can be mixed. */
  ends: { needs: Record<never, never>; answers: ValueRange };
  /** A picture, decoded away from the page; it stays there to be looked at. */
  picture: { needs: PictureNeeds; answers: DecodedPicture };
  /** How the values of a picture are spread, its glints apart. */
  light: { needs: LightNeeds; answers: PictureLight };
  /** A look at a picture, as large as it is shown. */
  look: { needs: LookNeeds; answers: LookedAt };
  /** A photo of the canvas, held against the picture. */
  canvas: { needs: CanvasNeeds; answers: CanvasSeen };
  /** What the stand-in camera gives of a canvas. */
  standIn: { needs: StandInNeeds; answers: Blob };
  /** What a trial does to the values and the edges of a picture. */
  tried: { needs: TriedNeeds; answers: TriedSaid };
  /** The piles in a photo of the palette. */
  palette: { needs: PaletteNeeds; answers: PaletteSeen };
  /** Swatches on a photographed card. */
  card: { needs: CardNeeds; answers: CardSeen };
  /** A spot on such a photo. */
  spot: { needs: SpotNeeds; answers: Lab };
  /** What swatches tell of a tube. */
  fit: { needs: FitNeeds; answers: Fitted };
  /** What tubes make: chips at one value, or of one family. */
  made: { needs: MadeNeeds; answers: MadeSheet };
  /** How near some tubes come to colours. */
  nearTo: { needs: NearNeeds; answers: ReturnType<typeof nearTo> };
  /** What share of the picture some tubes come to. */
  cover: { needs: CoverNeeds; answers: Covered };
  /** What each of some tubes earns for the picture, and what one more would. */
  earn: { needs: EarnNeeds; answers: Earned };
  /** The best few of a rack for the picture. */
  few: { needs: FewNeeds; answers: Few };
  /** Tubes of a rack that are alike, or ready mixed. */
  alike: { needs: AlikeNeeds; answers: AlikeFound };
  /** The few colours of a picture that matter. */
  propose: { needs: ProposeNeeds; answers: readonly ProposedColour[] };
  /** A picture in a few flat shapes. */
  study: { needs: StudyNeeds; answers: ValueStudy };
  /** Where in a picture the palette does not reach. */
  reach: { needs: ReachNeeds; answers: ReachMap };
}
/** Jobs on pictures that are done in one go. */
export type PictureJob = 'picture' | 'light' | 'look' | 'palette' | 'canvas' | 'standIn' | 'tried' | 'card' | 'spot';
export type JobName = keyof Jobs;

/** Jobs that need a prepared desk. */
export const ON_DESK: readonly JobName[] = ['solve', 'nearest', 'ends', 'reach', 'string', 'remake', 'next', 'common', 'layers', 'day'];

/** Work that is done at once, as work in steps. */
function* asStep<T>(work: () => T): InSteps<T> {
  return work();
}

export const leafKey = (source: Leaf): string => ('tube' in source ? `${source.tube} ${source.state}` : `${source.pile} ${source.stage}`);

const TENTHS = 10;
/** Exact shares in parts of a hundred, to a tenth: what a scale reads. */
function inHundred<R extends { readonly mixture: Mixture }>(polished: R): R {
  const [heap, ...more] = polished.mixture.heaps;
  if (!heap || more.length > 0) return polished;
  const whole = heap.ingredients.reduce((sum, { parts }) => sum + parts, 0);
  const inParts = (parts: number): number => Math.max(1, Math.round((100 * TENTHS * parts) / whole)) / TENTHS;
  return { ...polished, mixture: { heaps: [{ ingredients: heap.ingredients.map((one) => ({ ...one, parts: inParts(one.parts) })) }] } };
}

/** Every job but those on pictures, as work in steps. */
export const DOING: {
  readonly [N in Exclude<JobName, PictureJob>]: (needs: Jobs[N]['needs'], desk: Prepared | undefined) => InSteps<Jobs[N]['answers']>;
} = {
  solve: ({ target, wishes, exactly }, desk) =>
    asStep(() => {
      const { reach, recipes } = solve(desk!.palette, target, wishes);
      const sourceOf = sourceOn(desk!.laid);
      const measured = (offer: Offer): Offer => (exactly ? { ...offer, ...inHundred(polish(desk!.palette, offer, target)) } : offer);
      return { reach, proposals: recipes.map((offer) => proposalOf(measured(offer), sourceOf)) };
    }),
  next: ({ pileId, target, amountMl }, desk) =>
    asStep(() => {
      const sourceOf = sourceOn(desk!.laid);
      return nextPiles(desk!.palette, pileId, target, { amountMl }).map((one) => ({ ...one, mixture: mixtureOfRecipe(one, sourceOf) }));
    }),
  layers: ({ landing, target }, desk) => {
    const { laid, palette } = desk!;
    return inLayersInSteps((there) => layPalette(laid.tubes, palette.limits, viewingThere(there), laid.piles), landing, target);
  },
  day: ({ piles, wishes }, desk) => asStep(() => planDay(piles, desk!.laid.tubes, wishes)),
  common: function* ({ piles }, desk) {
    const found = yield* commonHeapInSteps(desk!.palette, piles);
    if (!found) return undefined;
    const sourceOf = sourceOn(desk!.laid);
    return {
      ...found,
      mixture: mixtureOfRecipe(found, sourceOf),
      piles: found.piles.map((one) => ({
        ...one,
        recipe: { ...one.recipe, mixture: mixtureOfRecipe(one.recipe, (id) => (id === COMMON_HEAP ? { pile: id } : sourceOf(id))) },
      })),
    };
  },
  string: ({ wish, ml }, desk) =>
    asStep(() => {
      const { piles, ...plan } = planString(desk!.palette, wish, ml);
      const sourceOf = sourceOn(desk!.laid);
      return {
        ...plan,
        piles: piles.map(({ target, recipe, mixture, ml: own, isPile }) => ({
          target,
          lab: recipe.lab,
          deltaE00: recipe.deltaE00,
          mixture: mixtureOfRecipe({ mixture }, (id) => (placeOf(id) === undefined ? sourceOf(id) : { pile: id })),
          ml: own,
          ...(isPile !== undefined && { isPile }),
        })),
      };
    }),
  remake: ({ original, wishes }, desk) =>
    asStep(() =>
      rederive(original, desk!.palette, wishes).recipes.map((offer) => ({
        ...proposalOf(offer, sourceOn(desk!.laid)),
        differences: offer.differences,
      })),
    ),
  recall: (remembered) => asStep(() => recall(remembered)),
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
  fit: (needs) => asStep(() => fit(needs)),
  made: (needs) => asStep(() => makeChips(needs)),
  cover: (needs) => asStep(() => coverPicture(needs)),
  nearTo: (needs) => asStep(() => nearTo(needs)),
  earn,
  few,
  alike,
  ends: (_, desk) => asStep(() => paintRange(desk!.palette)),
  propose: ({ pictureId, gains, most }) => proposeInSteps(pictureOf(pictureId), gains, most),
  study: ({ pictureId, gains, values }) => studyInSteps(pictureOf(pictureId), gains, values),
  reach: ({ pictureId, gains, key }, desk) => reachOver(desk!.palette, pictureOf(pictureId), gains, key && layKey(key.plan, key.ends)),
  correct: (pile) => asStep(() => ('stages' in pile ? correct(pile) : correctAsSeen(pile))),
};
