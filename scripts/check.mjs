// npm run check: what needs nothing running, in two lanes at once, or in one (--one) beside other work; says of each how long it took.
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

const said = [];
/** Runs one step; what it says comes in one piece. */
const step = ([name, program, ...args]) =>
  new Promise((done) => {
    const began = Date.now();
    let output = '';
    const child = spawn(bin(program), args, { cwd: ROOT, shell: process.platform === 'win32' });
    for (const out of [child.stdout, child.stderr]) out.on('data', (data) => (output += data));
    child.on('close', (code) => {
      process.stdout.write(output);
      said.push({ name, isGood: code === 0 });
      console.log(`${name}: ${code === 0 ? 'good' : 'not good'}, ${((Date.now() - began) / 1000).toFixed(0)} s`);
      done(code === 0);
    });
  });

const lanes = process.argv.includes('--one') ? [LANES.flat()] : LANES;
const good = await Promise.all(
  lanes.map(async (lane) => {
    let isGood = true;
    for (const one of lane) isGood = (await step(one)) && isGood;
    return isGood;
  }),
);
const bad = said.filter(({ isGood }) => !isGood).map(({ name }) => name);
if (bad.length > 0) console.log(`not good: ${bad.join(', ')}`);
process.exit(good.every(Boolean) ? 0 : 1);
