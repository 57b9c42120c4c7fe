/** Jest's runtime, except that whatever a test file imports is loaded by Node itself and shared by all test files. */
const { createRequire } = require('node:module');
const vm = require('node:vm');
const { default: Runtime } = require('jest-runtime');
const { sourceMaps } = require('./shared.cjs');

module.exports = class SharedRuntime extends Runtime {
  requireModuleOrMock(from, name) {
    return name === '@jest/globals' ? super.requireModuleOrMock(from, name) : createRequire(from)(name);
  }

  createScriptFromCode(source, filename) {
    const { USE_MAIN_CONTEXT_DEFAULT_LOADER: importModuleDynamically } = vm.constants;
    return new vm.Script(this.wrapCodeInModuleWrapper(source), { filename, importModuleDynamically });
  }

  getSourceMaps() {
    return new Map([...super.getSourceMaps(), ...sourceMaps]);
  }
};
