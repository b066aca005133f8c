import type { Answer, RowKind } from '@dusk/wire';
import { MoreThan } from 'typeorm';
import { Change } from '../entities/index.ts';
import { logAt, rowsOf } from './changes.ts';
import { newestSeq } from '../change/newestSeq.ts';
import type { Studio } from '../change/studio.ts';

/** Further back than this a window is told to load everything again. */
const MOST_MISSED = 300;

/** What a window missed: rows as they now are, or that it is too much. */
export type Missed = Answer | 'too much';

/** What was changed after a place in the log, each row once, as it is now. */
export const missedSince = ({ look }: Studio, seq: number): Promise<Missed> =>
  look(async (db) => {
    const newest = await newestSeq(db);
    // A place the log has not come to yet is another studio's.
    if (seq > newest || newest - seq > MOST_MISSED) return 'too much';
    const changes = await db.find(Change, { where: { seq: MoreThan(seq) }, select: { seq: true, touched: true } });
    const touched = new Map<RowKind, Set<string>>();
    for (const change of changes)
      for (const [kind, ids] of Object.entries(change.touched) as [RowKind, readonly string[]][])
        touched.set(kind, new Set([...(touched.get(kind) ?? []), ...ids]));
    const all = Object.fromEntries([...touched].map(([kind, ids]) => [kind, [...ids]]));
    const log = await logAt(db, newest);
    return { seq: newest, ...(log !== null && { log }), rows: await rowsOf(db, all) };
  });
