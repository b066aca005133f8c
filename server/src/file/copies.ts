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
}

const NAMED = /^studio (\d{4}-\d\d-\d\d) (\d\d)-(\d\d)-(\d\d)-(\d{3})\.sqlite$/;
/** A moment as it stands in a file's name. */
export const stamp = (at: string): string => at.slice(0, 23).replace('.', '-').replace('T', ' ').replaceAll(':', '-');

/** What a copy made at a moment is called. */
export const copyName = (at: string): string => `studio ${stamp(at)}.sqlite`;

/** Copies in a folder, the newest first. */
export function copiesIn(folder: string): Copy[] {
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return [];
  return readdirSync(folder)
    .flatMap((name): Copy[] => {
      const match = NAMED.exec(name);
      if (!match) return [];
      const file = join(folder, name);
      const [, day, h, m, s, ms] = match;
      return [{ file, at: `${day}T${h}:${m}:${s}.${ms}Z`, bytes: statSync(file).size }];
    })
    .sort((a, b) => b.at.localeCompare(a.at));
}

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
 * Takes the oldest copies away until no more are kept than were asked for, nor more than their share of
 * the disk; the newest always stays.
 */
export function prune(folder: string, kept: number): void {
  const copies = copiesIn(folder);
  if (copies.length === 0) return;
  const { blocks, bsize } = statfsSync(folder);
  const room = MOST_OF_DISK * blocks * bsize;
  let bytes = 0;
  copies.forEach((copy, i) => {
    bytes += copy.bytes;
    if (i > 0 && (i >= kept || bytes > room)) rmSync(copy.file, { force: true });
  });
  for (const name of readdirSync(folder))
    if (name.endsWith(BEGUN) && NAMED.test(basename(name, BEGUN))) rmSync(join(folder, name), { force: true });
}
