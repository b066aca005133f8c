import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { MigrationInterface } from 'typeorm';

type Migration = new () => MigrationInterface;

/** A file that holds a migration is called by its time and its name; what several share begins small. */
const OF_ONE = /^\d{13}-[A-Z]\w*\.ts$/;
const files = readdirSync(fileURLToPath(new URL('.', import.meta.url)))
  .filter((name) => OF_ONE.test(name))
  .sort();

/** What such a file holds under the migration's own name. */
async function migrationIn(file: string): Promise<Migration> {
  const [time, name] = file.replace('.ts', '').split('-') as [string, string];
  return ((await import(`./${file}`)) as Record<string, Migration>)[`${name}${time}`]!;
}

/** In the order in which they run; a landed one is never changed. */
export const MIGRATIONS: readonly Migration[] = await Promise.all(files.map(migrationIn));
