// ./test: everything that must hold. `./test unit` leaves the browser out.
// The browser, and the server's tests, wait half of the time: what needs neither ports nor clocks runs beside them, and
// behind them where both want a processor. Specs with servers of their own come beside the others, before all that.

import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ended } from './beside.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const results = join(root, '.cache', 'results');
const SHELL = '/usr/bin/chromium-headless-shell';
const CHROMIUM = '/usr/bin/chromium';
const all = (process.argv[2] ?? 'all') === 'all';
let passed = 0;
let failed = 0;
/** How long each part took, and what needed a second try. */
const parts = [];
const again = [];

async function timed(name, work) {
  const begun = Date.now();
  const fine = await work();
  parts.push(`${name} ${((Date.now() - begun) / 60_000).toFixed(1)} min`);
  return fine;
}

/** A check that holds or does not, as one test. */
const check = (name, script) =>
  timed(name, async () => {
    if (await ended(['npm', 'run', '--silent', script], { name, yields: true })) passed++;
    else failed++;
  });

/** Jest counts its tests into a file; a run that dies without one counts as one failure. */
const jest = (workspace, how = {}) =>
  timed(workspace, async () => {
    const file = join(results, `${workspace}.json`);
    // Jest leaves one processor free, which is half of two.
    const words = ['npx', 'jest', '--ci', '--silent', '--maxWorkers=100%', `--outputFile=${file}`, '--json'];
    const fine = await ended(words, { ...how, name: workspace, cwd: join(root, workspace), quiet: true });
    if (!existsSync(file)) return void failed++;
    const { numPassedTests, numFailedTests, numFailedTestSuites, testResults } = JSON.parse(readFileSync(file, 'utf8'));
    for (const { name, assertionResults } of testResults)
      for (const { fullName, status, invocations = 1, retryReasons = [] } of assertionResults)
        if (status === 'passed' && invocations > 1)
          again.push(`${basename(name)} › ${fullName}: ${firstLine(retryReasons[0])}`);
    passed += numPassedTests;
    failed += Math.max(numFailedTests, numFailedTestSuites, fine ? 0 : 1);
  });

const firstLine = (text = '') => text.replace(/\u001b\[\d+m/g, '').split('\n')[0];

/** The real interface: specs that `share` a server, or those with servers of their `own`. */
const browser = (half) => {
  const name = half === 'own' ? 'browser, own servers' : 'browser';
  return timed(name, async () => {
    if (!existsSync(SHELL) && !existsSync(CHROMIUM)) {
      console.error('Chromium could not be installed (apt-get install chromium-headless-shell, or chromium).');
      return void failed++;
    }
    const file = join(results, `e2e-${half}.json`);
    const env = { HOVLIX_RESULTS: file, HOVLIX_SPECS: half };
    const fine = await ended(['npx', 'playwright', 'test'], { name, cwd: join(root, 'e2e'), env });
    if (!existsSync(file)) return void failed++;
    const report = JSON.parse(readFileSync(file, 'utf8'));
    again.push(...flakyIn(report));
    passed += report.stats.expected + report.stats.flaky;
    failed += Math.max(report.stats.unexpected, fine ? 0 : 1);
  });
};

/** Browser tests that passed at their second try only, with the first line of what was wrong before. */
function flakyIn({ suites = [], specs = [] }) {
  const own = specs.flatMap(({ title, file, tests }) =>
    tests
      .filter(({ status }) => status === 'flaky')
      .map(({ results: tries }) => {
        const why = tries[0]?.error?.message ?? tries[0]?.status;
        return `${file} › ${title}: ${firstLine(why)}`;
      }),
  );
  return [...own, ...suites.flatMap(flakyIn)];
}

/** Programs that tests use where they are to be had; those tests say so when they are not. Each by its file and package. */
async function programs(...wanted) {
  const missing = wanted.filter(([file]) => !existsSync(file) && !existsSync(file.replace('/usr', '')));
  if (missing.length === 0) return;
  const apt = { name: 'apt', quiet: true, env: { DEBIAN_FRONTEND: 'noninteractive' } };
  await ended(['apt-get', 'update'], apt);
  for (const [, name] of missing) {
    console.log(`apt │ installing ${name}`);
    await ended(['apt-get', 'install', '-y', '--no-install-recommends', name], apt);
  }
}

async function browserPrograms() {
  // The dissector, and networks of our own.
  await programs([SHELL, 'chromium-headless-shell'], ['/usr/bin/tshark', 'tshark'], ['/usr/sbin/ip', 'iproute2']);
  if (!existsSync(SHELL)) await programs([CHROMIUM, 'chromium']);
}

/** What needs neither ports nor clocks. */
async function quietly() {
  await check('lint and format', 'lint');
  await jest('core', { yields: true });
  await jest('app', { yields: true });
}

async function everything() {
  const [built] = await Promise.all([
    timed('install and build', () => ended([process.execPath, 'scripts/start.mjs', '--build-only'], { name: 'build' })),
    // Reads MIDI files that we wrote.
    programs(['/usr/bin/midicsv', 'midicsv']).then(() => all && browserPrograms()),
  ]);
  if (!built) return void failed++;
  await Promise.all([jest('server'), check('types', 'typecheck')]);
  await Promise.all([all && browser('shared'), Promise.resolve(all && browser('own')).then(quietly)]);
}

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
await timed('all', everything);
console.log(`\n${parts.join(', ')}`);
for (const one of again) console.log(`passed at the second try only: ${one}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
