/** How `npm run mutants` changes a folder of the core, named by MUTATED, and which tests it asks. */
const name = process.env.MUTATED ?? '';
const isFile = name.endsWith('.ts');

export default {
  mutate: isFile
    ? [`core/${name}`]
    : [`core/${name}/**/*.ts`, `!core/${name}/**/*.test.ts`, `!core/${name}/**/index.ts`],
  // What a sentence says is held by the tests that read it, letter by letter; a mutant of each would say nothing new.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignorePatterns: ['app', 'server', 'demo', 'e2e', 'bench', 'docs', 'data', 'coverage', 'tmp'],
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: { projectType: 'custom', configFile: 'scripts/stryker-jest.config.cjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  // What is worked out once, as a module loads, cannot be changed between two tests of one process.
  ignoreStatic: true,
  disableTypeChecks: true,
  concurrency: 2,
  timeoutMS: 15_000,
  reporters: ['clear-text'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportScoreTable: true },
  thresholds: { high: 90, low: 85, break: 85 },
  tempDirName: '.mutants',
  allowEmpty: false,
};
