// Bars lit like others, at phone size: a section like the first of its name, copied, pasted, repeated, and taken back.

import type { Page } from '@playwright/test';
import { button, open, restoreConnections, restoreShow, settledLight } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

const chosen = (page: Page) => page.getByTestId('range');
const clips = (page: Page, look: string) => page.locator(`[data-clip="${look}"]`);
/** What the node hears of it, when fades are over. */
const light = async (page: Page) => (await settledLight(page)).join();
/** The light of a bar as it is sent while the song stands there. */
async function lightOf(page: Page, bar: number): Promise<string> {
  if (await button(page, 'Clear selection').isVisible()) await button(page, 'Clear selection').click();
  await button(page, `Bar ${bar}`).click();
  await expect(chosen(page)).toHaveText(`Bar ${bar}`);
  return light(page);
}

test('chorus 2 is lit like chorus 1, and back; bars are pasted by keys and repeated to the end of their section', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  // Bar 34 lies in the second half of chorus 2, which has a look of its own; at its first beat it would still fade in.
  const [first, before] = [await lightOf(page, 18), await lightOf(page, 34)];
  expect(before).not.toBe(first);
  await button(page, 'Clear selection').click();
  await button(page, 'Choose Chorus 2').click();
  await expect(chosen(page)).toHaveText('Bars 29 – 36');
  await button(page, 'Light it like Chorus 1').click();
  await expect(page.getByTestId('said')).toHaveText('Bars 29 – 36 lit like bars 13 – 20.');
  expect(await lightOf(page, 34)).toBe(first);
  await button(page, 'Undo: copy bars').click();
  expect(await lightOf(page, 34)).toBe(before);

  // By keys: two bars of verse 1 into verse 2.
  const verse = await lightOf(page, 7);
  expect(await lightOf(page, 23)).not.toBe(verse);
  await lightOf(page, 6);
  await button(page, 'Bar 7').click();
  await expect(chosen(page)).toHaveText('Bars 6 – 7');
  await page.keyboard.press('Control+c');
  await expect(page.getByTestId('said')).toHaveText('Bars 6 – 7 copied. Choose where to paste.');
  await lightOf(page, 22);
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('said')).toHaveText('Bars 22 – 23 lit like bars 6 – 7.');
  expect(await lightOf(page, 23)).toBe(verse);

  // Dark in its first bar, the whole of it is dark after.
  await lightOf(page, 29);
  await button(page, 'Lay Dark').click();
  await button(page, 'Repeat to the end of Chorus 2').click();
  await expect(page.getByTestId('said')).toHaveText('Bars 30 – 36 lit like bar 29.');
  await expect(clips(page, 'Dark').first()).toBeVisible();
  // The dimmers of the front wash.
  const levels = (await lightOf(page, 35)).split(',');
  expect([0, 6, 12, 18].map((at) => levels[at])).toEqual(['0', '0', '0', '0']);
});

test('what is chosen stays in sight above the tray, on a short screen too', async ({ page }) => {
  for (const height of [844, 640]) {
    await page.setViewportSize({ width: 360, height });
    await open(page, '/songs/paper-lighthouse');
    for (const bar of [1, 9, 12]) {
      await button(page, `Bar ${bar}`).click();
      const tray = page.getByRole('region', { name: 'Looks for the chosen bars' });
      await expect(tray).toBeVisible();
      await expect
        .poll(async () => {
          const [line, over] = [await button(page, `Bar ${bar}`).boundingBox(), await tray.boundingBox()];
          return line!.y + line!.height <= over!.y + 1;
        })
        .toBe(true);
    }
  }
});

test('a wrong bar 1 is put right, with the light or without it; the meter of some bars and one tempo throughout', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  const begins = page.getByRole('group', { name: 'Bar 1 begins at' });
  const secondsOf = async () => {
    const [, minutes, rest] = /(\d+):([\d.]+)/.exec((await begins.textContent())!)!;
    return Number(minutes) * 60 + Number(rest);
  };
  // How far into its bar the look of verse 1 begins, as a share of a bar.
  const clipInBar = async () => {
    const [clip, bar] = [
      await clips(page, 'Singer alone').first().boundingBox(),
      await button(page, 'Bar 5').boundingBox(),
    ];
    return (clip!.x - bar!.x) / bar!.width;
  };
  await button(page, 'Bars and tempo').click();
  const before = await secondsOf();
  await button(page, 'Bar 1 a beat later').click();
  await expect.poll(secondsOf).toBeGreaterThan(before + 0.2);
  const beat = (await secondsOf()) - before;
  expect(await clipInBar()).toBeCloseTo(0, 1);
  await button(page, 'stays where it is').click();
  await button(page, 'Bar 1 a beat later').click();
  await expect.poll(async () => ((await secondsOf()) - before) / beat).toBeCloseTo(2, 1);
  // The look begins a beat before its bar now: on the line above, in 3/4 two thirds into the bar.
  await expect(clips(page, 'Singer alone')).toHaveCount(2);
  await button(page, 'All bars 10 ms later').click();
  await expect.poll(async () => (await secondsOf()) - before - 2 * beat).toBeCloseTo(0.01, 3);
  for (let n = 0; n < 3; n++) await page.keyboard.press('Control+z');
  await expect.poll(secondsOf).toBe(before);
  await expect(clips(page, 'Singer alone')).toHaveCount(1);

  await button(page, 'goes with the bars').click();
  await page.getByLabel('One tempo throughout, beats a minute').fill('90');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('bpm')).toHaveText('90.0');
  await button(page, 'Close').click();
  await button(page, 'Bar 2').click();
  await button(page, 'Bar 3').click();
  await button(page, 'Bars and tempo').click();
  await page.getByLabel('Meter of bars 2 – 3').selectOption('4/4');
  await expect(page.getByLabel('Meter of bars 2 – 3')).toHaveValue('4/4');
  await button(page, 'Close').click();
  // Two bars are a beat longer each, and the light stays where it sounds: what began bar 5 begins a beat into bar 4.
  const [clip, bar] = [
    await clips(page, 'Singer alone').first().boundingBox(),
    await button(page, 'Bar 4').boundingBox(),
  ];
  expect((clip!.x - bar!.x) / bar!.width).toBeCloseTo(1 / 3, 1);
});

test('several clips are chosen in Close-up by a box, moved together by finger and by key, changed and deleted together', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 5').click();
  await button(page, 'Bar 12').click();
  await button(page, 'Close-up').click();
  await button(page, 'More bars').click();
  const editor = page.getByRole('application', { name: 'Looks of Looks' });
  const boxes = editor.locator('[data-clip-box]');
  await expect(boxes).toHaveCount(2);
  const area = (await editor.boundingBox())!;
  const lefts = () =>
    boxes.evaluateAll((all) => all.map((one) => Math.round(Number.parseFloat((one as HTMLElement).style.left))));
  const before = await lefts();
  // A box is drawn from the strip above the clips.
  await page.mouse.move(area.x + 10, area.y + 6);
  await page.mouse.down();
  await page.mouse.move(area.x + area.width - 10, area.y + 40, { steps: 5 });
  await page.mouse.up();
  const form = page.getByRole('group', { name: 'Chosen clips' });
  await expect(form.getByText('2 clips')).toBeVisible();

  // One bar later, both: an eighth of what shows.
  const bar = area.width / 8;
  await page.mouse.move(area.x + 2 * bar, area.y + 44);
  await page.mouse.down();
  await page.mouse.move(area.x + 3 * bar, area.y + 44, { steps: 5 });
  await page.mouse.up();
  await expect.poll(lefts).toEqual(before.map((left) => Math.round(left + bar)));
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowRight');
  await expect.poll(lefts).toEqual(before.map((left) => Math.round(left + bar)));
  await button(page, 'Undo: move clips').click();
  await button(page, 'Undo: move clips').click();
  await button(page, 'Undo: move clips').click();
  await expect.poll(lefts).toEqual(before);

  await form.getByRole('button', { name: 'Fade in longer' }).click();
  await form.getByRole('button', { name: 'Fade in longer' }).click();
  const fade = page.getByRole('group', { name: 'Fade in', exact: true });
  await expect(fade).toContainText('8 beats');
  // One is let go by a tap, and the other deleted.
  await form.getByRole('button', { name: 'Choose several' }).click();
  await page.mouse.click(area.x + 6 * bar, area.y + 44);
  const one = page.getByRole('group', { name: 'Chosen clip', exact: true });
  await one.getByRole('button', { name: 'Fade in shorter' }).click();
  await expect(fade).toContainText('4 beats');
  await page.mouse.click(area.x + 6 * bar, area.y + 44);
  await expect(fade).toContainText('mixed');
  await page.mouse.click(area.x + 6 * bar, area.y + 44);
  await one.waitFor();
  await button(page, 'Delete clip').click();
  await expect(boxes).toHaveCount(1);
  await expect(boxes).toHaveAttribute('data-clip-box', 'Undertow');
});
