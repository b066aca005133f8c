// npm run check: what needs nothing running, in two lanes at once; says of each how long it took and ends with the first that fails.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './prepare.mjs';

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const LANES = [
  [['lint', 'eslint', '.']],
  [
    ['types', 'tsc', '-p', 'tsconfig.json', '--noEmit'],
    ['types of the page', 'vue-tsc', '-p', 'web/tsconfig.json', '--noEmit'],
    ['format', 'prettier', '--check', '--log-level', 'warn', '.'],
    ['what nothing uses', 'knip', '--no-progress'],
  ],
];

/** Runs one step; what it says comes in one piece. */
const step = ([name, program, ...args]) =>
  new Promise((done) => {
    const began = Date.now();
    let said = '';
    const child = spawn(bin(program), args, { cwd: ROOT, shell: process.platform === 'win32' });
    for (const out of [child.stdout, child.stderr]) out.on('data', (data) => (said += data));
    child.on('close', (code) => {
      process.stdout.write(said);
      console.log(`${name}: ${code === 0 ? 'good' : 'not good'}, ${((Date.now() - began) / 1000).toFixed(0)} s`);
      done(code === 0);
    });
  });

const good = await Promise.all(
  LANES.map(async (lane) => {
    let isGood = true;
    for (const one of lane) isGood = (await step(one)) && isGood;
    return isGood;
  }),
);
process.exit(good.every(Boolean) ? 0 : 1);
