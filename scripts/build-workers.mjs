// Bundles the workers of the page. Metro would carry the whole schema library into each of them; here what a worker does
// not use is left out. Run by itself it writes them into app/public/workers, for `npm run dev`.

import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import ts from 'typescript';
import minify from '../app/metro/minify.js';

const root = fileURLToPath(new URL('..', import.meta.url));

const WORKERS = {
  light: 'light/light.worker.ts',
  flash: 'light/flash.worker.ts',
  analysis: 'sound/analysis.worker.ts',
  music: 'sound/music.worker.ts',
};

/**
 * Building a schema has no effect but the schema: one that nothing reads need not be built. A bundler cannot know, so
 * it is told: each such constant of core becomes a call that is marked as pure.
 */
const pureSchemas = {
  name: 'pure schemas',
  setup(esbuild) {
    esbuild.onLoad({ filter: /[\\/]core[\\/]src[\\/].*\.ts$/ }, ({ path }) => {
      const text = readFileSync(path, 'utf8');
      if (!text.includes("from 'zod'")) return undefined;
      const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest);
      const schemas = source.statements
        .filter(ts.isVariableStatement)
        .flatMap(({ declarationList }) => declarationList.declarations)
        .flatMap(({ initializer }) =>
          initializer && (ts.isCallExpression(initializer) || ts.isObjectLiteralExpression(initializer))
            ? [initializer]
            : [],
        );
      let out = text;
      for (const { end, pos } of schemas.reverse())
        out = `${out.slice(0, pos)} /* @__PURE__ */ (() => (${out.slice(pos, end).trim()}))()${out.slice(end)}`;
      return { contents: out, loader: 'ts' };
    });
  },
};

/** Sentences of the schema library in languages that Hovlix does not speak. */
const noLocales = {
  name: 'no locales',
  setup(esbuild) {
    esbuild.onResolve({ filter: /locales\/index\.js$/ }, ({ importer }) =>
      importer.includes(join('node_modules', 'zod')) ? { path: join(root, 'app/metro/nothing.js') } : undefined,
    );
  },
};

/**
 * @param outdir is emptied first.
 * @param names of the workers: `[name]`, or with `[hash]`.
 * @returns where each worker is.
 */
export async function buildWorkers(outdir, names) {
  rmSync(outdir, { recursive: true, force: true });
  const { metafile, outputFiles } = await build({
    absWorkingDir: join(root, 'app/src/host'),
    entryPoints: WORKERS,
    outdir,
    entryNames: names,
    chunkNames: '[name]-[hash]',
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'browser',
    target: 'es2022',
    minify: true,
    legalComments: 'none',
    plugins: [pureSchemas, noLocales],
    logLevel: 'warning',
    metafile: true,
    write: false,
  });
  mkdirSync(outdir, { recursive: true });
  for (const { path, text } of outputFiles) writeFileSync(path, minify.smaller(basename(path), text, true));
  const built = Object.entries(metafile.outputs);
  return Object.fromEntries(
    Object.entries(WORKERS).map(([name, source]) => [
      name,
      built.find(([, { entryPoint }]) => entryPoint === source)[0],
    ]),
  );
}

// While the app is developed.
if (process.argv[1] === fileURLToPath(import.meta.url)) await buildWorkers(join(root, 'app/public/workers'), '[name]');
