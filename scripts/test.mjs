// ./test: everything that must hold. `./test unit` leaves the browser out.
// What types and lint look at is there as soon as it is installed: both run beside the build. The browser, and the server's
// tests, wait half of the time: what needs neither ports nor clocks runs beside them, and behind them where both want a processor. Specs with servers of their own come beside the others, before all that; those
// that no clock decides come behind.

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
/** How long each part took, what needed a second try, and what is wrong: told at the end, where it is found. */
const parts = [];
const again = [];
const wrong = [];
/** How many of its last lines are told of a check that does not hold. */
const LAST_LINES = 12;

async function timed(name, work) {
  const begun = Date.now();
  const fine = await work();
  parts.push(`${name} ${((Date.now() - begun) / 60_000).toFixed(1)} min`);
  return fine;
}

/** A check that holds or does not, as one test. */
const check = (name, script) =>
  timed(name, async () => {
    const said = [];
    if (await ended(['npm', 'run', '--silent', script], { name, yields: true, said })) passed++;
    else fail(name, said.slice(-LAST_LINES).join('\n    '));
  });

/** One thing that does not hold. */
function fail(what, why) {
  failed++;
  wrong.push(`${what}: ${why}`);
}

/** Jest counts its tests into a file; a run that dies without one counts as one failure. */
const jest = (workspace, how = {}) =>
  timed(workspace, async () => {
    const file = join(results, `${workspace}.json`);
    // Jest leaves one processor free, which is half of two.
    const words = ['npx', 'jest', '--ci', '--silent', '--maxWorkers=100%', `--outputFile=${file}`, '--json'];
    const fine = await ended(words, { ...how, name: workspace, cwd: join(root, workspace), quiet: true });
    if (!existsSync(file)) return fail(workspace, 'ended before its last test');
    const { numPassedTests, testResults } = JSON.parse(readFileSync(file, 'utf8'));
    const before = failed;
    for (const { name, message, status, assertionResults } of testResults) {
      for (const { fullName, status, invocations = 1, retryReasons = [], failureMessages } of assertionResults) {
        const test = `${basename(name)} › ${fullName}`;
        if (status === 'failed') fail(test, firstLines(failureMessages[0]));
        if (status === 'passed' && invocations > 1) again.push(`${test}: ${firstLine(retryReasons[0])}`);
      }
      if (status === 'failed' && assertionResults.length === 0) fail(basename(name), firstLines(message));
    }
    passed += numPassedTests;
    if (!fine && failed === before) fail(workspace, 'ended with an error after its last test');
  });

const firstLines = (text = '', lines = LAST_LINES) =>
  text
    .replace(/\u001b\[\d+m/g, '')
    .split('\n')
    .slice(0, lines)
    .join('\n    ');
const firstLine = (text) => firstLines(text, 1);

/** What the lanes of specs are called. */
const LANES = { shared: 'browser', own: 'browser, own servers', calm: 'browser, no clock' };

/** The real interface: specs that share a server, those with servers of their own, or those that no clock decides. */
const browser = (lane, how = {}) => {
  const name = LANES[lane];
  return timed(name, async () => {
    if (!existsSync(SHELL) && !existsSync(CHROMIUM)) {
      console.error('Chromium could not be installed (apt-get install chromium-headless-shell, or chromium).');
      return fail(name, 'no Chromium');
    }
    const file = join(results, `e2e-${lane}.json`);
    const env = { HOVLIX_RESULTS: file, HOVLIX_SPECS: lane };
    const fine = await ended(['npx', 'playwright', 'test'], { ...how, name, cwd: join(root, 'e2e'), env });
    if (!existsSync(file)) return fail(name, 'ended before its last test');
    const report = JSON.parse(readFileSync(file, 'utf8'));
    const before = failed;
    for (const { test, why } of browserTests(report, 'flaky')) again.push(`${test}: ${firstLine(why)}`);
    for (const { test, why } of browserTests(report, 'unexpected')) fail(test, firstLines(why));
    passed += report.stats.expected + report.stats.flaky;
    if (!fine && failed === before) fail(name, 'ended with an error after its last test');
  });
};

/** Browser tests that are `flaky` (they passed at their second try only) or `unexpected` (they failed), and their first error. */
function browserTests({ suites = [], specs = [] }, wanted) {
  const here = specs.flatMap(({ title, file, tests }) =>
    tests
      .filter(({ status }) => status === wanted)
      .map(({ results: [first] }) => ({ test: `${file} › ${title}`, why: first?.error?.message ?? first?.status })),
  );
  return [...here, ...suites.flatMap((suite) => browserTests(suite, wanted))];
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

/** Types and lint, which need no build. */
async function read() {
  await check('types', 'typecheck');
  await check('lint and format', 'lint');
}

/** What needs neither ports nor clocks. */
async function quietly() {
  if (all) await browser('calm', { yields: true });
  await jest('core', { yields: true });
  await jest('app', { yields: true });
}

const starts = (name, only) =>
  timed(name, async () => {
    const fine = await ended([process.execPath, 'scripts/start.mjs', only], { name });
    if (!fine) fail(name, 'see above');
    return fine;
  });

async function everything() {
  const [installed] = await Promise.all([
    starts('install', '--install-only'),
    // Reads MIDI files that we wrote.
    programs(['/usr/bin/midicsv', 'midicsv']).then(() => all && browserPrograms()),
  ]);
  if (!installed) return;
  const reading = read();
  if (await starts('build', '--build-only')) {
    await jest('server');
    await Promise.all([all && browser('shared'), Promise.resolve(all && browser('own')).then(quietly)]);
  }
  await reading;
}

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
await timed('all', everything);
console.log(`\n${parts.join(', ')}`);
for (const one of again) console.log(`passed at the second try only: ${one}`);
for (const one of wrong) console.log(`failed: ${one}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
