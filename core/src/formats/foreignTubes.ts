import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { leavesOf, paintOfMixture } from '../mixing/open.ts';
import { CATALOGUE, type PaintCurves } from '../paint/catalogue.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { Card } from './card.ts';

/** A tube of one's own, to stand for another's. */
export interface OwnTube extends PaintCurves {
  readonly id: string;
  readonly pigment: string;
}

/** One's own tubes, those that say who made them; the generic ones where there are none. */
export function onesOwn<T extends { readonly maker: string }>(tubes: readonly T[]): readonly T[] {
  const mine = tubes.filter(({ maker }) => maker !== '');
  return mine.length > 0 ? mine : tubes;
}

/** Which of one's own tubes stands for another's, and why. */
export interface StandIn {
  readonly id: string;
  /** Named by the same pigment, or only of a like colour. */
  readonly by: 'pigment' | 'colour';
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

/**
 * One's own tube that stands for another's: of its pigment, the nearest of them; else the nearest of all.
 * Nothing where there are no tubes.
 */
export function standInFor(foreign: PaintCurves & { readonly pigment: string }, own: readonly OwnTube[]): StandIn | undefined {
  const nearest = (among: readonly OwnTube[], by: StandIn['by']): StandIn | undefined =>
    among.map((tube) => ({ id: tube.id, by, difference: paintsApart(foreign, tube) })).sort((a, b) => a.difference - b.difference)[0];
  const kin = foreign.pigment === '' ? [] : own.filter(({ pigment }) => pigment === foreign.pigment);
  return nearest(kin, 'pigment') ?? nearest(own, 'colour');
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
