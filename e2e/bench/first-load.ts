// How soon a phone can use Hovlix: on a first visit, and on a second, by a phone a quarter as fast over 10 Mbit/s.

import { setTimeout as wait } from 'node:timers/promises';
import { bareBrowser, type BarePage } from './bare-browser';
import { startServer } from './served';

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

/** Medians of five fresh browsers. */
export async function firstLoad(): Promise<FirstLoad> {
  const server = await startServer(PORT, '--demo', '--to', 'sacn:127.0.0.1:6991');
  const visits: Pick<FirstLoad, 'first' | 'second' | 'third'>[] = [];
  let scripts: readonly Script[] = [];
  for (let n = 0; n < 5; n++) {
    const { page, close } = await bareBrowser(390, 844);
    await page.command('Page.enable');
    await page.command('Network.enable');
    await page.command('Network.emulateNetworkConditions', NETWORK);
    await page.command('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    await page.command('Page.addScriptToEvaluateOnNewDocument', { source: TELLING });
    const first = await visit(page);
    // What is kept for later visits has been fetched.
    await wait(8000);
    const second = await visit(page);
    await wait(3000);
    const third = await visit(page);
    visits.push({ first: first.visit, second: second.visit, third: third.visit });
    scripts = first.scripts;
    await close();
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

type Script = { readonly name: string; readonly bytes: number };

/** What the page tells of itself as the list of songs comes: by asking for an address, which can be seen from outside. */
type Tells = { readonly visit: Visit; readonly scripts: readonly Script[] };

const TELLING = `
  if (location.protocol === 'http:')
    new MutationObserver((_, watch) => {
      if (!document.querySelector('[aria-label="Open Night Ferry"]')) return;
      watch.disconnect();
      const usable = performance.now();
      const painted = performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0;
      // The scripts that ran, not what was fetched ahead for other places.
      const scripts = performance.getEntriesByType('resource')
        .filter((one) => one.initiatorType === 'script')
        .map((one) => ({ name: one.name.split('/').pop().replace(/-[0-9a-f]{32}.js$/, ''), bytes: one.encodedBodySize }));
      fetch('/told?' + encodeURIComponent(JSON.stringify({ visit: { usable, painted }, scripts })));
    }).observe(document, { childList: true, subtree: true });
`;

async function visit(page: BarePage): Promise<Tells> {
  const told = new Promise<Tells>((resolve) =>
    page.on('Network.requestWillBeSent', (params) => {
      const [, tells] = (params as { request: { url: string } }).request.url.split('/told?');
      if (tells !== undefined) resolve(JSON.parse(decodeURIComponent(tells)) as Tells);
    }),
  );
  await page.command('Page.navigate', { url: `http://localhost:${PORT}/songs` });
  return told;
}
