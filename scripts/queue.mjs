// A queue of runs for a few workers, the longest first. A program is a run of its own, and its end is the end of whatever it left
// behind; tests are run one after another by a process that each worker keeps.
import { fork, spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './prepare.mjs';

/** Ends a program with whatever it started. */
function endGroup(child) {
  try {
    process.kill(-child.pid, 'SIGKILL');
  } catch {
    child.kill('SIGKILL');
  }
}

/** A program that was left behind may hold its lines open for so long after the end of its run, ms. */
const LEFT_OPEN_MS = 2000;
/** What a test has said last may come so long after it has ended, ms. */
const SAID_MS = 50;
const DETACHED = process.platform !== 'win32';

/** What a child says, from now on. */
function hearing(child) {
  let said = '';
  for (const out of [child.stdout, child.stderr]) out.on('data', (data) => (said += data));
  return { said: () => said, forget: () => (said = '') };
}

/** @returns how a program ended and what it said */
function runProgram({ program, args, env }, began) {
  const child = spawn(program, args, {
    cwd: ROOT,
    detached: DETACHED,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
  });
  began(child);
  const { said } = hearing(child);
  return new Promise((done) => {
    const end = (code, more = '') => {
      endGroup(child);
      done({ code, said: said() + more });
    };
    child.on('error', (cause) => end(1, cause.message));
    child.on('close', (code) => end(code));
    child.on('exit', (code) => setTimeout(() => end(code), LEFT_OPEN_MS).unref());
  });
}

/** A process that runs tests, begun when there are some and anew when it was lost. */
class Tester {
  child;
  constructor({ runs, env }, began) {
    this.begin = () => {
      this.child = fork(join(ROOT, 'scripts', 'runner.mjs'), [], {
        cwd: ROOT,
        detached: DETACHED,
        execArgv: runs,
        stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
        env: { ...process.env, ...env },
      });
      this.heard = hearing(this.child);
      this.child.once('exit', () => (this.child = undefined));
      began(this.child);
    };
  }

  /** @returns what a file's tests counted and what they said */
  async run({ asked }) {
    if (!this.child) this.begin();
    const { child, heard } = this;
    heard.forget();
    const counts = await new Promise((done) => {
      const lost = () => done({ passes: 0, failures: 1, failed: ['it ended without a report'], cpu: 0 });
      child.once('exit', lost);
      child.once('message', (counted) => (child.off('exit', lost), done(counted)));
      child.send(asked);
    });
    await new Promise((done) => setTimeout(done, SAID_MS));
    return { code: counts.failures === 0 ? 0 : 1, counts, said: heard.said() };
  }

  end() {
    if (this.child) endGroup(this.child);
  }
}

/**
 * Runs everything there is to run.
 * @param runs each with its name and how long it took the last time, s: a program with its arguments, or what a tester is asked,
 *   and whether it needs one for itself
 * @param options how many at once; after how many minutes all is ended, with a word on what was running; how testers are begun;
 *   who is told of each end
 */
export async function runAll(runs, { workers, deadlineMin, testers = {}, ended }) {
  const waiting = [...runs].sort((one, other) => (other.last ?? Infinity) - (one.last ?? Infinity));
  const running = new Set();
  const children = new Set();
  const began = (child) => {
    children.add(child);
    child.once('exit', () => children.delete(child));
  };
  const endAll = () => children.forEach(endGroup);
  const late = setTimeout(() => {
    console.log(`ended after ${deadlineMin} minutes, while these ran: ${[...running].join(', ') || 'none'}`);
    console.log(`not begun: ${waiting.map(({ name }) => name).join(', ') || 'none'}`);
    endAll();
    process.exit(1);
  }, deadlineMin * 60_000);
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => (endAll(), process.exit(1)));

  const work = async () => {
    const tester = new Tester(testers, began);
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const since = Date.now();
      running.add(next.name);
      const own = next.isAlone ? new Tester(testers, began) : tester;
      const end = next.asked ? await own.run(next) : await runProgram(next, began);
      if (own !== tester) own.end();
      running.delete(next.name);
      ended(next, { ...end, seconds: (Date.now() - since) / 1000 });
    }
    tester.end();
  };
  await Promise.all(Array.from({ length: workers }, work));
  clearTimeout(late);
}
