// Bundles the `hovlix` command, its threads and the stand-ins into server/dist.
import { rmSync } from 'node:fs';
import { build } from 'esbuild';

rmSync('server/dist', { recursive: true, force: true });
await build({
  entryPoints: {
    hovlix: 'server/src/main.ts',
    output: 'server/src/output/output.thread.ts',
    input: 'server/src/input/input.thread.ts',
    'stand-ins': 'server/src/stand-ins/process.ts',
  },
  outdir: 'server/dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  // Less to read at a start, which has to be quick after a crash; names stay, so that errors can be read.
  minifyWhitespace: true,
  minifySyntax: true,
  packages: 'bundle',
  // Serial ports and MIDI come with a native part that has to lie in its own folder.
  external: [
    'express',
    'express-rate-limit',
    'express-static-gzip',
    'helmet',
    'pino',
    'ws',
    'serialport',
    '@julusian/midi',
    'cookie',
    'cookie-signature',
  ],
  logLevel: 'warning',
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
  },
});
