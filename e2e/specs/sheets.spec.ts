import type { Page } from '@playwright/test';
import { open, tooSmall } from './hovlix';
import { openPlace, stillAgain, turnTo } from './places';
import { expect, test } from './screens';
import { stumbles } from './stumbles';

/** What lies over a place: where it is, and what is pressed to open it. */
const SHEETS: readonly (readonly [string, string, ...(string | RegExp)[]])[] = [
  ['a song in the list', '/songs', 'More about Night Ferry'],
  ['a new song', '/songs', 'Song without music'],
  ['about a song', '/songs/night-ferry', /^Night Ferry/],
  ['bars and tempo', '/songs/night-ferry', 'Bars and tempo'],
  ['lanes', '/songs/night-ferry', 'Lanes'],
  ['bars that are chosen', '/songs/night-ferry', 'Bar 3'],
  ['a look', '/looks', /^More about Full sail/],
  ['lamps to add', '/rig', 'Add lamps'],
  ['the lamp list', '/rig', 'List'],
  ['roles', '/rig', 'Roles'],
  ['the rig check', '/rig', 'Check'],
  ['the set list', '/gig', 'Set list'],
  ['on stage', '/gig', 'On stage: lock, large letters, pedals'],
  ['banks', '/gig', 'Change the banks'],
  ['an output', '/connect', 'Add output'],
  ['an input', '/connect', 'Add input'],
  ['masters', '/looks', /^Grand master, /, 'All masters'],
];

/** Sheets that are fetched when they are opened. */
const FETCHED = ['a song in the list', 'a new song', 'masters'];

const first = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) }).first();

test('nothing a reader would stumble over in what opens over a place, by night and by day', async ({ page }) => {
  test.setTimeout(480_000);
  let there = '';
  for (const [name, path, ...presses] of SHEETS)
    await test.step(name, async () => {
      // What lies over the same place is opened there one after the other.
      if (path !== there) await openPlace(page, path);
      else if (await page.getByRole('dialog').count()) await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
      there = path;
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
      for (const press of presses) await first(page, press).click();
      if (FETCHED.includes(name)) await expect(page.getByRole('dialog')).toBeVisible();
      await stillAgain(page);
      expect(await stumbles(page)).toEqual([]);
      expect(await tooSmall(page)).toEqual([]);
      // By day only the colours are others.
      await turnTo(page, 'day');
      expect(await stumbles(page, 'color-contrast'), 'by day').toEqual([]);
      await turnTo(page, 'night');
    });
});

test('back closes what lies over a place, and only then leaves the place', async ({ page }) => {
  await open(page, '/looks');
  await page.getByRole('link', { name: 'Rig' }).click();
  await expect(page.getByRole('heading', { name: 'Boathouse' })).toBeVisible();
  await first(page, 'Add lamps').click();
  const sheet = page.getByRole('dialog');
  await expect(sheet).toBeVisible();
  await page.goBack();
  await expect(sheet).toHaveCount(0);
  await expect(page).toHaveURL(/\/rig$/);
  // Closed in another way it leaves nothing behind: back goes to the place before.
  await page.getByRole('button', { name: 'List', exact: true }).click();
  await first(page, 'Add lamps').click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(sheet).toHaveCount(0);
  await expect.poll(() => page.evaluate(() => (history.state as { over?: boolean } | null)?.over ?? false)).toBe(false);
  // The place is as it was: what was chosen in it is still chosen.
  await expect(page.getByRole('button', { name: 'Front 1, address 1' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Looks' })).toBeVisible();
  // What was typed counts, as when one closes it.
  await page.getByRole('button', { name: 'More about Harbour blue' }).click();
  await sheet.getByLabel('Name', { exact: true }).fill('Harbour red');
  await page.goBack();
  await expect(sheet).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Harbour red, off' })).toBeVisible();
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: 'Harbour blue, off' })).toBeVisible();
});

test('a sheet that was closed by what was done in it costs no press on the way back', async ({ page }) => {
  await open(page, '/looks');
  await page.getByRole('link', { name: 'Songs' }).click();
  await page.getByRole('button', { name: 'Song without music' }).click();
  await page.getByRole('dialog').getByLabel('Title').fill('Way back');
  await page.getByRole('dialog').getByRole('button', { name: 'Add song' }).click();
  await expect(page.getByRole('heading', { name: 'Way back' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Songs' })).toBeVisible();
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: 'Open Way back' })).toHaveCount(0);
});

test('by keyboard: focus goes into a sheet, goes round in it, and comes back to what opened it', async ({ page }) => {
  await open(page, '/songs');
  const opener = page.getByRole('button', { name: 'Song without music' });
  await opener.focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('dialog');
  await expect(sheet).toBeFocused();
  const inside = () => page.evaluate(() => document.activeElement?.closest('[role="dialog"]') !== null);
  const names = new Set<string>();
  const stops = await sheet.locator('button, input, select').count();
  for (let i = 0; i <= stops; i++) {
    await page.keyboard.press('Tab');
    expect(await inside()).toBe(true);
    names.add(await page.evaluate(() => document.activeElement!.outerHTML.slice(0, 200)));
  }
  expect(names.size).toBe(stops);
  // The first again; back from there is the last.
  await expect(sheet.getByRole('button', { name: 'Close' })).toBeFocused();
  await page.keyboard.press('Shift+Tab');
  await expect(sheet.getByRole('button', { name: 'Add song' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(opener).toBeFocused();
});
