import { closeSync, existsSync, openSync, readFileSync, readSync, rmSync, statSync } from 'node:fs';
import Database from 'better-sqlite3';
import { getMetadataArgsStorage } from 'typeorm';
import '../entities/index.ts';
import { MIGRATIONS } from '../migrations/index.ts';
import { isForWantOfRoom, TroubleAtStart } from './trouble.ts';

/** What a studio file holds, seen without writing to it. */
export interface StudioSeen {
  readonly file: string;
  readonly bytes: number;
  /** When it was last worked on, UTC ISO; null where nobody did. */
  readonly newest: string | null;
  readonly paintings: number;
  readonly piles: number;
  /** Whether its schema is this program's, or is brought up to date when it is opened. */
  readonly isCurrent: boolean;
}

const MAGIC = 'SQLite format 3\0';
/** Files up to this size are read through whenever they are opened; larger ones when they were not closed cleanly. */
const READ_THROUGH_BYTES = 300e6;

/** What SQLite lays beside a file that is looked at. */
const BESIDE = ['-wal', '-shm'] as const;

export const walOf = (file: string): string => `${file}-wal`;
export const sizeOf = (path: string): number => statSync(path, { throwIfNoEntry: false })?.size ?? 0;

function startOf(file: string): string {
  const bytes = Buffer.alloc(MAGIC.length);
  const handle = openSync(file, 'r');
  try {
    readSync(handle, bytes, 0, bytes.length, 0);
  } finally {
    closeSync(handle);
  }
  return bytes.toString('latin1');
}

const KNOWN: ReadonlySet<string> = new Set(MIGRATIONS.map((m) => m.name));
const damaged = (file: string): TroubleAtStart =>
  new TroubleAtStart(`${file} is damaged and was left as it is. Put the newest copy back with npm run restore.`);

type Row = Record<string, unknown>;
const one = (db: Database.Database, sql: string): Row => (db.prepare(sql).get() ?? {}) as Row;
const has = (db: Database.Database, table: string): boolean =>
  one(db, `SELECT COUNT(*) AS n FROM sqlite_master WHERE type = 'table' AND name = '${table}'`)['n'] === 1;

/** What the change log says: the last change, and whether none is missing. */
interface LogSeen {
  readonly seq: number;
  readonly id: string | null;
  readonly isWhole: boolean;
}

function logIn(db: Database.Database): LogSeen {
  if (!has(db, 'change')) return { seq: 0, id: null, isWhole: true };
  const { n, least, most } = one(db, 'SELECT COUNT(*) AS n, MIN(seq) AS least, MAX(seq) AS most FROM "change"') as Record<string, number>;
  const { id } = one(db, 'SELECT id FROM "change" ORDER BY seq DESC LIMIT 1');
  return { seq: most ?? 0, id: (id as string | undefined) ?? null, isWhole: n === 0 || n === most! - least! + 1 };
}

const idAt = (db: Database.Database, seq: number): unknown =>
  seq === 0 || !has(db, 'change') ? null : one(db, `SELECT id FROM "change" WHERE seq = ${seq}`)['id'];

/** Where a file says how it is journalled, and that it is not. */
const JOURNALLED = [18, 19] as const;
const PLAIN = 1;

/** Sees a file as it is by itself, whatever lies beside it: from memory, so nothing is touched. */
function alone<T>(file: string, see: (db: Database.Database) => T): T | undefined {
  if (sizeOf(file) > READ_THROUGH_BYTES) return undefined;
  const bytes = readFileSync(file);
  for (const at of JOURNALLED) bytes[at] = PLAIN;
  let db: Database.Database | undefined;
  try {
    db = new Database(bytes);
    return see(db);
  } catch {
    return undefined;
  } finally {
    db?.close();
  }
}

/**
 * Whether the journal beside a file was written by it. A journal carries no name: one that stayed behind
 * when a copy was put in the file's place would be laid over the copy, and show another studio.
 */
function isJournalsOwn(file: string, whole: Database.Database): boolean {
  const itself = alone(file, logIn);
  const together = logIn(whole);
  if (!together.isWhole) return false;
  if (!itself) return true;
  // What the file holds by itself must be the beginning of what both hold together.
  if (together.seq < itself.seq || idAt(whole, itself.seq) !== itself.id) return false;
  // A journal with more in it is written after the file. A younger file may have been put there, or only been
  // touched: what the journal's changes wrote is then looked for, one by one.
  const isYounger = statSync(file).mtimeMs > statSync(walOf(file)).mtimeMs + 1000;
  return !isYounger || together.seq === itself.seq || isAllThere(whole, itself.seq);
}

/** Whether a file holds together, and all that its changes after a place in the log wrote is in it. */
function isAllThere(db: Database.Database, since: number): boolean {
  const [{ integrity_check: check }] = db.pragma('integrity_check(1)') as [{ integrity_check: string }];
  if (check !== 'ok' || (db.pragma('foreign_key_check') as unknown[]).length > 0) return false;
  const changes = db.prepare('SELECT touched FROM "change" WHERE seq > ?').all(since) as { touched: string }[];
  const tables = new Map<string, Database.Statement>();
  for (const { touched } of changes)
    for (const [kind, ids] of Object.entries(JSON.parse(touched) as Record<string, readonly string[]>)) {
      const table = TABLES[kind];
      if (table === undefined) continue;
      const find = tables.get(table) ?? db.prepare(`SELECT 1 FROM "${table}" WHERE "id" = ?`);
      tables.set(table, find);
      if (!ids.every((id) => find.get(id) !== undefined)) return false;
    }
  return true;
}
/** Where the rows of each kind lie that the change log names. */
const TABLES: Readonly<Record<string, string>> = {
  palettes: 'palette',
  paintings: 'painting',
  references: 'reference',
  samples: 'sample',
  sightings: 'sighting',
  piles: 'pile',
  cards: 'card',
  sets: 'card_set',
};

/** Columns that hold lists and objects, by table; what was done stands in the log, which nothing that is shown is read from. */
function writtenColumns(): Map<string, string[]> {
  const { tables, columns } = getMetadataArgsStorage();
  const found = new Map<string, string[]>();
  for (const { target, propertyName, options } of columns) {
    const table = tables.find((other) => other.target === target)?.name;
    if (options.type === 'simple-json' && table !== undefined && table !== 'change')
      found.set(table, [...(found.get(table) ?? []), options.name ?? propertyName]);
  }
  return found;
}
/** Whether each row can be read: SQLite sees to its pages, not to what is written in them. */
function canBeRead(db: Database.Database): boolean {
  for (const [table, columns] of writtenColumns()) {
    const there = new Set((db.pragma(`table_info("${table}")`) as { name: string }[]).map(({ name }) => name));
    const wrong = columns
      .filter((column) => there.has(column))
      .map(
        (column) =>
          `CASE WHEN "${column}" IS NULL THEN 0 WHEN json_valid("${column}") THEN json_type("${column}") NOT IN ('object', 'array', 'null') ELSE 1 END`,
      );
    if (wrong.length > 0 && db.prepare(`SELECT 1 FROM "${table}" WHERE ${wrong.join(' OR ')} LIMIT 1`).get() !== undefined) return false;
  }
  return true;
}

/** Opens a file to be read. Where there is no room for the index of its journal, that lies in memory: then nobody else reads it meanwhile. */
function openToSee(file: string): Database.Database {
  const usual = new Database(file, { readonly: true, fileMustExist: true, timeout: 2000 });
  try {
    one(usual, 'SELECT COUNT(*) FROM sqlite_master');
    return usual;
  } catch (cause) {
    usual.close();
    if (!isForWantOfRoom(cause)) throw cause;
    const db = new Database(file, { fileMustExist: true, timeout: 2000 });
    db.pragma('locking_mode = EXCLUSIVE');
    return db;
  }
}

/**
 * Looks at a studio file before anything is written to it.
 * @throws TroubleAtStart when it is no studio, is empty, damaged, newer than this program, or has a journal beside it that is not its own
 */
export function lookAt(file: string): StudioSeen {
  if (!existsSync(file)) throw new TroubleAtStart(`There is no file ${file}.`);
  if (!statSync(file).isFile()) throw new TroubleAtStart(`${file} is a folder, not a studio.`);
  const journal = sizeOf(walOf(file));
  if (sizeOf(file) === 0)
    throw new TroubleAtStart(
      `${file} is empty; a copy may have broken off. Put a copy back with npm run restore, or move it away to begin a new studio.`,
    );
  if (startOf(file) !== MAGIC)
    throw new TroubleAtStart(
      `${file} is no studio: it was not written by Auburn Dusk. Move it away, or choose another folder with DUSK_DATA=…`,
    );
  const wasThere = BESIDE.filter((end) => existsSync(`${file}${end}`));
  let db: Database.Database | undefined;
  try {
    db = openToSee(file);
    const tables = one(db, `SELECT COUNT(*) AS n FROM sqlite_master WHERE type = 'table'`)['n'] as number;
    const isOurs = has(db, 'migration') && has(db, 'painting') && has(db, 'tube_state');
    if (tables > 0 && !isOurs)
      throw new TroubleAtStart(`${file} is no studio: it holds other tables. Move it away, or choose another folder with DUSK_DATA=…`);
    if (tables === 0)
      throw new TroubleAtStart(
        `${file} holds nothing; its journal may have been left behind when it was copied. Copy ${file} and ${walOf(file)} together, or put a copy back with npm run restore.`,
      );
    const done = (db.prepare('SELECT name FROM migration').all() as { name: string }[]).map(({ name }) => name);
    if (done.some((name) => !KNOWN.has(name)))
      throw new TroubleAtStart(`${file} was written by a newer Auburn Dusk. Open it with that one; it was left as it is.`);
    if (journal > 0 && !isJournalsOwn(file, db))
      throw new TroubleAtStart(
        `Beside ${file} lies a journal (${walOf(file)}) that belongs to another studio or another day: was a copy put in its place? Nothing was changed. To open the copy, use npm run restore with it, which lays what is here aside; to open the earlier studio, put its own file back.`,
      );
    if (journal > 0 || sizeOf(file) <= READ_THROUGH_BYTES) {
      const [{ quick_check: check }] = db.pragma('quick_check(1)') as [{ quick_check: string }];
      if (check !== 'ok') throw damaged(file);
    }
    if (!canBeRead(db)) throw damaged(file);
    const count = (table: string): number => one(db!, `SELECT COUNT(*) AS n FROM "${table}" WHERE "deletedAt" IS NULL`)['n'] as number;
    const newest = has(db, 'change')
      ? (one(db, 'SELECT at FROM "change" ORDER BY seq DESC LIMIT 1')['at'] ?? null)
      : (one(db, 'SELECT MAX("updatedAt") AS at FROM painting')['at'] ?? null);
    return {
      file,
      bytes: sizeOf(file) + journal,
      newest: newest as string | null,
      paintings: count('painting'),
      piles: count('pile'),
      isCurrent: done.length === KNOWN.size,
    };
  } catch (cause) {
    const { code = '' } = cause as { code?: string };
    if (code.startsWith('SQLITE_CORRUPT') || code.startsWith('SQLITE_NOTADB') || code === 'SQLITE_ERROR') throw damaged(file);
    throw cause;
  } finally {
    db?.close();
    for (const end of BESIDE) if (!wasThere.includes(end)) rmSync(`${file}${end}`, { force: true });
  }
}
