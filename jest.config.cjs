/**
 * Kinds of tests: the core, contract and what measures them, the server, the whole in a browser, the screens. Tests of the server
 * and in a browser run on PostgreSQL; on the embedded database run those whose subject is how the one connection, the data
 * folder, or the upgrade behaves, and the first steps and the kill in a browser.
 */
const node = {
  rootDir: __dirname,
  testEnvironment: '<rootDir>/scripts/jest/environment.cjs',
  runtime: '<rootDir>/scripts/jest/runtime.cjs',
  transform: { '\\.tsx?$': '<rootDir>/scripts/jest/transform.cjs' },
  transformIgnorePatterns: ['/node_modules/'],
};

module.exports = {
  // Machines can be five times slower for an hour; what takes longer by its nature says so itself.
  testTimeout: 60_000,
  projects: [
    {
      ...node,
      displayName: 'core',
      roots: ['<rootDir>/core', '<rootDir>/contract', '<rootDir>/bench'],
      testMatch: ['**/*.test.ts'],
    },
    {
      ...node,
      displayName: 'server',
      roots: ['<rootDir>/server', '<rootDir>/demo'],
      testMatch: ['**/*.test.ts'],
      globals: { __POSTGRES__: true },
      globalSetup: '<rootDir>/server/test/pg-setup.cjs',
      globalTeardown: '<rootDir>/server/test/pg-teardown.cjs',
    },
    {
      ...node,
      displayName: 'embedded',
      roots: ['<rootDir>/server'],
      testMatch: [
        '**/server/slice.test.ts',
        '**/server/ground.test.ts',
        '**/server/db/migrate.test.ts',
        '**/server/jobs/jobs.test.ts',
        '**/server/live/live.test.ts',
        '**/server/notices/notices.test.ts',
      ],
      globalSetup: '<rootDir>/server/test/global-setup.cjs',
    },
    {
      ...node,
      displayName: 'e2e',
      roots: ['<rootDir>/e2e'],
      testMatch: ['**/*.test.ts'],
      globals: { __POSTGRES__: true },
      globalSetup: '<rootDir>/server/test/pg-setup.cjs',
      globalTeardown: '<rootDir>/server/test/pg-teardown.cjs',
    },
    '<rootDir>/app',
  ],
};
