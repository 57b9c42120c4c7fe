/** The tests of the core folder that is mutated, as Jest runs them by itself: a mutant must not outlive its test file. */
const path = require('node:path');

const ROOT = path.join(__dirname, '..');
const [folder] = (process.env.MUTATED ?? '').split('/');

module.exports = {
  rootDir: ROOT,
  roots: [`<rootDir>/core/${folder}`],
  testMatch: ['**/*.test.ts'],
  testEnvironment: 'node',
  transform: { '\\.tsx?$': path.join(__dirname, 'jest', 'transform.cjs') },
  transformIgnorePatterns: ['/node_modules/'],
  testTimeout: 60_000,
};
