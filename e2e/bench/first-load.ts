// How soon a phone can use Hovlix: on a first visit, and on a second, by a phone a quarter as fast over 10 Mbit/s.

import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { BROWSER, startServer } from './served';

const PORT = 4785;
const SLOWER = 4;
/** 10 Mbit/s each way, 20 ms there and back. */
const NETWORK = { offline: false, downloadThroughput: 1_250_000, uploadThroughput: 1_250_000, latency: 20 };

export type Visit = {
  /** Milliseconds from the request to the first paint, and to the list of songs of the demo. */
  readonly painted: number;
  readonly usable: number;
};

export type FirstLoad = {
  readonly first: Visit;
  readonly second: Visit;
  readonly third: Visit;
  /** Kilobytes over the wire of all scripts of the first visit, and of the largest three with their names. */
  readonly script: number;
  readonly largest: readonly string[];
};

/** Medians of five fresh browsers. Each has a folder, as a phone's has: a private window would keep nothing that it compiled. */
export async function firstLoad(): Promise<FirstLoad> {
  const server = await startServer(PORT, '--demo', '--to', 'sacn:127.0.0.1:6991');
  const visits: Pick<FirstLoad, 'first' | 'second' | 'third'>[] = [];
  let scripts: readonly Script[] = [];
  for (let n = 0; n < 5; n++) {
    const folder = mkdtempSync(join(tmpdir(), 'hovlix-bench-'));
    const browser = await chromium.launchPersistentContext(folder, {
      ...BROWSER,
      viewport: { width: 390, height: 844 },
    });
    const page = browser.pages()[0]!;
    const client = await browser.newCDPSession(page);
    await client.send('Network.enable');
    await client.send('Network.emulateNetworkConditions', NETWORK);
    await client.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    await page.addInitScript(`
      new MutationObserver((_, watch) => {
        if (!document.querySelector('[aria-label="Open Night Ferry"]')) return;
        window.usableAt = performance.now();
        watch.disconnect();
      }).observe(document, { childList: true, subtree: true });
    `);
    const first = await visit(page);
    scripts = await scriptsOf(page);
    // What is kept for later visits has been fetched.
    await page.waitForTimeout(8000);
    const second = await visit(page);
    await page.waitForTimeout(3000);
    visits.push({ first, second, third: await visit(page) });
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
  server.kill();
  const median = (of: (one: (typeof visits)[number]) => number) => visits.map(of).sort((a, b) => a - b)[2]!;
  const largest = [...scripts].sort((a, b) => b.bytes - a.bytes).slice(0, 3);
  return {
    first: { painted: median(({ first }) => first.painted), usable: median(({ first }) => first.usable) },
    second: { painted: median(({ second }) => second.painted), usable: median(({ second }) => second.usable) },
    third: { painted: median(({ third }) => third.painted), usable: median(({ third }) => third.usable) },
    script: scripts.reduce((sum, { bytes }) => sum + bytes, 0) / 1000,
    largest: largest.map(({ name, bytes }) => `${name} ${(bytes / 1000).toFixed(0)} kB`),
  };
}

async function visit(page: Page): Promise<Visit> {
  await page.goto(`http://localhost:${PORT}/songs`);
  await page.getByRole('button', { name: 'Open Night Ferry' }).waitFor();
  return page.evaluate<Visit>(
    `({ usable: window.usableAt, painted: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0 })`,
  );
}

type Script = { readonly name: string; readonly bytes: number };

/** The scripts that ran, not what was fetched ahead for other places. */
const scriptsOf = (page: Page): Promise<readonly Script[]> =>
  page.evaluate<Script[]>(`
    performance.getEntriesByType('resource')
      .filter((one) => one.initiatorType === 'script')
      .map((one) => ({ name: one.name.split('/').pop().replace(/-[0-9a-f]{32}.js$/, ''), bytes: one.encodedBodySize }))
  `);
