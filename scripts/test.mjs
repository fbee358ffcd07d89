// ./test: everything that must hold. `./test unit` leaves the browser out.

import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const results = join(root, '.cache', 'results');
const wanted = process.argv[2] ?? 'all';
let passed = 0;
let failed = 0;
/** How long each part took, and what needed a second try. */
const parts = [];
const again = [];
let begun = Date.now();
const part = (name) => {
  const minutes = (Date.now() - begun) / 60_000;
  parts.push(`${name} ${minutes.toFixed(1)} min`);
  begun = Date.now();
};

const run = (command, args, options = {}) =>
  spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options, env: { ...process.env, ...options.env } })
    .status === 0;

/** Two at a time: each of them leaves a processor idle. What they say is told one after the other. */
async function checks(named) {
  console.log(`\n== ${named.map(({ name }) => name).join(', ')}`);
  const ends = await Promise.all(
    named.map(
      ({ command, args }) =>
        new Promise((resolve) => {
          const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
          let said = '';
          for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => (said += bytes));
          child.once('close', (code) => resolve({ said, fine: code === 0 }));
        }),
    ),
  );
  for (const { said, fine } of ends) {
    process.stdout.write(said);
    if (fine) passed++;
    else failed++;
  }
  part(named.map(({ name }) => name).join(' and '));
}

/** Jest counts its tests into a file; a run that dies without one counts as one failure. */
function jest(workspace) {
  console.log(`\n== tests of ${workspace}`);
  const file = join(results, `${workspace}.json`);
  // Jest leaves one processor free, which is half of two.
  const fine = run('npx', ['jest', '--ci', '--silent', '--maxWorkers=100%', `--outputFile=${file}`, '--json'], {
    cwd: join(root, workspace),
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (!existsSync(file)) return void failed++;
  const { numPassedTests, numFailedTests, numFailedTestSuites, testResults } = JSON.parse(readFileSync(file, 'utf8'));
  for (const { name, assertionResults } of testResults)
    for (const { fullName, status, invocations = 1, retryReasons = [] } of assertionResults)
      if (status === 'passed' && invocations > 1)
        again.push(`${basename(name)} › ${fullName}: ${firstLine(retryReasons[0])}`);
  passed += numPassedTests;
  failed += Math.max(numFailedTests, numFailedTestSuites, fine ? 0 : 1);
  part(workspace);
}

const firstLine = (text = '') => text.replace(/\u001b\[\d+m/g, '').split('\n')[0];

/** Browser tests that passed at their second try only, with the first line of what was wrong before. */
function flakyIn({ suites = [], specs = [] }) {
  const own = specs.flatMap(({ title, file, tests }) =>
    tests
      .filter(({ status }) => status === 'flaky')
      .map(({ results }) => {
        const why = results[0]?.error?.message ?? results[0]?.status;
        return `${file} › ${title}: ${firstLine(why)}`;
      }),
  );
  return [...own, ...suites.flatMap(flakyIn)];
}

/** Programs that tests use where they are to be had; those tests say so when they are not. Each by its file and package. */
function programs(...all) {
  const missing = all.flatMap(([file, name]) =>
    existsSync(file) || existsSync(file.replace('/usr', '')) ? [] : [name],
  );
  if (missing.length === 0) return;
  console.log(`\n== installing ${missing.join(', ')}`);
  const apt = { stdio: 'ignore', env: { DEBIAN_FRONTEND: 'noninteractive' } };
  run('apt-get', ['update'], apt);
  for (const name of missing) run('apt-get', ['install', '-y', '--no-install-recommends', name], apt);
}

function browser() {
  const SHELL = '/usr/bin/chromium-headless-shell';
  // The dissector, and networks of our own.
  programs([SHELL, 'chromium-headless-shell'], ['/usr/bin/tshark', 'tshark'], ['/usr/sbin/ip', 'iproute2']);
  if (!existsSync(SHELL)) programs(['/usr/bin/chromium', 'chromium']);
  if (!existsSync(SHELL) && !existsSync('/usr/bin/chromium')) {
    console.error('Chromium could not be installed (apt-get install chromium-headless-shell, or chromium).');
    return void failed++;
  }
  console.log('\n== the real interface');
  const file = join(results, 'e2e.json');
  const fine = run('npx', ['playwright', 'test'], { cwd: join(root, 'e2e'), env: { HOVLIX_RESULTS: file } });
  if (!existsSync(file)) return void failed++;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  const { stats } = report;
  again.push(...flakyIn(report));
  part('browser');
  passed += stats.expected + stats.flaky;
  failed += Math.max(stats.unexpected, fine ? 0 : 1);
}

rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
console.log('== install and build');
if (!run(process.execPath, ['scripts/start.mjs', '--build-only'])) failed++;
else {
  part('install and build');
  await checks([
    { name: 'types', command: 'npm', args: ['run', '--silent', 'typecheck'] },
    { name: 'lint and format', command: 'npm', args: ['run', '--silent', 'lint'] },
  ]);
  // Reads MIDI files that we wrote.
  programs(['/usr/bin/midicsv', 'midicsv']);
  for (const workspace of ['core', 'server', 'app']) jest(workspace);
  if (wanted === 'all') browser();
}
console.log(`\n${parts.join(', ')}`);
for (const one of again) console.log(`passed at the second try only: ${one}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
