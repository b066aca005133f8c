import { statSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { settingsRows } from './settings.ts';
import type { Studio } from '../change/studio.ts';
import {
  copiesFolder,
  copiesOfIn,
  copyName,
  isMarked,
  LAST_CHANGE,
  lastChangeIn,
  markFolder,
  prune,
  rememberFolder,
  type Copy,
} from '../file/copies.ts';

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
  /** Since when there is work that lies in no copy. */
  readonly behindSince: string | null;
}

/** What the last daily copy of a studio came to grief over. */
const troubles = new WeakMap<Studio, string>();

/** @param at the moment it is asked at: what was copied after it counts for nothing */
export async function copiesOf(studio: Studio, at: string = studio.now()): Promise<Copies> {
  const { folder, isThere, kept } = await placeOf(studio);
  const gone = isThere
    ? null
    : `There is no folder ${folder} with this studio’s copies any more: its disk may not be there. No copies are made until it is, or until you choose another.`;
  const newest = copiesOfIn(folder, studio.id, at)[0] ?? null;
  const behindSince = kept > 0 && (await isDue(studio, newest)) ? (newest?.at ?? (await firstDone(studio))) : null;
  return { folder, kept, newest, trouble: gone ?? troubles.get(studio) ?? null, behindSince };
}

/** Whether anything was done that a copy does not hold: by what was done last, not by when; clocks are set back, and copies put back. */
async function isDue(studio: Studio, newest: Copy | null): Promise<boolean> {
  const [last] = await studio.look((db) => db.query(LAST_CHANGE) as Promise<{ id: string }[]>);
  return last !== undefined && (newest === null || last.id !== lastChangeIn(newest.file));
}
const firstDone = async ({ look }: Studio): Promise<string> =>
  ((await look((db) => db.query('SELECT "at" FROM "change" ORDER BY "seq" LIMIT 1'))) as [{ at: string }])[0].at;

/** Where the painter wants copies, and whether that place is there: one that was chosen is never made anew elsewhere. */
async function placeOf({ folder, look, id }: Studio) {
  const { copiesFolder: chosen, copiesKept: kept } = (await look(settingsRows))[0]!;
  const where = copiesFolder(folder, chosen);
  const isThere = chosen === '' || (statSync(where, { throwIfNoEntry: false })?.isDirectory() === true && isMarked(where, id));
  return { folder: where, isThere, isChosen: chosen !== '', kept };
}

/** Makes today's copy where it is due: once a day, if anything was done since. @returns whether it did */
export async function copyIfDue(studio: Studio, at: string = studio.now()): Promise<boolean> {
  const { folder, isThere, isChosen, kept } = await placeOf(studio);
  if (kept === 0 || !isThere) return false;
  const newest = copiesOfIn(folder, studio.id, at)[0] ?? null;
  if (newest && Date.parse(at) - Date.parse(newest.at) < DAY_MS) return false;
  if (!(await isDue(studio, newest))) return false;
  try {
    await studio.copy(join(folder, copyName(at, studio.id)));
    if (isChosen) markFolder(folder, studio.id);
    prune(folder, kept, studio.id);
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
