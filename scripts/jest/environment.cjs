/**
 * Runs test files in Node's own global scope. Jest's environment makes a new scope per file, with its own `Error` and
 * `Array`; modules that are shared between files (see `shared.cjs`) would not recognize objects made there.
 */
const vm = require('node:vm');
const { LegacyFakeTimers, ModernFakeTimers } = require('@jest/fake-timers');
const { ModuleMocker } = require('jest-mock');
const { installCommonGlobals } = require('jest-util');

// What Jest itself needs of a scope. It replaces `process` by a copy, which modules loaded by Node would not see.
const ownProcess = process;
installCommonGlobals(globalThis, {});
globalThis.process = ownProcess;

/** Stands for Node's own scope where Jest asks for a context. */
const OWN_SCOPE = Object.freeze({ ownScope: true });

const { runInContext } = vm.Script.prototype;
vm.Script.prototype.runInContext = function (context, options) {
  return context === OWN_SCOPE ? this.runInThisContext(options) : runInContext.call(this, context, options);
};

module.exports = class OwnScopeEnvironment {
  global = globalThis;
  customExportConditions = ['node', 'node-addons'];

  constructor({ projectConfig }) {
    Object.assign(globalThis, { __POSTGRES__: false }, projectConfig.globals);
    this.moduleMocker = new ModuleMocker(globalThis);
    const timerConfig = { idToRef: (id) => id, refToId: (ref) => ref };
    this.fakeTimers = new LegacyFakeTimers({
      config: projectConfig,
      global: globalThis,
      moduleMocker: this.moduleMocker,
      timerConfig,
    });
    this.fakeTimersModern = new ModernFakeTimers({ config: projectConfig, global: globalThis });
  }

  /** The console of the process, which Jest replaces while a test file runs. */
  console = globalThis.console;

  async setup() {}

  async teardown() {
    globalThis.console = this.console;
    this.fakeTimers.dispose();
    this.fakeTimersModern.dispose();
  }

  exportConditions() {
    return this.customExportConditions;
  }

  getVmContext() {
    return OWN_SCOPE;
  }
};
