module.exports = {
  displayName: 'app',
  preset: 'jest-expo/web',
  setupFiles: [...require('jest-expo/web/jest-preset').setupFiles, '<rootDir>/test/pictures.ts'],
  testMatch: ['**/*.test.tsx', '**/*.test.ts'],
  transform: {
    ...require('jest-expo/web/jest-preset').transform,
    '^.+[.]woff2$': require.resolve('jest-expo/src/preset/assetFileTransformer.js'),
  },
};
