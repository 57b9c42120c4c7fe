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
      // esbuild exports getters, which took up to 40 % of the time of tests that call small functions millions of times.
      // Plain properties are equivalent once a module has run, because no import is circular and no export is
      // reassigned. dependency-cruiser and ESLint enforce both.
      footer:
        "module.exports = Object.assign(Object.defineProperty({}, '__esModule', { value: true }), module.exports);",
    });
    return { code, map };
  },
  getCacheKey(source, file) {
    return createHash('sha256').update(OWN).update(version).update(file).update('\0').update(source).digest('hex');
  },
};
