// npm run faults [-- KILLS]: the long form of the fault tests; figures for docs/RELIABILITY.md.
import { held } from './held.ts';
import { killed } from './kills.ts';
import { loaded } from './load.ts';

const kills = Number(process.argv[2] ?? 1000);
console.log(await held());
console.log(await killed(kills, Math.random, console.log));
console.log(await loaded(50, 60));
