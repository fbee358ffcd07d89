import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from './screens';

const start = fileURLToPath(new URL('../../start', import.meta.url));

/** Runs ./start until it has printed a line or ended. */
function firstWords(
  args: readonly string[],
): Promise<{ out: string; err: string; code: number | null; stop: () => void }> {
  return new Promise((resolve) => {
    const child = spawn(start, [...args], { stdio: ['ignore', 'pipe', 'pipe'] });
    let [out, err] = ['', ''];
    const done = (code: number | null) => resolve({ out, err, code, stop: () => child.kill('SIGTERM') });
    child.stdout.on('data', (part) => {
      out += part;
      if (out.includes('\n')) done(null);
    });
    child.stderr.on('data', (part) => (err += part));
    child.on('exit', done);
  });
}

test('a second ./start builds nothing and prints one address', async () => {
  const begun = Date.now();
  const run = await firstWords(['--port', '4769']);
  expect(run.out).toBe('Hovlix: http://localhost:4769\n');
  expect(run.err).toBe('');
  // A build takes minutes; this bound only tells the two apart.
  expect(Date.now() - begun).toBeLessThan(30_000);
  run.stop();
});

test('while another start builds in the folder, a start waits for it', async () => {
  const building = fileURLToPath(new URL('../../.cache/building', import.meta.url));
  writeFileSync(building, String(process.pid));
  const child = spawn(start, ['--port', '4769'], { stdio: ['ignore', 'pipe', 'pipe'] });
  let [out, err] = ['', ''];
  child.stdout.on('data', (part) => (out += part));
  child.stderr.on('data', (part) => (err += part));
  await expect.poll(() => err).toMatch(/^Hovlix: another start installs or builds in this folder\..*\n$/);
  expect(out).toBe('');
  rmSync(building);
  await expect.poll(() => out, { timeout: 30_000 }).toBe('Hovlix: http://localhost:4769\n');
  child.kill('SIGTERM');
});

test('what a start left behind that was ended holds nobody up', async () => {
  const building = fileURLToPath(new URL('../../.cache/building', import.meta.url));
  const gone = spawn(process.execPath, ['--version'], { stdio: 'ignore' });
  await once(gone, 'exit');
  writeFileSync(building, String(gone.pid));
  const run = await firstWords(['--port', '4769']);
  expect(run).toMatchObject({ out: 'Hovlix: http://localhost:4769\n', err: '' });
  run.stop();
});

test('a taken port is one clear line', async ({ baseURL }) => {
  const run = await firstWords(['--port', new URL(baseURL!).port]);
  expect(run.code).toBe(1);
  expect(run.err).toMatch(/^Hovlix: Port \d+ is taken\..*\n$/);
});
