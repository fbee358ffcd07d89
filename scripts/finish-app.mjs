// After Metro: bundles the workers into app/dist, says in the page where they are, fetches ahead what other places need,
// writes the service worker with the list of what it keeps, and compresses everything for the wire.

import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { build } from 'esbuild';
import { buildWorkers } from './build-workers.mjs';
import { splitShared } from './split-shared.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const dist = join(root, 'app/dist');

const files = () =>
  readdirSync(dist, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name).slice(dist.length).replaceAll('\\', '/'))
    .sort();

const workers = await buildWorkers(join(dist, 'workers'), '[name]-[hash]');
tellPage();
await writeServiceWorker();
await compress();

/** Workers have names that change with their contents; the chunks of other places are fetched when the page is idle. */
function tellPage() {
  const page = join(dist, 'index.html');
  const { html, alsoNeeded } = splitShared(dist, readFileSync(page, 'utf8'));
  const later = files().filter((file) => /^\/_expo\/.*\.js$/.test(file) && !html.includes(file));
  const head = [
    ...Object.entries(workers).map(([name, file]) => `<link data-worker="${name}" href="/workers/${basename(file)}">`),
    // Every place needs the layout, and asks for it late.
    ...later
      .filter((file) => file.includes('/_layout-'))
      .map((file) => `<link rel="preload" as="script" href="${file}">`),
    `<link rel="modulepreload" href="/workers/${basename(workers.light)}">`,
    ...later.map((file) => `<link data-later as="script" href="${file}">`),
    '<meta name="service-worker" content="/sw.js">',
    `<script type="application/json" id="also-needed">${JSON.stringify(alsoNeeded)}</script>`,
  ];
  writeFileSync(page, html.replace('</head>', `${head.join('\n')}\n</head>`));
}

async function writeServiceWorker() {
  // The demo's music is kept with its show, not with the app.
  const kept = files().filter((file) => !/^\/(demo\/|metadata\.json)/.test(file));
  const list = kept.map((url) => ({
    url,
    // A name with a hash of its contents needs no other sign.
    revision: /^\/_expo\/|^\/workers\/|^\/assets\//.test(url) ? null : hashOf(readFileSync(join(dist, url))),
  }));
  await build({
    entryPoints: [join(root, 'app/src/host/offline/service-worker.ts')],
    outfile: join(dist, 'sw.js'),
    bundle: true,
    minify: true,
    platform: 'browser',
    target: 'es2022',
    define: { FILES: JSON.stringify(list), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  });
}

function hashOf(bytes) {
  return createHash('sha256').update(bytes).digest('hex').slice(0, 16);
}

/** Written beside each file as .br and .gz, where that makes it smaller. */
async function compress() {
  const worth = files().filter((file) => /\.(js|css|html|svg|json|webmanifest|ico)$/.test(file));
  await Promise.all(
    worth.map(async (file) => {
      const bytes = await readFile(join(dist, file));
      const brotli = { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } };
      const packed = {
        br: await promisify(brotliCompress)(bytes, brotli),
        gz: await promisify(gzip)(bytes, { level: 9 }),
      };
      for (const [ending, small] of Object.entries(packed)) {
        if (small.length < bytes.length) await writeFile(join(dist, `${file}.${ending}`), small);
        else rmSync(join(dist, `${file}.${ending}`), { force: true });
      }
    }),
  );
}
