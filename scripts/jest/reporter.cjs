/** Prints one line per test file as it finishes, with its duration, and the failures in it at once. */
const path = require('node:path');

/** Not by `console`: a test file that runs in this process has it silenced. */
const say = (text) => process.stderr.write(`${text}\n`);

module.exports = class Reporter {
  constructor({ rootDir }) {
    this.rootDir = rootDir;
    this.done = 0;
  }

  onTestFileResult({ context, path: file }, result, { numTotalTestSuites }) {
    const seconds = ((result.perfStats.end - result.perfStats.start) / 1000).toFixed(1);
    const failed = result.numFailingTests + (result.testExecError ? 1 : 0);
    const project = context.config.displayName?.name ?? '';
    const name = path.relative(this.rootDir, file);
    this.done++;
    say(
      `[${this.done}/${numTotalTestSuites}] ${failed ? 'FAILED' : 'ok'} ${project} ${name} ${seconds} s, ${result.numPassingTests} passed${failed ? `, ${failed} failed` : ''}`,
    );
    if (result.failureMessage) say(result.failureMessage);
  }

  onRunComplete(_contexts, results) {
    const failed = results.numFailedTests + results.numRuntimeErrorTestSuites;
    say(`${results.numPassedTests} tests passed, ${failed} failed in ${results.numTotalTestSuites} files`);
  }
};
