// npm test: installs what is missing and runs everything; ends with one line that counts.
import { spawn } from 'node:child_process';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumPath } from './chromium.mjs';
import { buildPages, installPackages, ROOT } from './prepare.mjs';

installPackages();
const CHROMIUM = chromiumPath();
buildPages();

/** After so long the run is ended, and says what was running: a machine that hangs tells nothing. */
const DEADLINE_MIN = 65;
const running = new Map();
setTimeout(() => {
  for (const [child, name] of running) {
    console.log(`ended after ${DEADLINE_MIN} minutes: ${name}`);
    endGroup(child);
  }
  setTimeout(() => process.exit(1), 10_000).unref();
}, DEADLINE_MIN * 60_000).unref();

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const child of running.keys()) endGroup(child);
    process.exit(1);
  });

/** Ends a run with whatever it started. */
function endGroup(child) {
  try {
    process.kill(-child.pid, 'SIGKILL');
  } catch {
    child.kill('SIGKILL');
  }
}

/** Waits for a run to end; a program that it left behind does not hold its lines open. */
const endOf = (child, name) =>
  new Promise((done) => {
    running.set(child, name);
    child.on('close', done);
    child.on('exit', (code) => setTimeout(() => (endGroup(child), done(code)), 5000).unref());
  }).finally(() => running.delete(child));

let started = 0;
/** Runs Mocha once; what it says comes in one piece where others run beside it. Its counts come from a report. */
async function mocha(args, isAlone) {
  const report = join(ROOT, `.mocha-${process.pid}-${++started}.json`);
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', join(ROOT, 'node_modules/mocha/bin/mocha.js'), ...args, '--reporter', join(ROOT, 'scripts/reporter.cjs')],
    {
      cwd: ROOT,
      detached: process.platform !== 'win32',
      stdio: isAlone ? 'inherit' : ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, CHROMIUM, MOCHA_REPORT: report },
    },
  );
  let said = '';
  for (const out of [child.stdout, child.stderr]) out?.on('data', (data) => (said += data));
  const status = await endOf(child, `${args.filter((arg) => arg.endsWith('.ts')).join(' ') || 'tests without a browser'}`);
  process.stdout.write(said);
  let counts = { passes: 0, failures: 1, failed: [`${args.join(' ')} ended without a report`] };
  try {
    counts = JSON.parse(readFileSync(report, 'utf8'));
  } catch {
    console.error('Mocha ended without a report.');
  }
  rmSync(report, { force: true });
  return { ...counts, failures: Math.max(counts.failures, status === 0 ? 0 : 1) };
}

/** Browser tests go in two lanes, as long as one another on two cores: these, and all others. */
const LONG = ['walk', 'kin', 'waiting', 'seen', 'main', 'quarry', 'palette', 'piles', 'outing', 'box', 'log'].map(
  (name) => `${name}.test.ts`,
);
const all = readdirSync(join(ROOT, 'e2e')).filter((name) => name.endsWith('.test.ts'));
const lanes = [LONG, all.filter((name) => !LONG.includes(name))];
const inBrowser = (names) =>
  mocha(
    [
      '--no-config',
      '--require',
      './scripts/watchdog.cjs',
      '--require',
      './scripts/anywhere.mjs',
      '--timeout',
      '120000',
      '--exit',
      ...names.map((name) => `e2e/${name}`),
    ],
    false,
  );

/** What needs nothing running, in one lane beside the tests of the rest. */
const checked = endOf(
  spawn(process.execPath, [join(ROOT, 'scripts/check.mjs'), '--one'], {
    cwd: ROOT,
    detached: process.platform !== 'win32',
    stdio: ['ignore', 'inherit', 'inherit'],
  }),
  'the check',
);
const unit = await mocha([], true);
if ((await checked) !== 0) {
  console.log(`failed: the check; ${unit.passes} passed, ${unit.failures} failed before the browser tests`);
  process.exit(1);
}
const runs = [unit, ...(await Promise.all(lanes.map(inBrowser)))];
const sum = (key) => runs.reduce((total, counts) => total + counts[key], 0);
for (const one of runs.flatMap(({ failed }) => failed)) console.log(`failed: ${one}`);
console.log(`${sum('passes')} passed, ${sum('failures')} failed`);
process.exit(sum('failures') === 0 && sum('passes') > 0 ? 0 : 1);
