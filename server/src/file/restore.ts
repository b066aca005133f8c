import { closeSync, copyFileSync, existsSync, fsyncSync, openSync, renameSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import Database from 'better-sqlite3';
import { stamp } from './copies.ts';
import { hold } from './lock.ts';
import { lookAt, sizeOf, walOf, type StudioSeen } from './look.ts';
import { ENDS, STUDIO_FILE, takeAway } from './places.ts';
import { TroubleAtStart } from './trouble.ts';

/** Sees that what was written to a file or a folder is on the disk. */
function settle(path: string): void {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Takes a studio's journal into its file, where it is whole. */
function close(file: string): void {
  try {
    lookAt(file);
    const db = new Database(file);
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
  } catch {
    // One that is not whole is laid aside with what lies beside it.
  }
}

const isWhole = (file: string): boolean => {
  try {
    lookAt(file);
    return true;
  } catch {
    return false;
  }
};

export interface Restored {
  readonly restored: StudioSeen;
  /** Where the studio that was there was laid, if there was one. */
  readonly aside: string | null;
}

/**
 * Puts a copy in the place of the studio in a folder. The copy is looked at first and stays where it is;
 * the present studio is laid aside, whole or not, with what lies beside it.
 * @param at what time it is, UTC ISO: what was there is laid aside under it
 * @throws TroubleAtStart when the copy is none, or the studio is open; nothing is changed then
 */
export function restore(folder: string, copy: string, at: string): Restored {
  const held = hold(folder);
  const file = join(folder, STUDIO_FILE);
  const coming = join(folder, 'studio coming back.sqlite');
  try {
    const isInPlace = resolve(copy) === resolve(file);
    // What lies in the studio's place beside a journal that is not its own is taken by itself.
    const restored = isInPlace && !isWhole(copy) ? undefined : lookAt(copy);
    if (sizeOf(walOf(copy)) > 0 && !isInPlace)
      throw new TroubleAtStart(
        `Beside ${copy} lies a journal: it is a studio that was not closed. Start Auburn Dusk on its folder and make a copy there.`,
      );
    rmSync(coming, { force: true });
    copyFileSync(copy, coming);
    settle(coming);
    const came = lookAt(coming);
    const aside = ENDS.some((end) => existsSync(`${file}${end}`)) ? join(folder, `studio laid aside ${stamp(at)}.sqlite`) : null;
    if (aside) close(file);
    if (aside) for (const end of [...ENDS].reverse()) if (existsSync(`${file}${end}`)) renameSync(`${file}${end}`, `${aside}${end}`);
    renameSync(coming, file);
    settle(dirname(file));
    return { restored: restored ?? came, aside };
  } finally {
    takeAway(coming);
    held.release();
  }
}
