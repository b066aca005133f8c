// Mocha's own lines; what one run of it counted, what failed and what it cost, in a file.
const { writeFileSync } = require('node:fs');
const { reporters } = require('mocha');

module.exports = class extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const failed = [];
    runner.on('fail', (test, error) => failed.push(`${test.fullTitle()}: ${String(error && error.message).split('\n')[0]}`));
    runner.once('end', () => {
      const { passes, failures } = runner.stats;
      const { user, system } = process.cpuUsage();
      const cpu = (user + system) / 1e6;
      if (process.env.MOCHA_REPORT) writeFileSync(process.env.MOCHA_REPORT, JSON.stringify({ passes, failures, failed, cpu }));
    });
  }
};
