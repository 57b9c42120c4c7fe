/** Three kinds of tests: the core and contract, the server on the real embedded database, the screens. */
const node = {
  testEnvironment: 'node',
  transform: { '\\.tsx?$': '<rootDir>/scripts/jest-esbuild.cjs' },
  transformIgnorePatterns: ['/node_modules/'],
};

module.exports = {
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
      globalSetup: '<rootDir>/server/test/global-setup.cjs',
    },
    { ...node, displayName: 'e2e', rootDir: __dirname, roots: ['<rootDir>/e2e'], testMatch: ['**/*.test.ts'] },
    '<rootDir>/app',
  ],
};
