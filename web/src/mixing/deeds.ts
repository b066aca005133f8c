import { labOfDto } from '@dusk/wire/written';
import { heapColour, heapName, isTube, leavesOf, pilesIn, type AddingStep, type Heap, type Lab, type Mixture, type Way } from '@dusk/core';
import type { Needs, Operation, PileDto } from '@dusk/wire';
import { operationsToMix } from '@dusk/wire/mixed';
import type { Tube } from '../tubes/tubes.ts';
import { handlingOf, isPale, sourceName } from './handling.ts';

type Tubes = ReadonlyMap<string, Tube>;
type Piles = ReadonlyMap<string, PileDto>;
type Addition = Needs<'stage.add'>['additions'][number];

const newId = (): string => crypto.randomUUID();

/** Piles a plan takes from of which nothing is mixed yet. */
export const unmixedIn = (plan: Mixture, piles: Piles): PileDto[] => [
  ...new Set(
    leavesOf(plan).flatMap(({ source }) => {
      const mother = 'pile' in source && source.stage === undefined ? piles.get(source.pile) : undefined;
      return mother && mother.stages.length === 0 ? [mother] : [];
    }),
  ),
];

/**
 * What says that a pile was mixed as planned, its heaps first, and before these the mothers of which
 * there is nothing yet: who has mixed a child has mixed them.
 */
export function mixAsPlanned(pile: PileDto, tubes: Tubes, piles: Piles, fresh: Map<string, string> = new Map()): Operation[] {
  const first = unmixedIn(pile.plan, piles).flatMap((mother): Operation[] =>
    fresh.has(mother.id) ? [] : mixAsPlanned(mother, tubes, piles, fresh),
  );
  const own = operationsToMix(pile.id, pile.plan, pile.ml, {
    paintingId: pile.paintingId,
    newId,
    stateOf: (tube) => tubes.get(tube)!.stateId,
    stageOf: (id) => fresh.get(id) ?? piles.get(id)!.stages.at(-1)!.id,
    handlingOf: handlingOf(tubes),
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

/** Some ml of a tube, or of a pile as it is now. */
function addition(id: string, ml: number, tubes: Tubes, piles: Piles): Addition {
  const tube = tubes.get(id);
  const source = tube ? { tubeId: id, stateId: tube.stateId } : { stageId: piles.get(id)!.stages.at(-1)!.id };
  return { id: newId(), ...source, ml, low: ml, high: ml };
}

/** Some ml of what a step adds: a tube, a pile, or a tube let down by what is in it. */
function stepAdditions({ id, letDown }: AddingStep, ml: number, tubes: Tubes, piles: Piles): Addition[] {
  if (!letDown) return [addition(id, ml, tubes, piles)];
  const { base, ratio } = letDown;
  return [addition(base, (ml * ratio) / (1 + ratio), tubes, piles), addition(id, ml / (1 + ratio), tubes, piles)];
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
export function addAll(pile: PileDto, way: Way, mlOfPart: number, tubes: Tubes, piles: Piles): Operation[] {
  const share = way.part?.keep ?? 1;
  const additions = way.steps.flatMap((step) => stepAdditions(step, step.parts * share * mlOfPart, tubes, piles));
  return [...(way.part ? [stage(pile.id, 'left', { left: pile.there * share })] : []), stage(pile.id, 'added', { additions })];
}

/** What says that one step of a way was done. */
export const addOne = (pile: PileDto, step: AddingStep, mlOfPart: number, tubes: Tubes, piles: Piles): Operation[] => [
  stage(pile.id, 'added', { additions: stepAdditions(step, step.parts * mlOfPart, tubes, piles) }),
];

export const takePart = (pile: PileDto, share: number): Operation[] => [stage(pile.id, 'left', { left: pile.there * share })];
export const changedUnrecorded = (pile: PileDto): Operation[] => [stage(pile.id, 'changed')];
export const scrapeOff = (pile: PileDto): Operation[] => [stage(pile.id, 'scraped')];
