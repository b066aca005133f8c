// npm run restore FILE: puts a copy in the studio's place; what was there is laid aside.
import { resolve } from 'node:path';
import { machineClock } from './file/clock.ts';
import { lookAt } from './file/look.ts';
import { restore } from './file/restore.ts';
import { dataFolder } from './file/places.ts';
import { inWords, TroubleAtStart } from './file/trouble.ts';
import { seenInWords } from './file/words.ts';

const folder = dataFolder('studio/own');
const [, , given, ...flags] = process.argv;
try {
  if (given === undefined) throw new TroubleAtStart('Say which copy, as in npm run restore FILE. Nothing was changed.');
  const copy = resolve(given);
  if (flags.includes('--look')) console.log(`The copy holds ${seenInWords(lookAt(copy))}.`);
  else {
    const { restored, aside } = restore(folder, copy, machineClock());
    console.log(`The copy holds ${seenInWords(restored)}.`);
    console.log(`It is now the studio in ${folder}.${aside ? ` What was there lies in ${aside}.` : ''}`);
  }
} catch (cause) {
  console.error(inWords(cause, folder));
  process.exitCode = 1;
}
