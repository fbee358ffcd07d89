// One current picture of each main view, from the demo: npm run screenshots (after npm run build).

import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { ownWire } from '../specs/servers';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = `${root}docs/screenshots`;
const PORT = 4779;

const home = mkdtempSync(join(tmpdir(), 'hovlix-shots-'));
// On a wire of its own, so that nothing else on this computer hears it.
ownWire(home, PORT);
const args = ['serve', '--demo', '--port', String(PORT), '--home', home];
const server = spawn(process.execPath, ['server/bin/hovlix.mjs', ...args], { cwd: root });
await new Promise<void>((resolve) => server.stdout.once('data', () => resolve()));
process.on('exit', () => server.kill());
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
  // What was said in passing, as of the page before that has gone, belongs to no picture.
  const said = page.getByRole('button', { name: 'OK', exact: true });
  if (await said.isVisible()) {
    await said.click();
    await page.waitForTimeout(200);
  }
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
await shot('gig', PHONE, '/gig', async (page) => {
  await press(page, 'Set list');
  await press(page, 'Go to Paper Lighthouse');
  await page.getByRole('button', { name: 'Full sail, key 2, off' }).click();
  await press(page, 'Go to Chorus 1');
  await press(page, 'Play Paper Lighthouse');
});
await shot('connect', PHONE, '/connect', async (page) => void (await page.getByText('Universe 1 arrives').waitFor()));
await shot('first-lamp', PHONE, '/connect/first', async (page) => {
  await page.getByRole('button', { name: /Framed cable stand-in/ }).click();
  await page.getByText(/live$/).waitFor();
});
await shot('channels', PHONE, '/connect/universe/1', async (page) => {
  await page.getByRole('button', { name: /^Channel 2,/ }).click();
});
await shot('rig', PHONE, '/rig');
await shot('rig-wide', WIDE, '/rig', async (page) => {
  await page.getByRole('button', { name: 'Spot 1 on the plan' }).click();
});
await shot('patch', PHONE, '/rig', async (page) => {
  await press(page, 'List');
  const lamp = (await page.getByTestId('on the ruler: Spot 1').boundingBox())!;
  await page.mouse.click(lamp.x + lamp.width / 2, lamp.y + lamp.height / 2);
});
await shot('recast', PHONE, '/rig', async (page) => {
  await page.getByRole('button', { name: 'Boathouse' }).click();
  await page.getByRole('button', { name: 'Play in Village hall' }).click();
});
await shot('chart', PHONE, '/rig', async (page) => {
  await press(page, 'Add lamps');
  await press(page, 'Paste a chart');
  await page
    .getByLabel('The manual’s chart')
    .fill(
      '1 Pan\n2 Pan fine\n3 Tilt\n4 Tilt fine\n5 Dimmer 0-100%\n6 Shutter 0-9 closed 10-199 strobe slow-fast 200-255 open\n7 Colour wheel 0-15 Open 16-31 Red 32-47 Blue\n8 Wobble',
    );
});
await shot('direction', PHONE, '/looks', async (page) => {
  await page.getByRole('button', { name: 'Full sail, on' }).click();
  await page.getByRole('link', { name: 'Rig' }).click();
  await page.getByRole('button', { name: 'Spot 1 on the plan' }).click();
  await press(page, 'Where does it point?');
  const pad = page.getByRole('slider', { name: 'Steer the beam' });
  for (let i = 0; i < 6; i++) await pad.press('ArrowUp');
  await page.getByRole('button', { name: /^Front left corner/ }).focus();
  await page.keyboard.press('Enter');
});
await shot('song-bars', PHONE, '/songs/paper-lighthouse', async (page) => {
  await page.getByRole('button', { name: 'Pause' }).click();
  await press(page, 'Bar 5');
  await press(page, 'Bar 8');
});
await shot('close-up', PHONE, '/songs/paper-lighthouse', async (page) => {
  await press(page, 'Lanes');
  await press(page, 'Add Rhythm');
  await press(page, 'Close');
  await press(page, 'Bar 9');
  await press(page, 'Bar 10');
  await press(page, 'Rhythm');
  await press(page, 'Fill with the kicks of the music');
  await press(page, 'Snare');
  await press(page, 'Fill with back beats');
  await press(page, 'Hat');
  await press(page, 'Fill with every eighth');
  await press(page, 'Close-up');
});
await shot(
  'looks',
  PHONE,
  '/looks',
  async (page) => void (await page.getByRole('button', { name: 'Full sail, off' }).click()),
);
await shot('look-edit', PHONE, '/looks/undertow', async (page) => {
  await press(page, 'Movers');
  await page.getByRole('tab', { name: 'Waves' }).click();
  await press(page, 'Done');
});
await shot('hits', PHONE, '/looks/kits/barrel-drums', async (page) => {
  await press(page, 'By hand. Release');
  await press(page, 'OK');
});
await shot('chase', PHONE, '/looks/chase/buoys', async (page) => {
  await press(page, 'Run');
});
await shot('shows', PHONE, '/shows', async (page) => {
  await press(page, 'More about Friday at the Boathouse');
  await press(page, 'Duplicate');
  await press(page, 'Close');
});
await shot('looks-day', WIDE, '/settings', async (page) => {
  await press(page, 'Day, for the table');
  await page.getByRole('link', { name: 'Looks' }).click();
});
await browser.close();
server.kill('SIGTERM');
