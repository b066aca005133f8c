// Mocha's own lines, and the counts in a file so that several runs can be added up.
const { writeFileSync } = require('node:fs');
const { reporters } = require('mocha');

module.exports = class extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    runner.once('end', () => {
      const { passes, failures } = runner.stats;
      if (process.env.MOCHA_REPORT) writeFileSync(process.env.MOCHA_REPORT, JSON.stringify({ passes, failures }));
    });
  }
};
