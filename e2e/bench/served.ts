// A server and a browser of a bench's own.

import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Browser } from '@playwright/test';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** Hovlix with an empty home, once it answers. */
export async function startServer(port: number, ...options: readonly string[]): Promise<ChildProcess> {
  const home = mkdtempSync(join(tmpdir(), 'hovlix-bench-'));
  const args = ['server/bin/hovlix.mjs', 'serve', '--port', String(port), '--home', home, ...options];
  const server = spawn(process.execPath, args, { cwd: root });
  await new Promise<void>((resolve) => server.stdout.once('data', () => resolve()));
  return server;
}

export const BROWSER = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking', '--no-first-run'],
};

export const startBrowser = (): Promise<Browser> => chromium.launch(BROWSER);
