import { statSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { settingsRows } from './settings.ts';
import type { Studio } from '../change/studio.ts';
import { copiesFolder, copiesIn, copyName, prune, rememberFolder, type Copy } from '../file/copies.ts';

const DAY_MS = 24 * 3600_000;
/** How often it is seen whether a copy is due. */
const LOOK_MS = 20 * 60_000;
/** A studio that was opened a moment ago has better to do. */
const FIRST_MS = 15_000;

/** Where copies lie, how many are kept, and the newest. */
export interface Copies {
  readonly folder: string;
  readonly kept: number;
  readonly newest: Copy | null;
  /** Why the last could not be made. */
  readonly trouble: string | null;
}

/** What the last daily copy of a studio came to grief over. */
const troubles = new WeakMap<Studio, string>();

export async function copiesOf(studio: Studio): Promise<Copies> {
  const { folder, look } = studio;
  const { copiesFolder: chosen, copiesKept } = (await look(settingsRows))[0]!;
  const where = copiesFolder(folder, chosen);
  const isThere = chosen === '' || statSync(where, { throwIfNoEntry: false })?.isDirectory() === true;
  const gone = isThere ? null : `There is no folder ${where} any more: no copies are made until there is one.`;
  return { folder: where, kept: copiesKept, newest: copiesIn(where)[0] ?? null, trouble: gone ?? troubles.get(studio) ?? null };
}

/** Makes today's copy where it is due: once a day, if anything was done since. @returns whether it did */
export async function copyIfDue(studio: Studio, at: string = studio.now()): Promise<boolean> {
  const { folder, kept, newest } = await copiesOf(studio);
  if (kept === 0) return false;
  const age = newest ? Date.parse(at) - Date.parse(newest.at) : Infinity;
  // A copy from tomorrow says only that a clock was wrong.
  if (age >= 0 && age < DAY_MS) return false;
  const [{ at: done } = { at: undefined }] = await studio.look(
    (db) => db.query('SELECT at FROM "change" ORDER BY seq DESC LIMIT 1') as Promise<{ at: string }[]>,
  );
  if (done === undefined || (newest && done <= newest.at)) return false;
  try {
    await studio.copy(join(folder, copyName(at)));
    prune(folder, kept);
    troubles.delete(studio);
  } catch (cause) {
    troubles.set(studio, cause instanceof Error ? cause.message : 'The daily copy could not be made.');
    throw cause;
  }
  rememberFolder(studio.folder, folder);
  return true;
}

/** Copies the studio once a day while it is open. */
export function copyDaily(studio: Studio): { readonly stop: () => Promise<void> } {
  const log = pino({ level: 'warn' });
  let making: Promise<unknown> = Promise.resolve();
  const look = (): void =>
    void (making = copyIfDue(studio).catch((cause: unknown) => log.warn({ err: cause }, 'the daily copy was not made')));
  const first = setTimeout(look, FIRST_MS);
  const timer = setInterval(look, LOOK_MS);
  first.unref();
  timer.unref();
  return {
    stop: async () => {
      clearTimeout(first);
      clearInterval(timer);
      await making;
    },
  };
}
