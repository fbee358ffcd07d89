// Everything that is bound, and what must not be done by a slip.

import { eachAsItWas } from './as-it-was';
import { bindKey, button, liveNow, nodeReport, open, restoreShow } from './hovlix';
import { expect, test } from './screens';

eachAsItWas();

test('all that is bound stands in one table: searched, sorted, what is bound twice is said, and a control is changed there', async ({
  page,
}) => {
  await open(page, '/gig/pedals');
  await bindKey(page, '2', 'tap the tempo', 'Tap the tempo');
  await button(page, 'All bindings').click();
  await expect(page.getByText('1 thing is bound twice.')).toBeVisible();
  const items = page.getByRole('list', { name: 'All bindings' }).getByRole('listitem');
  await page.getByLabel('Find a binding').fill('key 2');
  await expect(items).toHaveCount(2);
  await expect(items.first()).toContainText('Tap the tempo');
  await expect(items.last()).toContainText('taken by “Switch 2”');
  await page.getByLabel('Find a binding').fill('no such thing');
  await expect(page.getByText('Nothing is bound that way.')).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByLabel('Find a binding').fill('blackout');
  const rows = page.getByRole('table', { name: 'All bindings' }).getByRole('row');
  await expect(rows).toHaveCount(3);
  await page.getByRole('columnheader', { name: 'Where' }).getByRole('button').click();
  await expect(page.getByRole('columnheader', { name: 'Where' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(rows.nth(1)).toContainText('Floor switch');
  await page.getByRole('columnheader', { name: 'Where' }).getByRole('button').click();
  await expect(rows.nth(1)).toContainText('The app');
  await button(page, 'Change key Page Down').click();
  await expect(page.getByRole('dialog', { name: 'Foot' })).toBeVisible();
});

test('a reset by a key: the first press only says so, a second one sends it and lets go by itself', async ({
  page,
}) => {
  const reset = { from: 200, to: 209, does: 'reset', hold: 3 } as const;
  await restoreShow(page, (show) => ({
    ...show,
    profiles: show.profiles.map((one) => ({
      ...one,
      modes: one.modes.map((mode) => ({
        ...mode,
        channels: mode.channels.map((channel) =>
          channel.attribute === 'LampControl' ? { ...channel, ranges: [reset] } : channel,
        ),
      })),
    })),
  }));
  await open(page, '/gig/pedals');
  await bindKey(page, 'F6', 'reset movers', 'Reset Movers');
  // Spot 1 begins at 37: its control channel is 51.
  const control = async () => (await nodeReport(page)).levels[50];
  await page.keyboard.press('F6');
  await page.waitForTimeout(600);
  expect(await control()).toBe(0);
  await page.keyboard.press('F6');
  await expect.poll(control).toBe(205);
  await expect.poll(control).toBe(0);
  // Nothing stays held.
  await expect.poll(async () => (await liveNow()).held).toEqual([]);
});

test('keys choose roles, and the chosen ones take a colour and a level; the mark says which, and gives them back', async ({
  page,
}) => {
  await open(page, '/gig/pedals');
  for (const [key, typed, act] of [
    ['F6', 'choose front wash', 'Choose Front wash'],
    ['F7', 'choose back wash too', 'Choose Back wash too'],
    ['F8', 'chosen red', 'Chosen: Red'],
    ['F9', 'chosen 100', 'Chosen: 100 %'],
  ] as const) {
    await bindKey(page, key, typed, act);
  }
  await page.keyboard.press('F6');
  await expect(button(page, 'Chosen: Front wash. Choose none')).toBeVisible();
  await page.keyboard.press('F8');
  await page.keyboard.press('F9');
  const levels = async () => (await nodeReport(page)).levels;
  await expect.poll(async () => (await levels())[0]).toBe(255);
  await expect.poll(async () => (await levels())[1]! - (await levels())[2]!).toBeGreaterThan(150);
  const back = async () => (await levels()).slice(24, 36).reduce((sum, level) => sum + level, 0);
  expect(await back()).toBe(0);
  await page.keyboard.press('F7');
  await expect(button(page, 'Chosen: Front wash, Back wash. Choose none')).toBeVisible();
  await page.waitForTimeout(300);
  await page.keyboard.press('F9');
  await expect.poll(back).toBeGreaterThan(300);
  await button(page, 'Chosen: Front wash, Back wash. Choose none').click();
  await expect(button(page, /Choose none$/)).toHaveCount(0);
});
