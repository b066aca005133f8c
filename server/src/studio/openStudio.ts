import 'reflect-metadata';
import { existsSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { DataSource, type EntityManager } from 'typeorm';
import { OTHER_TABLES } from '../entities/index.ts';
import { MIGRATIONS } from '../migrations/index.ts';
import { copiesIn, copyTo, foldersOfCopies, newestGood, stamp } from '../file/copies.ts';
import { machineClock, type Clock } from '../file/clock.ts';
import { hold, type Held } from '../file/lock.ts';
import { lookAt, sizeOf, walOf } from '../file/look.ts';
import { NEW_FILE, STUDIO_FILE, takeAway } from '../file/places.ts';
import { isForWantOfRoom, TroubleAtStart } from '../file/trouble.ts';
import { isRefusal, ProblemError } from '../refusing/problems.ts';
import { Folding } from './folding.ts';
import { findAll } from '../cards/cardIndex.ts';
import { stockCatalogue } from './catalogue.ts';
import { SUBJECTS } from './subjects.ts';
import { Hearing } from '../change/hearing.ts';
import { migrate } from '../file/migrating.ts';
import { studioIdOf } from '../settings/settings.ts';
import type { Studio } from '../change/studio.ts';
import { connectionOf, inTransaction, reopen } from '../file/transactions.ts';

interface Pragmas {
  pragma(text: string): unknown;
  close(): unknown;
}

/** @param isAlone whether the index of the journal lies in memory, where a disk has no room for it; nobody else reads the file then */
export const dataSourceFor = (file: string, isAlone = false): DataSource =>
  new DataSource({
    type: 'better-sqlite3',
    database: file,
    entities: [...OTHER_TABLES, ...Object.values(SUBJECTS).map(({ table }) => table)],
    migrations: [...MIGRATIONS],
    migrationsTableName: 'migration',
    prepareDatabase: (db: Pragmas) => {
      try {
        if (isAlone) db.pragma('locking_mode = EXCLUSIVE');
        db.pragma('journal_mode = WAL');
        db.pragma('synchronous = FULL');
        db.pragma('foreign_keys = ON');
      } catch (cause) {
        // The mapper forgets a connection that fails here, and it would go on holding the file.
        db.close();
        throw cause;
      }
    },
  });

/** Makes a new studio under another name: it takes its own once it is whole, so that none is ever half made. */
async function makeNew(folder: string, now: Clock): Promise<void> {
  const file = join(folder, NEW_FILE);
  takeAway(file);
  const data = dataSourceFor(file);
  await data.initialize();
  try {
    await migrate(data, file, true);
    await inTransaction(data, (db) => stockCatalogue(db, now()));
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
      const copy = foldersOfCopies(folder)
        .flatMap((where) => newestGood(where) ?? [])
        .sort((one, other) => (other.newest ?? '').localeCompare(one.newest ?? ''))[0];
      const offer = copy
        ? ` The newest good copy is ${copy.file}, of ${copy.newest ?? 'an unknown day'}: ${copy.paintings} paintings, ${copy.piles} piles.`
        : '';
      throw new TroubleAtStart(cause.message + offer);
    }
    return;
  }
  if (sizeOf(walOf(file)) > 0)
    throw new TroubleAtStart(
      `${file} is gone, but its journal ${walOf(file)} is there. Put the file back beside it, or put a copy back with npm run restore; nothing was changed.`,
    );
  const left = leftBeside(folder);
  if (left !== undefined)
    throw new TroubleAtStart(
      `There is no ${file} any more, but what was in it lies in ${left}. Put that back with npm run restore "${left}", or move it away to begin a new studio; nothing was changed.`,
    );
}

/** What was copied out of a studio that was taken away, or laid aside, in a folder that has none now: the newest. */
const LEFT = /^studio (rescued|laid aside) .*\.sqlite$/;
function leftBeside(folder: string): string | undefined {
  const names = readdirSync(folder).filter((name) => LEFT.test(name));
  const [newest] = names.map((name) => join(folder, name)).sort((one, other) => statSync(other).mtimeMs - statSync(one).mtimeMs);
  return newest ?? foldersOfCopies(folder).flatMap((where) => copiesIn(where))[0]?.file;
}

/**
 * Sees that nobody else has the file open, however the folder's own lock came to be lost: whoever has it open
 * keeps a shared lock on it, which lets nobody take it alone.
 * @throws TroubleAtStart when somebody has
 */
function seeAlone(folder: string, file: string): void {
  const db = new Database(file, { timeout: ALONE_MS });
  try {
    db.pragma('locking_mode = EXCLUSIVE');
    db.exec('BEGIN EXCLUSIVE; ROLLBACK');
  } catch (cause) {
    if (isForWantOfRoom(cause)) return;
    if (!(cause as { code?: string }).code?.startsWith('SQLITE_BUSY')) throw cause;
    throw new TroubleAtStart(`The studio in ${folder} is open already: another program has its file open. Use that one, or stop it first.`);
  } finally {
    db.close();
  }
}
/** Whoever only copies it is soon done. */
const ALONE_MS = 1500;

/**
 * Opens the studio in a folder, makes it when there is none, and brings its schema up to date.
 * All share one connection, so reads and changes are queued: two open transactions would run into
 * one another.
 * @param now what time it is
 * @throws TroubleAtStart when it is open already, or is not to be opened; nothing was written then
 */
export async function openStudio(folder: string, now: Clock = machineClock): Promise<Studio> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, STUDIO_FILE);
  const held = hold(folder);
  try {
    checked(folder, file);
    if (existsSync(file)) seeAlone(folder, file);
    else await makeNew(folder, now);
    return await opened(folder, file, held, now);
  } catch (cause) {
    held.release();
    throw cause;
  }
}

/** Connects to a studio's file, also where its disk has no room for what is laid beside it. */
async function connected(file: string): Promise<{ readonly data: DataSource; readonly isCramped: boolean }> {
  const usual = dataSourceFor(file);
  try {
    await usual.initialize();
    await usual.query('SELECT COUNT(*) FROM "settings"');
    return { data: usual, isCramped: false };
  } catch (cause) {
    if (usual.isInitialized) await usual.destroy();
    if (!isForWantOfRoom(cause)) throw cause;
    const data = dataSourceFor(file, true);
    await data.initialize();
    return { data, isCramped: true };
  }
}

async function opened(folder: string, file: string, held: Held, now: Clock): Promise<Studio> {
  const { data, isCramped } = await connected(file);
  try {
    return await over(data, isCramped, folder, file, held, now);
  } catch (cause) {
    await data.destroy().catch(() => undefined);
    throw cause;
  }
}

/** A studio over a connection to its file. */
async function over(data: DataSource, isCramped: boolean, folder: string, file: string, held: Held, now: Clock): Promise<Studio> {
  await migrate(data, file);
  let isFull = isCramped;
  try {
    // Said at the start, not when the first thing is lost.
    connectionOf(data).exec('BEGIN IMMEDIATE; UPDATE "settings" SET "version" = "version" + 1; ROLLBACK');
  } catch (cause) {
    if (connectionOf(data).inTransaction) connectionOf(data).exec('ROLLBACK');
    const { code = '' } = cause as { code?: string };
    if (code.startsWith('SQLITE_READONLY') || code === 'EROFS')
      throw new TroubleAtStart(
        `${file} cannot be written, so nothing would be kept. Give yourself the right to write it, or choose another folder with DUSK_DATA=…`,
      );
    if (!isForWantOfRoom(cause)) throw cause;
    isFull = true;
  }
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
    rescued ??= (await copy(join(folder, `studio rescued ${stamp(now())}.sqlite`))).file;
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
  for (const work of [(db: EntityManager) => stockCatalogue(db, now()), findAll])
    await change(work).catch((cause: unknown) => {
      if (!isForWantOfRoom(cause)) throw cause;
      isFull = true;
    });
  const hearing = new Hearing();
  const folding = new Folding({ look, change, hearing, now });
  return {
    id: await studioIdOf(data.manager),
    isFull,
    folder,
    file,
    data,
    now,
    look,
    change,
    hearing,
    folding,
    copy,
    close: async () => {
      await folding.close();
      await last;
      let isInOneFile = true;
      try {
        if (connectionOf(data).open) connectionOf(data).pragma('wal_checkpoint(TRUNCATE)');
      } catch (cause) {
        // The journal stays beside it, and is taken in at the next start.
        if (!isForWantOfRoom(cause)) throw cause;
        isInOneFile = false;
      } finally {
        await data.destroy();
        held.release();
      }
      return isInOneFile;
    },
  };
}
