const esm = [
  'immer',
  'culori',
  'zod',
  'fflate',
  'mpg123-decoder',
  '@wasm-audio-decoders',
  'codec-parser',
  '@eshaz',
  'simple-yenc',
  'fast-check',
  'pure-rand',
];

module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  transform: { '\\.m?[jt]s$': require.resolve('./jest-esbuild.cjs') },
  transformIgnorePatterns: [`node_modules/(?!(${esm.join('|')})/)`],
  moduleNameMapper: { '^@hovlix/core/(.*)$': '<rootDir>/src/$1' },
  // The music tests decode and analyse whole songs.
  testTimeout: 60000,
};
