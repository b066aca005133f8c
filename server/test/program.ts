import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundlePrograms } from '../../scripts/programs.mjs';

/** The programs are bundled once for every process of the tests; they find packages and pages from where they lie. */
const BUNDLED = fileURLToPath(new URL(`../dist-${process.pid}`, import.meta.url));
await bundlePrograms(BUNDLED);
process.once('exit', () => rmSync(BUNDLED, { recursive: true, force: true }));

const RUN = join(BUNDLED, 'run.mjs');
const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** The real program in a process of its own, as a painter starts it. */
export interface Program {
  readonly child: ChildProcess;
  /** Where it answers; fails with what it said when it does not start. */
  readonly address: Promise<string>;
  /** How it ended and what it said. */
  readonly ended: Promise<{ readonly code: number | null; readonly said: string }>;
}

/** @param script another of the server's programs, run instead */
export function start(folder: string, { port = '0', script = RUN, args = [] as readonly string[] } = {}): Program {
  const child = spawn(process.execPath, ['--enable-source-maps', script, ...args], {
    cwd: ROOT,
    env: { ...process.env, DUSK_DATA: folder, PORT: port },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const ended = new Promise<{ code: number | null; said: string }>((resolve) => child.on('close', (code) => resolve({ code, said })));
  const address = new Promise<string>((resolve, reject) => {
    const hear = (text: Buffer): void => {
      said += text.toString();
      const found = /open at (http:\S+)\//.exec(said);
      if (found) resolve(found[1]!);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    void ended.then((end) => reject(new Error(end.said)));
  });
  address.catch(() => undefined);
  return { child, address, ended };
}

export const scriptOf = (name: 'backup' | 'restore'): string => join(BUNDLED, `${name}.mjs`);
