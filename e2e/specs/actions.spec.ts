// A lane of actions: looks started and stopped, masters, blackout, the next song, messages to other gear.

import type { Page } from '@playwright/test';
import { button, open, restoreConnections, restoreShow, settledLight } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

const front = async (page: Page) => {
  const levels = await settledLight(page);
  return Math.max(...[0, 6, 12, 18].map((at) => levels[at]!));
};
const at = async (page: Page, bar: number) => {
  await button(page, `Bar ${bar}`).click();
  const level = await front(page);
  await button(page, 'Clear selection').click();
  return level;
};
const list = (page: Page) => page.getByRole('group', { name: 'Actions' });
async function addLane(page: Page): Promise<void> {
  await button(page, 'Lanes').click();
  await button(page, 'Add Actions').click();
  await button(page, 'Close').click();
}
/** A new action at the start of a bar; its form stays open. */
async function add(page: Page, bar: number, does: string): Promise<void> {
  await button(page, `Bar ${bar}`).click();
  await button(page, 'Actions').click();
  await button(page, 'Add an action').click();
  await page.getByLabel('Does', { exact: true }).selectOption({ label: does });
}
const done = (page: Page) => button(page, 'Clear selection').click();

test('a look is started on a bar and stopped on another, all is dimmed and dark in between; the lamps do it', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  // Nothing else on bars 5 to 12.
  await button(page, 'Bar 5').click();
  await button(page, 'Bar 12').click();
  await button(page, 'Clear').click();
  await done(page);
  expect(await at(page, 6)).toBe(0);
  await addLane(page);
  await add(page, 5, 'Start a look');
  await page.getByLabel('Look', { exact: true }).selectOption({ label: 'Full sail' });
  await expect(list(page)).toContainText('Start Full sail');
  await done(page);
  const full = await at(page, 7);
  expect(full).toBeGreaterThan(60);
  await add(page, 8, 'Set a master');
  await page.getByLabel('Fade, seconds').fill('0');
  await expect(list(page)).toContainText('All light to 50 %');
  await done(page);
  await add(page, 10, 'Blackout');
  await expect(list(page)).toContainText('Blackout on');
  await done(page);
  await add(page, 11, 'Blackout');
  await page.getByRole('group', { name: 'Blackout' }).getByRole('button', { name: 'Off' }).click();
  await done(page);
  await add(page, 12, 'Stop a look');
  await done(page);
  expect(await at(page, 9)).toBeCloseTo(full / 2, -1);
  expect(await at(page, 10)).toBe(0);
  expect(await at(page, 11)).toBeCloseTo(full / 2, -1);
  // Asked again in another order, it is the same light.
  expect(await at(page, 7)).toBe(full);

  // Moved a bar on, and taken out.
  await button(page, 'Bar 10').click();
  await list(page).getByRole('button', { name: 'Blackout on', exact: false }).first().click();
  await page.getByLabel('At bar and beat').fill('9:1');
  await page.keyboard.press('Enter');
  await done(page);
  expect(await at(page, 9)).toBe(0);
  await button(page, 'Bar 9').click();
  await button(page, 'Delete Blackout on').click();
  await done(page);
  expect(await at(page, 9)).toBeCloseTo(full / 2, -1);
  // Muted, none of it is done.
  await button(page, 'Lanes').click();
  await button(page, 'Mute Actions').click();
  await button(page, 'Close').click();
  expect(await at(page, 7)).toBe(0);
});

test('while the song plays other gear gets its messages, and the next song begins where that is asked for', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const sent: number[][] = [];
    const output = { name: 'Amp', send: (bytes: number[]) => sent.push([...bytes]) };
    Object.assign(window, { sent });
    Object.assign(navigator, {
      requestMIDIAccess: () => Promise.resolve({ inputs: new Map(), outputs: new Map([['amp', output]]) }),
    });
  });
  const sent = () => page.evaluate(() => (window as unknown as { sent: number[][] }).sent);
  await open(page, '/songs/salt-and-signal');
  await addLane(page);
  await add(page, 9, 'Send MIDI');
  await page.getByRole('switch', { name: 'MIDI of this screen' }).click();
  await expect(page.getByText('Sends to Amp.')).toBeVisible();
  await page.getByLabel('Channel', { exact: true }).fill('3');
  await page.getByLabel('Program', { exact: true }).fill('12');
  await page.keyboard.press('Enter');
  await expect(list(page)).toContainText('Program 12, channel 3');
  await done(page);
  await add(page, 10, 'Go to a song');
  await page.getByLabel('Song', { exact: true }).selectOption({ label: 'Paper Lighthouse' });
  await done(page);
  await button(page, 'Bar 8').click();
  await button(page, 'Play from here').click();
  await expect.poll(sent).toEqual([[0xc2, 11]]);
  await page.getByRole('link', { name: 'Gig' }).click();
  await expect(page.getByRole('heading', { name: 'Paper Lighthouse' })).toBeVisible();
});
