import { nodeReport, open, restoreConnections, restoreShow, statusOf } from './hovlix';
import { expect, test } from './screens';

test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

test('lamps from the library: searched, counted, offered the first free addresses, flashed, changed, taken away', async ({
  page,
}) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  const add = page.getByRole('button', { name: 'Add lamps' });
  const sheet = page.getByRole('dialog');
  await add.click();
  await sheet.getByLabel('Search lamps').fill('kite of a kind');
  await expect(sheet.getByText('No lamp matches.')).toBeVisible();
  await sheet.getByLabel('Search lamps').fill('par rgbw 8ch');
  await sheet.getByRole('button', { name: /^LED PAR RGBW / }).click();
  await sheet.getByLabel('Mode, as set in the lamp’s menu').selectOption({ index: 3 });
  await sheet.getByLabel('How many').fill('3');
  // The demo's rig ends at 194 but for a gap: the first free run of 24.
  await expect(sheet.getByText(/^RGBW 1 … RGBW 3, addresses/)).toBeVisible();
  const start = Number(await sheet.getByLabel('First address').inputValue());

  // Somewhere else by typing: in the way of others it cannot be done by accident.
  await sheet.getByLabel('First address').fill('1');
  await expect(sheet.getByText(/there already\.$/)).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Add 3 lamps' })).toHaveAttribute('aria-disabled', 'true');
  await sheet.getByLabel('First address').fill('500');
  await expect(sheet.getByText(/A universe ends at 512\. Begin at 489 or before\./)).toBeVisible();
  await sheet.getByLabel('First address').fill(String(start));
  await sheet.getByRole('button', { name: 'Add 3 lamps' }).click();
  await expect(page.getByTestId('said')).toContainText('joined the role “PARs”');

  // It answers at its address.
  await page
    .getByRole('button', { name: `RGBW 2, address ${start + 8}` })
    .last()
    .click();
  await page.getByRole('button', { name: 'Flash this lamp' }).click();
  await expect.poll(async () => (await nodeReport(page))?.levels[start + 8 - 1]).toBe(255);
  expect((await nodeReport(page)).levels[start - 1]).toBe(0);

  // Moved onto its neighbour it says so, and offers the way out.
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  // Half an address is none yet: it would lie on the first lamp.
  await sheet.getByLabel('Address').fill('1');
  await page.waitForTimeout(800);
  await expect(sheet.getByText('It shares channels')).toHaveCount(0);
  await sheet.getByLabel('Address').fill(String(start + 4));
  await page.keyboard.press('Enter');
  await expect(sheet.getByText('It shares channels with RGBW 1')).toBeVisible();
  await sheet.getByRole('button', { name: /^Move to \d+, which is free$/ }).click();
  await expect(sheet.getByText('It shares channels')).toHaveCount(0);
  await sheet.getByLabel('Name').fill('Door lamp');
  await expect(sheet.getByRole('heading', { name: 'Door lamp' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Remove lamp' }).click();
  await expect(page.getByRole('button', { name: /^Door lamp, address/ })).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Door lamp, address/ }).first()).toBeVisible();
});

test('lamps on a universe of their own: it is sent at once, by an output that Connections shows', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  await page.getByRole('button', { name: 'Add lamps' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Search lamps').fill('pixel tube');
  await sheet.getByRole('button', { name: /^Quillon Pixel tube 24/ }).click();
  await sheet.getByLabel('Mode, as set in the lamp’s menu').selectOption({ index: 1 });
  await sheet.getByLabel('How many').fill('9');
  await expect(sheet.getByText(/has no room for 648 addresses in a row/)).toBeVisible();
  await sheet.getByLabel('How many').fill('2');
  await sheet.getByLabel('Universe').fill('6');
  await expect(sheet.getByText(/^Tube 1 … Tube 2, addresses 1 to 144$/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Add 2 lamps' }).click();
  await expect.poll(async () => (await statusOf(page)).connections.outputs.map((row) => row.universe)).toEqual([1, 6]);
  await expect.poll(async () => (await nodeReport(page, 'sacn', 6))?.framesPerSecond ?? 0).toBeGreaterThan(40);
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('button', { name: /^Tube 1, address/ })).toHaveCount(0);
});

test('a moving head that is flashed shines, and neither turns nor hears what would reset it', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  await page.getByRole('button', { name: 'Spot 1, address 37' }).last().click();
  const before = (await nodeReport(page)).levels;
  await page.getByRole('button', { name: 'Flash this lamp' }).click();
  // Its dimmer is 41 and 42; pan, tilt, shutter and wheels are 37 to 40 and 43 to 52.
  let { levels } = await nodeReport(page);
  await expect.poll(async () => ({ levels } = await nodeReport(page)).levels.slice(40, 42)).toEqual([255, 255]);
  expect([...levels.slice(36, 40), ...levels.slice(42, 52)]).toEqual([
    ...before.slice(36, 40),
    ...before.slice(42, 52),
  ]);
});

test('of many roles one is found by its name, or by a lamp that plays it', async ({ page }) => {
  await restoreShow(page, (show) => ({
    ...show,
    roles: [
      ...show.roles,
      ...['Balcony', 'Bar front', 'Bar back'].map(
        (name, i) => ({ id: `more-${i}`, name, tint: i }) as unknown as (typeof show.roles)[number],
      ),
    ],
  }));
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Roles' }).click();
  const rows = page.getByRole('button', { name: /, \d+ lamps?$/ });
  const all = await rows.count();
  expect(all).toBeGreaterThan(8);
  const search = page.getByLabel('Search the roles');
  await search.fill('bar back');
  await expect(rows).toHaveText([/^Bar back/]);
  await search.fill('spot 1');
  await expect(rows).toHaveText([/^Movers/]);
  await search.fill('zither');
  await expect(page.getByText('No role matches.')).toBeVisible();
  await search.fill('');
  await expect(rows).toHaveCount(all);
});
