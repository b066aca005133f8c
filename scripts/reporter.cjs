// Mocha's own lines; what several runs have in common, their counts and what failed, in a file.
const { writeFileSync } = require('node:fs');
const { reporters } = require('mocha');

module.exports = class extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const failed = [];
    runner.on('fail', (test, error) => failed.push(`${test.fullTitle()}: ${String(error && error.message).split('\n')[0]}`));
    runner.once('end', () => {
      const { passes, failures } = runner.stats;
      if (process.env.MOCHA_REPORT) writeFileSync(process.env.MOCHA_REPORT, JSON.stringify({ passes, failures, failed }));
    });
  }
};
