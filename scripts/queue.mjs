// A queue of runs for a few workers, the longest first; a run is a program of its own, and its end is the end of whatever it left behind.
import { spawn } from 'node:child_process';
import { ROOT } from './prepare.mjs';

/** Ends a run with whatever it started. */
function endGroup(child) {
  try {
    process.kill(-child.pid, 'SIGKILL');
  } catch {
    child.kill('SIGKILL');
  }
}

/** A program that was left behind may hold its lines open for so long after the end of its run, ms. */
const LEFT_OPEN_MS = 2000;

/**
 * Runs everything there is to run.
 * @param runs each with its name, what is to be started and how long it took the last time, s
 * @param options how many at once; after how many minutes all is ended, with a word on what was running; who is told of each end
 */
export async function runAll(runs, { workers, deadlineMin, ended }) {
  const waiting = [...runs].sort((one, other) => (other.last ?? Infinity) - (one.last ?? Infinity));
  const running = new Map();
  const endAll = () => [...running.keys()].forEach(endGroup);
  const late = setTimeout(() => {
    console.log(`ended after ${deadlineMin} minutes, while these ran: ${[...running.values()].join(', ') || 'none'}`);
    console.log(`not begun: ${waiting.map(({ name }) => name).join(', ') || 'none'}`);
    endAll();
    process.exit(1);
  }, deadlineMin * 60_000);
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => (endAll(), process.exit(1)));

  const run = ({ name, program, args, env }) =>
    new Promise((done) => {
      const began = Date.now();
      const child = spawn(program, args, {
        cwd: ROOT,
        detached: process.platform !== 'win32',
        stdio: ['ignore', 'pipe', 'pipe'],
        env: { ...process.env, ...env },
      });
      running.set(child, name);
      let said = '';
      for (const out of [child.stdout, child.stderr]) out.on('data', (data) => (said += data));
      const end = (code) => {
        running.delete(child);
        endGroup(child);
        done({ code, said, seconds: (Date.now() - began) / 1000 });
      };
      child.on('error', (cause) => ((said += cause.message), end(1)));
      child.on('close', end);
      child.on('exit', (code) => setTimeout(() => end(code), LEFT_OPEN_MS).unref());
    });
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) ended(next, await run(next));
  };
  await Promise.all(Array.from({ length: workers }, work));
  clearTimeout(late);
}
