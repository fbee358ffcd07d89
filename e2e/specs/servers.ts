// Servers of a spec's own, so that it may begin with nothing and put on what it likes.

import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { NO_PLAYER } from '@hovlix/core/connect';
import type { Browser, BrowserContext, Page, WebSocketRoute } from '@playwright/test';

const program = fileURLToPath(new URL('../../server/bin/hovlix.mjs', import.meta.url));

export type Server = {
  readonly base: string;
  readonly home: string;
  readonly stop: () => Promise<void>;
  /** Kills the process that serves, so that it can do nothing more; its guard is left. */
  readonly kill: () => void;
};

/** A Hovlix that nobody has used before, or that goes on from a home folder. */
export async function startServer(port: number, options: readonly string[] = [], home = freshHome()): Promise<Server> {
  const args = [program, 'serve', '--port', String(port), '--home', home, ...wiresOf(port), ...options];
  ownWire(home, port);
  const child: ChildProcess = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
  await new Promise<void>((resolve, reject) => {
    // Before its address it may say what it could not read.
    child.stdout!.on('data', (part) => String(part).includes('http') && resolve());
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  const server: Server = {
    base: `http://localhost:${port}`,
    home,
    kill() {
      // The oldest child of the guard; a younger one is in reserve.
      const found = spawnSync('pgrep', ['-o', '-P', String(child.pid)], { encoding: 'utf8' }).stdout;
      process.kill(Number(found), 'SIGKILL');
    },
    stop: () =>
      new Promise((resolve) => {
        running.delete(server);
        if (child.exitCode !== null) return resolve();
        child.once('exit', () => resolve());
        child.kill('SIGTERM');
      }),
  };
  running.add(server);
  return server;
}

const running = new Set<Server>();
/** Ends what a spec that failed left running. */
export const stopServers = async (): Promise<void> => void (await Promise.all([...running].map((one) => one.stop())));

/** Where the light of a server at this port goes, if it has wires of its own. */
const wireOf = (port: number): number => port + 1000;

/** Options for such a server. What is sent to this computer reaches the server that was started last, else. */
export const wiresOf = (port: number): readonly string[] => [
  ...['--to', `sacn:127.0.0.1:${wireOf(port)}`],
  ...['--input-port', String(port * 2 + 2000)],
];

/** The output a new computer has: to itself, on the usual port or, for a server that has its own, on that. */
export function firstOutput(server?: number) {
  const port = server === undefined ? undefined : wireOf(server);
  const way = { protocol: 'sacn', to: '127.0.0.1', network: null, number: 1, priority: 100 };
  return {
    id: 'universe-1-0',
    universe: 1,
    on: true,
    delayMs: 0,
    way: port === undefined ? way : { ...way, port },
  };
}

/** A player is not listened to, at the usual port or, for a server that has its own wires, at one of those. */
export const firstPlayer = (server?: number) =>
  server === undefined ? NO_PLAYER : { ...NO_PLAYER, port: wireOf(server) + 1000 };

/** Its light, and the ports of its stand-in, on ports of their own: the server of other specs hears nothing of it. */
export function ownWire(home: string, server: number): void {
  const first = firstOutput(server);
  const artnet = { protocol: 'artnet', to: '127.0.0.1', network: null, number: 0, port: wireOf(server) + 500 };
  const outputs = [first, { ...first, id: 'universe-1-1', on: false, way: artnet }];
  const text = JSON.stringify({
    format: 'hovlix-connections',
    version: 1,
    sourceName: 'Spec',
    sync: true,
    outputs,
    inputs: [],
    seen: [1],
    player: firstPlayer(server),
  });
  for (const name of ['connect.json', 'connect-demo.json'])
    if (!existsSync(join(home, name))) writeFileSync(join(home, name), text);
}

export const freshHome = (): string => mkdtempSync(join(tmpdir(), 'hovlix-spec-'));

/** A browser nobody has used before, as a screen of a server; its line can be cut and mended. */
export async function newScreen(browser: Browser, base: string): Promise<Screen> {
  const context = await browser.newContext({ baseURL: base, viewport: { width: 390, height: 844 } });
  return screenIn(context);
}

export type Screen = {
  readonly page: Page;
  readonly context: BrowserContext;
  /** Nothing passes any more, and nobody is told: as when a phone leaves the Wi-Fi. */
  readonly cut: () => void;
  readonly mend: () => void;
  /** What it says takes so many ms from now on. */
  readonly slow: (ms: number) => void;
};

export async function screenIn(context: BrowserContext): Promise<Screen> {
  const page = await context.newPage();
  let cut = false;
  let delay = 0;
  await page.routeWebSocket(/\/conductor$/, (route: WebSocketRoute) => {
    if (cut) return void route.close();
    const server = route.connectToServer();
    const pass = (message: string | Buffer) => void (cut || server.send(message));
    route.onMessage((message) => (delay > 0 ? void setTimeout(() => pass(message), delay) : pass(message)));
    server.onMessage((message) => void (cut || route.send(message)));
  });
  return {
    page,
    context,
    cut: () => void (cut = true),
    mend: () => void (cut = false),
    slow: (ms) => void (delay = ms),
  };
}
