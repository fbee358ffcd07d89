// Lamp types: made, changed while the lamp answers, saved as a file and brought back.

import { readFileSync } from 'node:fs';
import { readGdtf } from '@hovlix/core/gdtf';
import { nodeReport, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.use({ viewport: { width: 390, height: 844 } });
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

test('channels are added by typing, paired, flagged and numbered; what cannot work is said', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Add lamps' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Blank' }).click();
  await expect(page.getByRole('heading', { name: 'New type' })).toBeVisible();
  for (const [typed, name] of [
    ['verti', 'Tilt'],
    ['iris', 'Iris'],
    ['strob', 'Shutter and strobe'],
  ] as const) {
    await page.getByLabel(/^Add a channel/).fill(typed);
    await page.getByRole('button', { name: new RegExp(`^${name} `) }).click();
  }
  await expect(page.getByRole('button', { name: 'Shutter and strobe, place 4', exact: true })).toBeVisible();
  await page.getByRole('checkbox', { name: 'Choose Tilt, place 2' }).click();
  await page.getByRole('checkbox', { name: 'Choose Iris, place 3' }).click();
  await page.getByRole('button', { name: 'One of 16 bits' }).click();
  await expect(page.getByRole('button', { name: 'Tilt, place 2+3', exact: true })).toBeVisible();

  await page.getByRole('checkbox', { name: 'Choose Dimmer, place 1' }).click();
  await page.getByRole('button', { name: 'Without masters' }).click();
  await expect(page.getByRole('button', { name: 'Dimmer, place 1', exact: true })).toContainText('without masters');

  await page.getByRole('button', { name: 'Shutter and strobe, place 4', exact: true }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Place, coarse first').fill('2');
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('Tilt and Shutter and strobe are both at place 2.')).toBeVisible();
  await page.getByRole('button', { name: 'Number them in this order' }).click();
  await expect(page.getByText('are both at place')).toHaveCount(0);
});

test('a channel moved in the editor moves the lamp; a reset must be held, and is let go by itself', async ({
  page,
}) => {
  await open(page, '/rig/type/northlamp-heron');
  await page.getByRole('button', { name: 'Lamp control, place 15', exact: true }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText('Spot 1 answers:')).toBeVisible();
  await sheet.getByRole('button', { name: 'Add range' }).click();
  await sheet.getByLabel('From', { exact: true }).fill('200');
  await sheet.getByLabel('Does', { exact: true }).selectOption('reset');
  await sheet.getByLabel('Held, s').fill('4');
  await sheet.getByLabel('Called', { exact: true }).fill('Reset all');
  // Spot 1 begins at 37, so its control channel is 51.
  const control = async () => (await nodeReport(page)).levels[50];
  const reset = sheet.getByRole('button', { name: 'Reset all, hold' });
  await reset.click();
  expect(await control()).toBe(0);
  await reset.hover();
  await page.mouse.down();
  await expect.poll(control).toBe(228);
  await page.mouse.up();
  await expect(sheet.getByText('Reset all: sent for 4 s')).toBeVisible();
  await expect.poll(control).toBe(0);

  await sheet.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Dimmer, place 5+6', exact: true }).click();
  await sheet.getByRole('slider').first().fill('255');
  await expect.poll(async () => (await nodeReport(page))?.levels[40]).toBe(255);
});

test('a longer mode that runs into its neighbour is said, and moved apart with one press', async ({ page }) => {
  await open(page, '/rig/type/ardent-tern');
  await page.getByLabel(/^Add a channel/).fill('zoom');
  await page.getByRole('button', { name: /^Zoom / }).click();
  await expect(page.getByText('Front 1 and Front 2 share channels now.')).toBeVisible();
  await page.getByRole('button', { name: 'Move them apart' }).click();
  await expect(page.getByText('share channels now')).toHaveCount(0);
});

test('saved as GDTF and brought in again it is the same lamp; a favourite comes first', async ({ page }, info) => {
  await open(page, '/rig/type/northlamp-egret');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as GDTF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Northlamp@Egret Wash.gdtf');
  const path = info.outputPath('egret.gdtf');
  await download.saveAs(path);
  const read = readGdtf(new Uint8Array(readFileSync(path)), 'egret.gdtf', 'again');
  expect(read.ok && [read.value.profile.model, read.value.profile.panRange, read.value.notKept]).toEqual([
    'Egret Wash',
    540,
    [],
  ]);

  await page.goto('/rig');
  await page.getByRole('button', { name: 'Add lamps' }).click();
  const sheet = page.getByRole('dialog');
  await page.locator('input[aria-label="GDTF file"]').setInputFiles(path);
  await expect(page.getByTestId('said')).toContainText('Northlamp Egret Wash is in, with 1 mode.');
  await expect(sheet.getByText(/^Egret 1, addresses|^Egret \d+, addresses/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Another type' }).click();
  await sheet.getByRole('button', { name: 'Make Quillon Mist 2 a favourite' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Add lamps' }).click();
  await expect(sheet.getByRole('button', { name: /channels$/ }).first()).toContainText('Quillon Mist 2');
});

test('chosen lamps are lined up, spaced and copied; a lamp that does not move is turned by its arrow', async ({
  page,
}) => {
  await open(page, '/rig');
  const mark = (name: string) => page.getByRole('button', { name: `${name} on the plan` });
  const middle = async (name: string) => {
    const box = (await mark(name).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  for (const name of ['Wash 1', 'Spot 1', 'Back 2']) await mark(name).press('Enter');
  await page.getByRole('button', { name: 'In one line' }).click();
  const [a, b] = [await middle('Wash 1'), await middle('Back 2')];
  expect(Math.abs(a.y - b.y)).toBeLessThan(1);
  await page.getByRole('button', { name: 'Equal gaps' }).click();
  const [left, centre, right] = [await middle('Wash 1'), await middle('Spot 1'), await middle('Back 2')];
  expect(Math.abs(centre.x - left.x - (right.x - centre.x))).toBeLessThan(1.5);
  await page.getByRole('button', { name: 'Choose none' }).click();
  await mark('Front 1').press('Enter');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByTestId('said')).toContainText('addressed after the others');
  await expect(mark('Front 21')).toBeVisible();
});

test('a type has a picture of one’s own, kept small, seen where lamps are added, and the drawn one again', async ({
  page,
}) => {
  await open(page, '/rig/type/northlamp-heron');
  const card = page.getByRole('region', { name: 'The lamp', exact: true });
  await expect(card.getByRole('img')).toHaveCount(0);
  // A drawing of 600 pixels, made here.
  const drawn = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [600, 400];
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#3388ff';
    context.fillRect(100, 100, 400, 200);
    return canvas.toDataURL('image/png').split(',')[1]!;
  });
  const choose = page.getByLabel('Picture of this type');
  await choose.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByTestId('said')).toHaveText(
    '“notes.png” is not a picture this browser can open. Use a JPEG or a PNG.',
  );
  await choose.setInputFiles({ name: 'heron.png', mimeType: 'image/png', buffer: Buffer.from(drawn, 'base64') });
  await expect(page.getByRole('button', { name: 'Another picture' })).toBeVisible();
  const sizeOf = () =>
    page
      .locator('img[src^="data:image/jpeg"]')
      .first()
      .evaluate((one: HTMLImageElement) => [one.naturalWidth, one.src.length < 60_000]);
  await expect.poll(sizeOf).toEqual([200, true]);
  await page.reload();
  await expect.poll(sizeOf).toEqual([200, true]);
  await page.getByRole('button', { name: 'Add lamps of it' }).click();
  await expect(page.getByRole('dialog').locator('img[src^="data:image/jpeg"]').first()).toBeAttached();
  await page.goto('/rig/type/northlamp-heron');
  await page.getByRole('button', { name: 'As drawn' }).click();
  await expect(page.locator('img[src^="data:image"]')).toHaveCount(0);
});

test('a mode that lamps are set to stays, and one that none are set to can go; a slot is taken off a wheel', async ({
  page,
}) => {
  await open(page, '/rig/type/northlamp-heron');
  await page.getByRole('button', { name: 'Another mode' }).click();
  const remove = page.getByRole('button', { name: 'Remove this mode' });
  const stays = page.getByText('Lamps in a rig are set to this mode, so it stays.');
  await expect(remove).toBeEnabled();
  await page.getByLabel('Mode', { exact: true }).selectOption({ index: 0 });
  await expect(remove).toBeDisabled();
  await expect(stays).toBeVisible();
  await page.getByLabel('Mode', { exact: true }).selectOption({ index: 1 });
  await remove.click();
  await expect(page.getByLabel('Mode', { exact: true })).toHaveCount(0);

  // A slot goes, and the next one takes its place.
  const wheel = page.getByRole('region', { name: 'Colour wheel' });
  const names = () =>
    wheel.getByLabel(/^Slot \d+$/).evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  const before = await names();
  await wheel.getByRole('button', { name: 'Remove slot 3' }).click();
  await expect.poll(names).toEqual(before.filter((_, slot) => slot !== 3));
});
