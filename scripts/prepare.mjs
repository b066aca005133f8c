// What a fresh clone lacks: packages and the built interface. Node's own modules only.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const NODE_LEAST = 20;

/** Ends the run with one clear sentence. */
export function give(sentence) {
  console.error(sentence);
  process.exit(1);
}

/** Runs a program in the project's root; ends the run when it fails, unless told to carry on. */
export function run(program, args, { quiet = false, carryOn = false, env = {} } = {}) {
  const { status, error } = spawnSync(program, args, {
    cwd: ROOT,
    stdio: quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit',
    env: { ...process.env, ...env },
    shell: process.platform === 'win32',
  });
  if (error && !carryOn) give(`${program} cannot be run: ${error.message}`);
  if (status !== 0 && !carryOn) process.exit(status ?? 1);
  return status === 0;
}

const stampOf = (text) => createHash('sha256').update(text).digest('hex');
const read = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : '');

/** Whether npm itself installed what the lock file asks for: its own record is no older. */
function installedByHand() {
  const record = join(ROOT, 'node_modules', '.package-lock.json');
  return existsSync(record) && statSync(record).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs;
}

/** Installs packages when the lock file is not the one that was installed. */
export function installPackages() {
  if (Number(process.versions.node.split('.')[0]) < NODE_LEAST)
    give(`Auburn Dusk needs Node.js ${NODE_LEAST} or newer; this is ${process.versions.node}.`);
  const mark = join(ROOT, 'node_modules', '.installed');
  const wanted = stampOf(read(join(ROOT, 'package-lock.json')) + process.versions.modules);
  if (read(mark) === wanted) return;
  if (!existsSync(mark) && installedByHand()) return writeFileSync(mark, wanted);
  console.log('Installing packages (the database driver is compiled: two to four minutes the first time)…');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(mark, wanted);
}

function filesBelow(folder) {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesBelow(path) : [path];
  });
}

/** Builds the interface when its sources have changed since the last build. */
export function buildPages() {
  const sources = [
    ...['web/src', 'web/outing', 'web/public', 'core/src', 'wire/src'].filter((f) => existsSync(join(ROOT, f))).flatMap(filesBelow),
    'web/index.html',
    'web/vite.config.ts',
    'web/vite.parts.ts',
    'web/vite.outing.config.ts',
    'package-lock.json',
  ];
  const wanted = stampOf(
    sources
      .sort()
      .map((file) => `${file} ${statSync(join(ROOT, file)).size} ${stampOf(readFileSync(join(ROOT, file)))}`)
      .join('\n'),
  );
  const mark = join(ROOT, 'web', 'dist', '.built');
  if (read(mark) === wanted) return;
  console.log('Building the interface…');
  run('npm', ['run', 'build', '--workspace', 'web', '--silent']);
  writeFileSync(mark, wanted);
}
