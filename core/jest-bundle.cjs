// Jest's transformer for tests of core. Jest runs modules in a context of their own, where names of the language, and of
// other modules, are looked up anew at each use. Here each test is one script, with all that it imports, and runs in
// Node's own context: music is heard in three quarters of the time. Before all tests run they are made at once, which
// takes a third of what they take one by one.
const { createHash } = require('node:crypto');
const { existsSync, readdirSync, readFileSync, rmSync } = require('node:fs');
const { join, relative } = require('node:path');
const { buildSync } = require('esbuild');
const inside = require('./jest-esbuild.cjs');

/** What Jest gives to a module, and what only tests know. */
const GIVEN =
  'require, module, exports, __filename, __dirname, console, jest, describe, test, expect, beforeAll, afterAll, beforeEach, afterEach';
/** Seeded once for all tests (`jest.seed.cjs`), or with an entry for `require` that is not their own. */
const EXTERNAL = ['fast-check', 'esbuild', 'sacn', 'artnet-protocol'];

const SOURCES = join(__dirname, 'src');
let sources;
/** A fingerprint of all that a test may import. */
function sourcesNow() {
  if (sources) return sources;
  const hash = createHash('sha256');
  for (const file of [...filesIn(SOURCES), __filename, join(__dirname, '../package-lock.json')])
    hash.update(readFileSync(file));
  return (sources = hash.digest('hex'));
}

const filesIn = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .map((one) => join(one.parentPath ?? one.path, one.name))
    .sort();

/** Jest's clocks stand in for those of its own context. */
const stays = (source, file) => !isTest(file) || source.includes('useFakeTimers');

const isTest = (file) => /\.test\.ts$/.test(file);
/** Where scripts are kept that were made at once. */
const madeIn = (cache) => join(cache, 'scripts', sourcesNow());

const HOW = {
  bundle: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  // A script cannot import by itself: these become calls of `require`.
  supported: { 'dynamic-import': false },
  external: EXTERNAL,
  sourcemap: 'external',
  sourcesContent: false,
  banner: { js: `(function (${GIVEN}) {` },
  footer: { js: '})' },
  logLevel: 'error',
};

/** A test's script, and the map of its lines. */
function scriptOf(file, cache) {
  const made = join(madeIn(cache), relative(SOURCES, file)).replace(/\.ts$/, '.js');
  if (existsSync(made)) return [readFileSync(`${made}.map`, 'utf8'), readFileSync(made, 'utf8')];
  return buildSync({ ...HOW, entryPoints: [file], outfile: `${file}.js`, write: false }).outputFiles.map(
    ({ text }) => text,
  );
}

module.exports = {
  /** Jest calls it before all tests. */
  makeAll({ testPathPattern }, { cacheDirectory }) {
    if (testPathPattern || existsSync(madeIn(cacheDirectory))) return;
    rmSync(join(cacheDirectory, 'scripts'), { recursive: true, force: true });
    const entryPoints = filesIn(SOURCES).filter((file) => isTest(file) && !stays(readFileSync(file, 'utf8'), file));
    buildSync({ ...HOW, entryPoints, outbase: SOURCES, outdir: madeIn(cacheDirectory) });
  },
  getCacheKey(source, file, { configString }) {
    const parts = [source, file, configString, stays(source, file) ? '' : sourcesNow()];
    return createHash('sha256').update(parts.join('\0')).digest('hex');
  },
  process(source, file, { config }) {
    if (stays(source, file)) return inside.process(source, file);
    const [map, script] = scriptOf(file, config.cacheDirectory);
    const run = `require('node:vm').runInThisContext(${JSON.stringify(script)}, { filename: __filename })`;
    // Errors have the test's name for the script's, so that Jest finds their lines by this map.
    return { code: `${run}(${GIVEN});`, map };
  },
};
