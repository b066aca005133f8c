import { rmSync } from 'node:fs';
import { resolve } from 'node:path';

/** The folder a studio lies in: `DUSK_DATA`, or the usual one. */
export const dataFolder = (usual: string): string => resolve(process.env['DUSK_DATA'] || usual);

/** The file that is the whole studio, inside the data folder. */
export const STUDIO_FILE = 'studio.sqlite';
/** A database file and what SQLite may lay beside it: journals, and the index of one. */
export const ENDS = ['', '-wal', '-shm', '-journal'] as const;

/** Takes a database away with what lies beside it. */
export function takeAway(file: string): void {
  for (const end of ENDS) rmSync(`${file}${end}`, { force: true });
}

/** A studio that is being made: it takes its own name once it is whole. */
export const NEW_FILE = 'studio being made.sqlite';
