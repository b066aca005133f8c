// npm run check: what needs nothing running. Its steps are also part of npm test.
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ROOT } from './prepare.mjs';
import { runAll } from './queue.mjs';

const bin = (name) => join(ROOT, 'node_modules', '.bin', name);
const step = (name, program, ...args) => ({ name, program: bin(program), args });

export const STEPS = [
  step('lint', 'eslint', '.'),
  step('types', 'tsc', '-p', 'tsconfig.json', '--noEmit'),
  step('types of the page', 'vue-tsc', '-p', 'web/tsconfig.json', '--noEmit'),
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
