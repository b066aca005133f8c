// Finds Chromium for the browser tests, or installs Debian's.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { give, run } from './prepare.mjs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const found = () => PLACES.find((place) => place && existsSync(place));
const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

/** Path of a Chromium. */
export function chromiumPath() {
  if (found()) return found();
  const wanted = 'The browser tests need Chromium. Install it (on Debian: apt-get install chromium), or set CHROMIUM to its path.';
  if (!has('apt-get')) give(wanted);
  const asRoot = process.getuid?.() === 0 ? [] : has('sudo') ? ['sudo', '-n'] : give(wanted);
  const apt = (...args) => {
    const [program, ...rest] = [...asRoot, 'apt-get', '-q', '-y', '-o', 'DPkg::Lock::Timeout=400', ...args];
    return run(program, rest, { carryOn: true, quiet: true, env: { DEBIAN_FRONTEND: 'noninteractive' } });
  };
  console.log('Installing Chromium for the browser tests…');
  apt('update');
  apt('install', '--no-install-recommends', 'chromium');
  return found() ?? give(wanted);
}
