module.exports = {
  displayName: 'server',
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  testTimeout: 20_000,
  transform: { '^.+\\.[jt]sx?$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } }] },
};
