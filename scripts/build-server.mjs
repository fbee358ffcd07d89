// Bundles the `hovlix` command, the output thread and the node stand-in into server/dist.
import { build } from 'esbuild';

await build({
  entryPoints: {
    hovlix: 'server/src/main.ts',
    output: 'server/src/udp/output.thread.ts',
    node: 'server/src/udp/node.process.ts',
  },
  outdir: 'server/dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'bundle',
  external: ['express', 'helmet', 'pino', 'ws'],
  logLevel: 'warning',
  banner: {
    js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
  },
});
