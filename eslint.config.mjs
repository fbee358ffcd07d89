import expo from 'eslint-config-expo/flat.js';

const hostFree = [
  'react',
  'react-*',
  'expo',
  'expo-*',
  'node:*',
  'fs',
  'path',
  'express',
  'ws',
  '@tamagui/*',
  '@tanstack/*',
];
const argument = 'Core has no clock, chance or host of its own: take it as an argument.';

export default [
  {
    ignores: [
      '**/node_modules/**',
      '**/dist/**',
      '.cache/**',
      '**/.expo/**',
      'app/public/**',
      'app/metro/built/**',
      'e2e/results/**',
    ],
  },
  ...expo.map((part) => ('react' in (part.plugins ?? {}) ? { ...part, files: ['app/**'] } : part)),
  {
    rules: {
      'no-console': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'import/no-unresolved': 'off',
      'import/namespace': 'off',
      // The compiler says so, too.
      'import/export': 'off',
      'import/default': 'off',
      'import/first': 'error',
      'import/no-named-as-default': 'off',
      'import/no-named-as-default-member': 'off',
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/ban-ts-comment': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/array-type': 'off',
      // A Zod schema and the type inferred from it share one name.
      '@typescript-eslint/no-redeclare': 'off',
    },
  },
  // What Metro and Jest run in Node.js.
  {
    files: ['app/metro/straight-imports.js', 'core/jest-bundle.cjs'],
    languageOptions: { globals: { __dirname: 'readonly', __filename: 'readonly' } },
  },
  // Imports run app -> core <- server; e2e and demo stand outside and look in.
  {
    files: ['core/src/**'],
    // A test's place goes by Jest's own clock.
    ignores: ['**/*.test.ts', '**/*.d.ts', '**/testing/gear-host.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [{ group: [...hostFree, '@hovlix/*', '**/app/**', '**/server/**'], message: 'Core stands alone.' }],
        },
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: argument },
        { object: 'Date', property: 'now', message: argument },
      ],
      'no-restricted-globals': [
        'error',
        'performance',
        'setTimeout',
        'setInterval',
        'fetch',
        'window',
        'document',
        'process',
        'console',
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: argument },
        { selector: 'ExportDefaultDeclaration', message: 'Name what you export.' },
      ],
    },
  },
  {
    files: ['app/**'],
    ignores: ['app/types/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            { name: 'lucide-react-native', message: 'Import one icon at a time: lucide-react-native/icons/NAME.' },
          ],
          patterns: [
            {
              group: ['@hovlix/server', '@hovlix/server/*', '**/server/src/**'],
              message: 'App and server meet only in core.',
            },
            {
              regex: '^\\.\\./(?!\\.\\.)(songs|looks|rig|gig|connections)/',
              message: 'A feature never imports another: what two share moves to ui, data or core.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@hovlix/app', '@hovlix/app/*', '**/app/src/**', 'react', 'react-*'],
              message: 'App and server meet only in core.',
            },
          ],
        },
      ],
    },
  },
];
