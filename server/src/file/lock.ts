import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { TroubleAtStart } from './trouble.ts';

/** Lies in the folder while a studio in it is open; a lock on it ends with the program, however that ends. */
const LOCK_FILE = '.in-use';

/** A folder that is held, so that no other program opens the studio in it. */
export interface Held {
  readonly release: () => void;
}

/**
 * Holds a folder for as long as the program runs: by a lock of the system's own on a file in it (SQLite
 * takes it), which a crash cannot leave behind.
 * @throws TroubleAtStart when another program holds it
 */
export function hold(folder: string): Held {
  const path = join(folder, LOCK_FILE);
  for (;;) {
    const lock = new Database(path, { timeout: 0 });
    try {
      // Without a journal nothing else comes to lie beside it.
      lock.pragma('journal_mode = MEMORY');
      lock.exec('BEGIN EXCLUSIVE');
    } catch (cause) {
      lock.close();
      if ((cause as { code?: string }).code?.startsWith('SQLITE_BUSY'))
        throw new TroubleAtStart(
          `The studio in ${folder} is open already: another Auburn Dusk is running on it. Use that one, or stop it first.`,
        );
      throw cause;
    }
    // Whoever let go of it just now may have taken the file away: then the lock is on nothing.
    if (isTaken(path))
      return {
        release: () => {
          rmSync(path, { force: true });
          lock.close();
        },
      };
    lock.close();
  }
}

/** Whether the file that lies at a path now is locked. */
function isTaken(path: string): boolean {
  const other = new Database(path, { timeout: 0 });
  try {
    other.exec('BEGIN EXCLUSIVE');
    return false;
  } catch {
    return true;
  } finally {
    other.close();
  }
}
