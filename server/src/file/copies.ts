import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, statfsSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import Database from 'better-sqlite3';
import { ProblemError } from '../refusing/problems.ts';
import { lookAt, type StudioSeen } from './look.ts';
import { takeAway } from './places.ts';

/** The driver's own way of copying a database while it is in use, a little at a time. */
interface Copying {
  backup(destination: string): Promise<unknown>;
}

const BEGUN = '.part';

/**
 * Copies a studio that is in use into one file that is whole by itself, and reads it through.
 * @throws ProblemError when it cannot be written or does not read back whole; nothing is left then
 */
export async function copyTo(db: Copying, file: string): Promise<StudioSeen> {
  const begun = `${file}${BEGUN}`;
  try {
    mkdirSync(dirname(file), { recursive: true });
    rmSync(begun, { force: true });
    await db.backup(begun);
    const copy = new Database(begun);
    try {
      copy.pragma('journal_mode = DELETE');
      const [{ integrity_check: check }] = copy.pragma('integrity_check(1)') as [{ integrity_check: string }];
      if (check !== 'ok') throw new Error(check);
    } finally {
      copy.close();
    }
    const seen = lookAt(begun);
    renameSync(begun, file);
    return { ...seen, file };
  } catch (cause) {
    takeAway(begun);
    const { code, message } = cause as NodeJS.ErrnoException;
    if (code === 'SQLITE_FULL' || code === 'ENOSPC')
      throw new ProblemError(507, 'The disk is full', `There is no room for a copy in ${dirname(file)}. The studio itself is as it was.`);
    throw new ProblemError(500, 'No copy', `No copy could be made in ${dirname(file)}: ${message}. The studio itself is as it was.`);
  }
}

/** A copy that was made by itself. */
export interface Copy {
  readonly file: string;
  /** When it was made, UTC ISO. */
  readonly at: string;
  readonly bytes: number;
  /** How its studio's id begins, where its name says so. */
  readonly of: string | undefined;
}

const NAMED = /^studio (\d{4}-\d\d-\d\d) (\d\d)-(\d\d)-(\d\d)-(\d{3})(?: ([0-9a-f]{8}))?\.sqlite$/;
/** As much of a studio's id as stands in the names of its copies. */
const shortId = (studioId: string): string => studioId.slice(0, 8);
/** A moment as it stands in a file's name. */
export const stamp = (at: string): string => at.slice(0, 23).replace('.', '-').replace('T', ' ').replaceAll(':', '-');

/** What a copy of a studio made at a moment is called; two studios may share a folder. */
export const copyName = (at: string, studioId?: string): string =>
  `studio ${stamp(at)}${studioId === undefined ? '' : ` ${shortId(studioId)}`}.sqlite`;

/** Copies in a folder, the newest first. */
export function copiesIn(folder: string): Copy[] {
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return [];
  return readdirSync(folder)
    .flatMap((name): Copy[] => {
      const match = NAMED.exec(name);
      if (!match) return [];
      const file = join(folder, name);
      const [, day, h, m, s, ms, of] = match;
      return [{ file, at: `${day}T${h}:${m}:${s}.${ms}Z`, bytes: statSync(file).size, of }];
    })
    .sort((a, b) => b.at.localeCompare(a.at));
}

/** Asks a copy one thing; nothing where it cannot be read. */
function askCopy<T>(file: string, sql: string): T | undefined {
  let copy: Database.Database | undefined;
  try {
    copy = new Database(file, { readonly: true, fileMustExist: true });
    return copy.prepare(sql).pluck().get() as T | undefined;
  } catch {
    return undefined;
  } finally {
    copy?.close();
  }
}
/** Of which studio the copies are whose names do not say it, as they were called before. */
const studioOf = new Map<string, string | undefined>();
function isOf({ file, bytes, of }: Copy, studioId: string): boolean {
  if (of !== undefined) return of === shortId(studioId);
  const key = `${file} ${bytes}`;
  if (!studioOf.has(key)) studioOf.set(key, askCopy(file, 'SELECT "studioId" FROM "settings"'));
  return studioOf.get(key) === studioId;
}
/** Copies of one studio in a folder that others may share, the newest first; one from tomorrow says only that a clock was wrong. */
export const copiesOfIn = (folder: string, studioId: string, now: string): Copy[] =>
  copiesIn(folder).filter((copy) => copy.at <= now && isOf(copy, studioId));
/** Asks for the id of the change that was done last. */
export const LAST_CHANGE = 'SELECT "id" FROM "change" ORDER BY "seq" DESC LIMIT 1';
/** The last change that a copy holds; nothing where it holds none, or cannot be read. */
export const lastChangeIn = (file: string): string | undefined => askCopy<string>(file, LAST_CHANGE);

/** The newest copy in a folder that reads as a whole studio. */
export const newestGood = (folder: string): StudioSeen | undefined => {
  for (const { file } of copiesIn(folder)) {
    try {
      return lookAt(file);
    } catch {
      // A copy that is damaged is passed over; an older one may be whole.
    }
  }
  return undefined;
};

/** Where copies lie unless the painter says otherwise. */
export const copiesFolder = (folder: string, chosen: string): string => (chosen === '' ? join(folder, 'copies') : resolve(folder, chosen));

/** Says where copies lie, beside the studio: a damaged one cannot. */
const FOLDER_NOTE = 'where copies lie.txt';
export function rememberFolder(folder: string, where: string): void {
  const note = join(folder, FOLDER_NOTE);
  if (where === copiesFolder(folder, '')) rmSync(note, { force: true });
  else writeFileSync(note, `${where}\n`);
}
/** Every folder in which copies of a studio may lie, without opening it. */
export function foldersOfCopies(folder: string): string[] {
  const note = join(folder, FOLDER_NOTE);
  const chosen = existsSync(note) ? readFileSync(note, 'utf8').trim() : '';
  return [...(chosen === '' ? [] : [chosen]), copiesFolder(folder, '')];
}

/** A folder that was chosen is known again by what was laid into it: where its disk is not there, another may stand in its place. */
const markOf = (where: string, studioId: string): string => join(where, `.copies of ${shortId(studioId)}`);
export const markFolder = (where: string, studioId: string): void =>
  writeFileSync(markOf(where, studioId), 'Copies of a studio lie here. Without this file the folder is not known again.\n');
export const isMarked = (where: string, studioId: string): boolean =>
  existsSync(markOf(where, studioId)) || copiesIn(where).some((copy) => isOf(copy, studioId));

/** Why copies cannot be laid into a folder, as a sentence; nothing where they can. The folder is there afterwards. */
export function troubleWith(where: string): string | undefined {
  const probe = join(where, `.try ${randomUUID()}`);
  try {
    mkdirSync(where, { recursive: true });
    writeFileSync(probe, 'a copy could lie here');
    rmSync(probe, { force: true });
    return undefined;
  } catch (cause) {
    const { code } = cause as NodeJS.ErrnoException;
    if (code === 'EEXIST' || code === 'ENOTDIR') return `${where} is a file, or lies in one: copies need a folder.`;
    if (code === 'ENOSPC' || code === 'EDQUOT') return `The disk that holds ${where} is full: no copy has room there.`;
    return `Nothing can be written into ${where}: choose another folder for the copies, or give yourself the right to.`;
  }
}

/** Of the disk that holds them, copies never take up more than this share. */
export const MOST_OF_DISK = 0.1;

/**
 * Takes the oldest copies of a studio away until no more are kept than were asked for, nor more than their share of
 * the disk; the newest always stays, and so does what is another's.
 */
export function prune(folder: string, kept: number, studioId: string): void {
  const copies = copiesIn(folder).filter((copy) => isOf(copy, studioId));
  if (copies.length === 0) return;
  const { blocks, bsize } = statfsSync(folder);
  const room = MOST_OF_DISK * blocks * bsize;
  let bytes = 0;
  copies.forEach((copy, i) => {
    bytes += copy.bytes;
    if (i > 0 && (i >= kept || bytes > room)) rmSync(copy.file, { force: true });
  });
  for (const name of readdirSync(folder))
    if (name.endsWith(`${shortId(studioId)}.sqlite${BEGUN}`) && NAMED.test(basename(name, BEGUN)))
      rmSync(join(folder, name), { force: true });
}
