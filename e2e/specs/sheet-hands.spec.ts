// The lead sheet under the hand: clips dragged, bars pressed long or with the right button, moved, swapped, in other colours.

import type { Page } from '@playwright/test';
import { button, nodeReport, open, restoreConnections, restoreShow, settledLight } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

const clips = (page: Page, look: string) => page.locator(`[data-clip="${look}"]`);
const dimmers = (levels: readonly number[]) => [0, 6, 12, 18].map((at) => levels[at]!);
/** Where a clip begins and ends, in bars of the sheet: “5” is the start of bar 5. */
async function placeOf(page: Page, look: string, nth = 0): Promise<readonly [number, number]> {
  const box = (await clips(page, look).nth(nth).boundingBox())!;
  const bars = await page.locator('[data-bar]').evaluateAll((all) =>
    all.map((one) => {
      const { left, right, top, bottom } = one.getBoundingClientRect();
      return { bar: Number((one as HTMLElement).dataset['bar']) + 1, left, right, top, bottom };
    }),
  );
  const at = (x: number) => {
    const line = bars.filter(({ top, bottom }) => box.y > top && box.y < bottom);
    const bar = line.find(({ left, right }) => x >= left - 2 && x < right - 2) ?? line.at(-1)!;
    return bar.bar + Math.round(((x - bar.left) / (bar.right - bar.left)) * 100) / 100;
  };
  return [Math.round(at(box.x - 1) * 10) / 10, Math.round(at(box.x + box.width + 1) * 10) / 10];
}
async function dragTo(page: Page, handle: 'whole' | 'end', bar: number): Promise<void> {
  const from = (await page.locator(`[data-handle="${handle}"]`).boundingBox())!;
  const to = (await button(page, `Bar ${bar}`).boundingBox())!;
  const [x, y] = [from.x + from.width / 2, from.y + from.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 6; i++)
    await page.mouse.move(x + ((to.x + to.width / 2 - x) * i) / 6, y + ((to.y + 40 - y) * i) / 6);
  await page.mouse.up();
}

test('with a mouse: a look made longer and moved by its handles, also onto another line; undone as one', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 5').click();
  expect(await placeOf(page, 'Singer alone')).toEqual([5, 9]);
  // A tap on a handle drags nothing, also where it reaches into the bar beside it.
  const head = (await page.locator('[data-handle="whole"]').boundingBox())!;
  await page.mouse.click(head.x + 3, head.y + head.height / 2);
  expect(await placeOf(page, 'Singer alone')).toEqual([5, 9]);
  await dragTo(page, 'end', 10);
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([5, 11]);
  expect(await placeOf(page, 'Undertow')).toEqual([11, 13]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => placeOf(page, 'Undertow')).toEqual([9, 13]);
  // Four bars from verse 1 into the chorus, a line below.
  await button(page, 'Bar 5').click();
  await dragTo(page, 'whole', 15);
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([15, 19]);
  await expect(page.getByTestId('range')).toHaveText('Bars 15 – 18');
  await page.keyboard.press('Control+z');
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([5, 9]);
});

test('more or fewer bars a line by keys; a menu where bars are pressed with the right button, walked with arrows', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await open(page, '/songs/salt-and-signal');
  const across = async () => {
    const [first, next] = [await button(page, 'Bar 5').boundingBox(), await button(page, 'Bar 9').boundingBox()];
    return first!.y === next!.y;
  };
  expect(await across()).toBe(true);
  await page.keyboard.press('+');
  await expect.poll(across).toBe(false);
  await page.keyboard.press('-');
  await expect.poll(across).toBe(true);

  await button(page, 'Bar 7').click({ button: 'right' });
  const menu = page.getByRole('menu', { name: 'Bar 7' });
  await expect(menu).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(menu).toBeHidden();
  await expect(page.getByTestId('said')).toHaveText('Bar 7 copied. Choose where to paste.');
  await button(page, 'Bar 10').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Paste bar 7' }).click();
  await expect(page.getByTestId('said')).toHaveText('Bar 10 lit like bar 7.');
  await expect(clips(page, 'Singer alone')).toHaveCount(2);
  await button(page, 'Bar 10').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Clear all lanes' }).click();
  await expect(clips(page, 'Singer alone')).toHaveCount(1);
  await button(page, 'Bar 10').click({ button: 'right' });
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menu')).toHaveCount(0);
});

test('with a finger: pressed long, the menu; two fingers apart, fewer bars a line', async ({ browser, baseURL }) => {
  const context = await browser.newContext({
    baseURL: baseURL!,
    hasTouch: true,
    isMobile: true,
    viewport: { width: 390, height: 844 },
  });
  const page = await context.newPage();
  await open(page, '/songs/salt-and-signal');
  const bar = (await button(page, 'Bar 6').boundingBox())!;
  const fingers = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...points: readonly (readonly [number, number])[]) =>
    fingers.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) });
  const [x, y] = [bar.x + 40, bar.y + 10];
  await touch('touchStart', [x, y]);
  await expect(page.getByRole('menu', { name: 'Bar 6' })).toBeVisible();
  await touch('touchEnd');
  await page.getByRole('menuitem', { name: 'Copy' }).tap();
  await expect(page.getByTestId('said')).toHaveText('Bar 6 copied. Choose where to paste.');
  await button(page, 'Clear selection').tap();

  const width = async () => (await button(page, 'Bar 5').boundingBox())!.width;
  const before = await width();
  await touch('touchStart', [150, 500], [240, 500]);
  for (let i = 1; i <= 6; i++) await touch('touchMove', [150 - i * 8, 500], [240 + i * 8, 500]);
  await touch('touchEnd');
  await expect.poll(async () => (await width()) / before).toBeCloseTo(2, 1);
  await touch('touchStart', [50, 500], [340, 500]);
  // However long two fingers rest, they are no press.
  await page.waitForTimeout(700);
  await expect(page.getByRole('menu')).toHaveCount(0);
  for (let i = 1; i <= 6; i++) await touch('touchMove', [50 + i * 10, 500], [340 - i * 10, 500]);
  await touch('touchEnd');
  await expect.poll(async () => (await width()) / before).toBeCloseTo(1, 1);
  await context.close();
});

test('the light of bars moved by steps and swapped with others; a chorus copied in other colours', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 5').click();
  await button(page, 'Bar 8').click();
  await button(page, 'Move').click();
  await page.getByLabel('Step').selectOption('bar');
  await button(page, 'Light later').click();
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([6, 9]);
  await button(page, 'Light earlier').click();
  await button(page, 'Light earlier').click();
  // A bar before verse 1, at the end of the intro's line.
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([4, 5]);
  for (let n = 0; n < 3; n++) await page.keyboard.press('Control+z');
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([5, 9]);

  // By keys: a beat on and on, of 6/8 half a bar, and back where it was.
  await page.keyboard.press('.');
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([5.5, 9]);
  await page.keyboard.press('.');
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([6, 9]);
  await page.keyboard.press(',');
  await page.keyboard.press(',');
  await expect(page.getByRole('group', { name: 'Move the light' }).last()).toContainText('0 beats');
  for (let n = 0; n < 4; n++) await page.keyboard.press('Control+z');
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([5, 9]);

  await page.keyboard.press('Control+c');
  await expect(page.getByTestId('said')).toHaveText('Bars 5 – 8 copied. Choose where to paste.');
  await button(page, 'Clear selection').click();
  await button(page, 'Bar 9').click();
  await button(page, 'Swap with bars 5 – 8').click();
  await expect(page.getByTestId('said')).toHaveText('Bars 5 – 8 and bars 9 – 12 have changed places.');
  expect(await placeOf(page, 'Undertow')).toEqual([5, 9]);
  await expect.poll(() => placeOf(page, 'Singer alone')).toEqual([9, 13]);
  await page.keyboard.press('Control+z');
  await button(page, 'Clear selection').click();

  const at = async (bar: number) => {
    await button(page, `Bar ${bar}`).click();
    const levels = await settledLight(page);
    await button(page, 'Clear selection').click();
    return levels;
  };
  const first = await at(18);
  await button(page, 'Choose Chorus 2').click();
  await page.getByLabel('Colours of the copy').selectOption('120');
  await button(page, 'Light it like Chorus 1').click();
  await expect(page.getByTestId('said')).toHaveText('Bars 29 – 36 lit like bars 13 – 20, colours turned by 120°.');
  await button(page, 'Clear selection').click();
  const turned = await at(34);
  expect(dimmers(turned)).toEqual(dimmers(first));
  expect(turned).not.toEqual(first);
});

test('a clip dimmer, faster and in other colours than its look; what leaves for the lamps follows', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 10').click();
  const before = await settledLight(page);
  await button(page, 'Speed and colours').click();
  for (let n = 0; n < 5; n++) await button(page, 'Dimmer').click();
  await expect(page.getByRole('group', { name: 'Level', exact: true })).toContainText('50 %');
  await expect
    .poll(async () => {
      const { levels: now } = await nodeReport(page);
      return dimmers(now).map((level, i) => level / Math.max(1, dimmers(before)[i]!));
    })
    .toEqual(dimmers(before).map((level) => (level > 10 ? expect.closeTo(0.5, 1) : expect.anything())));
  await button(page, 'Faster').click();
  await expect(page.getByRole('group', { name: 'Speed', exact: true })).toContainText('× 1.5');
  await button(page, 'Turn the colours back').click();
  await expect(page.getByRole('group', { name: 'Colours turned', exact: true })).toContainText('−30°');
  await page.reload();
  await button(page, 'Bar 10').click();
  await button(page, 'Speed and colours').click();
  await expect(page.getByRole('group', { name: 'Colours turned', exact: true })).toContainText('−30°');
});
