import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { leavesOf, paintOfMixture } from '../mixing/open.ts';
import { CATALOGUE, type PaintCurves } from '../paint/catalogue.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { Card } from './card.ts';

/** A tube of one's own, to stand for another's. */
export interface OwnTube extends PaintCurves {
  readonly id: string;
  readonly name: string;
  readonly pigment: string;
}

/** A tube that something else is to stand for: a card's, or another studio's. */
export interface ForeignTube extends PaintCurves {
  readonly name: string;
  readonly pigment: string;
  /** Which tube of this studio it was, where it was one of them. */
  readonly tubeId?: string | undefined;
}

/** One's own tubes, those that say who made them; the generic ones where there are none. */
export function onesOwn<T extends { readonly maker: string }>(tubes: readonly T[]): readonly T[] {
  const mine = tubes.filter(({ maker }) => maker !== '');
  return mine.length > 0 ? mine : tubes;
}

/** Which tube stands for another, and why. */
export interface StandIn {
  readonly id: string;
  /** The very tube, one named by the same pigment, or one that is only of a like colour. */
  readonly by: 'tube' | 'pigment' | 'colour';
  /** ΔE00 between the two, as they come and let into white, the larger. */
  readonly difference: Delta;
}

const WHITE = CATALOGUE.get('titanium-white')!;
/** Parts of white to one in which tints are compared. */
const TINT = 9;

const tinted = (paint: PaintCurves): PaintCurves =>
  mixCurves([
    { paint, parts: 1 },
    { paint: WHITE, parts: TINT },
  ]);

/** How far two paints lie apart as they come and as tints, ΔE00: what mixes alike must be alike in both. */
export function paintsApart(one: PaintCurves, other: PaintCurves): Delta {
  const seen = (paint: PaintCurves) => labOf(reflectance(paint));
  return Math.max(deltaE00(seen(one), seen(other)), deltaE00(seen(tinted(one)), seen(tinted(other))));
}

/** Tubes that may stand for another, by how near they are to the hand: on the palette, one's own, any that is known. */
export interface Standing {
  readonly palette: readonly OwnTube[];
  readonly own: readonly OwnTube[];
  readonly all: readonly OwnTube[];
}

/**
 * The tube that stands for another: that very one; else the palette's of its pigment, one's own of it, any
 * of it; else the likest of the palette, of one's own. Nothing where there are no tubes.
 */
export function standInFor(foreign: ForeignTube, { palette, own, all }: Standing): StandIn | undefined {
  const nearest = (among: readonly OwnTube[], by: StandIn['by']): StandIn | undefined =>
    among.map((tube) => ({ id: tube.id, by, difference: paintsApart(foreign, tube) })).sort((a, b) => a.difference - b.difference)[0];
  const very = all.filter(({ id }) => id === foreign.tubeId);
  if (very.length > 0) return nearest(very, 'tube');
  const isKin = ({ pigment }: OwnTube): boolean => foreign.pigment !== '' && pigment === foreign.pigment;
  const isCalledSo = (tube: OwnTube): boolean => isKin(tube) && tube.name === foreign.name;
  for (const among of [palette, own, all]) {
    const found = nearest(among.filter(isCalledSo), 'tube');
    if (found) return found;
  }
  for (const among of [palette, own, all]) {
    const found = nearest(among.filter(isKin), 'pigment');
    if (found) return found;
  }
  return nearest(palette, 'colour') ?? nearest(own, 'colour');
}

/** What a card becomes when other tubes stand for its own. */
export interface CardToday {
  readonly lab: Lab;
  /** ΔE00 from what its own tubes gave. */
  readonly difference: Delta;
}

/** A card's recipe with today's tubes, by the card's keys; nothing where one is missing. */
export function cardOfToday(
  { recipe, predicted }: Pick<Card, 'recipe' | 'predicted'>,
  paintFor: (key: string) => PaintCurves | undefined,
): CardToday | undefined {
  const key = (source: unknown): string => (source as { readonly tube: string }).tube;
  if (leavesOf(recipe).some(({ source }) => !paintFor(key(source)))) return undefined;
  const lab = labOf(reflectance(paintOfMixture(recipe, (source) => paintFor(key(source))!)));
  return { lab, difference: deltaE00(predicted, lab) };
}
