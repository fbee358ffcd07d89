// Builds what has changed since the last build: the app into app/dist, the command into server/dist.
// `node scripts/build.mjs --force` builds all of it.

import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync } from 'fflate';

const root = fileURLToPath(new URL('..', import.meta.url));
const cache = join(root, '.cache');
const LEFT_OUT = new Set(['node_modules', 'dist', '.expo', 'demo', 'built']);

/** One hash over names and contents of the files below some paths; tests do not count. */
export function hashOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) if (!LEFT_OUT.has(name)) add(join(path, name));
    } else if (!/\.test\.[jt]sx?$/.test(path))
      hash.update(path.slice(root.length)).update('\0').update(readFileSync(path)).update('\0');
  };
  for (const path of paths) add(join(root, path));
  return hash.digest('hex');
}

/** Runs `work` unless the same `paths` were built before and `result` is there. */
function step(name, paths, result, work) {
  const stamp = join(cache, `${name}.stamp`);
  const wanted = hashOf(paths);
  const built = existsSync(stamp) && existsSync(join(root, result)) && readFileSync(stamp, 'utf8') === wanted;
  if (built && !process.argv.includes('--force')) return;
  process.stderr.write(`Hovlix: building the ${name}.\n`);
  work();
  mkdirSync(cache, { recursive: true });
  writeFileSync(stamp, wanted);
}

function run(what, command, args, cwd) {
  const env = { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', CI: '1', NODE_ENV: 'production' };
  const done = spawnSync(command, args, { cwd, env, encoding: 'utf8' });
  if (done.status === 0) return;
  mkdirSync(cache, { recursive: true });
  writeFileSync(join(cache, `${what}.log`), `${done.stdout ?? ''}\n${done.stderr ?? ''}${done.error ?? ''}`);
  process.stderr.write(`Hovlix: building the ${what} failed; .cache/${what}.log says why.\n`);
  process.exit(1);
}

/** The demo's show and the music of its songs as files of their own: a page fetches what it lacks. */
function unpackDemo(folder) {
  rmSync(folder, { recursive: true, force: true });
  for (const [name, bytes] of Object.entries(unzipSync(readFileSync(join(root, 'demo/boathouse.hovlix'))))) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), bytes);
  }
}

step(
  'server',
  ['core/src', 'server/src', 'scripts/build-server.mjs', 'package-lock.json'],
  'server/dist/hovlix.mjs',
  () => run('server', process.execPath, ['scripts/build-server.mjs'], root),
);
step(
  'app',
  [
    'core/src',
    'app/src',
    'app/public',
    'app/index.ts',
    'app/app.json',
    'app/metro.config.js',
    'app/babel.config.js',
    'app/metro',
    'core/package.json',
    'scripts/build-workers.mjs',
    'scripts/finish-app.mjs',
    'scripts/split-shared.mjs',
    'scripts/build-libraries.mjs',
    'package-lock.json',
    'demo/boathouse.hovlix',
  ],
  'app/dist/index.html',
  () => {
    rmSync(join(root, 'app/public/workers'), { recursive: true, force: true });
    unpackDemo(join(root, 'app/public/demo'));
    run('libraries', process.execPath, ['scripts/build-libraries.mjs'], root);
    run(
      'app',
      process.execPath,
      [join(root, 'node_modules/expo/bin/cli'), 'export', '--platform', 'web', '--output-dir', 'dist'],
      join(root, 'app'),
    );
    run('app', process.execPath, ['scripts/finish-app.mjs'], root);
  },
);
