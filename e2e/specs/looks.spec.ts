// Looks made by touch, and what they come to on the wire.

import {
  button,
  listen,
  lookIs,
  nodeReport,
  open,
  restoreConnections,
  restoreShow,
  settledLight,
  tab,
  typed,
  usualGap,
  waveIn,
  type Heard,
} from './hovlix';
import { expect, test } from './screens';

// What an earlier visit left playing would set the clock.
test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

/** A sine that was sampled unevenly, by least squares: the period that explains most of it, and its phase at 2 s a turn. */
function sineIn(heard: readonly Heard[], value: (levels: readonly number[]) => number) {
  const values = heard.map(({ levels }) => value(levels));
  const fit = (period: number) => waveIn(heard, value, period);
  const periods = Array.from({ length: 300 }, (_, i) => 1 + i / 100);
  const period = periods.reduce((best, one) => (fit(one).power > fit(best).power ? one : best));
  return { period, phase: fit(2).phase, low: Math.min(...values), high: Math.max(...values) };
}

test('a look of two roles with waves: the node hears the very period, bounds and distance over the lamps; then recoloured, chased, blacked out', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await open(page, '/looks');
  await button(page, 'New look').click();

  // Front wash: a colour, and a level wave of 4 beats from 20 to 80 %, drawn apart over the four lamps.
  await button(page, 'Front wash').click();
  await tab(page, 'Colour').click();
  await button(page, 'Red').click();
  await tab(page, 'Waves').click();
  await page.getByRole('group', { name: 'Add a wave on' }).getByRole('button', { name: 'Level' }).click();
  await typed(page, 'Low', '20');
  await typed(page, 'High', '80');
  await expect(page.getByText('Sine on level, 4 beats')).toBeVisible();
  // Movers: at full, pointed by hand, drawing a circle of 40 degrees.
  await button(page, 'Movers').click();
  await tab(page, 'Level').click();
  await typed(page, 'Level', '100');
  await tab(page, 'Aim').click();
  await button(page, 'By hand').click();
  await page.getByRole('slider', { name: 'Steer the beam' }).focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowUp');
  await tab(page, 'Waves').click();
  await page.getByRole('group', { name: 'Add a wave on' }).getByRole('button', { name: 'Movement' }).click();
  await typed(page, 'Width (pan)', '40');
  await expect(page.getByRole('region', { name: 'By hand' })).toContainText('Front wash: level, colour, 1 wave');

  await button(page, 'Store').click();
  const sheet = page.getByRole('dialog', { name: 'Store a look' });
  await sheet.getByLabel('Name').fill('Rising tide');
  await expect(sheet.getByRole('status', { name: 'This is stored' })).toContainText('Movers: level, aim, 1 wave');
  await sheet.getByRole('button', { name: 'Store the look' }).click();
  await lookIs(page, 'Rising tide', true);
  await expect(button(page, 'By hand. Release')).toHaveCount(0);

  // 120 beats a minute: four beats are two seconds. Front lamps dim at 1, 7, 13, 19; Spot 1 pans at 37 and 38 over 540°.
  const heard = await listen(page, 8);
  const lamps = [0, 6, 12, 18].map((at) => sineIn(heard, (levels) => levels[at]! / 255));
  for (const lamp of lamps) {
    expect(lamp.period).toBeCloseTo(2, 1);
    expect(lamp.low).toBeCloseTo(0.2, 1);
    expect(lamp.high).toBeCloseTo(0.8, 1);
  }
  lamps.slice(1).forEach((lamp, i) => {
    const apart = lamp.phase - lamps[i]!.phase;
    expect(Math.abs(apart - Math.round(apart))).toBeCloseTo(0.25, 1);
  });
  const pan = sineIn(heard, (levels) => ((levels[36]! * 256 + levels[37]!) / 65535 - 0.5) * 540);
  expect(pan.period).toBeCloseTo(2, 1);
  expect(pan.high - pan.low).toBeGreaterThan(38);
  expect(pan.high - pan.low).toBeLessThan(41);

  // A copy in another colour: red becomes blue.
  await button(page, 'More about Rising tide').click();
  await page
    .getByRole('group', { name: 'Duplicate in another colour' })
    .getByRole('button', { name: 'Hue 240 degrees' })
    .click();
  await button(page, 'Rising tide, on').click();
  await lookIs(page, 'Rising tide', false);
  await button(page, 'Rising tide, blue, off').click();
  // Red is the second channel of a front lamp, blue the fourth.
  // What leaves the node and what it reports are moments apart: both in one report, however long the look fades.
  const isBlue = (levels: readonly number[]) => levels[3] === 255 && levels[1]! < 120;
  await expect.poll(async () => isBlue((await nodeReport(page)).levels)).toBe(true);

  // Chase the two: a beat each.
  await button(page, 'New chase').click();
  await button(page, 'Add a step').click();
  await button(page, 'Add Rising tide as a step').click();
  await button(page, 'Add Rising tide, blue as a step').click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('changes Front wash: colour')).toBeVisible();
  await button(page, 'Run').click();
  const chased = await listen(page, 6);
  const isRed = (levels: readonly number[]) => levels[1]! > levels[3]!;
  // A step lasts a beat, half a second; the two of them one.
  expect(usualGap(chased, isRed)).toBeCloseTo(1, 1);
  expect(usualGap(chased, (levels) => !isRed(levels))).toBeCloseTo(1, 1);
  await button(page, 'Stop').click();
});

test('blackout leaves a lamp that is exempt; Why? says that a closed shutter keeps a lamp dark', async ({ page }) => {
  await open(page, '/rig');
  await button(page, 'List').click();
  await button(page, 'Can 1, address 93').last().click();
  await button(page, 'Change').click();
  await button(page, 'Masters, gel, motors, remark').click();
  await page.getByRole('dialog').getByRole('switch', { name: 'Goes dark in blackout' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();

  await page.goto('/looks/new');
  await button(page, 'Accent lamps').click();
  await typed(page, 'Level', '100');
  await button(page, 'Movers').click();
  await typed(page, 'Level', '100');
  await tab(page, 'Rate').click();
  await page
    .getByRole('group', { name: 'Shutter and strobe' })
    .getByRole('button', { name: 'closed', exact: true })
    .click();
  await expect.poll(async () => (await nodeReport(page))?.levels[92]).toBe(255);
  await button(page, 'Blackout').click();
  await expect.poll(async () => (await nodeReport(page))?.levels[93]).toBe(0);
  expect((await nodeReport(page)).levels[92]).toBe(255);
  await button(page, 'Light again: end the blackout').click();
  await expect.poll(async () => (await nodeReport(page))?.levels[93]).toBe(255);

  await page.getByRole('link', { name: 'Rig' }).click();
  await button(page, 'List').click();
  await button(page, /^Spot 1, address/)
    .last()
    .click();
  const why = page.getByRole('region', { name: 'Why Spot 1' });
  await expect(why).toContainText('Its shutter is closed: whatever its level, no light comes out.');
  await expect(why).toContainText('by hand: Movers');
});

test('what is shaped is in hand: undone, redone, let go, taken up again; numbers choose lamps and set them', async ({
  page,
}) => {
  await open(page, '/looks/new');
  await button(page, 'By number …').click();
  await page.getByLabel('Lamps by number').fill('1-2, 4 at 80');
  await page.keyboard.press('Enter');
  const front = async () =>
    [0, 6, 12, 18].map(
      (
        (levels) => (at: number) =>
          levels[at]
      )((await nodeReport(page)).levels),
    );
  await expect.poll(front).toEqual([204, 204, 0, 204]);
  await page.getByLabel('Lamps by number').fill('1-2 at bright');
  await expect(page.getByText('“bright” is no level')).toBeVisible();
  await page.getByLabel('Lamps by number').fill('900');
  await expect(page.getByText('No lamp of this rig has such a number.')).toBeVisible();
  await button(page, 'By number …').click();

  await button(page, 'Front wash').click();
  await page.getByRole('group', { name: 'Some of them' }).getByRole('button', { name: 'Odd' }).click();
  await typed(page, 'Level', '50');
  await expect.poll(front).toEqual([128, 204, 128, 204]);
  await button(page, 'Undo: the last touch').click();
  await expect.poll(front).toEqual([204, 204, 0, 204]);
  await button(page, 'Redo: the last touch').click();
  await expect.poll(front).toEqual([128, 204, 128, 204]);
  // All of them, fanned.
  await page.getByRole('group', { name: 'Some of them' }).getByRole('button', { name: 'All' }).click();
  await page.getByRole('group', { name: 'Level over the lamps' }).getByRole('button', { name: 'Fan' }).click();
  await typed(page, 'Level, from', '0');
  await typed(page, 'Level, to', '90');
  await expect.poll(front).toEqual([0, 77, 153, 230]);

  // Away and back: nothing is lost. Release gives the lamps back, and can be undone.
  await page.getByRole('link', { name: 'Gig' }).click();
  await expect(button(page, 'By hand. Release')).toBeVisible();
  await page.goto('/looks/new');
  await expect(page.getByRole('region', { name: 'By hand' })).toContainText('Front wash: level');
  await button(page, 'By hand. Release').click();
  await expect.poll(front).toEqual([0, 0, 0, 0]);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect.poll(front).toEqual([0, 77, 153, 230]);
});

test('masters: a role goes down by itself, fades and speed are scaled, and all come back', async ({ page }) => {
  await open(page, '/looks');
  await button(page, 'Harbour blue, off').click();
  await button(page, 'Grand master, 100 percent').click();
  await button(page, 'All masters').click();
  const sheet = page.getByRole('dialog', { name: 'Masters' });
  const level = async (at: number) => (await nodeReport(page)).levels[at]!;
  await expect.poll(() => level(26)).toBeGreaterThan(200);
  await typed(page, 'Back wash', '50');
  await expect.poll(() => level(26)).toBeLessThan(130);
  // Once it has faded in.
  const front = (await settledLight(page))[0]!;
  await typed(page, 'Front wash', '0');
  await expect.poll(() => level(0)).toBe(0);
  expect(front).toBeGreaterThan(20);
  await sheet.getByRole('button', { name: '2×' }).click();
  await expect(sheet.getByRole('textbox', { name: 'Speed, typed' })).toHaveValue('200');
  await sheet.getByRole('button', { name: 'All to 100 %' }).click();
  await expect.poll(() => level(0)).toBe(front);
  await expect(sheet.getByRole('textbox', { name: 'Speed, typed' })).toHaveValue('100');
});

test('looks are found, tagged, put in folders and in order, and come back when deleted by mistake', async ({
  page,
}) => {
  await open(page, '/looks');
  await button(page, 'Search the looks').click();
  await page.getByLabel('Name, number, folder, or what it does').fill('ember');
  await page.keyboard.press('Enter');
  await expect(button(page, 'Embers, off')).toBeVisible();
  await expect(button(page, 'Full sail, off')).toHaveCount(0);
  await button(page, 'More about Embers').click();
  const sheet = page.getByRole('dialog', { name: 'Embers' });
  await sheet.getByLabel('Number').fill('1');
  await expect(sheet.getByText('Harbour blue has number 1.')).toBeVisible();
  await sheet.getByLabel('Folder').selectOption('+');
  await sheet.getByLabel('New folder').fill('Slow songs');
  await page.keyboard.press('Enter');
  await sheet.getByRole('button', { name: 'Tag 3' }).click();
  await sheet.getByRole('button', { name: 'Delete' }).click();
  await expect(button(page, 'Embers, off')).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(button(page, 'Embers, off')).toBeVisible();
  await button(page, 'Search the looks').click();
  await button(page, 'Slow songs').click();
  await expect(page.getByRole('button', { name: /, off$/ })).toHaveCount(1);
});
