import 'reflect-metadata';
import { existsSync, mkdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource, type EntityManager } from 'typeorm';
import { ENTITIES } from '../entities/index.ts';
import { MIGRATIONS } from '../migrations/index.ts';
import { copiesFolder, copyTo, newestGood, stamp } from '../keeping/copies.ts';
import { hold, type Held } from '../keeping/lock.ts';
import { lookAt, sizeOf, walOf, type StudioSeen } from '../keeping/look.ts';
import { NEW_FILE, STUDIO_FILE, takeAway } from '../keeping/places.ts';
import { TroubleAtStart } from '../keeping/trouble.ts';
import { isRefusal, ProblemError } from '../problems.ts';
import { findAll } from './cardIndex.ts';
import { stockCatalogue } from './catalogue.ts';
import { Hearing } from './hearing.ts';
import { migrate } from './migrating.ts';
import { connectionOf, inTransaction, reopen } from './transactions.ts';

/** An open studio: one SQLite file. */
export interface Studio {
  readonly folder: string;
  readonly file: string;
  readonly data: DataSource;
  /** Reads, after the changes before it, so that no half-made change is seen. */
  readonly look: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  /** Runs a change as one transaction, after those before it, and answers once it is durable. */
  readonly change: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  /** Where open windows hear of changes. */
  readonly hearing: Hearing;
  /** Copies all of it into one file while it is in use. */
  readonly copy: (to: string) => Promise<StudioSeen>;
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

/** Makes a new studio under another name: it takes its own once it is whole, so that none is ever half made. */
async function makeNew(folder: string): Promise<void> {
  const file = join(folder, NEW_FILE);
  takeAway(file);
  const data = dataSourceFor(file);
  await data.initialize();
  try {
    await migrate(data, file, true);
    await inTransaction(data, stockCatalogue);
    connectionOf(data).pragma('wal_checkpoint(TRUNCATE)');
  } finally {
    await data.destroy();
  }
  renameSync(file, join(folder, STUDIO_FILE));
}

/** Sees that what is to be opened is a whole studio of this program's, or that there is none. */
function checked(folder: string, file: string): void {
  if (existsSync(file)) {
    try {
      lookAt(file);
    } catch (cause) {
      if (!(cause instanceof TroubleAtStart)) throw cause;
      const copy = newestGood(copiesFolder(folder, ''));
      const offer = copy ? ` The newest good copy is ${copy.file}, of ${copy.newest ?? 'an unknown day'}: ${copy.paintings} paintings, ${copy.piles} piles.` : '';
      throw new TroubleAtStart(cause.message + offer);
    }
  } else if (sizeOf(walOf(file)) > 0)
    throw new TroubleAtStart(
      `${file} is gone, but its journal ${walOf(file)} is there. Put the file back beside it, or put a copy back with npm run restore; nothing was changed.`,
    );
}

/**
 * Opens the studio in a folder, makes it when there is none, and brings its schema up to date.
 * All share one connection, so reads and changes are queued: two open transactions would run into
 * one another.
 * @throws TroubleAtStart when it is open already, or is not to be opened; nothing was written then
 */
export async function openStudio(folder: string): Promise<Studio> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, STUDIO_FILE);
  const held = hold(folder);
  try {
    checked(folder, file);
    if (!existsSync(file)) await makeNew(folder);
    return await opened(folder, file, held);
  } catch (cause) {
    held.release();
    throw cause;
  }
}

async function opened(folder: string, file: string, held: Held): Promise<Studio> {
  const data = dataSourceFor(file);
  await data.initialize();
  await migrate(data, file);
  const { ino } = statSync(file);
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = last.then(work);
    last = next.catch(() => undefined);
    return next;
  };
  const look: Studio['look'] = (work) => inTurn(() => work(data.manager));
  const copy: Studio['copy'] = (to) => copyTo(connectionOf(data), to);
  let rescued: string | undefined;
  /** A file that was taken away under our hands still holds everything, but nobody will find it: it is copied out once. */
  async function stillThere(): Promise<void> {
    if (statSync(file, { throwIfNoEntry: false })?.ino === ino) return;
    rescued ??= (await copy(join(folder, `studio rescued ${stamp()}.sqlite`))).file;
    throw new ProblemError(
      503,
      'The studio is gone',
      `The studio's file was moved or replaced while it was open, so this was not kept. All that was kept before lies in ${rescued}. Stop Auburn Dusk and put it back with npm run restore.`,
    );
  }
  const change: Studio['change'] = (work) =>
    inTurn(async () => {
      await stillThere();
      try {
        return await inTransaction(data, work);
      } catch (cause) {
        if (!isRefusal(cause)) await reopen(data);
        throw cause;
      }
    });
  await change(stockCatalogue);
  await change(findAll);
  return {
    folder,
    file,
    data,
    look,
    change,
    hearing: new Hearing(),
    copy,
    close: async () => {
      await last;
      if (connectionOf(data).open) connectionOf(data).pragma('wal_checkpoint(TRUNCATE)');
      await data.destroy();
      held.release();
    },
  };
}
