// Lamps found and told what to do by hand: chosen where they hang, lit up, copied, timed; and why one shines at a bar.

import type { Page } from '@playwright/test';
import { button, listen, nodeReport, open, restoreConnections, restoreShow, tab, typed, usualGap } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

const inHand = (page: Page) => page.getByRole('region', { name: 'By hand' });
const levels = async (page: Page) => (await nodeReport(page)).levels;

/** Draws a line around some lamps on the small plan, some pixels beside the outer ones. */
async function drawAround(page: Page, ...names: readonly string[]): Promise<void> {
  const plan = page.getByRole('img', { name: /draw a line around/ });
  await plan.scrollIntoViewIfNeeded();
  const boxes = await Promise.all(names.map((name) => plan.getByLabel(name, { exact: true }).boundingBox()));
  const left = Math.min(...boxes.map((box) => box!.x)) - 6;
  const right = Math.max(...boxes.map((box) => box!.x + box!.width)) + 6;
  const top = Math.min(...boxes.map((box) => box!.y)) - 6;
  const foot = Math.max(...boxes.map((box) => box!.y + box!.height)) + 6;
  await page.mouse.move(left, top);
  await page.mouse.down();
  for (const [x, y] of [
    [right, top],
    [right, foot],
    [left, foot],
  ] as const)
    await page.mouse.move(x, y, { steps: 4 });
  await page.mouse.up();
}

test('lamps are chosen by a drawn line, by a tap, by arrows; lit up to be found; what they do is given to others', async ({
  page,
}) => {
  await open(page, '/looks/new');
  await button(page, 'On the plan').click();
  await drawAround(page, 'Front 1', 'Front 4');
  await tab(page, 'Level').click();
  await typed(page, 'Level', '60');
  await tab(page, 'Colour').click();
  await button(page, 'Blue').click();
  // Four lamps that are a whole role are said to be that role.
  await expect(inHand(page)).toContainText('Front wash: level, colour');
  await expect.poll(async () => (await levels(page))[0]).toBe(153);

  await button(page, 'Copy what these lamps do').click();
  await button(page, 'Back wash').click();
  await button(page, 'Even').click();
  await button(page, 'Paste onto these lamps').click();
  await expect(inHand(page)).toContainText('Back wash, even: level, colour');
  // Blue of the second and of the first lamp of the back wash.
  await expect.poll(async () => (await levels(page))[29]).toBeGreaterThan(100);
  expect((await levels(page))[26]).toBe(0);

  // With a lamp in focus the arrows walk on, with Shift they take along.
  await page.getByRole('button', { name: /^Lamp 5,/ }).click();
  await page.getByRole('button', { name: /^Lamp 5,/ }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  const on = page.getByRole('group', { name: 'Lamps', exact: true }).getByRole('button', { pressed: true });
  await expect(on).toHaveCount(2);
});

test('heads are pointed at a place tapped on the plan: a new aim, which the next tap there means again', async ({
  page,
}) => {
  await open(page, '/looks/new');
  await button(page, 'Movers').click();
  await tab(page, 'Aim').click();
  const at = page.getByRole('group', { name: 'Aim at', exact: true });
  await expect(at.getByRole('button', { name: 'By hand', pressed: true })).toBeVisible();
  const before = await at.getByRole('button').count();
  // Spot 1 pans at 37 and 38.
  const pan = async () => {
    const now = await levels(page);
    return now[36]! * 256 + now[37]!;
  };
  const home = await pan();

  await at.getByRole('button', { name: 'New aim' }).click();
  const plan = page.getByRole('img', { name: /tap where the beams should point/ });
  await plan.scrollIntoViewIfNeeded();
  const { width, height } = (await plan.boundingBox())!;
  const corner = { x: width * 0.8, y: height * 0.85 };
  await plan.click({ position: corner });
  const made = at.getByRole('button', { name: /^Aim \d+$/ });
  await expect(made).toHaveAttribute('aria-pressed', 'true');
  await expect(inHand(page)).toContainText('Movers: aim');
  await expect.poll(pan).not.toBe(home);
  // "New aim" gave way to the aim that it made.
  await expect(at.getByRole('button')).toHaveCount(before);

  await at.getByRole('button', { name: 'Singer' }).click();
  await expect(made).toHaveAttribute('aria-pressed', 'false');
  await plan.click({ position: { x: corner.x - 6, y: corner.y + 6 } });
  await expect(made).toHaveAttribute('aria-pressed', 'true');
  await expect(at.getByRole('button')).toHaveCount(before);
});

test('the chosen lamps light up in white for as long as one wants, over everything, and go back to the show', async ({
  page,
}) => {
  await open(page, '/looks/new');
  await button(page, 'Front wash').click();
  const light = button(page, 'Light the chosen lamps up in white');
  await light.click();
  await expect
    .poll(async () => {
      const all = await levels(page);
      return [0, 6, 12, 18].map((at) => all[at]);
    })
    .toEqual([255, 255, 255, 255]);
  await light.click();
  await expect.poll(async () => (await levels(page))[0]).toBe(0);
  await light.click();
  await expect.poll(async () => (await levels(page))[0]).toBe(255);
  // Whoever chooses others, or leaves, takes it along.
  await page.getByRole('link', { name: 'Songs' }).click();
  await expect.poll(async () => (await levels(page))[0]).toBe(0);
});

test('a look whose level takes a time of its own; flashes by the beat', async ({ page }) => {
  await open(page, '/looks');
  await button(page, 'New look').click();
  await button(page, 'Front wash').click();
  await tab(page, 'Level').click();
  await typed(page, 'Level', '100');
  await button(page, 'Store').click();
  const store = page.getByRole('dialog', { name: 'Store a look' });
  await store.getByLabel('Name').fill('Slow dawn');
  await store.getByRole('button', { name: 'Store the look' }).click();
  await button(page, 'Slow dawn, on').click();
  await button(page, 'More about Slow dawn').click();
  const sheet = page.getByRole('dialog', { name: 'Slow dawn' });
  await sheet.getByRole('button', { name: 'Separate fade times …' }).click();
  await sheet.getByLabel('Level, in', { exact: true }).fill('nine');
  await expect(sheet.getByText('Beats from 0 to 256, or nothing.')).toBeVisible();
  await sheet.getByLabel('Level, in', { exact: true }).fill('8');
  await page.keyboard.press('Enter');
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect.poll(async () => (await levels(page))[0]).toBe(0);
  await button(page, 'Slow dawn, off').click();
  // Eight beats at 120 are four seconds: the node hears them rise in a straight line.
  await page.waitForTimeout(1000);
  const rising = (await listen(page, 4)).map((one) => ({ at: one.at, level: one.levels[0]! / 255 }));
  const full = rising.find(({ level }) => level >= 0.995)!.at;
  const half = rising.find(({ level }) => level >= 0.5)!.at;
  expect(full - half).toBeGreaterThan(1.7);
  expect(full - half).toBeLessThan(2.3);

  await button(page, 'More about Slow dawn').click();
  await button(page, 'Change the light').click();
  await button(page, 'Front wash').click();
  await tab(page, 'Rate').click();
  await button(page, 'A flash every 1 beat').click();
  await typed(page, 'Each flash lasts', '25');
  const flashes = await listen(page, 4);
  // Two a second, lit for a quarter of the time.
  const lit = flashes.filter(({ levels }) => levels[0]! > 127).length / flashes.length;
  expect(lit).toBeGreaterThan(0.18);
  expect(lit).toBeLessThan(0.34);
  expect(usualGap(flashes, (levels) => levels[0]! > 127)).toBeCloseTo(0.5, 1);
});

test('Why? for a bar of a song that is not on, and for a lamp whose universe goes nowhere', async ({ page }) => {
  await open(page, '/rig');
  await button(page, 'Spot 1 on the plan').click();
  const why = page.getByRole('region', { name: 'Why Spot 1' });
  await expect(why).toContainText('Dark');
  await why.getByLabel('When').selectOption({ label: 'Paper Lighthouse' });
  await why.getByLabel('Bar', { exact: true }).fill('17');
  await page.keyboard.press('Enter');
  await expect(why).toContainText(/Shines at \d+ % there/);
  await expect(why).toContainText('lane Looks: Lift');
  await why.getByLabel('Bar', { exact: true }).fill('9999');
  await expect(why.getByText(/A number from 1 to/)).toBeVisible();
  await why.getByLabel('When').selectOption({ label: 'now' });
  await expect(why).toContainText('Nothing lights it now');

  await open(page, '/connect');
  await page.getByRole('button', { name: /^Universe 1 · sACN/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Switch off' }).first().click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await page.getByRole('link', { name: 'Rig' }).click();
  await button(page, 'Spot 1 on the plan').click();
  await expect(why).toContainText('The output of universe 1 is switched off in Connect.');
});

test('one role is given back while another stays in hand; a blackout fades as it is set', async ({ page }) => {
  await open(page, '/looks/new');
  for (const role of ['Front wash', 'Movers']) {
    await button(page, role).click();
    await tab(page, 'Level').click();
    await typed(page, 'Level', '100');
  }
  // The front wash's first dimmer, and that of the first spot.
  const two = async () => [(await levels(page))[0], (await levels(page))[40]];
  await expect.poll(two).toEqual([255, 255]);
  await page.getByRole('button', { name: /^Grand master/ }).click();
  await button(page, 'All masters').click();
  const masters = page.getByRole('dialog', { name: 'Masters' });
  await masters.getByRole('button', { name: 'Release Front wash' }).click();
  await expect.poll(two).toEqual([0, 255]);
  await expect(inHand(page)).not.toContainText('Front wash');
  await masters.getByRole('button', { name: 'In 3 s' }).click();
  await masters.getByRole('button', { name: 'Close' }).click();
  const falling = await listen(page, 5, () => button(page, 'Blackout').click());
  const below = (level: number) => falling.find(({ levels: all }) => all[40]! < level)!.at;
  // From five sixths to a sixth of full: two of the three seconds.
  expect(below(43) - below(212)).toBeGreaterThan(1.7);
  expect(below(43) - below(212)).toBeLessThan(2.3);
  expect(falling.at(-1)!.levels[40]).toBe(0);
});
