/**
 * Loads product modules once per Jest worker instead of once per test file. Requiring this file lets Node load `.ts`
 * files; `sourceMaps` lists where the map of each loaded file lies, for readable stack traces.
 *
 * Module state therefore outlives a test file, as it outlives a request in a running server. Tests must not depend on
 * fresh modules, and `jest.mock` has no effect.
 */
const { mkdirSync, existsSync, readFileSync, renameSync, writeFileSync } = require('node:fs');
const Module = require('node:module');
const os = require('node:os');
const path = require('node:path');
const transform = require('./transform.cjs');

const CACHE = path.join(os.tmpdir(), `gatepath-jest-${process.getuid?.() ?? 0}`);
mkdirSync(CACHE, { recursive: true, mode: 0o700 });

/** File of the source -> file of its source map. */
const sourceMaps = new Map();

/** Writes a file so that another worker sees it whole or not at all. */
function writeWhole(file, text) {
  const part = `${file}.${process.pid}`;
  writeFileSync(part, text);
  renameSync(part, file);
}

function load(module, file) {
  const source = readFileSync(file, 'utf8');
  const cached = path.join(CACHE, transform.getCacheKey(source, file));
  if (!existsSync(`${cached}.js`)) {
    const { code, map } = transform.process(source, file);
    writeWhole(`${cached}.map`, map);
    writeWhole(`${cached}.js`, code);
  }
  sourceMaps.set(file, `${cached}.map`);
  module._compile(readFileSync(`${cached}.js`, 'utf8'), file);
}

for (const extension of ['.ts', '.tsx']) Module._extensions[extension] = load;

module.exports = { sourceMaps };
