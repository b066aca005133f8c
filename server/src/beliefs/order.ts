// The order in which evidence is folded, and what lies in the file of what was folded: see `Fold`.
import { Buffer } from 'node:buffer';
import type { EntityManager } from 'typeorm';
import { unpackFolded, unpackShare, type Folded } from './packed.ts';
import { NOTHING_FOLDED } from './fold.ts';
import type { PileShare } from '@dusk/core';

/** A pile's place in the order. */
export interface Place {
  readonly pileId: string;
  readonly since: string;
  readonly firstId: string;
  readonly beliefs: string;
}

/** Snapshots that are kept of the newest piles, and after how many piles each of the others. */
export const NEWEST_KEPT = 8;
export const INTERVAL = 64;

const STANDING = `SELECT "belief"."id" AS "id", "belief"."at" AS "at" FROM "belief" JOIN "look" ON "look"."id" = "belief"."lookId" JOIN "stage" ON "stage"."id" = "look"."stageId" WHERE "stage"."pileId" = ? AND "belief"."refusedAt" IS NULL AND "look"."withdrawnAt" IS NULL AND "stage"."withdrawnAt" IS NULL ORDER BY "belief"."at", "belief"."id"`;

export async function placeOf(db: EntityManager, pileId: string): Promise<Place | undefined> {
  const [place] = (await db.query(`SELECT "pileId", "since", "firstId", "beliefs" FROM "fold" WHERE "pileId" = ?`, [pileId])) as Place[];
  return place;
}

/** Says that everything from a place on is to be reckoned anew; what was reckoned stands until it is. */
const makeStale = (db: EntityManager, { since, firstId }: Pick<Place, 'since' | 'firstId'>): Promise<unknown> =>
  db.query(`UPDATE "fold" SET "isStale" = 1 WHERE ("since", "firstId") >= (?, ?) AND "snapshot" IS NOT NULL AND "isStale" = 0`, [
    since,
    firstId,
  ]);

/** Everything is to be reckoned anew, as when the curves beneath are others. */
export const makeAllStale = (db: EntityManager): Promise<unknown> => makeStale(db, { since: '', firstId: '' });

/** Puts a pile where its evidence stands now, or takes it out when nothing of it counts any more. */
export async function replace(db: EntityManager, pileId: string): Promise<void> {
  const standing = (await db.query(STANDING, [pileId])) as { id: string; at: string }[];
  const before = await placeOf(db, pileId);
  const beliefs = standing.map(({ id }) => id).join();
  if (before?.beliefs === beliefs || (!before && standing.length === 0)) return;
  if (before) await makeStale(db, before);
  const [first] = standing;
  if (!first) {
    await db.query(`DELETE FROM "fold" WHERE "pileId" = ?`, [pileId]);
    return;
  }
  await makeStale(db, { since: first.at, firstId: first.id });
  await db.query(
    `INSERT INTO "fold" ("pileId", "since", "firstId", "beliefs", "isStale") VALUES (?, ?, ?, ?, 0) ON CONFLICT ("pileId") DO UPDATE SET "since" = excluded."since", "firstId" = excluded."firstId", "beliefs" = excluded."beliefs"`,
    [pileId, first.at, first.id, beliefs],
  );
}

/** What was folded up to a place; `place` is missing at the very beginning. */
export interface Start {
  readonly place?: Pick<Place, 'since' | 'firstId'>;
  readonly folded: Folded;
}

const BEGINNING: Start = { folded: NOTHING_FOLDED };

/**
 * The newest snapshot that holds.
 * @param before only of what comes before this place
 */
export async function newestStart(db: EntityManager, before?: Place): Promise<Start> {
  const until = before ? `AND ("since", "firstId") < (?, ?)` : '';
  const [found] = (await db.query(
    `SELECT "since", "firstId", "snapshot" FROM "fold" WHERE "snapshot" IS NOT NULL AND "isStale" = 0 ${until} ORDER BY "since" DESC, "firstId" DESC LIMIT 1`,
    before ? [before.since, before.firstId] : [],
  )) as { since: string; firstId: string; snapshot: Buffer }[];
  const folded = found && unpackFolded(found.snapshot);
  return folded ? { place: { since: found.since, firstId: found.firstId }, folded } : BEGINNING;
}

/** What is believed as far as it was reckoned: a moment behind the evidence while a long fold is under way. */
export async function newestFolded(db: EntityManager): Promise<Folded> {
  const [found] = (await db.query(
    `SELECT "snapshot" FROM "fold" WHERE "snapshot" IS NOT NULL ORDER BY "since" DESC, "firstId" DESC LIMIT 1`,
  )) as { snapshot: Buffer }[];
  return (found && unpackFolded(found.snapshot)) ?? NOTHING_FOLDED;
}

/** Places after a start, in their order. */
export const placesAfter = (db: EntityManager, { place }: Pick<Start, 'place'>, most: number): Promise<Place[]> =>
  db.query(
    `SELECT "pileId", "since", "firstId", "beliefs" FROM "fold" WHERE ("since", "firstId") > (?, ?) ORDER BY "since", "firstId" LIMIT ?`,
    [place?.since ?? '', place?.firstId ?? '', most],
  );

export async function shareKept(db: EntityManager, pileId: string): Promise<PileShare | undefined> {
  const [found] = (await db.query(`SELECT "share" FROM "fold" WHERE "pileId" = ?`, [pileId])) as { share: Buffer | null }[];
  return found?.share ? unpackShare(found.share) : undefined;
}

export const keepShare = (db: EntityManager, pileId: string, share: Uint8Array): Promise<unknown> =>
  db.query(`UPDATE "fold" SET "share" = ? WHERE "pileId" = ?`, [Buffer.from(share), pileId]);

/** Keeps what is believed after a pile, and lets go of snapshots that are neither new nor at an interval, or hold no more. */
export async function keepSnapshot(db: EntityManager, pileId: string, piles: number, snapshot: Uint8Array): Promise<void> {
  await db.query(`UPDATE "fold" SET "snapshot" = ?, "piles" = ?, "isStale" = 0 WHERE "pileId" = ?`, [Buffer.from(snapshot), piles, pileId]);
  await db.query(
    `UPDATE "fold" SET "snapshot" = NULL, "piles" = NULL, "isStale" = 0 WHERE "snapshot" IS NOT NULL AND ("since", "firstId") < (SELECT "since", "firstId" FROM "fold" WHERE "pileId" = ?) AND ("isStale" = 1 OR ("piles" % ${INTERVAL} <> 0 AND "piles" <= ?))`,
    [pileId, piles - NEWEST_KEPT],
  );
}
