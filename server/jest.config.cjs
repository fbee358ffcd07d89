module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  transform: { '\\.m?[jt]s$': require.resolve('../core/jest-esbuild.cjs') },
  transformIgnorePatterns: [
    'node_modules/(?!(immer|culori|zod|fflate|mpg123-decoder|@wasm-audio-decoders|codec-parser|@eshaz|simple-yenc)/)',
  ],
  moduleNameMapper: {
    '^@hovlix/core/([a-z]+)$': [
      '<rootDir>/../core/src/$1/index.ts',
      '<rootDir>/../core/src/$1.ts',
      '<rootDir>/../core/src/files/$1/index.ts',
    ],
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
  setupFilesAfterEnv: [require.resolve('./jest-once-more.cjs')],
  // Long enough for a computer that has a third of its processors: what waits in vain ends late, and nothing is slower for it.
  testTimeout: 180000,
  // Sockets and child processes of a failed test must not keep the run alive.
  forceExit: true,
};
