// One current picture of each main view, from the demo: npm run screenshots (after npm run build).

import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = `${root}docs/screenshots`;
const PORT = 4779;

const server = spawn(process.execPath, ['server/bin/hovlix.mjs', 'serve', '--demo', '--port', String(PORT)], {
  cwd: root,
});
await new Promise<void>((resolve) => server.stdout.once('data', () => resolve()));
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--autoplay-policy=no-user-gesture-required',
    '--disable-background-networking',
    '--no-first-run',
  ],
});

const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

async function shot(
  name: string,
  size: typeof PHONE,
  path: string,
  prepare?: (page: Page) => Promise<void>,
): Promise<void> {
  const page = await browser.newPage({ viewport: size });
  await page.goto(`http://localhost:${PORT}${path}`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await prepare?.(page);
  // Pictures of looks and ribbons are drawn by a worker; the page has no event for “all drawn”.
  await page.waitForTimeout(1800);
  await page.screenshot({ path: `${folder}/${name}.png` });
  await page.close();
}

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
/** Plays from a bar and lets go of it. */
async function playFrom(page: Page, bar: number): Promise<void> {
  for (let at = 1; at <= bar; at++) await page.keyboard.press('ArrowRight');
  await press(page, 'Play from here');
  await page.keyboard.press('Escape');
}

await shot('song', PHONE, '/songs/paper-lighthouse', (page) => playFrom(page, 17));
await shot('songs', PHONE, '/songs');
await shot('gig', PHONE, '/gig');
await shot('links', PHONE, '/links', async (page) => void (await page.getByText('Universe 1 arrives').waitFor()));
await shot('song-wide', WIDE, '/songs/paper-lighthouse', async (page) => {
  await page.getByRole('button', { name: 'Bar 19', exact: true }).click();
});
await shot(
  'rig',
  PHONE,
  '/rig',
  async (page) => void (await page.getByRole('button', { name: 'Spot 1, address 37' }).first().click()),
);
await shot('song-bars', PHONE, '/songs/paper-lighthouse', async (page) => {
  await page.getByRole('button', { name: 'Pause' }).click();
  await press(page, 'Bar 5');
  await press(page, 'Bar 8');
});
await shot(
  'looks',
  PHONE,
  '/looks',
  async (page) => void (await page.getByRole('button', { name: 'Full sail, off' }).click()),
);
await shot('looks-day', WIDE, '/songs', async (page) => {
  await press(page, 'Day theme');
  await page.getByRole('link', { name: 'Looks' }).click();
});
await browser.close();
server.kill('SIGTERM');
