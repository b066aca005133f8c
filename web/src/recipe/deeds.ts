import { labOfDto } from '@dusk/wire/written';
import {
  heapColour,
  heapName,
  isPile,
  isTube,
  keptAs,
  KNIFE_BORE_MM,
  LEAST_AMOUNT_ML,
  leavesOf,
  measureOut,
  pilesIn,
  type AddingStep,
  type Heap,
  type Lab,
  type Measure,
  type Mixture,
  type Way,
} from '@dusk/core';
import type { Needs, Operation, PileDto } from '@dusk/wire';
import { operationsToMix } from '@dusk/wire/mixed';
import type { Tube } from '../stores/tubes.ts';
import { handlingOf, isPale, sourceName } from './handling.ts';
import { newId } from '../floor/ids.ts';

type Tubes = ReadonlyMap<string, Tube>;
type Piles = ReadonlyMap<string, PileDto>;
type Addition = Needs<'stage.add'>['additions'][number];

/** Piles a plan takes from of which nothing is mixed yet. */
export const unmixedIn = (plan: Mixture, piles: Piles): PileDto[] => [
  ...new Set(
    leavesOf(plan).flatMap(({ source }) => {
      const mother = 'pile' in source && source.stage === undefined ? piles.get(source.pile) : undefined;
      return mother && mother.stages.length === 0 ? [mother] : [];
    }),
  ),
];

/** A pile of which a plan takes more than lies there, ml. */
export interface Short {
  readonly name: string;
  readonly takes: number;
  readonly there: number;
}

/** A hair more than there is counts as all of it. */
const ENOUGH = 1.02;

/** What a plan takes too much of, of piles that are mixed. */
export function shortFor({ plan, ml }: Pick<PileDto, 'plan' | 'ml'>, tubes: Tubes, piles: Piles): Short[] {
  const measured = measureOut(plan, ml, handlingOf(tubes));
  const taken = new Map<string, number>();
  plan.heaps.forEach(({ ingredients }, at) =>
    ingredients.forEach((one, i) => {
      if (isPile(one)) taken.set(one.pile, (taken.get(one.pile) ?? 0) + measured[at]!.amounts[i]!.ml);
    }),
  );
  return [...taken].flatMap(([id, takes]): Short[] => {
    const pile = piles.get(id);
    return pile && pile.stages.length > 0 && takes > pile.there * ENOUGH ? [{ name: pile.name, takes, there: pile.there }] : [];
  });
}

/** How large a pile can be made of what lies there, ml; nothing where that is less than a pile. */
export function mostOf(pile: Pick<PileDto, 'plan' | 'ml'>, short: readonly Short[]): number {
  const most = pile.ml * Math.min(...short.map(({ takes, there }) => there / takes));
  return most >= LEAST_AMOUNT_ML ? Math.floor(most * 10) / 10 : 0;
}

/**
 * What says that a pile was mixed as planned, its heaps first, and before these the mothers of which
 * there is nothing yet: who has mixed a child has mixed them.
 */
export function mixAsPlanned(
  pile: Pick<PileDto, 'id' | 'paintingId' | 'name' | 'plan' | 'ml'>,
  measure: Measure,
  tubes: Tubes,
  piles: Piles,
  fresh: Map<string, string> = new Map(),
): Operation[] {
  const first = unmixedIn(pile.plan, piles).flatMap((mother): Operation[] =>
    fresh.has(mother.id) ? [] : mixAsPlanned(mother, measure, tubes, piles, fresh),
  );
  const own = operationsToMix(pile.id, pile.plan, pile.ml, {
    paintingId: pile.paintingId,
    newId,
    stateOf: (tube) => tubes.get(tube)!.stateId,
    stageOf: (id) => fresh.get(id) ?? piles.get(id)!.stages.at(-1)!.id,
    handlingOf: handlingOf(tubes),
    measure,
    nameOf: (heap, plan) =>
      `${heapName(heap, colourIn(plan, heap, tubes, piles), (leaf) => sourceName(leaf, tubes, piles), isPale(tubes))} for ${pile.name}`,
  });
  const last = own.at(-1)!;
  if (last.do === 'stage.add') fresh.set(pile.id, last.id);
  return [...first, ...own];
}

/** What a heap of a plan looks like; of what takes from piles, roughly: as the plan is predicted. */
function colourIn(plan: Mixture, heap: Heap, tubes: Tubes, piles: Piles): Lab {
  const isKnown = leavesOf(plan).every(({ source }) => isTube(source) && tubes.has(source.tube));
  if (isKnown) return heapColour(plan, heap, (source) => tubes.get((source as { tube: string }).tube)!.paint);
  const [mother] = pilesIn(plan);
  const lab = mother === undefined ? undefined : piles.get(mother)?.predicted.lab;
  return lab ? labOfDto(lab) : [50, 0, 0];
}

/** How something is laid: in the painter's way of measuring, into a pile that is then so large, ml. */
export interface Laying {
  readonly measure: Measure;
  readonly whole: number;
}

/** Some ml of a tube, in the state it is reckoned in unless another is named, or of a pile as it is now. */
function addition(id: string, ml: number, { measure, whole }: Laying, tubes: Tubes, piles: Piles, state?: string): Addition {
  const tube = tubes.get(id);
  const source = tube ? { tubeId: id, stateId: state ?? tube.stateId } : { stageId: piles.get(id)!.stages.at(-1)!.id };
  return { id: newId(), ...source, ml, ...keptAs(ml, tube?.nozzleMm ?? KNIFE_BORE_MM, measure, whole) };
}

/** Some ml of what a step adds: a tube, a pile, or a tube let down by what is in it. */
function stepAdditions({ id, letDown }: AddingStep, ml: number, laying: Laying, tubes: Tubes, piles: Piles): Addition[] {
  if (!letDown) return [addition(id, ml, laying, tubes, piles)];
  const { base, ratio } = letDown;
  return [addition(base, (ml * ratio) / (1 + ratio), laying, tubes, piles), addition(id, ml / (1 + ratio), laying, tubes, piles)];
}

const stage = (pileId: string, kind: Needs<'stage.add'>['kind'], more: { additions?: Addition[]; left?: number } = {}): Operation => ({
  do: 'stage.add',
  id: newId(),
  pileId,
  kind,
  additions: [],
  ...more,
});

/** What says that a way was gone: part of the pile taken first, where it says so, then everything added. */
export function addAll(pile: PileDto, way: Way, mlOfPart: number, measure: Measure, tubes: Tubes, piles: Piles): Operation[] {
  const share = way.part?.keep ?? 1;
  const laying = { measure, whole: pile.there * share * way.growth };
  const additions = way.steps.flatMap((step) => stepAdditions(step, step.parts * share * mlOfPart, laying, tubes, piles));
  return [...(way.part ? [stage(pile.id, 'left', { left: pile.there * share })] : []), stage(pile.id, 'added', { additions })];
}

/** What says that one step of a way was done. */
export function addOne(pile: PileDto, step: AddingStep, mlOfPart: number, measure: Measure, tubes: Tubes, piles: Piles): Operation[] {
  const ml = step.parts * mlOfPart;
  return [stage(pile.id, 'added', { additions: stepAdditions(step, ml, { measure, whole: pile.there + ml }, tubes, piles) })];
}

/** What says that a pile that lies there was made a mixture of itself and more: every tube and pile by itself, heaps opened. */
export function madeInto(pile: PileDto, mixture: Mixture, measure: Measure, tubes: Tubes, piles: Piles): Operation[] {
  const leaves = leavesOf(mixture);
  const own = leaves.find(({ source }) => isPile(source) && source.pile === pile.id)?.share ?? 0;
  if (own <= 0) return [];
  const whole = pile.there / own;
  const additions = leaves.flatMap(({ source, share }): Addition[] => {
    if (isPile(source)) return source.pile === pile.id ? [] : [addition(source.pile, whole * share, { measure, whole }, tubes, piles)];
    return [addition(source.tube, whole * share, { measure, whole }, tubes, piles, source.state)];
  });
  return [stage(pile.id, 'added', { additions })];
}

export const takePart = (pile: PileDto, share: number): Operation[] => [stage(pile.id, 'left', { left: pile.there * share })];
export const changedUnrecorded = (pile: PileDto): Operation[] => [stage(pile.id, 'changed')];
export const scrapeOff = (pile: PileDto): Operation[] => [stage(pile.id, 'scraped')];
