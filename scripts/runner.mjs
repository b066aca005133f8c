// Runs one bundled test file after another in one process: packages, sources and the browser are there once for all of them.
import { createRequire } from 'node:module';
import Mocha from 'mocha';
import './anywhere.mjs';

const require = createRequire(import.meta.url);
const { mochaHooks } = require('./watchdog.cjs');
const reporter = require('./reporter.cjs');

/** What one file's tests counted; a file that cannot be read has failed. */
async function countsOf({ file, timeout }) {
  const before = process.cpuUsage();
  const mocha = new Mocha({ timeout, reporter, rootHooks: mochaHooks, color: false });
  mocha.addFile(file);
  await mocha.loadFilesAsync();
  const counts = await new Promise((done) => mocha.run(() => done(reporter.counted())));
  mocha.dispose();
  const { user, system } = process.cpuUsage(before);
  return { ...counts, cpu: (user + system) / 1e6 };
}

// What nobody caught is a failure of the test that runs; Mocha by itself lets it pass.
process.on('unhandledRejection', (reason) => {
  throw reason;
});

process.on('message', async (asked) => {
  const counts = await countsOf(asked).catch((cause) => ({ passes: 0, failures: 1, failed: [String(cause.stack ?? cause)], cpu: 0 }));
  process.send(counts);
});
