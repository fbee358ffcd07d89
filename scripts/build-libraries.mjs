// Bundles what the app uses of some libraries into app/metro/built, and leaves out the rest of them. Metro takes every
// file of a library that is imported; without this half of them would go out unused. What two of them share, as Tamagui's
// parts do, is a file of its own.

import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
/** The same list tells Metro where to find them. */
const LIBRARIES = JSON.parse(readFileSync(join(root, 'app/metro/libraries.json'), 'utf8'));
/** A library's file in app/metro/built. */
const fileOf = (library) => library.replaceAll('/', '-');

const sources = ['core/src', 'app/src']
  .flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' }).map((at) => join(folder, at)),
  )
  .filter((at) => /\.tsx?$/.test(at) && !/\.test\.tsx?$/.test(at))
  .map((at) => readFileSync(join(root, at), 'utf8'));

/** Names that our files import from `library`, types among them. */
function imported(library) {
  const each = new RegExp(`import \\{([^}]*)\\} from '${library}'`, 'g');
  const names = sources.flatMap((text) => [...text.matchAll(each)].flatMap((found) => found[1].split(',')));
  return new Set(names.map((name) => name.trim()).filter((name) => name !== '' && !name.startsWith('type ')));
}

/** What our files take of the schema library, types among them: all of it is reached through one name. */
function schemaParts() {
  return new Set(sources.flatMap((text) => [...text.matchAll(/\bz\.(\w+)\b(?!<)/g)].map((found) => found[1])));
}

async function entryOf(library) {
  if (library !== 'zod') return `export { ${[...imported(library)].join(', ')} } from '${library}';`;
  const has = await import('zod');
  const used = [...schemaParts()].filter((name) => name in has);
  return [
    `import { config, ${used.map((name) => `${name} as _${name}`).join(', ')} } from 'zod';`,
    // It would try whether it may run text as code: the page's policy forbids that, and the browser reports each try.
    'config({ jitless: true });',
    `export const z = { ${used.map((name) => `${name}: _${name}`).join(', ')} };`,
  ].join('\n');
}

/** The schema library's way to JSON Schema: nothing in the app calls it, but its functions are handed on. */
const withoutJsonSchema = {
  name: 'without-json-schema',
  setup(bundle) {
    const filter = /zod[\\/]v4[\\/]core[\\/](json-schema-(processors|generator)|to-json-schema)\.js$/;
    bundle.onLoad({ filter }, ({ path }) => ({
      contents: readFileSync(path, 'utf8').replace(/[^]*?^export (?:const|function|class) (\w+)|[^]+/gm, (_, name) =>
        name === undefined ? '' : `export const ${name} = () => ({});\n`,
      ),
    }));
  },
};

/** One entry for each library, with the names our files use. */
const entries = {
  name: 'entries',
  setup(bundle) {
    bundle.onResolve({ filter: /^entry:/ }, ({ path }) => ({ path: path.slice('entry:'.length), namespace: 'entry' }));
    bundle.onLoad({ filter: /.*/, namespace: 'entry' }, async ({ path }) => ({
      contents: await entryOf(path),
      resolveDir: join(root, 'app'),
    }));
  },
};

export async function buildLibraries() {
  const outdir = join(root, 'app/metro/built');
  rmSync(outdir, { recursive: true, force: true });
  await build({
    entryPoints: LIBRARIES.map((library) => ({ in: `entry:${library}`, out: fileOf(library) })),
    outdir,
    bundle: true,
    splitting: true,
    chunkNames: 'shared-[hash]',
    minifySyntax: true,
    format: 'esm',
    target: 'es2022',
    mainFields: ['module', 'main'],
    conditions: ['module', 'browser', 'import'],
    external: ['react', 'react/jsx-runtime', 'react-dom', 'react-native', 'react-native-web'],
    define: { 'process.env.NODE_ENV': '"production"', 'process.env.TAMAGUI_TARGET': '"web"' },
    plugins: [entries, withoutJsonSchema],
    logLevel: 'error',
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildLibraries();
