/** Turns TypeScript into CommonJS with esbuild: for Jest's own transform, and for modules that `shared.cjs` loads. */
const { createHash } = require('node:crypto');
const { readFileSync } = require('node:fs');
const { transformSync, version } = require('esbuild');

const OWN = readFileSync(__filename);

module.exports = {
  process(source, file) {
    const { code, map } = transformSync(source, {
      sourcefile: file,
      loader: file.endsWith('.tsx') ? 'tsx' : 'ts',
      format: 'cjs',
      target: 'node20',
      sourcemap: 'both',
      sourcesContent: true,
      // CommonJS has no import.meta; the file's own address is all that is asked of it.
      define: { 'import.meta.url': '__moduleUrl' },
      banner: "const __moduleUrl = require('node:url').pathToFileURL(__filename).href;",
      // esbuild exports by getters. They take longer than small functions behind them, and tests call those by the million.
      // Once a module has run, plain properties say the same: nothing here imports in a circle or reassigns an export.
      footer:
        "module.exports = Object.assign(Object.defineProperty({}, '__esModule', { value: true }), module.exports);",
    });
    return { code, map };
  },
  getCacheKey(source, file) {
    return createHash('sha256').update(OWN).update(version).update(file).update('\0').update(source).digest('hex');
  },
};
