// Mocha's own lines; what one run of it counted and what failed.
const { reporters } = require('mocha');

let last;
module.exports = class extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const failed = [];
    runner.on('fail', (test, error) => failed.push(`${test.fullTitle()}: ${String(error && error.message).split('\n')[0]}`));
    runner.once('end', () => (last = { passes: runner.stats.passes, failures: runner.stats.failures, failed }));
  }
};
/** What the run that ended last counted. */
module.exports.counted = () => last;
