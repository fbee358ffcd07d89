import type { Page } from '@playwright/test';
import { button, lookIs, nodeReport, open, stageBrightness, tooSmall } from './hovlix';
import { openPlace, PLACES, turnTo } from './places';
import { expect, test } from './screens';
import { stumbles } from './stumbles';

test('looks: a tap turns one on, the stage and the wire follow, another turns it off', async ({ page }) => {
  await open(page, '/looks');
  const dark = await stageBrightness(page);
  await page.getByRole('button', { name: 'Full sail, off' }).click();
  await lookIs(page, 'Full sail', true);
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(dark + 5);
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBeGreaterThan(100);
  await page.keyboard.press('2');
  await lookIs(page, 'Full sail', false);
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(0);
});

test('master and blackout: on the wire at once, in sight everywhere', async ({ page }) => {
  await open(page, '/looks');
  await page.getByRole('button', { name: 'House warm, off' }).click();
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(102);
  await page.getByRole('button', { name: /Grand master, 100/ }).click();
  await page.getByRole('slider', { name: 'Grand master level' }).fill('50');
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(51);
  await page.getByRole('button', { name: 'Grand master to full' }).click();
  await page.keyboard.press('b');
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(0);
  await expect(page.getByText('Blackout: all dark')).toBeVisible();
  await page.getByRole('button', { name: 'Light again: end the blackout' }).click();
  await expect.poll(async () => (await nodeReport(page))?.levels[0]).toBe(102);
  await page.getByRole('button', { name: 'House warm, on' }).click();
});

test('rig: the other room, and why a lamp is dark', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  await page.getByRole('button', { name: 'Front 1, address 1' }).last().click();
  await expect(page.getByRole('region', { name: 'Why Front 1' })).toContainText(/Dark|Shines/);
  await page.keyboard.press('b');
  await expect(page.getByRole('region', { name: 'Why Front 1' })).toContainText('Blackout is on.');
  await page.keyboard.press('b');
  await page.getByRole('button', { name: 'Boathouse' }).click();
  await page.getByRole('button', { name: 'Play in Village hall' }).click();
  await page.getByRole('button', { name: 'Play in Village hall' }).click();
  await expect(page.getByRole('button', { name: 'PAR 6, address 21' }).last()).toBeVisible();
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('heading', { name: 'Boathouse' })).toBeVisible();
});

test('tap sets the tempo, ? lists the keys, space plays', async ({ page }) => {
  await open(page, '/looks');
  await page.getByRole('button', { name: 'House warm, off' }).click();
  for (let i = 0; i < 4; i++) await page.keyboard.press('t');
  await expect(page.getByTestId('bpm')).not.toHaveText('120.0');
  await page.getByRole('button', { name: 'House warm, on' }).click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('blackout');
  await page.keyboard.press('Escape');
  await page.goto('/songs/salt-and-signal');
  await expect(page.getByRole('heading', { name: 'Salt and Signal' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('range')).toHaveText('Bar 1');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('range')).toHaveText('Bars 1 – 2');
});

test('a phone on its side: a place has all of the height, stage and pulse beside it; what opens over it can be closed', async ({
  page,
}) => {
  await page.setViewportSize({ width: 844, height: 390 });
  await open(page, '/connect');
  for (const place of ['Gig', 'Songs', 'Looks']) {
    await page.getByRole('link', { name: place, exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect((await page.getByRole('main').boundingBox())!.height).toBeGreaterThan(380);
    for (const one of [page.getByTestId('stage'), button(page, 'Blackout')])
      await expect(one).toBeInViewport({ ratio: 1 });
    expect(await tooSmall(page)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(844);
  }
  await button(page, 'Tempo').click();
  // The master's fader lies over the sheet.
  const master = page.getByRole('button', { name: /^Grand master, / });
  await master.click();
  await page.getByRole('slider', { name: 'Grand master level' }).click({ position: { x: 20, y: 60 } });
  await expect(page.getByTestId('master')).not.toHaveText('100');
  await button(page, 'Grand master to full').click();
  await expect(page.getByTestId('master')).toHaveText('100');
  await page.getByRole('heading', { name: 'Tempo' }).click();
  await page.getByRole('dialog', { name: 'Tempo' }).getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // Turned upright the place stays as it is, with what was typed.
  await button(page, 'Search the looks').click();
  await page.getByLabel('Name, number, folder, or what it does').fill('sail');
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByLabel('Name, number, folder, or what it does')).toHaveValue('sail');
  await expect(page.getByRole('button', { name: /^Full sail, off/ })).toBeInViewport();
});

test('gig: where we are, what comes next, and on to the next song', async ({ page }) => {
  await open(page, '/songs/paper-lighthouse');
  await page.getByRole('button', { name: 'Bar 5', exact: true }).click();
  await page.getByRole('link', { name: 'Gig' }).click();
  await expect(page.getByTestId('gig-bar')).toHaveText('bar 1 of 8');
  await expect(page.getByText('then Lift')).toBeVisible();
  await page.getByRole('button', { name: 'Set list' }).click();
  await page.getByRole('button', { name: 'Go to Salt and Signal' }).click();
  await expect(page.getByRole('heading', { name: 'Salt and Signal' })).toBeVisible();
  await page.getByRole('button', { name: 'Play Salt and Signal', exact: true }).click();
  await page.getByRole('button', { name: 'Pause' }).click();
});

test('deep links survive a reload, and a song that is gone says so', async ({ page }) => {
  for (const [path, heading] of [
    ['/rig', 'Boathouse'],
    ['/looks', 'Looks'],
    ['/rig/type/northlamp-heron', 'Heron 60'],
    ['/connect', 'Connect'],
    ['/connect/first', 'One lamp'],
    ['/connect/universe/1', 'Universe 1'],
    ['/songs/night-ferry', 'Night Ferry'],
  ] as const) {
    await open(page, path);
    await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
  }
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Night Ferry', level: 1 })).toBeVisible();
  await open(page, '/songs/nobody');
  await expect(page.getByText('This song is not in the show')).toBeVisible();
  await open(page, '/connect/universe/70000');
  await expect(page.getByText('There is no such universe')).toBeVisible();
  await expect(page.getByRole('link', { name: 'To Connect' })).toHaveAttribute('href', '/connect');
  await open(page, '/looks/nobody');
  await page.getByRole('link', { name: 'To the looks' }).click();
  await expect(page.getByRole('heading', { name: 'Looks', level: 1 })).toBeVisible();
  for (const nowhere of ['/nowhere', '/_sitemap']) {
    await open(page, nowhere);
    await expect(page.getByRole('link', { name: 'To the songs' })).toBeVisible();
  }
  // A universe that no output sends claims no frames.
  await open(page, '/connect/universe/777');
  await expect(page.getByText('No output sends it.')).toBeVisible();
});

test('a place whose piece cannot be fetched is said in its room, and the others go on', async ({ page }) => {
  await open(page, '/songs');
  await expect(page.getByRole('button', { name: 'Open Night Ferry' })).toBeVisible();
  await page.route('**/_expo/**/*.js', (route) => route.abort());
  await page.getByRole('link', { name: 'Rig' }).click();
  await expect(page.getByRole('alert')).toContainText('This place could not be opened');
  await expect(page.getByRole('button', { name: 'Tap the tempo' })).toBeVisible();
  await page.getByRole('link', { name: 'Songs' }).click();
  await expect(page.getByRole('button', { name: 'Open Night Ferry' })).toBeVisible();
  await page.unroute('**/_expo/**/*.js');
  await page.getByRole('link', { name: 'Rig' }).click();
  await page.getByRole('button', { name: 'Reload' }).click();
  await expect(page.getByRole('heading', { name: 'Boathouse' })).toBeVisible();
});

test('a place that takes its time to come says so, and is there when it has come', async ({ page }) => {
  await open(page, '/songs');
  await expect(page.getByRole('button', { name: 'Open Night Ferry' })).toBeVisible();
  let comes: () => void = () => undefined;
  const come = new Promise<void>((resolve) => (comes = resolve));
  await page.route('**/_expo/**/*.js', async (route) => {
    await come;
    await route.continue();
  });
  const loading = page.getByText('Loading this place');
  for (const link of ['Looks', 'Rig']) {
    await page.getByRole('link', { name: link }).click();
    await expect(loading).toBeVisible();
    await expect(button(page, 'Tap the tempo')).toBeVisible();
  }
  comes();
  await expect(page.getByRole('heading', { name: 'Boathouse', level: 1 })).toBeVisible();
  await expect(loading).toHaveCount(0);
  await page.getByRole('link', { name: 'Looks' }).click();
  await expect(page.getByRole('heading', { name: 'Looks', level: 1 })).toBeVisible();
});

test('a sheet that cannot be fetched is said, the page goes on, and it opens when the server is back', async ({
  page,
}) => {
  await open(page, '/songs');
  await expect(page.getByRole('button', { name: 'Open Night Ferry' })).toBeVisible();
  await page.route('**/_expo/**/*.js', (route) => route.abort());
  for (const opener of ['Tempo', 'More about Night Ferry', 'Song without music']) {
    await button(page, opener).click();
    await expect(page.getByTestId('said')).toContainText('This could not be fetched');
    await button(page, 'OK').click();
    await expect(page.getByTestId('said')).toHaveCount(0);
  }
  await page.unroute('**/_expo/**/*.js');
  for (const opener of ['Tempo', 'More about Night Ferry']) {
    await button(page, opener).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});

test('the lamp list is searched, why a lamp is dark stands under it, and looks without lamps say so', async ({
  page,
}) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'List', exact: true }).click();
  const rows = page.getByRole('button', { name: /, address \d+$/ });
  await expect(rows).toHaveCount(20);
  await page.getByLabel('Search the lamps').fill('movers heron');
  await expect(rows).toHaveText([/^9?Spot 1|Spot 1/, /Spot 2/]);
  await rows.first().click();
  const [row, why] = [
    await rows.first().boundingBox(),
    await page.getByRole('region', { name: 'Why Spot 1' }).boundingBox(),
  ];
  expect(Math.abs(why!.y - (row!.y + row!.height))).toBeLessThan(20);
  await page.getByLabel('Search the lamps').fill('nobody');
  await expect(page.getByText('No lamp matches.')).toBeVisible();

  await page.getByRole('button', { name: 'Boathouse' }).click();
  await page.getByRole('button', { name: 'New rig' }).click();
  await expect(page.getByRole('heading', { name: /^Rig \d/ })).toBeVisible();
  await page.getByRole('link', { name: 'Looks' }).click();
  await expect(page.getByText('No lamps for it in this rig').first()).toBeVisible();
  await expect(button(page, 'Full sail, off')).toHaveAttribute('aria-description', 'No lamps for it in this rig');
  await page.keyboard.press('Control+Z');
  await expect(page.getByText('No lamps for it in this rig')).toHaveCount(0);
});

test('the theme is kept, other windows follow it, and what each of them keeps stays', async ({ page, context }) => {
  await open(page, '/settings');
  const second = await context.newPage();
  await open(second, '/settings');
  await button(page, 'Day, for the table').click();
  for (const one of [page, second]) await expect(one.locator('html')).toHaveCSS('color-scheme', 'light');
  const fade = (one: Page) => one.getByLabel('Fade of a blackout, seconds');
  await fade(second).fill('1.5');
  await second.keyboard.press('Enter');
  await expect(fade(page)).toHaveValue('1.5');
  await page.getByRole('link', { name: 'Songs' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveCSS('color-scheme', 'light');
  await page.goto('/settings');
  await expect(fade(page)).toHaveValue('1.5');
});

test('nothing a reader would stumble over, on a phone and on a wide screen', async ({ page }) => {
  test.setTimeout(480_000);
  for (const path of PLACES)
    await test.step(path, async () => {
      await page.setViewportSize({ width: 1280, height: 800 });
      await openPlace(page, path);
      for (const [width, height] of [
        [1280, 800],
        [390, 844],
      ] as const) {
        await page.setViewportSize({ width, height });
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        expect(await stumbles(page), `${width} wide`).toEqual([]);
        // Nothing to press is smaller than a thumb, and nothing leaves the screen sideways.
        expect(await tooSmall(page), `${width} wide`).toEqual([]);
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
      }
      // By day only the colours are others.
      await turnTo(page, 'day');
      expect(await stumbles(page, 'color-contrast'), 'by day').toEqual([]);
      await turnTo(page, 'night');
    });
});
