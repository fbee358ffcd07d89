// Hit kits: struck on pads, with keys, and over MIDI.

import type { Page } from '@playwright/test';
import { button, listen, nodeReport, open, restoreConnections, restoreShow, typed } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

/** The brightest of the front lamps' dimmers, and each of them. */
const fronts = async (page: Page) => {
  const { levels } = await nodeReport(page);
  return [0, 6, 12, 18].map((at) => levels[at]!);
};

test('a drum kit is made, played with the finger and with keys, and changed; a hit ends when it says', async ({
  page,
}) => {
  await open(page, '/looks');
  await button(page, 'Hit kits 1').click();
  await button(page, 'Drum kit').click();
  await expect(page.getByRole('heading', { name: 'Drums 2' })).toBeVisible();
  // It plays the front wash to begin with. Long enough to be looked at:
  await button(page, 'Change Kick').click();
  const sheet = page.getByRole('dialog', { name: 'Kick' });
  await sheet
    .getByRole('group', { name: 'Falls in', exact: true })
    .getByRole('button', { name: 'Milliseconds' })
    .click();
  await typed(page, 'Falls in', '2000');
  await sheet.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText('36 (C2) · falls in 2000 ms')).toBeVisible();
  await button(page, 'Strike Kick').click({ position: { x: 40, y: 10 } });
  const heard = (await listen(page, 3)).map(({ levels }) => levels[0]!);
  expect(Math.max(...heard)).toBeGreaterThan(200);
  expect(heard.at(-1)).toBe(0);
  // Near the lower edge it is soft.
  await button(page, 'Strike Kick').click({ position: { x: 40, y: 95 } });
  const soft = (await listen(page, 1)).map(({ levels }) => levels[0]!);
  expect(Math.max(...soft)).toBeGreaterThan(10);
  expect(Math.max(...soft)).toBeLessThan(120);

  // The snare while it is held, by key: every other lamp.
  await button(page, 'Change Snare').click();
  await page.getByRole('dialog').getByRole('button', { name: 'While held' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await button(page, 'Strike Snare').focus();
  await page.keyboard.down('Enter');
  await expect.poll(() => fronts(page)).toEqual([230, 0, 230, 0]);
  await page.waitForTimeout(1200);
  expect(await fronts(page)).toEqual([230, 0, 230, 0]);
  await page.keyboard.up('Enter');
  await expect.poll(() => fronts(page)).toEqual([0, 0, 0, 0]);

  // Undone like everything else: the snare runs its course again.
  await page.keyboard.press('Control+z');
  await button(page, 'Change Snare').click();
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Fixed length' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('MIDI plays each kit on the role its channel is given to; what is no note is not heard', async ({ page }) => {
  await page.addInitScript(() => {
    const input = { name: 'Barrel pad', onmidimessage: null as ((event: { data: Uint8Array }) => void) | null };
    const access = { inputs: new Map([['1', input]]), outputs: new Map(), onstatechange: null };
    navigator.requestMIDIAccess = async () => access as unknown as MIDIAccess;
    (window as unknown as { send: (...bytes: number[]) => void }).send = (...bytes) =>
      input.onmidimessage?.({ data: Uint8Array.from(bytes) });
  });
  const send = (...bytes: number[]) =>
    page.evaluate((data) => (window as unknown as { send: (...all: number[]) => void }).send(...data), bytes);
  await open(page, '/looks/kits/barrel-drums');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await expect(page.getByText('Listens to Barrel pad.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a channel' }).click();
  await page.getByLabel('MIDI channel').last().selectOption({ label: 'Channel 3' });
  await page.getByLabel('plays on').last().selectOption({ label: 'Front wash' });
  await button(page, 'Change Crash').click();
  await page.getByRole('dialog').getByRole('button', { name: 'While held' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  // Channel 3 is 2 on the wire; the crash is note 49.
  await send(0x92, 49, 127);
  await expect.poll(() => fronts(page)).toEqual([255, 255, 255, 255]);
  await expect(page.getByText('Last note: 49 (C♯3) on channel 3.')).toBeVisible();
  // Half a message, a clock tick, a controller, another channel: nothing of that lets go.
  for (const bytes of [[0x82], [0xf8], [0xb2, 49, 0], [0x84, 49, 0], [0x82, 200, 0]]) await send(...bytes);
  await page.waitForTimeout(300);
  expect(await fronts(page)).toEqual([255, 255, 255, 255]);
  // A note on with no velocity lets go, as a note off does.
  await send(0x92, 49, 0);
  await expect.poll(() => fronts(page)).toEqual([0, 0, 0, 0]);

  // A storm of ten thousand notes: the page and the light stay alive, and the last note is seen.
  await page.evaluate(() => {
    const { send: strike } = window as unknown as { send: (...all: number[]) => void };
    for (let i = 0; i < 10000; i++) strike(0x92, [36, 38, 42, 46, 45][i % 5]!, 1 + (i % 127));
  });
  // Flash safety keeps the light of a storm down; a second later there is room again.
  await page.waitForTimeout(1100);
  await send(0x92, 49, 127);
  await expect.poll(() => fronts(page)).toEqual([255, 255, 255, 255]);
  await expect.poll(async () => (await nodeReport(page)).framesPerSecond).toBeGreaterThan(35);
});
