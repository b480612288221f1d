/** @type {import('jest').Config} */
module.exports = {
  displayName: 'app',
  preset: 'jest-expo/web',
  rootDir: __dirname,
  roots: ['<rootDir>/src'],
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  moduleNameMapper: { MaterialCommunityIcons$: '<rootDir>/src/ui/PaperIcon.tsx' },
};
