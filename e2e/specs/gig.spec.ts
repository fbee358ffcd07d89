// The playing page: banks, pads, next and previous, what is running.

import type { Browser, Locator, Page } from '@playwright/test';
import { Bank } from '@hovlix/core/light';
import { id } from '@hovlix/core/units';
import { tapOn } from './feet';
import { button, listen, liveNow, nodeReport, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

const pad = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Pads' }).getByRole('button', { name: new RegExp(`^${name}, (key \\d, )?(on|off)`) });
/** What the back wash gives: four lamps of red, green and blue from channel 25. */
const light = async (page: Page) =>
  (await nodeReport(page)).levels.slice(24, 36).reduce((sum, level) => sum + level, 0);

test('pads and keys turn looks on and off, next and previous go through the bank, and what is running can be stopped', async ({
  page,
}) => {
  await open(page, '/gig');
  const running = page.getByRole('button', { name: /^What is running/ });
  await pad(page, 'Full sail').click();
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('1');
  await expect(pad(page, 'Harbour blue')).toHaveAttribute('aria-pressed', 'true');
  await expect(running).toHaveText('2 running');

  // Each can be slowed down, and stopped by itself.
  await running.click();
  const sheet = page.getByRole('dialog', { name: 'What is running' });
  await button(page, 'Full sail: half as fast').click();
  await expect(sheet.getByRole('group', { name: 'Full sail', exact: true })).toContainText('1:2');
  await button(page, 'Stop Full sail').click();
  await expect(sheet.getByRole('group')).toHaveCount(1);
  await sheet.getByRole('button', { name: 'All off' }).click();
  await expect(sheet.getByText('No look and no chase is on.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect.poll(() => light(page)).toBe(0);

  // Next crossfades: one is on at a time.
  await button(page, 'Next look: Harbour blue').click();
  await button(page, 'Next look: Full sail').click();
  await expect(pad(page, 'Harbour blue')).toHaveAttribute('aria-pressed', 'false');
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('n');
  await expect(pad(page, 'Full sail, wide')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('p');
  await expect(pad(page, 'Full sail, wide')).toHaveAttribute('aria-pressed', 'false');
  await expect(running).toHaveText('1 running');

  // Where the first digit is written with Shift (French), and where B is another letter (Greek).
  const pressed = (key: string, code: string) =>
    page.evaluate(
      (pressed) => {
        for (const type of ['keydown', 'keyup']) window.dispatchEvent(new KeyboardEvent(type, pressed));
      },
      { key, code },
    );
  await pressed('&', 'Digit1');
  await expect(pad(page, 'Harbour blue')).toHaveAttribute('aria-pressed', 'true');
  await pressed('&', 'Digit1');
  await expect(pad(page, 'Harbour blue')).toHaveAttribute('aria-pressed', 'false');
  const dark = page.getByText('blackout', { exact: true });
  await pressed('β', 'KeyB');
  await expect(dark).toBeVisible();
  await pressed('β', 'KeyB');
  await expect(dark).toHaveCount(0);
});

test('without a song the pads play, and a pedal that led through the set goes through them', async ({ page }) => {
  await restoreShow(page, (show) => ({ ...show, songs: [], sets: [], set: undefined }));
  await open(page, '/gig');
  await expect(page.getByText('No song yet. Pads and pedals play without one.')).toBeVisible();
  const first = page.getByRole('group', { name: 'Pads' }).getByRole('button').first();
  await expect(first).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('group', { name: 'Pedal', exact: true }).getByRole('button').first().click();
  await expect(first).toHaveAttribute('aria-pressed', 'true');
  await button(page, 'To the songs').click();
  await expect(page).toHaveURL(/\/songs$/);
});

test('a bank of one’s own: order, pads that flash or exclude each other, left out by next, and its end', async ({
  page,
}) => {
  await open(page, '/gig');
  await button(page, 'Change the banks').click();
  await button(page, 'Begin empty').click();
  const sheet = page.getByRole('dialog', { name: 'Bank 1' });
  for (const name of ['Embers', 'Lift', 'Moonrise'])
    await sheet.getByLabel('Put in the bank').selectOption({ label: name });
  await button(page, 'Change Embers').click();
  await sheet.getByLabel('When pressed').selectOption({ label: 'On while held' });
  await button(page, 'Change Lift').click();
  await page.getByRole('switch', { name: 'Left out by next and previous' }).click();
  await sheet.getByLabel('One at a time').selectOption({ label: 'Group 2' });
  await button(page, 'Change Moonrise').click();
  await sheet.getByLabel('One at a time').selectOption({ label: 'Group 2' });
  await sheet.getByRole('button', { name: 'Begin again' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();

  // A flash is there while it is pressed, without a fade.
  await pad(page, 'Embers').hover();
  await page.mouse.down();
  await expect(pad(page, 'Embers')).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => light(page)).toBeGreaterThan(100);
  await page.mouse.up();
  await expect(pad(page, 'Embers')).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.down('1');
  await expect(pad(page, 'Embers')).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.up('1');
  await expect(pad(page, 'Embers')).toHaveAttribute('aria-pressed', 'false');

  // One of a group at a time.
  await pad(page, 'Lift').click();
  await pad(page, 'Moonrise').click();
  await expect(pad(page, 'Lift')).toHaveAttribute('aria-pressed', 'false');
  await expect(pad(page, 'Moonrise')).toHaveAttribute('aria-pressed', 'true');
  await pad(page, 'Moonrise').click();

  // Next leaves Lift out, and begins again after the last.
  await button(page, 'Next look: Embers').click();
  await button(page, 'Next look: Moonrise').click();
  await expect(button(page, 'Next look: Embers')).toBeVisible();

  // A look that is deleted leaves its pad; the bank stays and comes back with undo.
  await open(page, '/looks');
  await button(page, 'More about Moonrise').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('link', { name: 'Gig' }).click();
  await expect(page.getByRole('group', { name: 'Pads' }).getByRole('button')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('group', { name: 'Pads' }).getByRole('button')).toHaveCount(3);
});

test('hits and role masters stand where the pads are, a press away; a bank brings the pads back', async ({ page }) => {
  await open(page, '/gig');
  await pad(page, 'Full sail').click();
  await expect.poll(() => light(page)).toBeGreaterThan(100);
  const before = await light(page);
  const banks = page.getByRole('group', { name: 'Banks' });
  await banks.getByRole('button', { name: 'Role masters' }).click();
  await expect(page.getByRole('group', { name: 'Pads', exact: true })).toHaveCount(0);
  const masters = page.getByRole('group', { name: 'Role masters' });
  await masters.getByRole('slider', { name: 'Back wash' }).focus();
  await page.keyboard.press('Home');
  await expect.poll(() => light(page)).toBe(0);
  await page.keyboard.press('End');
  await expect.poll(() => light(page)).toBeGreaterThan(before / 2);
  // The kit of the demo, struck with a finger.
  await banks.getByRole('button', { name: 'All looks' }).click();
  await pad(page, 'Full sail').click();
  await expect.poll(() => light(page)).toBe(0);
  await banks
    .getByRole('button', { name: /^Barrel drums/ })
    .first()
    .click();
  const hit = page.getByRole('button', { name: /^Strike / }).first();
  const heard = await listen(page, 0.5, async () => {
    await hit.click();
    await page.waitForTimeout(500);
  });
  const sums = heard.map(({ levels }) => levels.reduce((sum, level) => sum + level, 0));
  expect(Math.max(...sums)).toBeGreaterThan(Math.min(...sums));
  await banks.getByRole('button', { name: 'All looks' }).click();
  await expect(pad(page, 'Full sail')).toBeVisible();
});

test('pages that show no stage say when nothing is sent', async ({ page }) => {
  for (const path of ['/gig/large', '/gig/foot', '/gig/pads']) {
    await page.goto(path);
    await expect(page.getByRole('heading').first()).toBeVisible();
    await expect(page.getByTestId('trouble')).toHaveCount(0);
  }
  await open(page, '/gig');
  await page.getByRole('button', { name: /^Output: sending/ }).click();
  await page.getByRole('dialog', { name: 'Master output' }).getByRole('button').first().hover();
  await page.mouse.down();
  await page.waitForTimeout(1200);
  await page.mouse.up();
  await page.goto('/gig/large');
  await expect(page.getByTestId('trouble')).toHaveText('output is off');
});

test('the tempo is that of the taps as the finger came down, on a page that is busy too', async ({ page }) => {
  await open(page, '/gig');
  /** Nothing that is pressed meanwhile is heard of before it is over. */
  const busy = (after: number, ms: number) =>
    page.evaluate(
      async ([wait, length]) => {
        await new Promise((go) => setTimeout(go, wait));
        const end = performance.now() + length!;
        while (performance.now() < end);
      },
      [after, ms],
    );
  await Promise.all([tapOn(page, 'Tap the tempo', 6, 600), busy(500, 350), busy(1700, 200)]);
  await expect.poll(async () => (await liveNow()).taps.length).toBe(6);
  expect((await liveNow()).tempo.bpm).toBeCloseTo(100, 0);
  // Keys press it, too.
  await page.getByRole('button', { name: 'Tap the tempo' }).focus();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await liveNow()).taps.length).not.toBe(6);
});

test('on a wide screen two rows of pads show their names above what the pedal does', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await open(page, '/gig');
  await button(page, /^Play Paper/).click();
  await expect(page.getByRole('group', { name: 'Pedal', exact: true })).toContainText('Ready: Salt and Signal');
  const pedal = (await page.getByRole('group', { name: 'Pedal', exact: true }).boundingBox())!;
  const second = (await page.getByText('Singer alone', { exact: true }).first().boundingBox())!;
  // A line is a little taller than its letters.
  expect(second.y + 0.9 * second.height).toBeLessThan(pedal.y);
});

type Point = { readonly x: number; readonly y: number };

async function middleOf(thing: Locator): Promise<Point> {
  const { x, y, width, height } = (await thing.boundingBox())!;
  return { x: x + width / 2, y: y + height / 2 };
}

/** A phone with fingers, as a screen of its own. */
async function phone(browser: Browser, baseURL: string | undefined) {
  const context = await browser.newContext({
    baseURL: baseURL!,
    hasTouch: true,
    isMobile: true,
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  const fingers = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...points: readonly Point[]) =>
    fingers.send('Input.dispatchTouchEvent', { type, touchPoints: points.map((point, id) => ({ ...point, id })) });
  return { context, page, touch };
}

test('pads only: all of a bank on the screen, each counts as a finger comes down, two at once too', async ({
  browser,
  baseURL,
}) => {
  const { context, page, touch } = await phone(browser, baseURL);
  const all = page.getByRole('group', { name: 'Pads' }).getByRole('button');
  await open(page, '/gig');
  const pads = await all.count();
  // Where pads scroll, a finger that comes down may be about to do so.
  await touch('touchStart', await middleOf(pad(page, 'Full sail')));
  await page.waitForTimeout(300);
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'false');
  await touch('touchEnd');
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'true');
  await pad(page, 'Full sail').tap();

  await button(page, 'Pads only').tap();
  await expect(page.getByRole('heading', { name: 'All looks', level: 1 })).toBeVisible();
  await expect(all).toHaveCount(pads);
  for (const one of await all.all()) await expect(one).toBeInViewport({ ratio: 1 });
  await touch('touchStart', await middleOf(pad(page, 'Harbour blue')), await middleOf(pad(page, 'Full sail')));
  await expect(pad(page, 'Harbour blue')).toHaveAttribute('aria-pressed', 'true');
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => light(page)).toBeGreaterThan(0);
  await touch('touchEnd');
  await expect(pad(page, 'Full sail')).toHaveAttribute('aria-pressed', 'true');

  // A screen that cannot hold them all turns pages.
  await page.setViewportSize({ width: 390, height: 500 });
  await page
    .getByRole('button', { name: /^Pads \d+ to / })
    .last()
    .tap();
  await expect(pad(page, 'Full sail')).toHaveCount(0);
  await expect(all.last()).toBeInViewport({ ratio: 1 });
  await expect(all.last()).toHaveAccessibleName(/^Buoys/);
  await button(page, 'Close').tap();
  await expect(page.getByRole('heading', { name: 'Paper Lighthouse' }).first()).toBeVisible();
  // With room again, the bars of the section are back.
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByTestId('gig-bars').locator('span')).toHaveCount(4);
  await context.close();
});

test('with a finger: a pad that lights while it is held goes out as one scrolls; a switch of the pedal is one press', async ({
  page: first,
  browser,
  baseURL,
}) => {
  await restoreShow(first, (show) => ({
    ...show,
    banks: [
      Bank.parse({ id: 'flashes', name: 'Flashes', pads: show.looks.map((one) => ({ look: one.id, press: 'flash' })) }),
    ],
    controls: [
      ...show.controls,
      { ...show.controls[0]!, id: id('floor-2'), name: 'Right', source: { by: 'key', code: 'F7' } },
    ],
  }));
  const { context, page, touch } = await phone(browser, baseURL);
  await open(page, '/gig');
  const sail = page.getByRole('button', { name: /^Full sail, key/ });
  const { x, y } = await middleOf(sail);
  await touch('touchStart', { x, y });
  await expect.poll(() => light(page)).toBeGreaterThan(0);
  await touch('touchEnd');
  await expect.poll(() => light(page)).toBe(0);
  await touch('touchStart', { x, y });
  await expect.poll(() => light(page)).toBeGreaterThan(0);
  for (const up of [10, 30, 60, 120]) await touch('touchMove', { x, y: y - up });
  await expect.poll(() => light(page)).toBe(0);
  await touch('touchEnd');

  await button(page, /^Foot: Ready: Paper Lighthouse/).tap();
  await expect(button(page, /^Foot: Play Paper Lighthouse/)).toBeVisible();
  await context.close();
});

test('a bank that is empty on this screen fills as pads are put in it on another', async ({ page, other }) => {
  await restoreShow(page, (show) => ({ ...show, banks: [Bank.parse({ id: 'one', name: 'One', pads: [] })] }));
  await page.goto('/gig/pads');
  await expect(page.getByText('No pad is in this bank yet.')).toBeVisible();
  await open(other, '/gig');
  await button(other, 'Put looks in it').click();
  await other.getByLabel('Put in the bank').selectOption({ label: 'Embers' });
  await expect(page.getByRole('button', { name: /^Embers, key/ })).toBeInViewport({ ratio: 1 });
});
