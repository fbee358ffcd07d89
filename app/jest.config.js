const esm = [
  'immer',
  'culori',
  'zod',
  'zustand',
  'fflate',
  'base64-js',
  'expo',
  '@expo',
  'react-native',
  '@react-native',
  'lucide-react-native',
  '@tamagui',
  '@react-native-async-storage',
  'mpg123-decoder',
  '@wasm-audio-decoders',
  'codec-parser',
  '@eshaz',
  'simple-yenc',
];

module.exports = {
  preset: 'jest-expo/web',
  roots: ['<rootDir>/src'],
  setupFiles: [require.resolve('../core/jest.seed.cjs')],
  testEnvironmentOptions: { customExportConditions: ['require', 'default'] },
  // Runs behind the browser: a test that waits for a processor is not a broken one.
  testTimeout: 60000,
  transformIgnorePatterns: [`node_modules/(?!(${esm.join('|')}))`],
  moduleNameMapper: {
    '\\.css$': '<rootDir>/src/testing/style.js',
    '^@hovlix/core/([a-z]+)$': [
      '<rootDir>/../core/src/$1/index.ts',
      '<rootDir>/../core/src/$1.ts',
      '<rootDir>/../core/src/files/$1/index.ts',
    ],
  },
};
