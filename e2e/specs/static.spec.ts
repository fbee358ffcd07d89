import { readFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import { stageBrightness } from './hovlix';

// Any static host: files, the page for everything else, nothing that answers.
const dist = fileURLToPath(new URL('../../app/dist', import.meta.url));
const TYPES: Record<string, string> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.woff2': 'font/woff2',
  '.png': 'image/png',
};
let host: Server;
let base: string;

test.beforeAll(async () => {
  host = createServer(async (request, response) => {
    const path = new URL(request.url ?? '/', 'http://x').pathname;
    const file = join(dist, extname(path) ? path : 'index.html');
    const bytes = await readFile(file).catch(() => undefined);
    response.writeHead(bytes ? 200 : 404, { 'content-type': TYPES[extname(file)] ?? 'application/octet-stream' });
    response.end(bytes);
  });
  await new Promise<void>((resolve) => host.listen(0, '127.0.0.1', resolve));
  base = `http://localhost:${(host.address() as AddressInfo).port}`;
});
test.afterAll(() => host.close());

test('without the server everything but output works, and it says so', async ({ page }) => {
  await page.goto(base);
  await expect(page.getByTestId('health')).toHaveText('no output: this browser only');
  await page.getByRole('button', { name: 'Open Night Ferry' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[2-9]/);
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(12);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('link', { name: 'Connect' }).click();
  await expect(page.getByText('This browser conducts by itself')).toBeVisible();
  // Deep links survive a reload here too, and looks, blackout and master act.
  await page.goto(`${base}/looks`);
  await page.getByRole('button', { name: 'House warm, off' }).click();
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(11);
  const lit = await stageBrightness(page);
  await page.getByRole('button', { name: 'Blackout' }).click();
  await expect.poll(() => stageBrightness(page)).toBeLessThan(lit - 1);
});

test('an edit is kept although the page goes without a goodbye right after it', async ({ page, context }) => {
  await page.goto(`${base}/songs/low-tide-engine`);
  await page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await page.getByRole('button', { name: 'Lay Moonrise' }).click();
  await expect(page.locator('[data-clip="Moonrise"]')).toHaveCount(1);
  // The page is torn down at once; no unload handler runs, and no server holds a copy.
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`${base}/songs/low-tide-engine`);
  await expect(again.locator('[data-clip="Moonrise"]')).toHaveCount(1);
});
