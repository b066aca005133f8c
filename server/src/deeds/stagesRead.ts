import type { FromTube, Lab, PaintCurves, StageAddition, StageRecord } from '@dusk/core';
import type { StageKind } from '@dusk/wire';
import { In, IsNull, type EntityManager, type FindOperator } from 'typeorm';
import { Addition, Belief, Look, Pile, Stage } from '../entities/index.ts';
import { groupedBy } from '../change/rows.ts';
import { paintOfState, statesById } from '../tubes/tubes.ts';

/** A stage of a pile. */
export type PileStage = Stage & { readonly pileId: string; readonly kind: StageKind };
export const isOfPile = (stage: Stage): stage is PileStage => stage.pileId !== null;

/** Stages that are not withdrawn, with their additions and looks, of some piles and of what takes from them. */
export interface StagesRead {
  readonly stages: readonly Stage[];
  readonly additions: ReadonlyMap<string, readonly Addition[]>;
  /** Looks that are not withdrawn, oldest first, by stage. */
  readonly looks: ReadonlyMap<string, readonly Look[]>;
  /** By look. */
  readonly beliefs: ReadonlyMap<string, Pick<Belief, 'id' | 'lookId' | 'refusedAt'>>;
}

/** Which piles' stages are wanted: by id, or all of a painting. */
export type Wanted = { readonly pileIds: readonly string[] } | { readonly paintingId: string };

/** Rows of a kind by one of their columns, as many as there may be. Found by what they hang on, since SQLite goes through a whole table for a condition on a joined one. */
export const among = <T>(ids: Iterable<string>, find: (ids: FindOperator<string>) => Promise<T[]>): Promise<T[]> => {
  const wanted = [...new Set(ids)];
  return wanted.length === 0 ? Promise.resolve([]) : find(In(wanted));
};

async function pileIdsOf(db: EntityManager, wanted: Wanted): Promise<readonly string[]> {
  if ('pileIds' in wanted) return wanted.pileIds;
  return (await db.find(Pile, { where: { paintingId: wanted.paintingId }, select: { id: true } })).map(({ id }) => id);
}

/** Reads stages in a fixed number of queries, however many piles. */
export async function readStages(db: EntityManager, wanted: Wanted): Promise<StagesRead> {
  const pileIds = await pileIdsOf(db, wanted);
  const own = await among(pileIds, (pileId) => db.find(Stage, { where: { withdrawnAt: IsNull(), pileId }, order: { n: 'ASC' } }));
  const ids = new Set(own.map((stage) => stage.id));
  const drawn = await among(ids, (sourceId) => db.find(Addition, { where: { sourceId } }));
  const others = await among(
    drawn.map(({ stageId }) => stageId).filter((id) => !ids.has(id)),
    (id) => db.find(Stage, { where: { id, withdrawnAt: IsNull() } }),
  );
  const living = new Set(others.map(({ id }) => id));
  const additions = await among(ids, (stageId) => db.find(Addition, { where: { stageId }, order: { position: 'ASC' } }));
  const looks = await among(ids, (stageId) =>
    db.find(Look, { where: { withdrawnAt: IsNull(), stageId }, relations: { sighting: true }, order: { at: 'ASC', id: 'ASC' } }),
  );
  const beliefs = await among(
    looks.map(({ id }) => id),
    (lookId) => db.find(Belief, { where: { lookId }, select: { id: true, lookId: true, refusedAt: true } }),
  );
  return {
    stages: [...own, ...others],
    additions: groupedBy([...additions, ...drawn.filter(({ stageId }) => living.has(stageId))], (a) => a.stageId),
    looks: groupedBy(looks, (look) => look.stageId),
    beliefs: new Map(beliefs.map((belief) => [belief.lookId, belief])),
  };
}

const labOfLook = ({ L, a, b }: Look): Lab => [L, a, b];

export const additionOf = ({
  tubeId,
  stateId,
  sourceId,
  ml,
  low,
  high,
}: Pick<Addition, 'tubeId' | 'stateId' | 'sourceId' | 'ml' | 'low' | 'high'>): StageAddition => ({
  source: tubeId === null ? { stage: sourceId! } : { tube: tubeId, state: stateId! },
  ml,
  low,
  high,
});

/** Stages as the engine goes through them. */
export function recordsOf({ stages, additions, looks }: StagesRead): StageRecord[] {
  return stages.map((stage): StageRecord => {
    const seen = looks.get(stage.id)?.at(-1);
    return {
      id: stage.id,
      n: stage.n,
      // An area takes paint from piles as a pile does.
      ...(isOfPile(stage) ? { pile: stage.pileId, kind: stage.kind } : { pile: stage.areaId!, kind: 'added' as const }),
      ...(stage.left !== null && { left: stage.left }),
      additions: (additions.get(stage.id) ?? []).map(additionOf),
      ...(seen && {
        seen: labOfLook(seen),
        sight: seen.sighting!.kind,
        sightingId: seen.sightingId,
        lookId: seen.id,
        confirmed: seen.confirmed,
      }),
    };
  });
}

/** Records of some piles and of every pile they were mixed from, mothers of mothers too. */
export async function withMothers(db: EntityManager, pileIds: readonly string[]): Promise<StageRecord[]> {
  const found = new Map<string, StageRecord>();
  /** What takes from these piles, of which only that is known. */
  const taking = new Map<string, StageRecord>();
  let wanted = [...pileIds];
  while (wanted.length > 0) {
    const asked = new Set(wanted);
    for (const record of recordsOf(await readStages(db, { pileIds: wanted })))
      (asked.has(record.pile) ? found : taking).set(record.id, record);
    const sources = [...found.values()].flatMap((r) => r.additions.flatMap(({ source }) => ('stage' in source ? source.stage : [])));
    const missing = [...new Set(sources)].filter((id) => !found.has(id));
    const stages = missing.length === 0 ? [] : await db.find(Stage, { where: { id: In(missing), withdrawnAt: IsNull() } });
    wanted = [...new Set(stages.flatMap(({ pileId }) => pileId ?? []))];
  }
  return [...[...taking.values()].filter(({ id }) => !found.has(id)), ...found.values()];
}

/** Curves of the states that records speak of. */
export async function paintsOf(db: EntityManager, records: readonly StageRecord[]): Promise<(tube: Required<FromTube>) => PaintCurves> {
  const ids = records.flatMap((r) => r.additions.flatMap(({ source }) => ('stage' in source ? [] : source.state)));
  const states = await statesById(db, ids);
  const paints = new Map([...states].map(([id, state]) => [id, paintOfState(state)]));
  return ({ state }) => paints.get(state)!;
}
