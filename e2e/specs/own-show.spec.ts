// From nothing to one's own lamps following one's own song, as somebody who has never seen Hovlix.

import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { PROTOCOL } from '@hovlix/core/live';
import { bring, stageBrightness } from './hovlix';
import { freshHome, newScreen, startServer, stopServers } from './servers';
import { expect, test } from './screens';

const recording = readFileSync(fileURLToPath(new URL('../samples/chorus.mp3', import.meta.url)));
const MOST_PRESSES = 12;

test.setTimeout(240_000);
test.afterEach(stopServers);

/** Presses, and counts them; typing into a field counts as one, as it has to be touched. */
function finger(page: Page) {
  let presses = 0;
  return {
    count: () => presses,
    async press(name: string | RegExp) {
      presses++;
      await page.getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) }).click();
    },
    async type(label: string, value: string) {
      presses++;
      await page.getByLabel(label, { exact: true }).fill(value);
    },
    async enter(label: string) {
      presses++;
      await page.getByLabel(label, { exact: true }).press('Enter');
    },
    async file(work: () => Promise<void>) {
      presses++;
      await work();
    },
  };
}

test(`from nothing to my own lamps following my own song, in at most ${MOST_PRESSES} presses`, async ({
  browser,
}, info) => {
  const began = Date.now();
  const server = await startServer(4761);
  const { page, context } = await newScreen(browser, server.base);
  const me = finger(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Your light show starts here' })).toBeVisible();
  await me.press('Begin my own show');
  // Every place says what comes first, and offers it.
  const next = page.getByTestId('next-step');
  for (const place of ['Rig', 'Looks', 'Gig', 'Songs', 'Connect']) {
    await page.getByRole('link', { name: place }).click();
    await expect(next).toContainText('First choose where the light goes out');
    if (place === 'Gig') await expect(page.getByRole('button', { name: 'To the looks', exact: true })).toBeVisible();
  }
  await me.press('On to the lamps');
  await page.getByLabel('Search lamps').fill('LED PAR RGB');
  await me.press(/^LED PAR RGB par/);
  await expect(page.getByLabel('Mode, as set in the lamp’s menu')).toContainText('Red, Green, Blue');
  await me.type('How many', '6');
  await page.keyboard.press('Tab');
  // All that is asked is on the screen at once, down to the button that ends it.
  await expect(page.getByRole('button', { name: 'Add 6 lamps' })).toBeInViewport({ ratio: 1 });
  // Enter adds them, and does nothing more: not what the button says that has the focus by then.
  await me.enter('How many');
  await expect(next).toContainText('Now make looks');
  await me.press('Make three first looks');
  await expect(page.getByRole('button', { name: 'Slow wave, off' })).toBeVisible();
  await me.press('On to the songs');
  await me.file(() => bring(page, 'My song.mp3', recording));
  await me.press('Light it with my looks');
  await expect(page.locator('[data-clip="Full"]').first()).toBeVisible();
  await me.press('Play');
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(12);
  // What leaves is my lamps, following: full at first, in one colour.
  const levels = await page.evaluate(
    (protocol) =>
      new Promise<string>((resolve) => {
        const socket = new WebSocket(`ws://${location.host}/conductor`);
        socket.onopen = () => {
          socket.send(JSON.stringify({ type: 'hello', protocol, screen: 'listener', show: null }));
          socket.send(JSON.stringify({ type: 'watch', universe: 1 }));
        };
        socket.onmessage = (event) => {
          const message = JSON.parse(String(event.data));
          if (message.type !== 'levels' || /^0+$/.test(message.levels)) return;
          socket.close();
          resolve(message.levels);
        };
      }),
    PROTOCOL,
  );
  const lamps = Array.from({ length: 6 }, (_, i) => levels.slice(i * 6, i * 6 + 6));
  expect(new Set(lamps).size).toBe(1);
  expect(lamps[0]).not.toBe('000000');
  expect(me.count()).toBeLessThanOrEqual(MOST_PRESSES);
  const seconds = Math.round((Date.now() - began) / 1000);
  expect(seconds).toBeLessThan(300);
  info.annotations.push({ type: 'presses', description: `${me.count()} presses, ${seconds} s` });
  console.log(`own show: ${me.count()} presses, ${seconds} s`);
  await page.getByRole('button', { name: 'Pause' }).click();

  // The server that starts anew goes on with it; nobody has to open anything.
  await page.waitForTimeout(1000);
  await server.stop();
  const again = await startServer(4761, [], server.home);
  const other = await newScreen(browser, again.base);
  await other.page.goto('/songs');
  await expect(other.page.getByRole('button', { name: 'Open My song' })).toBeVisible();
  await expect(other.page.getByRole('button', { name: 'My show. All shows' })).toBeVisible();
  await context.close();
  await other.context.close();
  await again.stop();
});

test('the first steps can be left and taken up again', async ({ browser }) => {
  const server = await startServer(4762, [], freshHome());
  const { page, context } = await newScreen(browser, server.base);
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin my own show' }).click();
  await page.getByRole('button', { name: 'Leave the first steps' }).click();
  await expect(page.getByTestId('next-step')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: 'My show. All shows' })).toBeVisible();
  await expect(page.getByTestId('next-step')).toHaveCount(0);
  await page.getByRole('button', { name: 'My show. All shows' }).click();
  await page.getByRole('button', { name: 'Go on with the first steps' }).click();
  await page.getByRole('link', { name: 'Looks' }).click();
  await expect(page.getByTestId('next-step')).toBeVisible();
  await context.close();
  await server.stop();
});

test('shows are begun, named, copied, deleted and brought back; a file of one that is here asks', async ({
  browser,
}) => {
  const server = await startServer(4763, ['--demo']);
  const { page, context } = await newScreen(browser, server.base);
  const card = (name: string) => page.getByRole('button', { name: `Open ${name}`, exact: true });
  await page.goto('/songs');
  await expect(page.getByTestId('demo-line')).toContainText('This is the demo');
  await page.getByRole('button', { name: 'Begin my own show' }).click();
  await expect(page.getByRole('button', { name: 'My show. All shows' })).toBeVisible();
  await page.goto('/shows');
  await page.getByRole('button', { name: 'More about My show' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Winter tour');
  await page.keyboard.press('Enter');
  await expect(card('Winter tour')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('winter-tour.hovlix');
  const bytes = readFileSync(await file.path());
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(card('Winter tour, copy')).toBeVisible();

  // The copy was never written to a file: deleting it takes a held press, and can be undone.
  await page.getByRole('button', { name: 'More about Winter tour, copy' }).click();
  await page.getByRole('button', { name: 'Hold to delete' }).click({ delay: 1000 });
  await expect(card('Winter tour, copy')).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(card('Winter tour, copy')).toBeVisible();

  // Changed since it was exported: the file asks, and says which is newer.
  await page.getByRole('button', { name: 'More about Winter tour', exact: true }).click();
  await page.getByLabel('Name', { exact: true }).fill('Summer tour');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  const again = () =>
    page
      .getByLabel('Open a .hovlix file')
      .setInputFiles({ name: 'winter-tour.hovlix', mimeType: 'application/zip', buffer: bytes });
  await again();
  const sheet = page.getByRole('dialog', { name: /is here already/ });
  await expect(sheet).toContainText('The one here is newer');
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await expect(card('Summer tour')).toBeVisible();
  await again();
  await sheet.getByRole('button', { name: 'Keep both' }).click();
  await expect(card('Winter tour, from a file')).toBeVisible();
  await expect(card('Summer tour')).toBeVisible();
  await again();
  await sheet.getByRole('button', { name: 'Replace the one here' }).click();
  await expect(card('Winter tour')).toBeVisible();
  await expect(card('Summer tour')).toHaveCount(0);
  await context.close();
  await server.stop();
});

test('songs are named, moved, copied, counted anew, deleted with undo, searched and sorted', async ({ browser }) => {
  const server = await startServer(4764, ['--demo']);
  const { page, context } = await newScreen(browser, server.base);
  await page.goto('/songs');
  const rows = page.getByRole('button', { name: /^Open / });
  const titles = async () =>
    (await rows.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')!.slice(5)))).join(' | ');
  await expect.poll(titles).toBe('Paper Lighthouse | Salt and Signal | Low Tide Engine | Night Ferry');
  await page.getByRole('button', { name: 'More about Salt and Signal' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Title').fill('Salt');
  await page.keyboard.press('Enter');
  await sheet.getByLabel('Artist').fill('The Läntern Four');
  await page.keyboard.press('Enter');
  await expect(page.getByText('66.0 bpm').first()).toBeVisible();
  await sheet.getByRole('button', { name: 'Double' }).click();
  await expect(page.getByText('132.0 bpm').first()).toBeVisible();
  await sheet.getByRole('button', { name: 'Later' }).click();
  await sheet.getByRole('button', { name: 'Duplicate' }).click();
  await expect.poll(titles).toBe('Paper Lighthouse | Low Tide Engine | Salt | Salt, copy | Night Ferry');
  await page.getByRole('button', { name: 'More about Low Tide Engine' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect.poll(titles).toBe('Paper Lighthouse | Salt | Salt, copy | Night Ferry');
  // What is offered takes back the deletion and nothing else, also after a reload from the spot in every place.
  await page.getByRole('link', { name: 'Looks' }).click();
  await expect(page.getByRole('heading', { name: 'Looks' })).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Undo: delete a song' }).click();
  await page.getByRole('link', { name: 'Songs' }).click();
  await expect.poll(titles).toBe('Paper Lighthouse | Low Tide Engine | Salt | Salt, copy | Night Ferry');
  // Dragged by its handle, to the top.
  const handle = page.getByRole('button', { name: 'Move Night Ferry' });
  const first = page.getByRole('button', { name: 'Move Paper Lighthouse' });
  const [from, to] = [(await handle.boundingBox())!, (await first.boundingBox())!];
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y - 30, { steps: 5 });
  await page.mouse.move(to.x + 20, to.y + 10, { steps: 12 });
  await page.mouse.up();
  await expect.poll(titles).toBe('Night Ferry | Paper Lighthouse | Low Tide Engine | Salt | Salt, copy');
  await page.getByRole('button', { name: 'Undo: move a song' }).click();
  await expect.poll(titles).toBe('Paper Lighthouse | Low Tide Engine | Salt | Salt, copy | Night Ferry');
  await page.getByRole('button', { name: 'Search the songs' }).click();
  await page.getByLabel('Search the songs by title or artist').fill('lantern four');
  await expect.poll(titles).toBe('Salt | Salt, copy');
  await page.getByLabel('Search the songs by title or artist').fill('');
  await page.getByRole('button', { name: 'Title', exact: true }).click();
  await expect.poll(titles).toBe('Low Tide Engine | Night Ferry | Paper Lighthouse | Salt | Salt, copy');
  await context.close();
  await server.stop();
});

test('what could not be read at a start is said in every place, one after the other, until somebody has read it', async ({
  browser,
}) => {
  const home = freshHome();
  const damaged = ['show-demo.json', 'devices.json'];
  for (const name of damaged) writeFileSync(join(home, name), 'half a fi');
  const server = await startServer(4767, ['--demo'], home);
  const { page, context } = await newScreen(browser, server.base);
  await page.goto('/gig');
  const alarm = page.getByTestId('alarm');
  await expect(alarm).toContainText('2 problems');
  const first = (await alarm.textContent())!;
  await alarm.getByRole('button', { name: 'OK', exact: true }).click();
  await expect(alarm).toContainText('A problem');
  await page.getByRole('link', { name: 'Looks' }).click();
  const second = (await alarm.textContent())!;
  expect(second.slice(-20)).not.toBe(first.slice(-20));
  await alarm.getByRole('button', { name: 'OK', exact: true }).click();
  await expect(alarm).toHaveCount(0);
  // Who wants to know finds both where the outputs are.
  await page.getByRole('link', { name: 'Connect' }).click();
  for (const name of damaged) await expect(page.getByText(`${name}.bad`)).toBeVisible();
  await context.close();
  await server.stop();
});
