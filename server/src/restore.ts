// npm run restore FILE: puts a copy in the studio's place; what was there is laid aside.
import { resolve } from 'node:path';
import { lookAt } from './keeping/look.ts';
import { restore } from './keeping/restore.ts';
import { inWords } from './keeping/trouble.ts';
import { seenInWords } from './keeping/words.ts';
import { dataFolder } from './main.ts';

const folder = dataFolder('studio/own');
const [, , given, ...flags] = process.argv;
try {
  if (given === undefined) throw new Error('say which copy, as npm run restore FILE');
  const copy = resolve(given);
  console.log(`The copy holds ${seenInWords(lookAt(copy))}.`);
  if (flags.includes('--look')) process.exit(0);
  const { aside } = restore(folder, copy);
  console.log(`It is now the studio in ${folder}.${aside ? ` What was there lies in ${aside}.` : ''}`);
} catch (cause) {
  console.error(inWords(cause, folder));
  process.exitCode = 1;
}
