// From a manual's chart to beams that point where the plan says: what a band does on its first evening.

import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { beamDirection, mountRotation } from '@hovlix/core/rig';
import { actElsewhere, liveNow, nodeReport, onDisk, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

const CHART = `1 Pan / 2 Pan fine / 3 Tilt / 4 Tilt fine
5 Dimmer 0-100%
6 Shutter 0-9 closed 10-199 strobe slow-fast 200-255 open
7 Colour wheel 0-15 Open 16-31 Red 32-47 Blue
8 Wobble machine
Pan 540°, Tilt 270°`;

const saysTo = (page: Page, text: RegExp) => expect(page.getByTestId('said')).toContainText(text);

test('a type from a pasted chart, six of it patched, hung, directed and aimed: the bytes at the node are what the mount says', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  const sheet = page.getByRole('dialog');
  await page.getByRole('button', { name: 'Add lamps' }).click();
  await sheet.getByRole('button', { name: 'Paste a chart' }).click();
  await sheet.getByLabel('The manual’s chart').fill(CHART);
  await expect(sheet.getByText('One thing to settle')).toBeVisible();
  await expect(sheet.getByText('“8 Wobble machine”: this name is not known')).toBeVisible();
  await sheet.getByRole('button', { name: 'Use these 6 channels' }).click();

  // The editor: a name, and the one thing that was left is settled by typing.
  await page.getByLabel('Model').fill('Owl 100');
  await page.getByLabel('Short, for names').fill('Owl');
  await expect(page.getByRole('heading', { name: 'Owl 100' })).toBeVisible();
  await page.getByRole('button', { name: 'Wobble machine, place 8' }).click();
  await sheet.getByLabel('Does something else').fill('focus');
  await sheet.getByRole('button', { name: /^Focus/ }).click();
  await expect(sheet.getByText('(Focus1)')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();

  // Six of it, on a universe of their own.
  await page.getByRole('button', { name: 'Add lamps of it' }).click();
  await sheet.getByLabel('How many').fill('6');
  await sheet.getByLabel('Universe').fill('3');
  await sheet.getByLabel('Addresses apart').fill('16');
  await expect(sheet.getByText(/^Owl 1 … Owl 6, addresses 1 to 88$/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Add 6 lamps' }).click();
  await saysTo(page, /joined the role/);
  await expect.poll(async () => (await nodeReport(page, 'sacn', 3))?.framesPerSecond ?? 0).toBeGreaterThan(40);

  // Hung: dragged to the truss, where it snaps.
  await page.goto('/rig');
  const owl = page.getByRole('button', { name: 'Owl 1 on the plan' });
  const box = (await owl.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 30, y - 40, { steps: 6 });
  await page.mouse.up();
  await owl.focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Across, m').fill('-1.5');
  await page.getByLabel('Up-stage, m').fill('4');
  await page.getByLabel('Height, m').fill('3.6');
  await page.getByLabel('Height, m').press('Enter');

  // Owl 5 is in somebody else's hands.
  const last = { universe: 3, address: 4 * 16 + 8 };
  const owl5 = async () => (await nodeReport(page, 'sacn', 3))!.levels[last.address - 1];
  await actElsewhere({ type: 'hold-channels', channels: [{ ...last, value: 77 }] });
  await expect.poll(owl5).toBe(77);

  // Directed: this lamp hangs turned by 90° about the vertical, and nobody has told Hovlix so.
  await page.getByRole('button', { name: 'Where does it point?' }).click();
  const hung = { x: -1.5, y: 4, z: 3.6 };
  const truth = { yaw: 90, pitch: 0, roll: 0 };
  for (const [name, point] of [
    ['Front left corner', { x: -4.4, y: 0, z: 0 }],
    ['Front right corner', { x: 4.4, y: 0, z: 0 }],
    ['Back right corner', { x: 4.4, y: 4.8, z: 0 }],
  ] as const) {
    await steerOnto(page, hung, truth, point);
    await sheet.getByRole('button', { name: new RegExp(`^${name}`) }).focus();
    await page.keyboard.press('Enter');
    await expect(sheet.getByRole('button', { name: `Forget ${name}` })).toBeVisible();
  }
  await expect(sheet.getByText(/Fits 3 points to\s*0\.\d°/)).toBeVisible();
  await sheet.getByRole('button', { name: /^Use it/ }).click();
  await expect(sheet.getByRole('heading', { name: 'Is Owl 2 right?' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Yes, right there' }).click();
  await expect(sheet.getByRole('heading', { name: 'Is Owl 3 right?' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect.poll(async () => (await liveNow()).held.map(({ address }) => address)).toEqual([last.address]);
  expect(await owl5()).toBe(77);
  await actElsewhere({ type: 'free-channels', universe: 3, from: last.address, count: 1 });

  // Aimed: the aim is dragged, and what leaves for Owl 1 points there by the true mount, not by anybody's belief.
  await page.getByRole('button', { name: 'Aims', exact: true }).click();
  const aim = page.getByRole('img', { name: 'Singer, aim' });
  await page.getByTestId('plan').scrollIntoViewIfNeeded();
  const spot = (await aim.locator('circle').boundingBox())!;
  const [ax, ay] = [spot.x + spot.width / 2, spot.y + spot.height / 2];
  await page.mouse.move(ax, ay);
  await page.mouse.down();
  await page.mouse.move(ax + 20, ay - 20, { steps: 5 });
  await page.mouse.move(ax + 40, ay - 24, { steps: 5 });
  const metre = await metresPerPixel(page);
  // Where the true beam crosses the singer's height, against where the finger holds the aim: metres between them.
  const beside = async () => {
    const { levels } = await nodeReport(page, 'sacn', 3);
    const pan = ((levels[0]! * 256 + levels[1]!) / 65535 - 0.5) * 540;
    const tilt = ((levels[2]! * 256 + levels[3]!) / 65535 - 0.5) * 270;
    const beam = new Float64Array(3);
    beamDirection(mountRotation(truth), pan, tilt, beam);
    const reach = (hung.z - 1.6) / -beam[2]!;
    return Math.hypot(hung.x + beam[0]! * reach - (-0.4 + 40 * metre), hung.y + beam[1]! * reach - (1 + 24 * metre));
  };
  await expect.poll(beside).toBeLessThan(0.3);
  const { levels } = await nodeReport(page, 'sacn', 3);
  expect([levels[4], levels[5]]).toEqual([255, 228]);
  await page.mouse.up();
  // Let go, it is given back to the show.
  await expect.poll(async () => (await nodeReport(page, 'sacn', 3))?.levels[4]).toBe(0);
});

/** Metres a pixel on the plan, from two lamps of the demo whose places are known. */
async function metresPerPixel(page: Page): Promise<number> {
  const middle = async (name: string) => {
    const box = (await page.getByRole('button', { name: `${name} on the plan` }).boundingBox())!;
    return box.x + box.width / 2;
  };
  return (2.7 - -2.7) / ((await middle('Front 4')) - (await middle('Front 1')));
}

/** Sends the head onto a point by its true mount, with the pad's keys: coarse by 5°, fine by half a degree. */
async function steerOnto(
  page: Page,
  at: { x: number; y: number; z: number },
  truth: { yaw: number; pitch: number; roll: number },
  point: { x: number; y: number; z: number },
): Promise<void> {
  const rotation = mountRotation(truth);
  const d = [point.x - at.x, point.y - at.y, point.z - at.z];
  const length = Math.hypot(...d);
  const local = [0, 1, 2].map((i) => [0, 1, 2].reduce((sum, k) => sum + (rotation[k * 3 + i]! * d[k]!) / length, 0));
  const tilt = (Math.acos(-local[2]!) * 180) / Math.PI;
  const pan = (Math.atan2(-local[0]!, local[1]!) * 180) / Math.PI;
  const pad = page.getByRole('slider', { name: 'Steer the beam' });
  const now = async () => {
    const text = (await pad.getAttribute('aria-valuetext'))!;
    const [, p, t] = /pan (-?[\d.]+) degrees, tilt (-?[\d.]+)/.exec(text)!;
    return [Number(p), Number(t)] as const;
  };
  for (const [speed, step] of [
    ['Coarse', 5],
    ['Fine', 0.5],
  ] as const) {
    await page.getByRole('dialog').getByRole('button', { name: speed, exact: true }).click();
    await pad.focus();
    const [p, t] = await now();
    const press = async (key: string, times: number) => {
      for (let i = 0; i < times; i++) await page.keyboard.press(key);
    };
    await press(pan > p ? 'ArrowRight' : 'ArrowLeft', Math.round(Math.abs(pan - p) / step));
    await press(tilt > t ? 'ArrowUp' : 'ArrowDown', Math.round(Math.abs(tilt - t) / step));
  }
}

test('another room: what is lost there is said, the show plays there, and a song of it', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Boathouse' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Play in Village hall' }).click();
  await expect(sheet.getByText('All 3 have no pan and tilt: they shine where they point.')).toBeVisible();
  await expect(sheet.getByText('Nobody plays it: what it does is not seen.').first()).toBeVisible();
  // The strobe's role is given to a lamp by hand.
  await sheet.getByRole('button', { name: /^Strobe/ }).click();
  await sheet.getByRole('checkbox', { name: 'PAR 2' }).click();
  await sheet.getByRole('button', { name: 'Play in Village hall' }).click();
  await expect(page.getByRole('heading', { name: 'Village hall' })).toBeVisible();
  await page.goto('/songs/paper-lighthouse');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect
    .poll(async () => (await nodeReport(page))?.levels.slice(0, 24).reduce((sum, value) => sum + value, 0), {
      timeout: 15_000,
    })
    .toBeGreaterThan(200);
  expect((await nodeReport(page)).levels.slice(24).every((value) => value === 0)).toBe(true);
  await page.getByRole('button', { name: 'Pause' }).click();
});

test('rig check: each lamp lights alone, a key answers, and what is wrong is listed', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  const sheet = page.getByRole('dialog', { name: 'Rig check' });
  await expect(sheet.getByText('Lamp 1 of 20')).toBeVisible();
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(255);
  await page.keyboard.press('Space');
  await expect
    .poll(async () => (await nodeReport(page))?.levels.slice(0, 7))
    .toEqual([0, 255, 255, 255, 255, 228, 255]);
  await sheet.getByRole('button', { name: 'Not this one' }).click();
  for (let i = 0; i < 18; i++) await page.keyboard.press('Space');
  await expect(sheet.getByText('1 of 20 to fix:')).toBeVisible();
  await expect(sheet.getByText(/^Set it to 6 channels at address 7/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(0);
});

test('dimmed on the plan with a finger, and given back', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Dim', exact: true }).click();
  const lamp = (await page.getByRole('button', { name: 'Front 1 on the plan' }).boundingBox())!;
  const [x, y] = [lamp.x + lamp.width / 2, lamp.y + lamp.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 120, { steps: 8 });
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(255);
  await page.mouse.up();
  await expect(page.getByText('Held by hand: Front 1')).toBeVisible();
  await page.getByRole('main').getByRole('button', { name: 'Release', exact: true }).click();
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(0);
});

test('the patch sheet: a PDF that reads as the rig is patched, and a CSV', async ({ page }, info) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  const saved = async (button: string, name: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`Boathouse patch sheet.${name}`);
    const path = info.outputPath(`sheet.${name}`);
    await download.saveAs(path);
    return path;
  };
  const pdf = await saved('Patch sheet, PDF', 'pdf');
  const text = execFileSync(process.execPath, ['e2e/specs/pdf-text.mjs', pdf], {
    encoding: 'utf8',
    cwd: new URL('../..', import.meta.url).pathname,
  });
  expect(text).toContain('Boathouse: patch sheet');
  for (const words of ['Spot 1', 'Northlamp Heron 60', '37-52', 'Movers', 'right 2.9, back 0.1, up 0.1', 'C#3'])
    expect(text).toContain(words);
  const csv = readFileSync(await saved('Patch sheet, CSV', 'csv'), 'utf8').split('\r\n');
  expect(csv[0]).toBe(
    '\ufeffNumber,Name,Type,Mode,Universe,Address,Last address,DIP switches up,Role,"Position, m",Note,On its menu,Remark',
  );
  expect(csv.find((line) => line.includes('Spot 2'))).toContain('1,53,68,1 3 5 6,Movers');
});

test('addresses dragged along the ruler land only where it is free; many are changed at once', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  const reed = page.getByTestId('on the ruler: Reed 4');
  const box = (await reed.boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + 20, { steps: 3 });
  // Over the hazer at 201, where it would not fit: the nearest free run is just behind it.
  await page.mouse.move(16 + (358 * 200) / 512, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await saysTo(page, /^Reed 4 listens at 203 now/);
  await expect(page.getByText('share channels')).toHaveCount(0);
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: 'Reed 4, address 169' }).first()).toBeVisible();

  await page.getByRole('button', { name: 'Choose several' }).click();
  for (const name of ['Can 1', 'Can 2'])
    await page
      .getByRole('button', { name: new RegExp(`^${name}, address`) })
      .last()
      .click();
  await page.getByRole('button', { name: 'Change 2' }).click();
  const sheet = page.getByRole('dialog', { name: '2 lamps' });
  await sheet.getByLabel('From address').fill('1');
  await expect(sheet.getByText('Front 1 there already.')).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Move them there' })).toHaveAttribute('aria-disabled', 'true');
  await sheet.getByLabel('From address').fill('300');
  await sheet.getByLabel('Apart').fill('8');
  await sheet.getByRole('button', { name: 'Move them there' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: 'Can 2, address 308' }).last()).toBeVisible();
});

test('roles: renamed, ordered left to right, merged, and back', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Roles', exact: true }).click();
  await page.getByRole('button', { name: 'Movers, 4 lamps' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Heads');
  await sheet.getByLabel('Order').selectOption('by number');
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: 'Heads, 4 lamps' })).toContainText('Spot 1, Spot 2, Wash 1, Wash 2');
  await page.getByRole('button', { name: 'Accent lamps, 2 lamps' }).click();
  await sheet.getByLabel('Merge into').selectOption({ label: 'Heads' });
  await expect(page.getByRole('button', { name: 'Heads, 6 lamps' })).toBeVisible();
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: 'Accent lamps, 2 lamps' })).toBeVisible();
});

test('bad files and numbers are refused in a sentence, and the show stays as it was', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Add lamps' }).click();
  const gdtf = page.locator('input[aria-label="GDTF file"]');
  await gdtf.setInputFiles({ name: 'lamp.gdtf', mimeType: 'application/zip', buffer: Buffer.from('no zip at all') });
  await saysTo(page, /“lamp\.gdtf” was not taken in: it is not a zip file/);
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Search lamps').fill('hazer');
  await sheet
    .getByRole('button', { name: /^Hazer / })
    .first()
    .click();
  for (const wrong of ['0', '600', 'six']) {
    await sheet.getByLabel('First address').fill(wrong);
    await expect(sheet.getByText('A whole number from 1 to 512.')).toBeVisible();
  }
  await sheet.getByRole('button', { name: 'Another type' }).click();
  await sheet.getByRole('button', { name: 'Paste a chart' }).click();
  await sheet.getByLabel('The manual’s chart').fill('一般的な情報だけ');
  await expect(sheet.getByText('No channel was found in this.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Room', exact: true }).click();
  const room = page.locator('input[aria-label="Picture of the room"]');
  await room.setInputFiles(onDisk('hall.jpg', Buffer.alloc(41_000_000)));
  await saysTo(page, /“hall\.jpg” is 41 MB\. A picture may have up to 40 MB/);
  await room.setInputFiles({
    name: 'song.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('not a picture'),
  });
  await saysTo(page, /“song\.jpg” is not a picture this browser can open/);

  // One that is a picture lies under the plan, and goes with one undo.
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  const file = { name: 'room.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') };
  await room.setInputFiles(file);
  await expect(page.getByLabel('The picture shows, m across')).toHaveValue('13.2');
  await expect(page.getByTestId('plan').locator('image')).toHaveAttribute('href', /^data:image\/jpeg;base64,/);
  await page.getByTestId('plan').click({ position: { x: 10, y: 290 } });
  await page.keyboard.press('Control+Z');
  await expect(page.getByTestId('plan').locator('image')).toHaveCount(0);
});
