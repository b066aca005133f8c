// The log: what was laid on paintings, opened to tubes, and sittings told by what was done in them.
import { throughStages, type StageRecord } from '@dusk/core';
import type { LaidOfTubes, LogDto, SittingTold } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { groupedBy } from '../change/rows.ts';
import { newestSeq } from '../change/newestSeq.ts';
import { sittingRows } from '../deeds/sittings.ts';
import { additionOf } from '../deeds/stagesRead.ts';
import { Painting, Sitting } from '../entities/index.ts';
import { areaRows } from '../paintings/areas.ts';

/** So many paintings, those that were worked on last, are told of at once; and so many sittings. */
const MOST_PAINTINGS = 60;
const SITTINGS = 30;

interface StageRow {
  readonly id: string;
  readonly n: number;
  readonly pileId: string | null;
  readonly areaId: string | null;
  readonly kind: StageRecord['kind'];
  readonly left: number | null;
}
interface AdditionRow {
  readonly stageId: string;
  readonly tubeId: string | null;
  readonly stateId: string | null;
  readonly sourceId: string | null;
  readonly ml: number;
  readonly low: number;
  readonly high: number;
}

/** Piles that paint was laid from on some paintings, and all those were mixed from. */
const PILES_OF = `WITH RECURSIVE "of" ("pileId") AS (
  SELECT DISTINCT "source"."pileId" FROM "area"
    JOIN "stage" ON "stage"."areaId" = "area"."id" AND "stage"."withdrawnAt" IS NULL
    JOIN "addition" ON "addition"."stageId" = "stage"."id"
    JOIN "stage" "source" ON "source"."id" = "addition"."sourceId"
    WHERE "area"."paintingId" IN (SELECT value FROM json_each(?))
  UNION
  SELECT "source"."pileId" FROM "of"
    JOIN "stage" ON "stage"."pileId" = "of"."pileId" AND "stage"."withdrawnAt" IS NULL
    JOIN "addition" ON "addition"."stageId" = "stage"."id"
    JOIN "stage" "source" ON "source"."id" = "addition"."sourceId"
) SELECT "pileId" FROM "of"`;
/** What was done with those piles, and what takes from them, areas too. */
const STAGES_OF = `SELECT "id", "n", "pileId", "areaId", "kind", "left" FROM "stage" WHERE "withdrawnAt" IS NULL AND ("pileId" IN (SELECT value FROM json_each(?))
  OR "id" IN (SELECT "addition"."stageId" FROM "stage" "source" JOIN "addition" ON "addition"."sourceId" = "source"."id" WHERE "source"."pileId" IN (SELECT value FROM json_each(?))))`;
const ADDITIONS_OF = `SELECT "stageId", "tubeId", "stateId", "sourceId", "ml", "low", "high" FROM "addition" WHERE "stageId" IN (SELECT value FROM json_each(?)) ORDER BY "position"`;

/** What was laid on some paintings, opened to tubes: shares by tube, by deed. */
export async function laidOfTubes(db: EntityManager, paintingIds: readonly string[]): Promise<LaidOfTubes[]> {
  const deeds = await db.query<StageRow[]>(
    `SELECT "stage"."id", "n", "pileId", "areaId", "kind", "left" FROM "area" JOIN "stage" ON "stage"."areaId" = "area"."id" WHERE "area"."deletedAt" IS NULL AND "stage"."withdrawnAt" IS NULL AND "stage"."kind" = 'laid' AND "area"."paintingId" IN (SELECT value FROM json_each(?))`,
    [JSON.stringify(paintingIds)],
  );
  if (deeds.length === 0) return [];
  const piles = await db.query<{ pileId: string }[]>(PILES_OF, [JSON.stringify(paintingIds)]);
  const pileIds = new Set(piles.map(({ pileId }) => pileId));
  const ids = JSON.stringify([...pileIds]);
  const found = await db.query<StageRow[]>(STAGES_OF, [ids, ids]);
  const stages = [...new Map([...found, ...deeds].map((stage) => [stage.id, stage])).values()];
  const additions = groupedBy(
    await db.query<AdditionRow[]>(ADDITIONS_OF, [JSON.stringify(stages.map(({ id }) => id))]),
    ({ stageId }) => stageId,
  );
  const { at } = throughStages(
    stages.map(({ id, n, pileId, kind, left }): StageRecord => {
      const own = (additions.get(id) ?? []).map(additionOf);
      if (pileId !== null && pileIds.has(pileId)) return { id, n, pile: pileId, kind, ...(left !== null && { left }), additions: own };
      // Of what only takes from them it counts what it takes; each layer is a thing of its own.
      return { id, n, pile: id, kind: 'added', additions: own };
    }),
  );
  return deeds.map(({ id }) => ({
    deedId: id,
    parts: Object.entries(at.get(id)?.tubes ?? {}).map(([tubeId, share]) => ({ tubeId, share })),
  }));
}

/** Sittings in words of what was done in them: piles mixed, layers laid, when the last thing was done. */
async function toldOf(db: EntityManager, sittingIds: readonly string[]): Promise<SittingTold[]> {
  const among = `"stage"."sittingId" IN (SELECT value FROM json_each(?)) AND "stage"."withdrawnAt" IS NULL`;
  const ids = [JSON.stringify(sittingIds)];
  const piles = await db.query<
    { sittingId: string; id: string; paintingId: string | null; name: string; predicted: string | null; at: string }[]
  >(
    `SELECT "stage"."sittingId", "pile"."id", "pile"."paintingId", "pile"."name", "stage"."predicted", "stage"."at" FROM "stage" JOIN "pile" ON "pile"."id" = "stage"."pileId" WHERE ${among} AND "stage"."kind" = 'mixed' AND "pile"."deletedAt" IS NULL ORDER BY "stage"."n"`,
    ids,
  );
  const deeds = await db.query<{ sittingId: string; kind: string; name: string; paintingId: string }[]>(
    `SELECT "stage"."sittingId", "stage"."kind", "area"."name", "area"."paintingId" FROM "stage" JOIN "area" ON "area"."id" = "stage"."areaId" WHERE ${among} AND "area"."deletedAt" IS NULL ORDER BY "stage"."n"`,
    ids,
  );
  const last = await db.query<{ sittingId: string; lastAt: string; deeds: number }[]>(
    `SELECT "sittingId", MAX("at") AS "lastAt", COUNT(*) AS "deeds" FROM "stage" WHERE ${among} GROUP BY "sittingId"`,
    ids,
  );
  const [mixed, done, ended] = [piles, deeds, last].map((rows) =>
    groupedBy(rows as { readonly sittingId: string }[], ({ sittingId }) => sittingId),
  ) as [Map<string, typeof piles>, Map<string, typeof deeds>, Map<string, typeof last>];
  return sittingIds.map((id) => ({
    id,
    lastAt: ended.get(id)?.[0]?.lastAt ?? null,
    deeds: ended.get(id)?.[0]?.deeds ?? 0,
    piles: (mixed.get(id) ?? []).map(({ id: pileId, paintingId, name, predicted }) => ({
      pileId,
      paintingId,
      name,
      lab: predicted === null ? null : (JSON.parse(predicted) as { L: number; a: number; b: number }),
    })),
    areas: (done.get(id) ?? []).map(({ kind, name, paintingId }) => ({ kind, name, paintingId })),
  }));
}

/** The log: areas of the paintings that were worked on last with what was laid there, and the newest sittings. */
export async function logOf(db: EntityManager): Promise<LogDto> {
  const paintings = await db
    .createQueryBuilder(Painting, 'painting')
    .select('painting.id')
    .where('painting.deletedAt IS NULL')
    .orderBy('painting.updatedAt', 'DESC')
    .limit(MOST_PAINTINGS)
    .getMany();
  const paintingIds = paintings.map(({ id }) => id);
  const areas = await areaRows(db, { paintingIds });
  const page = await sittingsBefore(db);
  return {
    ...page,
    rows: { ...page.rows, areas },
    laid: await laidOfTubes(db, paintingIds),
  };
}

/** Sittings that stand, the newest first, those before one. */
export async function sittingsBefore(db: EntityManager, before?: Pick<Sitting, 'id' | 'openedAt'>): Promise<Omit<LogDto, 'laid'>> {
  const asking = db.createQueryBuilder(Sitting, 'sitting').select(['sitting.id', 'sitting.openedAt']).where('sitting.deletedAt IS NULL');
  if (before) asking.andWhere('(sitting.openedAt, sitting.id) < (:openedAt, :id)', { openedAt: before.openedAt, id: before.id });
  const found = await asking
    .orderBy('sitting.openedAt', 'DESC')
    .addOrderBy('sitting.id', 'DESC')
    .limit(SITTINGS + 1)
    .getMany();
  const ids = found.slice(0, SITTINGS).map(({ id }) => id);
  return {
    seq: await newestSeq(db),
    rows: { sittings: ids.length === 0 ? [] : await sittingRows(db, { ids }) },
    sittings: ids.length === 0 ? [] : await toldOf(db, ids),
    ...(found.length > SITTINGS && { next: ids.at(-1)! }),
  };
}
