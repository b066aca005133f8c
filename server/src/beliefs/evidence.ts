import { readingOf, type Evidence } from '@dusk/core';
import { IsNull, type EntityManager } from 'typeorm';
import { Belief, Look, Stage, TubeState } from '../entities/index.ts';
import { groupedBy } from '../change/rows.ts';
import { among } from '../deeds/stagesRead.ts';

/** What one pile says about tubes, and the belief that said it last. */
export interface PileEvidence extends Evidence {
  readonly pileId: string;
  readonly beliefId: string;
  readonly tubeIds: readonly string[];
}

/** Evidence of some piles that is neither refused nor withdrawn, in the order in which the piles are given. */
export async function evidenceOfPiles(db: EntityManager, pileIds: readonly string[]): Promise<PileEvidence[]> {
  const stages = await among(pileIds, (pileId) =>
    db.find(Stage, { where: { pileId, withdrawnAt: IsNull() }, select: { id: true, pileId: true } }),
  );
  const pileOf = new Map(stages.map((stage) => [stage.id, stage.pileId]));
  const found = await among(pileOf.keys(), (stageId) =>
    db.find(Look, { where: { stageId, withdrawnAt: IsNull() }, relations: { sighting: true } }),
  );
  const lookOf = new Map(found.map((look) => [look.id, look]));
  const rows = await among(lookOf.keys(), (lookId) =>
    db.find(Belief, { where: { lookId, refusedAt: IsNull() }, order: { at: 'ASC', id: 'ASC' } }),
  );
  const byPile = groupedBy(rows, ({ lookId }) => pileOf.get(lookOf.get(lookId)!.stageId)!);
  return pileIds.flatMap((pileId): PileEvidence[] => {
    const beliefs = byPile.get(pileId);
    if (!beliefs) return [];
    const looks = new Map(beliefs.map(({ lookId }) => [lookId, lookOf.get(lookId)!]));
    const newest = beliefs.at(-1)!;
    // A look that is refused leaves its additions, which later looks still need.
    const told = newest.evidence.map(({ observed, lookId, ...rest }) => {
      const look = lookId === undefined ? undefined : looks.get(lookId);
      if (!observed || (lookId !== undefined && !look)) return rest;
      return { ...rest, observed, ...(look && { reading: readingOf(look.sighting!.kind, look.sightingId, look.confirmed) }) };
    });
    const tubeIds = [...new Set(told.flatMap((s) => s.additions.map((d) => d.id)))];
    return [{ pileId, beliefId: newest.id, tubeIds, stages: told }];
  });
}

/** The state of every tube that evidence is laid over: its newest that is not learnt. */
export async function baseStates(db: EntityManager, tubeIds: readonly string[]): Promise<Map<string, TubeState>> {
  if (tubeIds.length === 0) return new Map();
  const rows = await db
    .createQueryBuilder(TubeState, 'state')
    .where(`state.tubeId IN (:...tubeIds) AND state.basis <> 'learnt'`, { tubeIds })
    .orderBy('state.createdAt', 'ASC')
    .addOrderBy('state.rowid', 'ASC')
    .getMany();
  return new Map(rows.map((state) => [state.tubeId, state]));
}

/** The ids of those states, by tube, without their curves. */
export async function baseIds(db: EntityManager, tubeIds: readonly string[]): Promise<Map<string, string>> {
  if (tubeIds.length === 0) return new Map();
  const rows = (await db.query(
    `SELECT "id", "tubeId" FROM "tube_state" WHERE "tubeId" IN (${tubeIds.map(() => '?').join()}) AND "basis" <> 'learnt' ORDER BY "createdAt", "rowid"`,
    [...tubeIds],
  )) as { readonly id: string; readonly tubeId: string }[];
  return new Map(rows.map(({ id, tubeId }) => [tubeId, id]));
}
