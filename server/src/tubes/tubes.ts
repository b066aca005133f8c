import { CATALOGUE, type PaintCurves } from '@dusk/core';
import type { CurvesDto, LearntDto, StateDto, TubeDto } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { Tube, TubeState } from '../entities/index.ts';
import { unfit } from '../refusing/problems.ts';

const curvesDto = ({ K, S }: TubeState): CurvesDto => ({ K, S });

export const paintOfState = ({ K, S }: TubeState): PaintCurves => ({ K: Float64Array.from(K), S: Float64Array.from(S) });

/** States by id, in one query. */
export async function statesById(db: EntityManager, ids: readonly string[]): Promise<Map<string, TubeState>> {
  const states = ids.length === 0 ? [] : await db.find(TubeState, { where: { id: In([...new Set(ids)]) } });
  return new Map(states.map((state) => [state.id, state]));
}

const learntDto = (state: TubeState): LearntDto | null =>
  state.learnt && state.base ? { stateId: state.base.id, basis: state.base.basis, curves: curvesDto(state.base), ...state.learnt } : null;

function tubeDto(tube: Tube): TubeDto {
  const { colourIndex, character, caution, drying, lightfastness, density } = CATALOGUE.get(tube.pigment)!;
  const state = tube.state!;
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
    curves: curvesDto(state),
    learnt: learntDto(state),
  };
}

/** Tubes in one query: those of the studio first, then the generic ones, each in the order painters lay them out. */
export async function tubeRows(db: EntityManager, ids?: readonly string[]): Promise<TubeDto[]> {
  const order = new Map([...CATALOGUE.keys()].map((slug, i) => [slug, i]));
  const tubes = await db.find(Tube, { ...(ids && { where: { id: In([...ids]) } }), relations: { state: { base: true } } });
  return tubes
    .filter((tube) => CATALOGUE.has(tube.pigment))
    .sort((a, b) => Number(a.maker === '') - Number(b.maker === '') || order.get(a.pigment)! - order.get(b.pigment)!)
    .map(tubeDto);
}

/** States by id, as they cross the wire. */
export const stateRows = async (db: EntityManager, ids: readonly string[]): Promise<StateDto[]> =>
  [...(await statesById(db, ids)).values()].map((state) => ({
    id: state.id,
    tubeId: state.tubeId,
    basis: state.basis,
    curves: curvesDto(state),
  }));

/** The state each tube is reckoned with today. */
export async function statesToday(db: EntityManager, tubeIds: readonly string[]): Promise<Map<string, TubeState>> {
  const tubes = await db.find(Tube, { where: { id: In([...new Set(tubeIds)]) }, relations: { state: true } });
  return new Map(tubes.map((tube) => [tube.id, tube.state!]));
}

/** @throws ProblemError unless every tube is in the studio. */
export async function checkTubes(db: EntityManager, tubeIds: readonly string[]): Promise<void> {
  const wanted = [...new Set(tubeIds)];
  const known = new Set((await db.find(Tube, { where: { id: In(wanted) }, select: { id: true } })).map((tube) => tube.id));
  const missing = wanted.find((id) => !known.has(id));
  if (missing !== undefined) throw unfit('Unknown tube', 'tubeIds', `There is no tube ${missing} in this studio.`);
}
