// Jest's transformer for tests of core. Jest runs modules in a context of their own, where names of the language, and of
// other modules, are looked up anew at each use. Here each test is one script, with all that it imports, and runs in
// Node's own context: music is heard in three quarters of the time.
const { createHash } = require('node:crypto');
const { readdirSync, readFileSync } = require('node:fs');
const { join } = require('node:path');
const { buildSync } = require('esbuild');
const inside = require('./jest-esbuild.cjs');

/** What Jest gives to a module, and what only tests know. */
const GIVEN =
  'require, module, exports, __filename, __dirname, console, jest, describe, test, expect, beforeAll, afterAll, beforeEach, afterEach';
/** Seeded once for all tests (`jest.seed.cjs`), or with an entry for `require` that is not their own. */
const EXTERNAL = ['fast-check', 'esbuild', 'sacn', 'artnet-protocol'];

let sources;
/** A fingerprint of all that a test may import. */
function sourcesNow() {
  if (sources) return sources;
  const hash = createHash('sha256');
  const files = readdirSync(join(__dirname, 'src'), { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .map((one) => join(one.parentPath ?? one.path, one.name))
    .sort();
  for (const file of [...files, __filename, join(__dirname, '../package-lock.json')]) hash.update(readFileSync(file));
  return (sources = hash.digest('hex'));
}

/** Jest's clocks stand in for those of its own context. */
const stays = (source, file) => !/\.test\.ts$/.test(file) || source.includes('useFakeTimers');

module.exports = {
  getCacheKey(source, file, { configString }) {
    const parts = [source, file, configString, stays(source, file) ? '' : sourcesNow()];
    return createHash('sha256').update(parts.join('\0')).digest('hex');
  },
  process(source, file) {
    if (stays(source, file)) return inside.process(source, file);
    const { outputFiles } = buildSync({
      entryPoints: [file],
      outfile: `${file}.js`,
      bundle: true,
      write: false,
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
    });
    const [map, script] = outputFiles.map(({ text }) => text);
    const run = `require('node:vm').runInThisContext(${JSON.stringify(script)}, { filename: __filename })`;
    // Errors have the test's name for the script's, so that Jest finds their lines by this map.
    return { code: `${run}(${GIVEN});`, map };
  },
};
