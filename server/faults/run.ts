// npm run faults [-- KILLS [SEED]]: the long form of the fault tests; figures for docs/RELIABILITY.md.
import { seeded } from '@dusk/core/random';
import { held } from './held.ts';
import { killed } from './kills.ts';
import { loaded } from './load.ts';

const kills = Number(process.argv[2] ?? 1000);
console.log(await held());
console.log(await killed(kills, seeded(Number(process.argv[3] ?? 1)), console.log));
console.log(await loaded(50, 60));
