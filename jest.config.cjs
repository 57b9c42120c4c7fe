/** Kinds of tests: the core and contract, the server on the embedded database and on PostgreSQL, the whole in a browser, the screens. */
const node = {
  testEnvironment: 'node',
  transform: { '\\.tsx?$': '<rootDir>/scripts/jest-esbuild.cjs' },
  transformIgnorePatterns: ['/node_modules/'],
};

module.exports = {
  // Machines can be five times slower for an hour; what takes longer by its nature says so itself.
  testTimeout: 60_000,
  projects: [
    {
      ...node,
      displayName: 'core',
      rootDir: __dirname,
      roots: ['<rootDir>/core', '<rootDir>/contract'],
      testMatch: ['**/*.test.ts'],
    },
    {
      ...node,
      displayName: 'server',
      rootDir: __dirname,
      roots: ['<rootDir>/server', '<rootDir>/demo'],
      testMatch: ['**/*.test.ts'],
      testPathIgnorePatterns: ['\\.pg\\.test\\.ts$'],
      globalSetup: '<rootDir>/server/test/global-setup.cjs',
    },
    {
      ...node,
      displayName: 'postgres',
      rootDir: __dirname,
      roots: ['<rootDir>/server'],
      testMatch: ['**/*.test.ts'],
      // What asks nothing of the database that others do not ask is tested once.
      testPathIgnorePatterns: [
        '/server/pdf/',
        '/server/work/',
        '/server/access-table.test.ts',
        '/server/api.test.ts',
        '/server/kinds.test.ts',
        '/server/config.test.ts',
        '/server/db/lock.test.ts',
        '/server/words.test.ts',
        '/server/mail/languages.test.ts',
        '/server/proof/changes.test.ts',
        '/server/proof/foreign.test.ts',
        '/server/scan/',
        '/server/proof/seal.test.ts',
        '/server/reading.test.ts',
        '/server/fuzz.test.ts',
      ],
      globals: { __POSTGRES__: true },
      globalSetup: '<rootDir>/server/test/pg-setup.cjs',
      globalTeardown: '<rootDir>/server/test/pg-teardown.cjs',
    },
    { ...node, displayName: 'e2e', rootDir: __dirname, roots: ['<rootDir>/e2e'], testMatch: ['**/*.test.ts'] },
    '<rootDir>/app',
  ],
};
