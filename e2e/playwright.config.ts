import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { ownWire, wiresOf } from './specs/servers';

/** Debian's Chromium, without its windows where that is to be had: the same engine, which asks less of the processor. */
const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((file) => existsSync(file))!;
process.env['HOVLIX_CHROMIUM'] = CHROMIUM;
/** Specs that start servers of their own, on wires of their own: nothing of them reaches the servers that others share. */
const OWN = /\/(offline|one-show|own-show|static)\.spec\.ts$/;
/** Specs that no clock decides: they may come behind others, and share a server whose wires nobody else hears. */
const CALM = /\/(bad-input|kit|library|long-lists|places|rig|sheets|types)\.spec\.ts$/;
/** `shared`, `calm` or `own`: these specs alone, so that they can run beside each other; else all, one after the other. */
const lane = process.env['HOVLIX_SPECS'] ?? 'all';
const which = {
  own: { testMatch: OWN },
  calm: { testMatch: CALM },
  shared: { testIgnore: [OWN, CALM] },
}[lane];
const PORT = lane === 'calm' ? 4758 : 4757;
/** Outputs and phones of a computer that nobody has used before. */
const HOME = join(tmpdir(), `hovlix-e2e-${lane}`);
if (process.env['TEST_WORKER_INDEX'] === undefined && lane !== 'own') {
  rmSync(HOME, { recursive: true, force: true });
  mkdirSync(HOME, { recursive: true });
  if (lane === 'calm') ownWire(HOME, PORT);
}
const wires = lane === 'calm' ? ` ${wiresOf(PORT).join(' ')}` : '';

export default defineConfig({
  testDir: 'specs',
  ...which,
  outputDir: `results/${lane}`,
  workers: 1,
  // Long enough for a computer that has a third of its processors: what waits in vain ends late, and what works does not
  // fail there.
  timeout: 240_000,
  // A shared machine may lose its processors for a second in the middle of a test; what fails twice is broken.
  retries: 1,
  expect: { timeout: 30_000 },
  reporter: [
    ['list'],
    ...(process.env['HOVLIX_RESULTS'] ? [['json', { outputFile: process.env['HOVLIX_RESULTS'] }] as const] : []),
  ],
  use: {
    actionTimeout: 60_000,
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 390, height: 844 },
    // Each page would keep the whole app: only the spec that is about it does.
    serviceWorkers: 'block',
    // Recording takes a tenth of the time: what fails is recorded when it is tried again.
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: lane === 'calm' ? join(import.meta.dirname, 'chromium-behind') : CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--autoplay-policy=no-user-gesture-required',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        // A phone calls this computer by its name, over plain http: not a secure context, as in a hall.
        `--host-resolver-rules=MAP ${hostname()}.local 127.0.0.2`,
      ],
    },
  },
  ...(lane === 'own'
    ? {}
    : {
        webServer: {
          command: `../start --port ${PORT} --home ${HOME} --lan-at 127.0.0.2${wires}`,
          url: `http://localhost:${PORT}/api/status`,
          timeout: 600_000,
          reuseExistingServer: false,
        },
      }),
});
