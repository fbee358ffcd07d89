import { spawn } from 'node:child_process';
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

test('a taken port is one clear line', async ({ baseURL }) => {
  const run = await firstWords(['--port', new URL(baseURL!).port]);
  expect(run.code).toBe(1);
  expect(run.err).toMatch(/^Hovlix: Port \d+ is taken\..*\n$/);
});
