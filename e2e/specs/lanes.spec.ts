// Lanes of one's own at phone size: hits in bars and in Close-up, curves, what is muted, and what leaves for the lamps of it.

import type { Page } from '@playwright/test';
import { button, nodeReport, open, restoreConnections, restoreShow, settledLight } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

/** The dimmers of the front wash, as the node heard them last. */
const front = async (page: Page) => {
  const { levels } = await nodeReport(page);
  return Math.max(...[0, 6, 12, 18].map((at) => levels[at]!));
};
/** The same once light that is on its way has come. */
const full = async (page: Page) => {
  await expect.poll(() => front(page)).toBeGreaterThan(30);
  await settledLight(page);
  return front(page);
};
/** The song stands at the start of a bar, and nothing is chosen after. */
async function standAt(page: Page, bar: number): Promise<void> {
  if (await button(page, 'Clear selection').isVisible()) await button(page, 'Clear selection').click();
  await button(page, `Bar ${bar}`).click();
  await button(page, 'Clear selection').click();
}
async function choose(page: Page, first: number, last: number): Promise<void> {
  await button(page, `Bar ${first}`).click();
  if (last > first) await button(page, `Bar ${last}`).click();
}
async function addLane(page: Page, template: string): Promise<void> {
  await button(page, 'Lanes').click();
  await button(page, `Add ${template}`).click();
  await expect(page.getByRole('group', { name: `Lane ${template}`, exact: true })).toBeVisible();
  await button(page, 'Close').click();
}
const roll = (page: Page) => page.getByRole('application');
/** A tap in the roll or the curve, as shares of its width and height. */
async function tap(page: Page, x: number, y: number): Promise<void> {
  const box = (await roll(page).boundingBox())!;
  await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
}
async function drag(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await roll(page).boundingBox())!;
  const at = ([x, y]: readonly [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  for (let i = 1; i <= 8; i++)
    await page.mouse.move(...at([from[0] + ((to[0] - from[0]) * i) / 8, from[1] + ((to[1] - from[1]) * i) / 8]));
  await page.mouse.up();
}
const notes = (page: Page, pad: string) => page.locator(`[data-note^="${pad} "]`);
const dark = async (page: Page, bars: readonly [number, number]) => {
  await choose(page, ...bars);
  await button(page, 'Lay Dark').click();
  await button(page, 'Clear selection').click();
};

test('a lane of hits: a pattern over bars, notes set, moved, made harder and deleted in Close-up; the lamps follow', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await addLane(page, 'Rhythm');
  await dark(page, [5, 8]);
  await choose(page, 5, 8);
  await button(page, 'Rhythm').click();
  await button(page, 'Fill with downbeats').click();
  await expect(page.getByTestId('said')).toHaveText('Kick: 4 notes in bars 5 – 8.');
  await standAt(page, 6);
  await expect.poll(() => front(page)).toBeGreaterThan(240);

  await choose(page, 5, 6);
  await button(page, 'Close-up').click();
  await expect(page.getByTestId('close-up-bars')).toHaveText('5 – 6');
  await expect(notes(page, 'Kick')).toHaveCount(2);
  // A new note on the snare's row in the middle of bar 5, on the grid.
  await page.getByLabel('Grid').selectOption('beat');
  await tap(page, 0.3, 0.25);
  await expect(notes(page, 'Snare')).toHaveCount(1);
  const at = async (pad: string, nth = 0) =>
    Number((await notes(page, pad).nth(nth).getAttribute('data-note'))!.split(' ').at(-1));
  const [before, kick] = [await at('Snare'), await at('Kick')];
  expect((before - kick) % 0.5).toBeCloseTo(0, 6);
  // Dragged a quarter of the width on: half a bar.
  await drag(page, [0.3, 0.25], [0.55, 0.25]);
  await expect.poll(() => at('Snare')).toBeGreaterThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => at('Snare')).toBe(before);
  // A note beside the grid stays there as it goes to another row, and only there.
  await page.getByLabel('Grid').selectOption('off');
  // A tap beside what is chosen lets go of it first.
  await tap(page, 0.813, 0.25);
  await tap(page, 0.813, 0.25);
  await expect(notes(page, 'Snare')).toHaveCount(2);
  const beside = await at('Snare', 1);
  await page.getByLabel('Grid').selectOption('beat');
  await drag(page, [0.813, 0.25], [0.815, 0.08]);
  await expect(notes(page, 'Snare')).toHaveCount(1);
  expect(await at('Kick', 2)).toBe(beside);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-note]')).toHaveCount(3);
  // Softer, and the light with it: the song stands at the kick of bar 5.
  await tap(page, 0.01, 0.08);
  await expect(page.getByRole('group', { name: 'Chosen notes' })).toBeVisible();
  for (let i = 0; i < 10; i++) await button(page, 'Softer').click();
  await expect(notes(page, 'Kick').first()).toHaveAttribute('data-velocity', '50');
  // All are chosen and one of them is drawn up by its stem: the others keep their distance to it.
  const velocities = () => notes(page, 'Kick').evaluateAll((all) => all.map((one) => one.dataset['velocity']));
  await page.keyboard.press('Control+a');
  const [stems, second] = [page.getByRole('slider', { name: 'Velocity of the notes' }), notes(page, 'Kick').nth(1)];
  const [strip, note] = [(await stems.boundingBox())!, (await second.boundingBox())!];
  // A stem of 44 pixels is as hard as it gets.
  const height = (velocity: number) => strip.y + strip.height - 44 * velocity;
  await page.mouse.move(note.x + 1, height(0.7));
  await page.mouse.down();
  await page.mouse.move(note.x + 1, height(0.9), { steps: 3 });
  await page.mouse.up();
  const [softer, harder] = (await velocities()).map(Number);
  expect(harder).toBeCloseTo(90, -1);
  expect(harder! - softer!).toBe(50);
  await page.keyboard.press('Control+z');
  await expect.poll(velocities).toEqual(['50', '100']);
  await button(page, 'Back to the lead sheet').click();
  await standAt(page, 5);
  await expect.poll(() => front(page)).toBeLessThan(160);
  await standAt(page, 6);
  await expect.poll(() => front(page)).toBeGreaterThan(240);

  // All that shows, chosen by keys, and gone.
  await choose(page, 5, 6);
  await button(page, 'Close-up').click();
  await page.keyboard.press('Control+a');
  await expect(page.getByText('3 notes')).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-note]')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await standAt(page, 6);
  await expect.poll(() => front(page)).toBeLessThan(10);
  await standAt(page, 7);
  await expect.poll(() => front(page)).toBeGreaterThan(240);
});

test('what is struck while the song plays is recorded where it was struck', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  await addLane(page, 'Rhythm');
  await choose(page, 5, 8);
  await button(page, 'Rhythm').click();
  await button(page, 'Close-up').click();
  await button(page, 'Record').click();
  await button(page, 'Start recording').click();
  // It counts in with bar 4; the page turns by itself.
  const position = async () => {
    const pin = page.locator('[data-pin]').first();
    // As a share of the bars it moves over, in percent.
    return pin.evaluate((element) => {
      const [at, over] = [element.getBoundingClientRect(), element.parentElement!.getBoundingClientRect()];
      return element.style.opacity === '1' ? ((at.left - over.left) / over.width) * 100 : -1;
    });
  };
  await expect(button(page, 'Pause')).toBeVisible();
  await expect.poll(async () => Math.abs((await position()) - 20) < 8, { intervals: [30] }).toBe(true);
  for (let n = 0; n < 3; n++) {
    const pad = await button(page, 'Strike Snare').boundingBox();
    await page.mouse.move(pad!.x + 20, pad!.y + 20);
    await page.mouse.down();
    await page.waitForTimeout(120);
    await page.mouse.up();
    await page.waitForTimeout(350);
  }
  await button(page, 'Stop recording').click();
  await expect(page.getByTestId('said')).toHaveText('3 notes recorded.');
  const places = await notes(page, 'Snare').evaluateAll((all) =>
    all.map((one) => Number(one.getAttribute('data-note')!.split(' ').at(-1))),
  );
  expect(places).toHaveLength(3);
  // Bar 5 begins at beat 12; an eighth of four bars in three quarters is a beat and a half.
  expect(places[0]).toBeGreaterThan(13);
  expect(places[0]).toBeLessThan(16);
  // Half a second apart is half a beat and a bit at 66 dotted beats a minute, and never the same place.
  expect(places[1]! - places[0]!).toBeGreaterThan(0.3);
  await button(page, 'Undo').click();
  await expect(notes(page, 'Snare')).toHaveCount(0);

  // Who leaves while it records keeps what was played.
  await button(page, 'Start recording').click();
  await expect.poll(async () => Math.abs((await position()) - 20) < 8, { intervals: [30] }).toBe(true);
  await button(page, 'Strike Snare').click();
  await expect(page.getByText('Recording · 1 note')).toBeVisible();
  await button(page, 'Back to the lead sheet').click();
  await expect(page.getByTestId('said')).toHaveText('1 note recorded.');
  await expect(button(page, 'Play')).toBeVisible();
});

test('a curve over bars and by hand: the lamps follow it, a point is set to the percent, and it can be turned over', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await addLane(page, 'Curve');
  await standAt(page, 7);
  const most = await full(page);
  await choose(page, 5, 8);
  await button(page, 'Curve').click();
  await button(page, 'Draw rise').click();
  await standAt(page, 7);
  await expect.poll(async () => (await front(page)) / most).toBeCloseTo(0.5, 1);
  await standAt(page, 5);
  await expect.poll(() => front(page)).toBe(0);

  await choose(page, 5, 8);
  await button(page, 'Close-up').click();
  await expect(page.locator('[data-point]')).toHaveCount(2);
  await page.getByLabel('Grid').selectOption('beat');
  await tap(page, 0.5, 0.3);
  await expect(page.locator('[data-point]')).toHaveCount(3);
  await page.getByRole('textbox', { name: 'Value, typed' }).fill('20');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-chosen][data-point]')).toHaveAttribute('data-value', '20');
  await button(page, 'Clear selection').click();
  await button(page, 'Turn upside down').click();
  await expect(page.locator('[data-point]').nth(1)).toHaveAttribute('data-value', '80');
  // Taken at its edge and drawn down it goes down, and neither jumps to the finger nor to the grid.
  const middle = page.locator('[data-point]').nth(1);
  const before = (await middle.getAttribute('data-point'))!;
  const box = (await middle.boundingBox())!;
  await page.getByLabel('Grid').selectOption('1/8');
  await page.mouse.move(box.x + 14, box.y + 12);
  await page.mouse.down();
  await page.mouse.move(box.x + 16, box.y + 30, { steps: 4 });
  await page.mouse.up();
  await expect(middle).not.toHaveAttribute('data-value', '80');
  await expect(middle).toHaveAttribute('data-point', before);
  await page.keyboard.press('Control+z');
  await expect(middle).toHaveAttribute('data-value', '80');
  await button(page, 'Clear selection').click();
  // By hand, over the middle: few points, and where the finger was.
  await button(page, 'Draw').click();
  await drag(page, [0.3, 0.9], [0.7, 0.9]);
  const low = await page
    .locator('[data-point]')
    .evaluateAll((all) => all.filter((one) => Number(one.getAttribute('data-value')) < 15).length);
  expect(low).toBeGreaterThanOrEqual(2);
  expect(low).toBeLessThan(6);
  await button(page, 'Back to the lead sheet').click();
  await standAt(page, 7);
  await expect.poll(async () => (await front(page)) / most).toBeLessThan(0.15);

  // Muted it does nothing, and the lane says so.
  await button(page, 'Lanes').click();
  await button(page, 'Mute Curve').click();
  await button(page, 'Close').click();
  await expect.poll(() => front(page)).toBe(most);
});

test('lanes are set: solo, order, a filter, a fader; deleted and taken back', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  await standAt(page, 7);
  const most = await full(page);
  await button(page, 'Lanes').click();
  const names = async () =>
    (await page.getByRole('button', { name: /^Settings of / }).allTextContents()).map((text) =>
      text.replace(/(Looks|Hits|Curve)$/, ''),
    );
  expect(await names()).toEqual(['Accents', 'Looks']);
  await button(page, 'Solo Accents').click();
  await expect.poll(() => front(page)).toBe(0);
  await button(page, 'Solo Accents').click();
  await expect.poll(() => front(page)).toBe(most);

  await button(page, 'Settings of Looks').click();
  await page.getByRole('textbox', { name: 'Fader, typed' }).fill('50');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await front(page)) / most).toBeCloseTo(0.5, 1);
  await page.getByRole('group', { name: 'Only these roles' }).getByRole('button', { name: 'Movers' }).click();
  await expect.poll(() => front(page)).toBe(0);
  await page.getByRole('group', { name: 'Only these roles' }).getByRole('button', { name: 'Movers' }).click();
  await expect.poll(async () => (await front(page)) / most).toBeCloseTo(0.5, 1);
  await button(page, 'Settings of Looks').click();

  await button(page, 'Add Tint').click();
  expect(await names()).toEqual(['Tint', 'Accents', 'Looks']);
  await button(page, 'Settings of Tint').click();
  const [handle, below] = [
    await button(page, 'Move Tint').boundingBox(),
    await button(page, 'Move Accents').boundingBox(),
  ];
  await page.mouse.move(handle!.x + 20, handle!.y + 20);
  await page.mouse.down();
  await page.mouse.move(handle!.x + 20, below!.y + 10, { steps: 6 });
  await page.mouse.move(below!.x + 20, below!.y + 30, { steps: 6 });
  await page.mouse.up();
  await expect.poll(names).toEqual(['Accents', 'Tint', 'Looks']);
  await button(page, 'Settings of Accents').click();
  await button(page, 'Delete lane').click();
  await expect.poll(names).toEqual(['Tint', 'Looks']);
  await button(page, 'Undo').click();
  await expect.poll(names).toEqual(['Accents', 'Tint', 'Looks']);
});

test('what will not come out as it was meant is said at the end of the sheet, and leads to its bar', async ({
  page,
}) => {
  await open(page, '/songs/low-tide-engine');
  await button(page, 'Bar 3').click();
  await button(page, 'Lay Full sail').click();
  for (let n = 0; n < 4; n++) await button(page, 'Fade in longer').click();
  await button(page, 'Clear selection').click();
  const remark = page.getByRole('group', { name: 'Worth a look' }).getByRole('button', { name: /^bar 3.*never full/ });
  for (let n = 0; n < 14 && !(await remark.isVisible()); n++) {
    await page.mouse.move(195, 500);
    await page.mouse.wheel(0, 1500);
    await page.waitForTimeout(150);
  }
  await expect(remark).toContainText('Full sail lasts 4 beats, and its fades take');
  await remark.click();
  await expect(page.getByTestId('range')).toHaveText('Bar 3');
  for (let n = 0; n < 4; n++) await button(page, 'Fade in shorter').click();
  await expect(remark).toHaveCount(0);
});
