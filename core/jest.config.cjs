// Tests with Jest's own clocks, which stay in its context, import these; the others have all in one script.
const esm = ['immer', 'culori', 'zod', 'fast-check', 'pure-rand'];

module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  transform: { '\\.m?[jt]s$': require.resolve('./jest-bundle.cjs') },
  transformIgnorePatterns: [`node_modules/(?!(${esm.join('|')})/)`],
  globalSetup: require.resolve('./jest-make-all.cjs'),
  setupFiles: ['<rootDir>/jest.seed.cjs'],
  setupFilesAfterEnv: ['<rootDir>/jest-quick-expect.cjs'],
  // The music tests decode and analyse whole songs.
  testTimeout: 90000,
};
