import type { EntityManager } from 'typeorm';
import { Change } from '../entities/index.ts';

/** The place of the newest change in the log. */
export const newestSeq = async (db: EntityManager): Promise<number> => (await db.maximum(Change, 'seq')) ?? 0;
