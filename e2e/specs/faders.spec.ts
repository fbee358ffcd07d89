// One attribute of many lamps on faders, in a look and in several steps of a chase at once; and what snaps in a step.

import type { Page } from '@playwright/test';
import { button, nodeReport, open, restoreConnections, restoreShow, tab, tooSmall } from './hovlix';
import { expect, test } from './screens';
import { stumbles } from './stumbles';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

/** The dimmers of the front wash, in percent, as the node heard them. */
const front = async (page: Page) => {
  const { levels } = await nodeReport(page);
  return [0, 6, 12, 18].map((at) => Math.round((levels[at]! / 255) * 100));
};
const fader = (page: Page, place: number) =>
  page.getByRole('group', { name: 'Faders: Level' }).getByRole('slider').nth(place);
/** The figure beside a fader, typed. */
async function put(page: Page, place: number, percent: string): Promise<void> {
  const figure = page.getByRole('group', { name: 'Faders: Level' }).getByRole('textbox').nth(place);
  await figure.fill(percent);
  await figure.press('Enter');
}

/** What a reader would stumble over, and what a finger would miss. */
async function faults(page: Page): Promise<readonly string[]> {
  await page.waitForFunction(() => document.getAnimations().every(({ playState }) => playState !== 'running'));
  return [...(await stumbles(page)), ...(await tooSmall(page))];
}

test('each lamp has its fader: moved alone, with the same distances, all to one place; fine is a tenth', async ({
  page,
}) => {
  await open(page, '/looks/new');
  await button(page, 'Front wash').click();
  await tab(page, 'Faders').click();
  await expect(fader(page, 3)).toBeVisible();
  expect(await faults(page)).toEqual([]);
  for (const [place, percent] of ['80', '60', '40', '20'].entries()) await put(page, place, percent);
  await expect.poll(() => front(page)).toEqual([80, 60, 40, 20]);

  await button(page, 'Keep distances').click();
  await put(page, 1, '70');
  await expect.poll(() => front(page)).toEqual([90, 70, 50, 30]);
  // The first meets the end, and the others stop with it.
  await fader(page, 3).press('End');
  await expect.poll(() => front(page)).toEqual([100, 80, 60, 40]);
  await page.getByRole('switch', { name: 'Fine: a tenth of the way' }).click();
  for (let n = 0; n < 5; n++) await fader(page, 0).press('ArrowLeft');
  await expect(fader(page, 0)).toHaveAttribute('aria-valuetext', '99.5 %');
  await expect(fader(page, 3)).toHaveAttribute('aria-valuetext', '39.5 %');

  await button(page, 'All the same').click();
  await put(page, 2, '50');
  await expect.poll(() => front(page)).toEqual([50, 50, 50, 50]);
  // All alike, they are said to be the role.
  await expect(page.getByRole('region', { name: 'By hand' })).toContainText('Front wash: level');
});

test('chosen steps of a chase go together on faders, and snap or fade by themselves', async ({ page }) => {
  await open(page, '/looks');
  await button(page, 'New chase').click();
  await button(page, 'Add a step').click();
  for (const look of ['Harbour blue', 'Full sail', 'Lift']) await button(page, `Add ${look} as a step`).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  for (const step of [1, 3]) await page.getByRole('checkbox', { name: `Choose step ${step}`, exact: true }).click();
  await button(page, 'Faders …').click();
  const sheet = page.getByRole('dialog', { name: '2 steps on faders' });
  await sheet.getByRole('group', { name: 'Role' }).getByRole('button', { name: 'Front wash' }).click();
  await sheet.getByRole('button', { name: 'All the same' }).click();
  await put(page, 0, '33');
  // The first of them is seen on stage meanwhile.
  await expect.poll(() => front(page)).toEqual([33, 33, 33, 33]);
  for (let place = 0; place < 4; place++) await expect(fader(page, place)).toHaveAttribute('aria-valuenow', '33');
  await sheet.getByRole('button', { name: 'Snap or fade …' }).click();
  expect(await faults(page)).toEqual([]);
  const level = sheet.getByRole('group', { name: 'Level changes' });
  await level.getByRole('button', { name: 'Snaps' }).click();
  await expect(level.getByRole('button', { name: 'Snaps' })).toHaveAttribute('aria-pressed', 'true');
  await sheet.getByRole('button', { name: 'Close' }).click();

  // It is so in both, and not in the one between.
  for (const step of [1, 3]) await page.getByRole('checkbox', { name: `Choose step ${step}`, exact: true }).click();
  for (const [step, own] of [
    [1, 33],
    [2, null],
    [3, 33],
  ] as const) {
    await page.getByRole('checkbox', { name: `Choose step ${step}`, exact: true }).click();
    await button(page, 'Faders …').click();
    await page
      .getByRole('dialog')
      .getByRole('group', { name: 'Role' })
      .getByRole('button', { name: 'Front wash' })
      .click();
    if (own === null) await expect(fader(page, 0)).not.toHaveAttribute('aria-valuenow', '33');
    else await expect(fader(page, 0)).toHaveAttribute('aria-valuenow', String(own));
    await expect(
      page.getByRole('dialog').getByRole('button', { name: own === null ? 'Snap or fade …' : 'Snap or fade (1) …' }),
    ).toBeVisible();
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
    await page.getByRole('checkbox', { name: `Choose step ${step}`, exact: true }).click();
  }

  // Run, the first step is at a third.
  await button(page, 'Run').click();
  await expect.poll(() => front(page)).toContain(33);
  await button(page, 'Stop').click();
});
