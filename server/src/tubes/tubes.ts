import { CATALOGUE, CATALOGUE_STATE, mixCurves, type Drying, type Lightfastness, type PaintCurves, type Pigment } from '@dusk/core';
import { OWN_OF_TUBE, type CurvesDto, type LearntDto, type StateDto, type TubeDto } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { Tube, TubeState } from '../entities/index.ts';
import { unfit } from '../refusing/problems.ts';

const curvesDto = ({ K, S, doubt }: TubeState): CurvesDto => ({ K, S, ...(doubt && { doubt }) });

export const paintOfState = ({ K, S, doubt }: TubeState): PaintCurves => ({
  K: Float64Array.from(K),
  S: Float64Array.from(S),
  ...(doubt && { doubt: doubt.map((way) => Float64Array.from(way)) }),
});

/** States by id, in one query. */
export async function statesById(db: EntityManager, ids: readonly string[]): Promise<Map<string, TubeState>> {
  const states = ids.length === 0 ? [] : await db.find(TubeState, { where: { id: In([...new Set(ids)]) } });
  return new Map(states.map((state) => [state.id, state]));
}

const learntDto = (state: TubeState): LearntDto | null =>
  state.learnt && state.base ? { stateId: state.base.id, basis: state.base.basis, curves: curvesDto(state.base), ...state.learnt } : null;

/** Where the curves of a state come from that are usual for its pigments. */
export const TYPICAL_SOURCE = `catalogue ${CATALOGUE_STATE}`;

/** Curves usual for pigments in equal parts, as far as the catalogue knows them; nothing where it knows none. */
export function typicalCurves(pigments: readonly string[]): PaintCurves | undefined {
  const known = pigments.flatMap((slug) => CATALOGUE.get(slug) ?? []);
  return known.length === 0 ? undefined : mixCurves(known.map((paint) => ({ paint, parts: 1 })));
}

/** How a tube is handled. */
type Handled = Pick<Pigment, 'colourIndex' | 'character' | 'caution' | 'drying' | 'lightfastness' | 'density'>;

/** All that some paints warn of, each thing once. */
const warningsOf = (cautions: readonly string[]): string => [...new Set(cautions)].filter((one) => one !== 'none').join(', ') || 'none';

/** Paint of no pigment that the catalogue knows: middling, and its label is to be read. */
const UNKNOWN: Handled = { colourIndex: '', character: '', caution: 'not known', drying: 'medium', lightfastness: 'II', density: 1.4 };
const SLOWEST_FIRST: readonly Drying[] = ['slow', 'medium', 'fast'];
const LEAST_FAST_FIRST: readonly Lightfastness[] = ['IV', 'III', 'II', 'I'];

/** How paint of some pigments is usually handled: it dries as the slowest of them, fades as the least fast, and warns of all. */
function usualHandling(pigments: readonly string[]): Handled {
  const each = pigments.map((slug): Handled => CATALOGUE.get(slug) ?? { ...UNKNOWN, colourIndex: slug });
  if (each.length === 1) return each[0]!;
  return {
    colourIndex: each.map(({ colourIndex }) => colourIndex).join(', '),
    character: each.map(({ character }) => character).find(Boolean) ?? '',
    caution: warningsOf(each.map(({ caution }) => caution)),
    drying: SLOWEST_FIRST.find((one) => each.some(({ drying }) => drying === one))!,
    lightfastness: LEAST_FAST_FIRST.find((one) => each.some(({ lightfastness }) => lightfastness === one))!,
    density: each.reduce((sum, { density }) => sum + density, 0) / each.length,
  };
}

/** How a tube is handled: as was said of it, else as its pigments usually are; what its pigments warn of stays, whatever was said. */
export function handledOf(tube: Tube): Handled {
  const { colourIndex, character, caution, drying, lightfastness, density } = usualHandling(tube.pigments);
  return {
    colourIndex,
    character,
    caution: warningsOf([caution, tube.caution ?? 'none']),
    drying: tube.drying ?? drying,
    lightfastness: tube.lightfastness ?? lightfastness,
    density: tube.density ?? density,
  };
}

function tubeDto(tube: Tube): TubeDto {
  const state = tube.state!;
  return {
    id: tube.id,
    version: tube.version,
    name: tube.name,
    maker: tube.maker,
    pigment: tube.pigment,
    pigments: tube.pigments,
    ...handledOf(tube),
    nozzleMm: tube.nozzleMm,
    own: OWN_OF_TUBE.filter((one) => tube[one] !== null),
    sizeMl: tube.sizeMl,
    leftMl: tube.leftMl,
    note: tube.note,
    createdAt: tube.createdAt,
    deletedAt: tube.deletedAt,
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
    .sort(
      (a, b) =>
        Number(a.maker === '') - Number(b.maker === '') || (order.get(a.pigment) ?? order.size) - (order.get(b.pigment) ?? order.size),
    )
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
