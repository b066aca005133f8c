// npm test: installs what is missing and runs everything; ends with one line that counts.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumPath } from './chromium.mjs';
import { buildPages, installPackages, ROOT, run } from './prepare.mjs';

installPackages();
const CHROMIUM = chromiumPath();
run('npm', ['run', 'check', '--silent']);
buildPages();

/** Runs Mocha with one configuration; its counts come from a report it writes beside its lines. */
function mocha(...args) {
  const report = join(ROOT, `.mocha-${process.pid}.json`);
  const { status } = spawnSync(
    process.execPath,
    [join(ROOT, 'node_modules/mocha/bin/mocha.js'), ...args, '--reporter', join(ROOT, 'scripts/reporter.cjs')],
    {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, CHROMIUM, MOCHA_REPORT: report },
    },
  );
  let counts = { passes: 0, failures: 1 };
  try {
    counts = JSON.parse(readFileSync(report, 'utf8'));
  } catch {
    console.error('Mocha ended without a report.');
  }
  rmSync(report, { force: true });
  return { passes: counts.passes, failures: Math.max(counts.failures, status === 0 ? 0 : 1) };
}

const runs = [mocha(), mocha('--config', 'e2e/.mocharc.json')];
const sum = (key) => runs.reduce((total, counts) => total + counts[key], 0);
console.log(`${sum('passes')} passed, ${sum('failures')} failed`);
process.exit(sum('failures') === 0 && sum('passes') > 0 ? 0 : 1);
