/** Lint rules; the important one holds the direction of imports (docs/architecture.md). */
import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import ts from 'typescript-eslint';
import docs from './scripts/lint/docstrings.mjs';
import layout from './scripts/lint/layout.mjs';
import words from './scripts/lint/vocabulary.mjs';

/** Forbids importing some parts of the product, by package name and by path. */
const keepOut = (parts, message) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: parts.flatMap((part) => [
        { group: [`@gatepath/${part}`, `@gatepath/${part}/*`], message },
        { group: [`**/${part}/*`, `!./**/${part}/*`], message },
      ]),
    },
  ],
});

export default ts.config(
  { ignores: ['**/node_modules/**', '**/dist/**', '**/.expo/**', 'data/**', 'server/work/built/**', '.mutants/**'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    plugins: { regexp },
    rules: {
      // Patterns meet text from outside: none may take more than linear time over it.
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'Name what others may use: export { … } from.' },
        {
          selector: 'ExportNamedDeclaration > VariableDeclaration[kind="let"]',
          message: 'Tests read an export once (scripts/jest/transform.cjs): export a function instead.',
        },
      ],
      'no-console': 'off',
    },
  },
  {
    files: ['{app,bench,contract,core,demo,e2e,server}/**/*.{ts,tsx}'],
    plugins: { words, docs },
    rules: { 'words/vocabulary': 'error', 'docs/verb': 'error' },
  },
  {
    files: ['app/{features,ui}/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    plugins: { words, layout },
    rules: { 'layout/primitive': 'error' },
  },
  {
    files: ['app/{features,ui}/**/*.{ts,tsx}'],
    ignores: ['**/words.ts', '**/*.test.{ts,tsx}'],
    plugins: { words },
    rules: { 'words/literal-text': 'error' },
  },
  {
    // Acts and the keys of answers are said in one place each, so that no screen misses what another changed.
    files: ['app/**/*.{ts,tsx}'],
    ignores: ['app/api/act.ts', 'app/api/keys.ts', '**/*.test.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'Name what others may use: export { … } from.' },
        {
          selector: 'Property[key.name="queryKey"] > ArrayExpression',
          message: 'Name the key in app/api/keys.ts.',
        },
        {
          selector: 'CallExpression[callee.property.name="setQueryData"] > ArrayExpression:first-child',
          message: 'Name the key in app/api/keys.ts.',
        },
        { selector: 'ImportSpecifier[imported.name="useMutation"]', message: 'Use useAct of app/api/act.ts.' },
      ],
    },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Tests read what they made themselves.
    files: ['**/*.test.{ts,tsx}', 'e2e/**/*.ts', 'server/test/**/*.ts', 'bench/**/*.ts'],
    rules: { 'regexp/no-super-linear-backtracking': 'off', 'regexp/no-super-linear-move': 'off' },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@gatepath/*', 'node:*', 'react*', 'fastify*', '@cantoo/*'],
              message: 'The core imports nothing but itself.',
            },
            { group: ['**/contract/*', '**/server/*', '**/app/*'], message: 'The core imports nothing but itself.' },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'fetch', 'process', 'setTimeout', 'crypto', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core has no randomness: take it as an argument.' },
        { object: 'Date', property: 'now', message: 'The core has no clock: take the time as an argument.' },
      ],
    },
  },
  { files: ['core/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
  {
    // A longer one does one thing all the same, and says which where it turns this off.
    files: ['app/**/*.{ts,tsx}', 'core/**/*.ts', 'contract/**/*.ts', 'server/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}', 'server/test/**', 'app/test/**'],
    rules: { 'max-lines-per-function': ['error', { max: 60 }] },
  },
  {
    files: ['contract/**/*.ts'],
    rules: keepOut(['server', 'app', 'demo', 'e2e', 'bench'], 'The contract imports the core only.'),
  },
  {
    files: ['server/**/*.ts'],
    rules: keepOut(['app', 'demo', 'e2e', 'bench'], 'The server imports contract and core only.'),
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    rules: keepOut(['server', 'demo', 'e2e', 'bench'], 'The application imports contract and core only.'),
  },
  {
    files: ['**/*.cjs', '**/babel.config.js', '**/metro.config.js', '**/jest.config.js'],
    languageOptions: {
      sourceType: 'commonjs',
      globals: {
        module: 'writable',
        require: 'readonly',
        process: 'readonly',
        __dirname: 'readonly',
        __filename: 'readonly',
      },
    },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  { files: ['scripts/*.mjs'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } } },
);
