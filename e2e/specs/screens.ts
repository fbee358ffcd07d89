// The browser of the specs. Its windows are kept for all tests of a run, so that scripts which one test compiled are
// not compiled again for the next; what a page has stored is cleared before each test, as if nobody had been there.

import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect as plain, test as base, type BrowserContext, type BrowserType, type Page } from '@playwright/test';
import { restoreConnections, restoreShow } from './hovlix';

/** Often at first, and often enough after: by itself it would ask after 0.85, 1.85 and 2.85 s and not between. */
const intervals = [30, 70, 100, 150, 200];
const poll: typeof plain.poll = (asked, how) =>
  plain.poll(asked, { intervals, ...(typeof how === 'string' ? { message: how } : how) });

/** As Playwright's, but for how often `poll` asks. */
export const expect = new Proxy(plain, { get: (all, name) => (name === 'poll' ? poll : Reflect.get(all, name)) });

type Options = Parameters<BrowserType['launchPersistentContext']>[1];
type Window = { readonly context: BrowserContext; readonly origins: Set<string>; readonly first: Page };
type Opens = { readonly open: (options: Options) => Promise<Window> };
/** All that a page stores but for what makes it fast. */
const STORED = 'cookies,file_systems,indexeddb,local_storage,shared_storage,websql';

export const test = base.extend<
  { readonly fresh: boolean; readonly other: Page },
  { readonly windows: { readonly one: Opens; readonly two: Opens } }
>({
  /** For a test that is about what a first visit loads: a window of its own, in which nothing was ever fetched. */
  fresh: [false, { option: true }],
  windows: [
    async ({ playwright, launchOptions }, give) => {
      const opens = (): Opens & { readonly close: () => Promise<void> } => {
        // Only a browser with a folder of its own keeps what it compiled.
        const folder = mkdtempSync(join(tmpdir(), 'hovlix-browser-'));
        let window: Window | undefined;
        return {
          open: async (options) =>
            (window ??= opened(
              await playwright.chromium.launchPersistentContext(folder, { ...launchOptions, ...options }),
            )),
          close: async () => {
            await window?.context.close();
            rmSync(folder, { recursive: true, force: true });
          },
        };
      };
      const [one, two] = [opens(), opens()];
      await give({ one, two });
      await Promise.all([one.close(), two.close()]);
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, fresh, windows, baseURL, viewport, serviceWorkers }, give) => {
    if (fresh) {
      const context = await browser.newContext();
      await give(context);
      return context.close();
    }
    const one = await windows.one.open({ baseURL: baseURL!, viewport, serviceWorkers });
    await give(one.context);
    await allClosed(one);
  },
  page: async ({ context, fresh, windows }, give, { retry }) => {
    const page = await context.newPage();
    if (!fresh) await forget(await windows.one.open({}), page);
    // What a first try left on the server that specs share must not fail the second.
    if (retry > 0 && process.env['HOVLIX_SPECS'] !== 'own') {
      await restoreShow(page);
      await restoreConnections(page);
    }
    await give(page);
  },
  /** A second screen that shares nothing with the first but the server. */
  other: async ({ windows, baseURL, viewport, serviceWorkers }, give) => {
    const two = await windows.two.open({ baseURL: baseURL!, viewport, serviceWorkers });
    const page = await two.context.newPage();
    await forget(two, page);
    await give(page);
    await allClosed(two);
  },
});

function opened(context: BrowserContext): Window {
  const origins = new Set<string>();
  context.on('page', (page) =>
    page.on('framenavigated', (frame) => {
      if (/^https?:/.test(frame.url())) origins.add(new URL(frame.url()).origin);
    }),
  );
  return { context, origins, first: context.pages()[0]! };
}

async function forget({ context, origins }: Window, page: Page): Promise<void> {
  const line = await context.newCDPSession(page);
  for (const origin of origins) await line.send('Storage.clearDataForOrigin', { origin, storageTypes: STORED });
  await line.detach();
}

/** The empty page it began with stays: without any page a browser ends. */
async function allClosed({ context, first }: Window): Promise<void> {
  for (const page of context.pages()) if (page !== first) await page.close();
}
