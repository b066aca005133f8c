import {
  furtherOff,
  inShadow,
  masstoneOf,
  mixtureOf,
  moved,
  openToTubes,
  paintOfMixture,
  shareOfPile,
  toward,
  underCeiling,
  type Lab,
  type Leaf,
  type Mixture,
  type PaintCurves,
} from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';

/** Steps from a pile to one that is wanted of it, as many as were pressed. */
export interface KinSteps {
  value: number;
  chroma: number;
  temperature: number;
  shadow: number;
  off: number;
  /** A share of the way to something else, in tenths. */
  toward: number;
}
export type KinStep = keyof KinSteps;
export const noSteps = (): KinSteps => ({ value: 0, chroma: 0, temperature: 0, shadow: 0, off: 0, toward: 0 });

/** What a press is: half a value, a step of Munsell chroma, three units of temperature, half a stop, a step of distance, a tenth of the way. */
export const A_PRESS: Readonly<Record<KinStep, number>> = { value: 0.5, chroma: 1, temperature: 3, shadow: 1, off: 1, toward: 1 };

/** The colour that is wanted of a pile. */
export function kinOf(lab: Lab, steps: KinSteps, aim: Lab | undefined, ceiling: number | undefined): Lab {
  const { value, chroma, temperature, shadow, off } = steps;
  const stepped = moved(lab, { value: within(value, 10), chroma: within(chroma, 30), temperature: within(temperature, 100) });
  const aimed = aim && steps.toward !== 0 ? toward(stepped, aim, steps.toward / 10) : stepped;
  const lit = shadow === 0 ? aimed : inShadow(aimed, shadow);
  return underCeiling(off > 0 ? furtherOff(lit, off) : lit, ceiling);
}
const within = (steps: number, most: number): number => Math.min(most, Math.max(-most, steps));

export const isMoved = (steps: KinSteps): boolean => Object.values(steps).some((step) => step !== 0);

/** What a child is called after its mother. */
export function childName(mother: string, words: readonly string[], { shadow, off }: KinSteps): string {
  const how = shadow > 0 ? 'in shadow' : off > 0 ? 'further off' : (words[0] ?? 'again');
  return `${mother}, ${how}`.slice(0, 80);
}

const MOST_ML = 500;
/** A pile that is not mixed yet is planned larger by what the next one takes of it. */
export const madeLarger = (pile: PileDto, plan: Mixture, childMl: number): Operation[] =>
  largerBy(pile, childMl * shareOfPile(plan, pile.id));

/** A pile that is not mixed yet is planned larger by so much. */
export function largerBy({ id, version, ml, stages }: PileDto, taken: number): Operation[] {
  if (stages.length > 0 || taken < 0.05) return [];
  return [{ do: 'pile.change', id, version, ml: Math.min(MOST_ML, Number((ml + taken).toFixed(1))) }];
}

/** A pile that is planned from another. */
export function childOps(
  mother: PileDto,
  { id, name, lab, plan, ml, steps }: { id: string; name: string; lab: Lab; plan: Mixture; ml: number; steps: KinSteps },
): Operation[] {
  const by = {
    value: within(steps.value, 10),
    chroma: within(steps.chroma, 30),
    temperature: within(steps.temperature, 100),
  };
  const { thing } = mother.purpose;
  const purpose = { ...(thing && { thing }), ...(steps.shadow > 0 && { zone: 'shadow' }) };
  return [
    {
      do: 'pile.add',
      id,
      ...(mother.paintingId !== null && { paintingId: mother.paintingId }),
      name,
      target: { kind: 'relative', lab: labDto(lab), pileId: mother.id, by },
      plan: mixtureSent(plan),
      ml,
      layer: mother.layer,
      ...(Object.keys(purpose).length > 0 && { purpose }),
    },
  ];
}

/** Two piles into one another. */
export const poured = (one: Leaf, other: Leaf, [a, b]: readonly [number, number]): Mixture =>
  mixtureOf([
    { ...one, parts: a },
    { ...other, parts: b },
  ]);

/** What is to become of piles that are planned from one that changes. */

export type ChildrenMay = 'follow' | 'hold' | 'stand';

interface Tree {
  readonly childrenOf: (id: string) => readonly PileDto[];
}

/** Planned piles that rest on one, children before theirs. */
export function plannedBelow(pile: PileDto, { childrenOf }: Tree): PileDto[] {
  const found = new Map<string, PileDto>();
  const depth = new Map<string, number>();
  const go = (id: string, at: number): void => {
    for (const child of childrenOf(id)) {
      if (child.stages.length > 0 || at > 40) continue;
      found.set(child.id, child);
      depth.set(child.id, Math.max(at, depth.get(child.id) ?? 0));
      go(child.id, at + 1);
    }
  };
  go(pile.id, 1);
  return [...found.values()].sort((one, other) => depth.get(one.id)! - depth.get(other.id)!);
}

/** Colours of planned piles once some plans are others. */
export function coloursWith(
  plans: ReadonlyMap<string, Mixture>,
  paintOf: (source: Leaf) => PaintCurves,
): (plan: Mixture) => { readonly paint: PaintCurves; readonly lab: Lab } {
  const known = new Map<string, PaintCurves>();
  const newPaint = (source: Leaf): PaintCurves => {
    const plan = 'pile' in source && source.stage === undefined ? plans.get(source.pile) : undefined;
    if (!plan || !('pile' in source)) return paintOf(source);
    const paint = known.get(source.pile) ?? paintOfMixture(plan, newPaint);
    known.set(source.pile, paint);
    return paint;
  };
  return (plan) => {
    const paint = paintOfMixture(plan, newPaint);
    return { paint, lab: masstoneOf(paint) };
  };
}

/** Tubes of a mixture by share, the most first. */
export const tubesIn = (
  mixture: Mixture,
  flatOfPile: (id: string) => Readonly<Record<string, number>>,
): readonly (readonly [tube: string, share: number])[] =>
  Object.entries(openToTubes(mixture, flatOfPile)).sort((one, other) => other[1] - one[1]);
