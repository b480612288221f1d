module.exports = {
  displayName: 'probes',
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  transform: { '^.+\\.[jt]sx?$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } }] },
};
