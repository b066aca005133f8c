import { CATALOGUE } from '@dusk/core';
import type { TubeDto } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { Tube, TubeState } from '../entities/index.ts';
import { ProblemError } from '../problems.ts';

/** The newest state of each tube asked for, or of all. */
export async function newestStates(db: EntityManager, tubeIds?: readonly string[]): Promise<Map<string, TubeState>> {
  const states = await db.find(TubeState, { ...(tubeIds && { where: { tubeId: In([...tubeIds]) } }), order: { createdAt: 'ASC' } });
  return new Map(states.map((state) => [state.tubeId, state]));
}

function tubeDto(tube: Tube, state: TubeState): TubeDto {
  const pigment = CATALOGUE.get(tube.pigment)!;
  const { colourIndex, character, caution, drying, lightfastness, density } = pigment;
  return {
    id: tube.id,
    name: tube.name,
    maker: tube.maker,
    pigment: tube.pigment,
    colourIndex,
    character,
    caution,
    drying,
    lightfastness,
    density,
    nozzleMm: tube.nozzleMm,
    stateId: state.id,
    basis: state.basis,
    curves: { K: state.K, S: state.S },
  };
}

/** All tubes: those of the studio first, then the generic ones, each in the order painters lay them out. */
export async function allTubes(db: EntityManager): Promise<TubeDto[]> {
  const states = await newestStates(db);
  const order = new Map([...CATALOGUE.keys()].map((slug, i) => [slug, i]));
  const tubes = (await db.find(Tube)).filter((tube) => CATALOGUE.has(tube.pigment));
  return tubes
    .sort((a, b) => Number(a.maker === '') - Number(b.maker === '') || order.get(a.pigment)! - order.get(b.pigment)!)
    .map((tube) => tubeDto(tube, states.get(tube.id)!));
}

/** @throws ProblemError unless every tube is in the studio. */
export async function checkTubes(db: EntityManager, tubeIds: readonly string[]): Promise<void> {
  const wanted = [...new Set(tubeIds)];
  const known = await db.find(Tube, { where: { id: In(wanted) }, select: { id: true } });
  if (known.length === wanted.length) return;
  const missing = wanted.find((id) => !known.some((tube) => tube.id === id))!;
  throw new ProblemError(422, 'Unknown tube', `There is no tube ${missing} in this studio.`, {
    fields: [{ field: 'tubeIds', message: `There is no tube ${missing}.` }],
  });
}
