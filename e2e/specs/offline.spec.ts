import type { Page } from '@playwright/test';
import { stageBrightness } from './hovlix';
import { startServer, stopServers } from './servers';
import { expect, test } from './screens';

test.use({ serviceWorkers: 'allow', fresh: true });
test.afterEach(stopServers);

/** All that the app needs is on this device. */
const kept = async (page: Page): Promise<void> => {
  await expect
    .poll(() => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state), {
      timeout: 40_000,
    })
    .toBe('activated');
};

test('with its server gone Hovlix opens, plays and is edited; when the server is back it has the edits', async ({
  browser,
}) => {
  const server = await startServer(4801, ['--demo']);
  const context = await browser.newContext({ baseURL: server.base });
  const page = await context.newPage();
  await page.goto('/songs/low-tide-engine');
  await expect(page.getByRole('button', { name: 'Bar 3', exact: true })).toBeVisible();
  await expect(page.getByTestId('health')).toContainText('sending');
  await kept(page);
  await server.stop();

  await page.reload();
  await expect(page.getByTestId('health')).toHaveText('no output: this browser only');
  await page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await page.getByRole('button', { name: 'Lay Moonrise' }).click();
  await expect(page.locator('[data-clip="Moonrise"]')).toHaveCount(1);
  const dark = await stageBrightness(page);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(dark + 3);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  // A place that was never opened is here too.
  await page.getByRole('link', { name: 'Rig' }).click();
  await expect(page.getByRole('heading', { name: 'Boathouse' })).toBeVisible();

  await startServer(4801, ['--demo'], server.home);
  await expect(page.getByTestId('health')).toContainText('sending', { timeout: 30_000 });
  const other = await (await browser.newContext({ baseURL: server.base })).newPage();
  await other.goto('/songs/low-tide-engine');
  await expect(other.locator('[data-clip="Moonrise"]')).toHaveCount(1);
});

test('Hovlix can be installed, and what the conductor answers is never kept', async ({ browser }) => {
  const server = await startServer(4803, ['--demo']);
  const context = await browser.newContext({ baseURL: server.base });
  const page = await context.newPage();
  await page.goto('/songs');
  await kept(page);
  const client = await context.newCDPSession(page);
  const { errors, data } = await client.send('Page.getAppManifest');
  expect(errors).toEqual([]);
  const manifest = JSON.parse(data!) as { readonly icons: readonly { readonly src: string }[] };
  for (const { src } of manifest.icons) expect((await page.request.get(src)).ok()).toBe(true);
  const problems = await client.send('Page.getInstallabilityErrors');
  expect(problems.installabilityErrors.filter(({ errorId }) => errorId !== 'in-incognito')).toEqual([]);
  const addresses = await page.evaluate(async () => {
    const all = await Promise.all((await caches.keys()).map(async (name) => (await caches.open(name)).keys()));
    return all.flat().map(({ url }) => new URL(url).pathname);
  });
  expect(addresses.length).toBeGreaterThan(20);
  expect(addresses.filter((path) => path.startsWith('/api') || path.startsWith('/demo'))).toEqual([]);
});

test('a new version is used at the next start, never in the middle of a show', async ({ browser }) => {
  const server = await startServer(4805, ['--demo']);
  const context = await browser.newContext({ baseURL: server.base });
  const page = await context.newPage();
  await page.goto('/songs');
  await kept(page);
  // As a server with a new version would answer: the page that is open stays as it is.
  await context.route('**/songs', async (route) => {
    const answer = await route.fetch();
    await route.fulfill({
      response: answer,
      body: (await answer.text()).replace('<title>Hovlix', '<title>Newer Hovlix'),
    });
  });
  await page.getByRole('link', { name: 'Looks' }).click();
  await expect(page).toHaveTitle('Hovlix');
  await page.goto('/songs');
  await expect(page).toHaveTitle('Newer Hovlix');
});
