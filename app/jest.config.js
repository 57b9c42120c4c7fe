module.exports = {
  displayName: 'app',
  preset: 'jest-expo/web',
  testMatch: ['**/*.test.tsx', '**/*.test.ts'],
  transform: {
    ...require('jest-expo/web/jest-preset').transform,
    '^.+[.]woff2$': require.resolve('jest-expo/src/preset/assetFileTransformer.js'),
  },
};
