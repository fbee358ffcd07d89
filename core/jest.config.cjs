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
  'music-metadata',
  'strtok3',
  'token-types',
  'file-type',
  'uint8array-extras',
  'media-typer',
  'content-type',
  'win-guid',
  '@tokenizer',
  '@borewit',
];

module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  transform: { '\\.m?[jt]s$': require.resolve('./jest-esbuild.cjs') },
  transformIgnorePatterns: [`node_modules/(?!(${esm.join('|')})/)`],
  moduleNameMapper: {
    '^@hovlix/core/(.*)$': '<rootDir>/src/$1',
    // These have no entry for `require`, which is how Jest resolves.
    '^music-metadata$': '<rootDir>/../node_modules/music-metadata/lib/core.js',
    '^file-type$': '<rootDir>/../node_modules/file-type/core.js',
    '^strtok3$': '<rootDir>/../node_modules/strtok3/lib/core.js',
  },
  // Tests run in a context of their own, where names of the language are looked up anew at each use: four times as slow.
  // Left out is what libraries name anew (`Number`).
  sandboxInjectedGlobals: [
    'Array',
    'Float32Array',
    'Float64Array',
    'Infinity',
    'Int32Array',
    'JSON',
    'Map',
    'Math',
    'Object',
    'Set',
    'String',
    'Uint16Array',
    'Uint32Array',
    'Uint8Array',
    'isNaN',
  ],
  setupFiles: ['<rootDir>/jest.seed.cjs'],
  // The music tests decode and analyse whole songs.
  testTimeout: 90000,
};
