// npm run check: what needs nothing running. Its steps are also part of npm test.
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ROOT } from './prepare.mjs';
import { runAll } from './queue.mjs';

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const step = (name, program, ...args) => ({ name, program: bin(program), args });
/** Much is made and soon forgotten: a large nursery halves the work of clearing up. */
const NURSERY = '--max-semi-space-size=128';

export const STEPS = [
  { name: 'types and lint', program: process.execPath, args: [NURSERY, join(ROOT, 'scripts', 'types.mjs')] },
  step('format', 'prettier', '--check', '--log-level', 'warn', '.'),
  step('what nothing uses', 'knip', '--no-progress'),
];

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const bad = [];
  await runAll(STEPS, {
    workers: 2,
    deadlineMin: 20,
    ended({ name }, { code, said, seconds }) {
      process.stdout.write(said);
      console.log(`${name}: ${code === 0 ? 'good' : 'not good'}, ${seconds.toFixed(0)} s`);
      if (code !== 0) bad.push(name);
    },
  });
  if (bad.length > 0) console.log(`not good: ${bad.join(', ')}`);
  process.exit(bad.length === 0 ? 0 : 1);
}
