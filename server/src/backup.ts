// npm run backup [FILE]: one file that is the whole studio, made while it is in use or not.
import { join, resolve } from 'node:path';
import Database from 'better-sqlite3';
import { machineClock } from './file/clock.ts';
import { copiesFolder, copyName, copyTo } from './file/copies.ts';
import { lookAt } from './file/look.ts';
import { dataFolder, STUDIO_FILE } from './file/places.ts';
import { seenInWords } from './file/words.ts';
import { inWords } from './file/trouble.ts';

const folder = dataFolder('studio/own');
const to = resolve(process.argv[2] ?? join(copiesFolder(folder, ''), copyName(machineClock())));
try {
  lookAt(join(folder, STUDIO_FILE));
  // SQLite's own copy, by a connection of its own: it is whole also while the studio is in use.
  const studio = new Database(join(folder, STUDIO_FILE), { readonly: true, fileMustExist: true });
  const seen = await copyTo(studio, to).finally(() => studio.close());
  console.log(`Copied to ${to}: ${seenInWords(seen)}. Read back and found whole.`);
} catch (cause) {
  console.error(inWords(cause, folder));
  process.exitCode = 1;
}
