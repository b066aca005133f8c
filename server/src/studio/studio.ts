import 'reflect-metadata';
import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource, type EntityManager } from 'typeorm';
import { ENTITIES } from '../entities/index.ts';
import { MIGRATIONS } from '../migrations/index.ts';
import { isRefusal } from '../problems.ts';
import { stockCatalogue } from './catalogue.ts';
import { migrate } from './migrating.ts';
import { inTransaction, reopen } from './transactions.ts';

/** The file that is the whole studio, inside the data folder. */
export const STUDIO_FILE = 'studio.sqlite';

/** An open studio: one SQLite file. */
export interface Studio {
  readonly file: string;
  readonly data: DataSource;
  /** Reads, after the changes before it, so that no half-made change is seen. */
  readonly look: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  /** Runs a change as one transaction, after those before it, and answers once it is durable. */
  readonly change: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  readonly close: () => Promise<void>;
}

interface Pragmas {
  pragma(text: string): unknown;
}

export const dataSourceFor = (file: string): DataSource =>
  new DataSource({
    type: 'better-sqlite3',
    database: file,
    entities: ENTITIES,
    migrations: MIGRATIONS,
    migrationsTableName: 'migration',
    prepareDatabase: (db: Pragmas) => {
      db.pragma('journal_mode = WAL');
      db.pragma('synchronous = FULL');
      db.pragma('foreign_keys = ON');
    },
  });

/**
 * Opens the studio in a folder, makes it when there is none, and brings its schema up to date.
 * All share one connection, so reads and changes are queued: two open transactions would run into
 * one another.
 */
export async function openStudio(folder: string): Promise<Studio> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, STUDIO_FILE);
  const isNew = !existsSync(file);
  const data = dataSourceFor(file);
  await data.initialize();
  await migrate(data, file, isNew);
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = last.then(work);
    last = next.catch(() => undefined);
    return next;
  };
  const look: Studio['look'] = (work) => inTurn(() => work(data.manager));
  const change: Studio['change'] = (work) =>
    inTurn(async () => {
      try {
        return await inTransaction(data, work);
      } catch (cause) {
        if (!isRefusal(cause)) await reopen(data);
        throw cause;
      }
    });
  await change(stockCatalogue);
  return {
    file,
    data,
    look,
    change,
    close: async () => {
      await last;
      await data.destroy();
    },
  };
}
