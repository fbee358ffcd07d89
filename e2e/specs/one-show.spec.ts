// One show on every screen: never replaced by who joins, no edit lost, nothing held by who has gone.

import type { Page } from '@playwright/test';
import { statusOf } from './hovlix';
import { newScreen, screenIn, startServer, type Server } from './servers';
import { expect, test } from './screens';

// Several screens at once on a machine that also runs the servers: each page takes seconds to load.
test.setTimeout(240_000);

let server: Server;
test.beforeAll(async () => {
  server = await startServer(4765, ['--demo', '--lan-at', '127.0.0.3']);
});
test.afterAll(() => server.stop());

const songs = (page: Page) => page.getByRole('button', { name: /^Open / });
const showing = (page: Page, name: string) =>
  expect(page.getByRole('button', { name: `${name}. All shows` })).toBeVisible();
const pressed = (page: Page, look: string) => page.getByRole('button', { name: new RegExp(`^${look}, key \\d, on`) });

test('a fresh screen, and one with a show of its own, join while another show plays: nothing changes on stage, nothing is lost', async ({
  browser,
}) => {
  const host = await newScreen(browser, server.base);
  await host.page.goto('/songs/night-ferry');
  await host.page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(host.page.getByTestId('position')).toHaveText(/0:0[1-9]/);

  const fresh = await newScreen(browser, server.base);
  await fresh.page.goto('/songs');
  await showing(fresh.page, 'Friday at the Boathouse');

  // Last week's show lies in this one's store: it is begun on another server, and comes here with it.
  const elsewhere = await startServer(4766);
  const own = await newScreen(browser, elsewhere.base);
  await own.page.goto('/');
  await own.page.getByRole('button', { name: 'Begin my own show' }).click();
  await showing(own.page, 'My show');
  await own.page.getByRole('button', { name: 'My show. All shows' }).click();
  const download = own.page.waitForEvent('download');
  await own.page.getByRole('button', { name: 'More about My show' }).click();
  await own.page.getByRole('button', { name: 'Export' }).click();
  const file = await (await download).path();
  await elsewhere.stop();

  const old = await newScreen(browser, server.base);
  await old.page.goto('/shows');
  await old.page
    .getByLabel('Open a .hovlix file')
    .setInputFiles({ name: 'my-show.hovlix', mimeType: 'application/zip', buffer: await readBytes(file) });
  // Something plays and others are there: it asks, and looks into it here alone.
  await old.page.getByRole('button', { name: 'Only look into it here' }).click();
  await expect(old.page.getByRole('button', { name: 'Only on this screen. Back to the stage' })).toBeVisible();
  await old.page.reload();
  await old.page.goto('/songs');
  await showing(old.page, 'Friday at the Boathouse');
  for (const { page } of [host, fresh]) await expect(page.getByText('My show')).toHaveCount(0);
  await expect(host.page.getByTestId('position')).not.toHaveText(/0:00/);
  await expect(host.page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await old.page.goto('/shows');
  await expect(old.page.getByRole('button', { name: 'Open My show', exact: true })).toBeVisible();

  // Only putting it on changes what is on stage, and every screen says so.
  await old.page.getByRole('button', { name: 'Open My show', exact: true }).click();
  await old.page.getByRole('button', { name: 'Put this show on' }).click();
  await expect(fresh.page.getByTestId('said')).toHaveText('“My show” is on now: the computer put it on.');
  await showing(fresh.page, 'My show');
  // The demo is still in the store of those who had it, with nothing lost; it is put on again.
  await host.page.goto('/shows');
  await host.page.getByRole('button', { name: 'More about Friday at the Boathouse' }).click();
  await host.page.getByRole('button', { name: 'Put this show on' }).click();
  await showing(fresh.page, 'Friday at the Boathouse');
  for (const { context } of [host, fresh, own, old]) await context.close();
});

test('two screens edit one song, one of them offline for twenty seconds: both edits are there on both', async ({
  browser,
}) => {
  const [anna, ben] = [await newScreen(browser, server.base), await newScreen(browser, server.base)];
  for (const { page } of [anna, ben]) {
    await page.goto('/songs/salt-and-signal');
    await expect(page.getByRole('button', { name: 'Bar 2', exact: true })).toBeVisible();
  }
  const count = (page: Page, look: string) => page.locator(`[data-clip="${look}"]`).count();
  const before = { Moonrise: await count(anna.page, 'Moonrise'), Dark: await count(anna.page, 'Dark') };
  const has = (page: Page, look: 'Moonrise' | 'Dark', more: boolean) =>
    expect.poll(async () => (await count(page, look)) > before[look]).toBe(more);
  ben.cut();
  await expect(ben.page.getByTestId('health')).toHaveText('the server is gone', { timeout: 4000 });
  const lay = async (page: Page, bar: number, look: string) => {
    await page.getByRole('button', { name: `Bar ${bar}`, exact: true }).click();
    await page.getByRole('button', { name: `Lay ${look}` }).click();
    await page.getByRole('button', { name: 'Clear selection' }).click();
  };
  await lay(ben.page, 2, 'Moonrise');
  await lay(anna.page, 5, 'Dark');
  // A press on the dead line is given back, and not played later.
  await ben.page.keyboard.press('b');
  await expect(ben.page.getByTestId('said')).toHaveText(/^Not sent/);
  await ben.page.waitForTimeout(16_000);
  ben.mend();
  await expect(ben.page.getByTestId('health')).toHaveText(/sending/);
  for (const { page } of [anna, ben]) {
    await has(page, 'Moonrise', true);
    await has(page, 'Dark', true);
  }
  await expect(anna.page.getByText('blackout', { exact: true })).toHaveCount(0);
  // Each takes back just its own.
  await anna.page.keyboard.press('Control+z');
  await has(ben.page, 'Dark', false);
  await has(ben.page, 'Moonrise', true);
  await ben.page.keyboard.press('Control+z');
  await has(anna.page, 'Moonrise', false);
  for (const { context } of [anna, ben]) await context.close();
});

test('a pad held on a phone that goes out of the Wi-Fi goes off by itself; what was switched on stays', async ({
  browser,
}) => {
  const [host, phone] = [await newScreen(browser, server.base), await newScreen(browser, server.base)];
  for (const { page } of [host, phone]) await page.goto('/gig');
  await host.page.getByRole('button', { name: 'Change the banks' }).click();
  await host.page.getByRole('button', { name: 'Begin empty' }).click();
  const sheet = host.page.getByRole('dialog', { name: 'Bank 1' });
  for (const name of ['Embers', 'Moonrise']) await sheet.getByLabel('Put in the bank').selectOption({ label: name });
  await host.page.getByRole('button', { name: 'Change Embers' }).click();
  await sheet.getByLabel('When pressed').selectOption({ label: 'On while held' });
  await sheet.getByRole('button', { name: 'Close' }).click();
  const pad = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}, key`) });
  await expect(pad(phone.page, 'Embers')).toHaveAccessibleName(/lit while it is held/);
  await pad(phone.page, 'Moonrise').click();
  await expect(pad(host.page, 'Moonrise')).toHaveAttribute('aria-pressed', 'true');
  await pad(phone.page, 'Embers').hover();
  // What a busy machine brings too late is not played, and pressed again.
  await expect(async () => {
    await phone.page.mouse.up();
    await phone.page.mouse.down();
    await expect(pad(host.page, 'Embers')).toHaveAttribute('aria-pressed', 'true', { timeout: 4000 });
  }).toPass();
  phone.cut();
  // The stand-in of the line answers the server's own pings, so it is the page that finds the line dead, after 3 s.
  await expect(pad(host.page, 'Embers')).toHaveAttribute('aria-pressed', 'false');
  await expect(pad(host.page, 'Moonrise')).toHaveAttribute('aria-pressed', 'true');
  await expect(host.page.getByTestId('said')).toHaveText('The computer has gone. What it held was released.');
  await pad(host.page, 'Moonrise').click();
  for (const { context } of [host, phone]) await context.close();
});

test('what a slow line brings late: a look is not played, which is said; what pauses and darkens is done all the same', async ({
  browser,
}) => {
  const [host, phone] = [await newScreen(browser, server.base), await newScreen(browser, server.base)];
  for (const { page } of [host, phone]) await page.goto('/gig');
  await host.page.getByRole('button', { name: /^Play / }).click();
  const pause = (page: Page) => page.getByRole('button', { name: 'Pause', exact: true });
  await expect(pause(phone.page)).toBeVisible();
  await expect(phone.page.getByTestId('health')).toHaveText(/sending/);
  phone.slow(2500);
  await phone.page.keyboard.press('1');
  await expect(phone.page.getByTestId('said')).toHaveText(/took too long/);
  await expect(phone.page.getByRole('button', { name: /, key 1, off/ })).toBeVisible();
  await phone.page.keyboard.press('b');
  await expect(host.page.getByText('Blackout: all dark')).toBeVisible();
  await phone.page.keyboard.press('b');
  await expect(host.page.getByText('Blackout: all dark')).toHaveCount(0);
  await pause(phone.page).click();
  await expect(pause(host.page)).toHaveCount(0);
  for (const { context } of [host, phone]) await context.close();
});

test('looks and pads never change which song is chosen; looking at a song elsewhere changes nothing on stage', async ({
  browser,
}) => {
  const [host, other] = [await newScreen(browser, server.base), await newScreen(browser, server.base)];
  await host.page.goto('/gig');
  await host.page.getByRole('button', { name: 'Set list' }).click();
  await host.page.getByRole('button', { name: 'Go to Low Tide Engine' }).click();
  await expect(host.page.getByRole('heading', { name: 'Low Tide Engine' })).toBeVisible();
  await host.page.keyboard.press('1');
  await host.page.waitForTimeout(300);
  await expect(host.page.getByRole('heading', { name: 'Low Tide Engine' })).toBeVisible();
  await host.page.keyboard.press('1');
  // The other screen is not the one that programs.
  await other.page.goto('/songs/salt-and-signal');
  await other.page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await other.page.waitForTimeout(500);
  await expect(host.page.getByRole('heading', { name: 'Low Tide Engine' })).toBeVisible();
  // Switched by hand, the stage follows it.
  await other.page.getByRole('button', { name: 'The stage does not follow this screen' }).click();
  await other.page.getByRole('button', { name: 'Bar 4', exact: true }).click();
  await expect(host.page.getByRole('heading', { name: 'Salt and Signal' })).toBeVisible();
  for (const { context } of [host, other]) await context.close();
});

test('keys do what the list of keys says, whatever was clicked before; Enter presses what has the focus', async ({
  browser,
}) => {
  const { page, context } = await newScreen(browser, server.base);
  await page.goto('/songs/night-ferry');
  const play = page.getByRole('button', { name: 'Play', exact: true });
  await expect(play).toBeVisible();
  // A button that would do harm if Space repeated it.
  await page.getByRole('button', { name: 'Blackout' }).click();
  await page.getByRole('button', { name: 'Blackout' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.getByText('blackout', { exact: true })).toHaveCount(0);
  await page.keyboard.press('Space');
  await expect(play).toBeVisible();
  await play.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(play).toBeVisible();
  // Held down it presses once: a second press would pause, and what a closed sheet leaves focused would get the third.
  await play.focus();
  for (let repeats = 0; repeats < 4; repeats++) await page.keyboard.down('Enter');
  await page.keyboard.up('Enter');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(play).toBeVisible();
  await context.close();
});

test('a rig check whose page is closed lets its lamps go, and until then every place says so', async ({ browser }) => {
  const [host, other] = [await newScreen(browser, server.base), await newScreen(browser, server.base)];
  await other.page.goto('/looks');
  await host.page.goto('/rig');
  await host.page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(other.page.getByRole('button', { name: 'By hand. Release' })).toHaveText('lamp check · release');
  await host.page.close();
  await expect(other.page.getByRole('button', { name: 'By hand. Release' })).toHaveCount(0);
  for (const { context } of [host, other]) await context.close();
});

test('a player’s phone plays, a viewer’s phone looks, and neither changes anything else', async ({ browser }) => {
  const host = await newScreen(browser, server.base);
  await host.page.goto('/connect');
  await host.page.getByRole('button', { name: 'Open to phones' }).click();
  const join = async (may: string) => {
    await host.page.getByLabel('Whoever joins now is a').selectOption(may);
    await expect.poll(async () => (await statusOf(host.page)).phones.grant).toBe(may);
    const { code } = (await statusOf(host.page)).phones;
    const context = await browser.newContext({
      baseURL: 'http://127.0.0.3:4765',
      viewport: { width: 390, height: 844 },
    });
    const phone = await screenIn(context);
    await phone.page.goto('/');
    await phone.page.getByLabel('Code').fill(code!);
    await phone.page.getByLabel('Name of this device').fill(`The ${may}`);
    await phone.page.getByRole('button', { name: 'Join', exact: true }).click();
    await expect(phone.page.getByTestId('health')).toHaveText(/sending/);
    return phone;
  };
  const player = await join('player');
  await expect(player.page.getByTestId('right')).toHaveText('player');
  await player.page.goto('/gig');
  await expect(player.page.getByRole('group', { name: 'Pads' })).toBeVisible();
  await expect(player.page.getByTestId('health')).toHaveText(/sending/);
  // The first pad may be on only while it is held.
  await player.page.keyboard.press('2');
  await expect(pressed(player.page, '.+').first()).toBeVisible();
  await player.page.keyboard.press('2');
  await player.page.goto('/songs');
  await expect(songs(player.page).first()).toBeVisible();
  await expect(player.page.getByRole('button', { name: /^More about/ })).toHaveCount(0);
  await player.page.goto('/songs/salt-and-signal');
  await player.page.getByRole('button', { name: 'Bar 3', exact: true }).click();
  await expect(player.page.getByRole('button', { name: /^Lay / })).toHaveCount(0);
  // What it does not offer it cannot do by a key either: nothing of the host's is undone.
  await host.page.goto('/songs/salt-and-signal');
  await host.page.getByRole('button', { name: 'Bar 9', exact: true }).click();
  await host.page.getByRole('button', { name: 'Lay Lift' }).click();
  await expect(player.page.locator('[data-clip="Lift"]').first()).toBeVisible();
  await player.page.keyboard.press('Control+z');
  await player.page.waitForTimeout(300);
  await expect(host.page.locator('[data-clip="Lift"]').first()).toBeVisible();
  await player.page.goto('/looks');
  await player.page.getByRole('button', { name: /^More about Moonrise/ }).click();
  await player.page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click();
  await expect(player.page.getByTestId('said')).toContainText('may play');
  await expect(player.page.getByRole('button', { name: /^Moonrise, / })).toBeVisible();
  await host.page.goto('/connect');

  const viewer = await join('viewer');
  await viewer.page.goto('/gig');
  await expect(viewer.page.getByRole('group', { name: 'Pads' })).toBeVisible();
  await viewer.page.keyboard.press('b');
  await expect(viewer.page.getByTestId('said')).toContainText('may look only');
  await expect(host.page.getByText('blackout', { exact: true })).toHaveCount(0);
  // Given more on the computer, it may at once.
  await host.page.getByLabel('What The viewer may do').selectOption('player');
  await expect(viewer.page.getByTestId('right')).toHaveText('player');
  await viewer.page.keyboard.press('b');
  await expect(host.page.getByText('blackout', { exact: true })).toBeVisible();
  await viewer.page.keyboard.press('b');
  await expect(host.page.getByText('blackout', { exact: true })).toHaveCount(0);
  for (const { context } of [host, player, viewer]) await context.close();
});

test('two tabs without a server share one store: one conducts, the other follows live, and takes over when it is closed', async ({
  browser,
}) => {
  const { startStatic } = await import('./static-host');
  const host = await startStatic();
  const context = await browser.newContext({ baseURL: host.base, viewport: { width: 390, height: 844 } });
  const [one, two] = [await context.newPage(), await context.newPage()];
  await one.goto('/songs/salt-and-signal');
  await expect(one.getByRole('button', { name: 'Bar 2', exact: true })).toBeVisible();
  await two.goto('/songs/salt-and-signal');
  await expect(two.getByRole('button', { name: 'Bar 2', exact: true })).toBeVisible();
  const lay = async (page: Page, bar: number, look: string) => {
    await page.getByRole('button', { name: `Bar ${bar}`, exact: true }).click();
    await page.getByRole('button', { name: `Lay ${look}` }).click();
    await page.getByRole('button', { name: 'Clear selection' }).click();
  };
  const count = (page: Page, look: string) => page.locator(`[data-clip="${look}"]`).count();
  const before = await count(two, 'Lift');
  await lay(two, 2, 'Lift');
  await expect.poll(() => count(one, 'Lift')).toBe(before + 1);
  await lay(one, 5, 'Dark');
  await expect(two.locator('[data-clip="Dark"]').first()).toBeVisible();
  await one.keyboard.press('b');
  await expect(two.getByText('blackout', { exact: true })).toBeVisible();
  // The one that conducts looks into another show by itself: the other tab goes on as before.
  await one.getByRole('button', { name: 'All songs' }).click();
  await one.getByRole('button', { name: 'Friday at the Boathouse. All shows' }).click();
  await one.getByRole('button', { name: 'Begin my own show' }).click();
  await one.getByRole('button', { name: 'Only look into it here' }).click();
  const alone = one.getByRole('button', { name: 'Only on this screen. Back to the stage' });
  await expect(alone).toBeVisible();
  await lay(two, 11, 'Lift');
  await two.keyboard.press('b');
  await expect(two.getByText('blackout', { exact: true })).toHaveCount(0);
  await two.keyboard.press('b');
  await expect(two.getByText('blackout', { exact: true })).toBeVisible();
  await expect(alone).toBeVisible();
  // The one that conducted goes: the other goes on with the show and with what was pressed.
  await one.close();
  await lay(two, 8, 'Lift');
  await expect.poll(() => count(two, 'Lift')).toBe(before + 3);
  await expect(two.getByText('blackout', { exact: true })).toBeVisible();
  await two.reload();
  await expect.poll(() => count(two, 'Lift')).toBe(before + 3);
  await expect(two.locator('[data-clip="Dark"]').first()).toBeVisible();
  await context.close();
  await host.stop();
});

async function readBytes(path: string): Promise<Buffer> {
  const { readFile } = await import('node:fs/promises');
  return readFile(path);
}
