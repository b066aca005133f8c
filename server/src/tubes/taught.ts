import type { TaughtDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';

/** Most looks that are told of one tube, the newest. */
const MOST_TOLD = 200;

interface Found {
  readonly lookId: string;
  readonly at: string;
  readonly kind: string;
  readonly beliefId: string;
  readonly refusedAt: string | null;
  readonly pileId: string;
  readonly pile: string;
  readonly paintingId: string | null;
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** Looks at piles that hold a tube, which teach it: the newest first. */
export async function taughtOf(db: EntityManager, tubeId: string): Promise<TaughtDto[]> {
  const rows = (await db.query(
    `SELECT "look"."id" AS "lookId", "look"."at" AS "at", "sighting"."kind" AS "kind", "belief"."id" AS "beliefId", "belief"."refusedAt" AS "refusedAt",
      "pile"."id" AS "pileId", "pile"."name" AS "pile", "pile"."paintingId" AS "paintingId", "look"."L" AS "L", "look"."a" AS "a", "look"."b" AS "b"
    FROM "look" JOIN "belief" ON "belief"."lookId" = "look"."id" JOIN "sighting" ON "sighting"."id" = "look"."sightingId"
      JOIN "stage" ON "stage"."id" = "look"."stageId" JOIN "pile" ON "pile"."id" = "stage"."pileId"
    WHERE "look"."withdrawnAt" IS NULL AND "stage"."withdrawnAt" IS NULL AND EXISTS
      (SELECT 1 FROM json_each("belief"."evidence") AS "told", json_each("told"."value", '$.additions') AS "dose" WHERE json_extract("dose"."value", '$.id') = ?)
    ORDER BY "look"."at" DESC LIMIT ${MOST_TOLD}`,
    [tubeId],
  )) as Found[];
  return rows.map(({ L, a, b, ...rest }) => ({ ...rest, lab: { L, a, b } }));
}
