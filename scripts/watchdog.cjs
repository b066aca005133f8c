// Required by Mocha: a test that never lets go of its thread, which no timeout can end, is told with where it is, and ended.
const { Worker, isMainThread, workerData, parentPort } = require('node:worker_threads');

/** So long may one test keep its thread without a pause, ms. */
const LONGEST = 180_000;

if (isMainThread) {
  const beats = new Int32Array(new SharedArrayBuffer(4));
  const dog = new Worker(__filename, { workerData: beats });
  dog.unref();
  setInterval(() => Atomics.add(beats, 0, 1), 500).unref();
  module.exports.mochaHooks = {
    beforeEach() {
      dog.postMessage(this.currentTest.fullTitle());
    },
  };
} else {
  const inspector = require('node:inspector');
  let title = 'what comes before the first test';
  let [seen, since] = [0, Date.now()];
  parentPort.on('message', (said) => (title = said));
  /** Where the main thread is, as far as it can be asked. */
  const whereItIs = () =>
    new Promise((done) => {
      setTimeout(() => done('where is not known'), 5000);
      try {
        const session = new inspector.Session();
        session.connectToMainThread();
        session.on('Debugger.paused', ({ params }) =>
          done(
            params.callFrames
              .slice(0, 12)
              .map(({ functionName, url, location }) => `${functionName} ${url}:${location.lineNumber + 1}`)
              .join('\n    '),
          ),
        );
        session.post('Debugger.enable', () => session.post('Debugger.pause'));
      } catch (error) {
        done(String(error));
      }
    });
  setInterval(async () => {
    const now = Atomics.load(workerData, 0);
    if (now !== seen) return ([seen, since] = [now, Date.now()]);
    if (Date.now() - since < LONGEST) return;
    since = Infinity;
    require('node:fs').writeSync(2, `never let go of its thread: ${title}\n    ${await whereItIs()}\n`);
    process.kill(process.pid, 'SIGKILL');
  }, 1000);
}
