// npm test [-- WORDS] [--unit|--e2e] [--times]: installs what is missing and runs everything, or what has one of some words
// in its name; ends with one line that counts. --times keeps how long each took, for the order of the next run.
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumPath } from './chromium.mjs';
import { STEPS } from './check.mjs';
import { buildPages, installPackages, ROOT, run } from './prepare.mjs';
import { runAll } from './queue.mjs';

installPackages();
const CHROMIUM = chromiumPath();
buildPages();
// Packages may only now be there.
const { BUNDLED_RUNS, bundleTests, fileOfTest, nameOfTest } = await import('./bundleTests.mjs');

/** As many as there are cores on the machines that this is meant for. */
const WORKERS = 2;
const DEADLINE_MIN = 30;
/** How long each run took the last time, s: the longest are begun first. Written by `npm test -- --times`. */
const TIMES = join(ROOT, 'scripts', 'times.json');
const last = JSON.parse(readFileSync(TIMES, 'utf8'));

const flags = new Set(process.argv.slice(2).filter((arg) => arg.startsWith('--')));
const words = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const isWanted = (name) => words.length === 0 || words.some((word) => name.includes(word));
/** The page's logic over a studio of its own needs no browser. */
const UNIT = [...['core', 'wire', 'server', 'cli', 'web', 'demo'].map((workspace) => `${workspace}/test`), 'e2e/page'];
const files = [...(flags.has('--e2e') ? [] : UNIT), ...(flags.has('--unit') ? [] : ['e2e'])]
  .flatMap((folder) => readdirSync(join(ROOT, folder)).map((name) => `${folder}/${name}`))
  .filter((file) => file.endsWith('.test.ts') && isWanted(nameOfTest(file)));
const steps = flags.has('--unit') || flags.has('--e2e') ? [] : STEPS.filter(({ name }) => isWanted(name));

const began = Date.now();
const OUT = join(ROOT, '.cache', `tests-${process.pid}`);
process.once('exit', () => rmSync(OUT, { recursive: true, force: true }));
await bundleTests([...files, 'e2e/sample.ts'], OUT);
const SAMPLE = join(OUT, 'sample');
if (files.some((file) => file.startsWith('e2e/'))) run(process.execPath, [...BUNDLED_RUNS, join(OUT, 'e2e.sample.mjs'), SAMPLE]);

const test = (file) => ({
  name: nameOfTest(file),
  asked: { file: join(OUT, `${fileOfTest(nameOfTest(file))}.mjs`), timeout: file.startsWith('e2e/') ? 120_000 : 240_000 },
  // The page without a browser stands in for what a window has for everyone.
  isAlone: file.startsWith('e2e/page/'),
});

const runs = [...steps, ...files.map(test)].map((one) => ({ ...one, last: last[one.name] }));
const times = {};
const failed = [];
const sum = { passes: 0, failures: 0, cpu: 0 };
await runAll(runs, {
  workers: WORKERS,
  deadlineMin: DEADLINE_MIN,
  testers: { runs: BUNDLED_RUNS, env: { CHROMIUM, DUSK_SAMPLE: SAMPLE } },
  ended({ name, asked }, { code, said, seconds, counts = { passes: 0, failures: code === 0 ? 0 : 1, failed: [], cpu: 0 } }) {
    times[name] = Number(seconds.toFixed(1));
    for (const key of Object.keys(sum)) sum[key] += counts[key];
    const isGood = counts.failures === 0;
    if (!isGood || !asked) process.stdout.write(said);
    console.log(`${isGood ? 'good' : 'NOT GOOD'} ${name}, ${asked ? `${counts.passes} passed, ` : ''}${seconds.toFixed(1)} s`);
    if (!isGood) failed.push(...(counts.failed.length > 0 ? counts.failed : ['not good']).map((what) => `${name}: ${what}`));
  },
});

console.log('\nThe longest first:');
for (const [name, seconds] of Object.entries(times).sort((one, other) => other[1] - one[1]))
  console.log(`${String(seconds).padStart(7)} s  ${name}`);
console.log(`${((Date.now() - began) / 1000).toFixed(0)} s in all after the build; ${sum.cpu.toFixed(0)} CPU s of the tests themselves`);
if (flags.has('--times')) writeFileSync(TIMES, `${JSON.stringify({ ...last, ...times }, null, 2)}\n`);
for (const one of failed) console.log(`failed: ${one}`);
console.log(`${sum.passes} passed, ${sum.failures} failed`);
process.exit(sum.failures === 0 && sum.passes > 0 ? 0 : 1);
