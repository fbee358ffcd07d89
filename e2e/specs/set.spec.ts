// A night led by one foot, over what the node receives; and set lists made, printed and read.

import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { eachAsItWas } from './as-it-was';
import { holdUntil, stepOn } from './feet';
import { back, brightness, button, demoShow, light, listen, open, restoreShow } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

eachAsItWas();

/** The demo's floor switch sends Page Down, as page turners do. */
const press = (page: Page) => stepOn(page, 'PageDown', [0, 90]);
const twice = (page: Page) => stepOn(page, 'PageDown', [0, 60], [150, 210]);
const hold = (page: Page, seen: () => Promise<void>) => holdUntil(page, 'PageDown', seen);
const will = (page: Page, gesture: string) =>
  page.getByRole('group', { name: 'Pedal' }).getByRole('button', { name: new RegExp(`^${gesture}: `) });
const title = (page: Page, name: string) => expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
const playing = (page: Page, is: boolean) =>
  expect(page.getByRole('button', { name: 'Pause', exact: true })).toHaveCount(is ? 1 : 0);
const barNow = async (page: Page) =>
  Number(/bar (\d+)/.exec((await page.getByTestId('gig-bar').textContent()) ?? '')?.[1]);

test('three songs with one switch: ready, played, dark for a moment, a slip repaired, sections looped', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await open(page, '/gig');
  // Nothing has to be known beforehand: what comes is written there.
  await expect(will(page, 'Press')).toHaveText(/Ready: Paper Lighthouse/);
  await press(page);
  await title(page, 'Paper Lighthouse');
  await expect.poll(() => back(page)).toBeGreaterThan(300);
  await expect(will(page, 'Press')).toHaveText(/Play Paper Lighthouse/);
  await press(page);
  // What was done is said for a second, in large letters.
  await expect(page.getByTestId('happened')).toHaveText('Play Paper Lighthouse');
  await playing(page, true);
  await expect(page.getByTestId('happened')).toHaveCount(0);

  // Held: dark, while the song goes on; held again, light.
  await hold(page, async () => {
    await expect(page.getByText('Blackout: all dark')).toBeVisible();
    await expect.poll(() => light(page)).toBe(0);
  });
  await playing(page, true);
  await expect(will(page, 'Hold')).toHaveText(/Light again/);
  await hold(page, () => expect.poll(() => light(page)).toBeGreaterThan(0));

  // A slip cuts the song off; pressed twice, it goes on where it would be by now.
  const before = await page.getByTestId('set-left').textContent();
  await press(page);
  await title(page, 'Salt and Signal');
  await playing(page, false);
  await page.waitForTimeout(1500);
  await expect(will(page, 'Press twice')).toHaveText(/Back to Paper Lighthouse/);
  await twice(page);
  await title(page, 'Paper Lighthouse');
  await playing(page, true);
  const left = (text: string | null) =>
    Number(/−(\d+):(\d+)/.exec(text ?? '')?.[1]) * 60 + Number(/−(\d+):(\d+)/.exec(text ?? '')?.[2]);
  const gone = left(before) - left(await page.getByTestId('set-left').textContent());
  expect(gone).toBeGreaterThanOrEqual(1);
  expect(gone).toBeLessThan(12);

  // On through the second song to the third, whose sections the pedal leads through.
  for (const wanted of ['Ready: Salt and Signal', 'Play Salt and Signal', 'Ready: Low Tide Engine']) {
    await expect(will(page, 'Press')).toHaveText(new RegExp(wanted));
    await press(page);
    await expect(page.getByTestId('happened')).toHaveText(wanted);
  }
  await title(page, 'Low Tide Engine');
  await expect(will(page, 'Press')).toHaveText(/Intro/);
  await press(page);
  await playing(page, true);
  await expect(button(page, 'Loop this section')).toHaveAttribute('aria-pressed', 'true');
  const sections = page.getByRole('group', { name: 'Sections' });
  await expect(sections.getByRole('button', { name: 'Go to Intro' })).toHaveAttribute('aria-current', 'true');
  // The next one waits for its bar line, and is seen to.
  const next = (await will(page, 'Press').textContent())!.replace('Press', '');
  await press(page);
  await expect(sections.getByRole('button', { name: new RegExp(`^Go to ${next}`) }).first()).toHaveAttribute(
    'aria-current',
    'true',
  );
  await expect.poll(() => barNow(page)).toBeLessThan(3);
  // The end of the set's own songs: the pause, and then the encore.
  await expect(page.getByTestId('gig-bar')).toBeVisible();
});

test('a section comes round and round until it is let go; another is gone to at the next bar line', async ({
  page,
}) => {
  await open(page, '/gig');
  await button(page, 'Play Paper Lighthouse').click();
  await playing(page, true);
  const sections = page.getByRole('group', { name: 'Sections' });
  // Four bars of 112 bpm are 8.6 s: the intro is heard again.
  await button(page, 'Loop this section').click();
  await expect.poll(() => barNow(page), { timeout: 30_000 }).toBe(4);
  await expect.poll(() => barNow(page), { timeout: 30_000 }).toBe(1);
  await expect(sections.getByRole('button', { name: 'Go to Intro' })).toHaveAttribute('aria-current', 'true');
  await button(page, 'Loop this section').click();
  await sections.getByRole('button', { name: 'Go to Chorus 1' }).click();
  await expect(sections.getByRole('button', { name: /^Go to Chorus 1/ })).toHaveAttribute('aria-current', 'true');
  await expect(page.getByTestId('gig-bar')).toHaveText(/of 8$/);
  // It began at its first bar, and the sound is where the light is: the bar goes on from there.
  const begun = await barNow(page);
  expect(begun).toBeLessThan(4);
  await expect.poll(() => barNow(page)).toBeGreaterThan(begun);
  await expect(button(page, 'Loop this section')).toHaveAttribute('aria-pressed', 'false');
});

test('two presses in one moment are two: the first song is readied, and played', async ({ page }) => {
  await open(page, '/gig');
  await expect(will(page, 'Press')).toHaveText(/Ready: Paper Lighthouse/);
  // Before the conductor can have answered the first.
  await page.evaluate(() => {
    for (let n = 0; n < 2; n++)
      for (const type of ['keydown', 'keyup'])
        window.dispatchEvent(new KeyboardEvent(type, { code: 'KeyG', key: 'g', bubbles: true, cancelable: true }));
  });
  await title(page, 'Paper Lighthouse');
  await playing(page, true);
});

test('a set is made: order, a pause, an encore, what is on before a song; it is printed, and comes back from a playlist', async ({
  page,
}) => {
  await open(page, '/gig');
  await button(page, 'Set list').click();
  await button(page, 'Change the set list').click();
  const sheet = page.getByRole('dialog', { name: 'Set list' });
  await sheet.getByLabel('Name of the set').fill('Saturday');
  await page.keyboard.press('Enter');
  await button(page, 'Change Night Ferry').click();
  await sheet.getByRole('switch', { name: /^Encore/ }).click();
  await sheet.getByLabel('Before it begins').selectOption({ label: 'Embers' });
  await sheet.getByLabel('Tempo before it, bpm').fill('97');
  await sheet.getByLabel('Key tonight').fill('фа мажор');
  await page.keyboard.press('Enter');
  await button(page, 'Change Night Ferry').click();
  await expect(sheet.getByText('starts with Embers · 97 bpm')).toBeVisible();
  // With the keyboard too: the third song first.
  await button(page, 'Move Low Tide Engine').focus();
  for (const key of ['Enter', 'ArrowUp', 'ArrowUp', 'Enter']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(250);
  }
  await button(page, 'Add a pause').click();

  const saved = async (name: string) => {
    const [download] = await Promise.all([page.waitForEvent('download'), button(page, name).click()]);
    return { name: download.suggestedFilename(), path: await download.path() };
  };
  const words = (path: string) =>
    execFileSync(process.execPath, [fileURLToPath(new URL('pdf-text.mjs', import.meta.url)), path], {
      encoding: 'utf8',
    });
  const list = words((await saved('Set list, PDF')).path);
  expect(list).toMatch(/Saturday[\s\S]*Low Tide Engine[\s\S]*Paper Lighthouse[\s\S]*Salt and Signal[\s\S]*Night Ferry/);
  // What the fonts of a PDF have no letters for is drawn.
  expect(list).toMatch(/^drawn [1-9]\d* by [1-9]\d*$/m);
  expect(list).not.toContain('?');
  const card = words((await saved('Pedal card, PDF')).path);
  expect(card).toContain('Press: On in the set');
  expect(card).toContain('Twice: Back in the set');
  expect(card).toContain('Hold: Blackout on or off');
  expect(card).toContain('key Page Down');
  expect(card).toMatch(/Saturday: each press[\s\S]*Low Tide Engine[\s\S]*Ready: Low Tide Engine/);
  const labels = words((await saved('Labels to cut out, PDF')).path);
  expect(labels).toMatch(
    /key Page Down[\s\S]*On in the set[\s\S]*Twice: Back in the set[\s\S]*Hold: Blackout on or off/,
  );
  const csv = readFileSync((await saved('CSV')).path, 'utf8').split('\r\n');
  expect(csv[1]).toMatch(/^1,Low Tide Engine,/);
  const playlist = await saved('Playlist, M3U');
  expect(playlist.name).toBe('Saturday.m3u8');

  // Another order comes in, from a program that writes folders; what is not a song here is told.
  const lines = [
    '#EXTM3U',
    '#EXTINF:127,Night Ferry',
    'C:\\Music\\Night Ferry.ogg',
    '#EXTINF:200,Somebody - Else',
    '/music/else.mp3',
    '/music/Paper%20Lighthouse.ogg',
    '',
  ];
  const buffer = Buffer.from(`\uFEFF${lines.join('\r\n')}`);
  await page.getByLabel('Choose a playlist').setInputFiles({ name: 'order.m3u', mimeType: 'audio/x-mpegurl', buffer });
  await expect(page.getByTestId('said')).toHaveText(
    'The order of “order.m3u”: 2 songs. Not in this show: Somebody - Else. ' +
      'Not in the set any more: Low Tide Engine, Salt and Signal, a pause of 20 min.',
  );
  await button(page, 'Done').first().click();
  const rows = page.getByRole('list', { name: 'Set list' }).getByRole('button');
  await expect(rows).toHaveText([/1Night Ferryin фа мажор/, /2Pause/, /3Paper LighthouseDrums count in/]);
  // A file that is none changes nothing, and says so.
  await button(page, 'Change the set list').click();
  await page.getByLabel('Choose a playlist').setInputFiles({
    name: 'letter.m3u',
    mimeType: 'text/plain',
    buffer: Buffer.from('Dear friends,\nsee you on Friday.'),
  });
  await expect(page.getByTestId('said')).toHaveText(/letter.m3u.*none of its titles is a song of this show/);
  await button(page, 'Done').first().click();
  await expect(rows).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(rows).toHaveCount(6);
});

test('two sets: the pedal leads through the one that is chosen for tonight; the tempo is typed, halved and moved', async ({
  page,
}) => {
  await open(page, '/gig');
  await press(page);
  await title(page, 'Paper Lighthouse');
  await button(page, 'Set list').click();
  await button(page, 'Change the set list').click();
  await button(page, 'Another set').click();
  const sheet = page.getByRole('dialog', { name: 'Set list' });
  await expect(sheet.getByLabel('Name of the set')).toHaveValue('Set 2');
  await button(page, 'Change Paper Lighthouse').click();
  await button(page, 'Take out of the set').click();
  await button(page, 'Done').first().click();
  await expect(page.getByLabel('Tonight’s set')).toHaveValue(/./);
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(will(page, 'Press')).toHaveText(/Ready: Salt and Signal/);
  await button(page, 'Set list').click();
  await page.getByLabel('Tonight’s set').selectOption({ label: 'Friday' });
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(will(page, 'Press')).toHaveText(/Play Paper Lighthouse/);

  await button(page, 'Tempo').click();
  await page.getByLabel('Beats a minute').fill('97');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Looks' }).click();
  await button(page, 'Half the tempo').click();
  await button(page, '1 bpm faster').click();
  await button(page, 'Bar starts now').click();
  await expect(page.getByLabel('Beats a minute')).toHaveValue('50');
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
});

test('the music of a song that stands ready is loaded before it is played, and while it plays that of the next', async ({
  page,
}) => {
  await rememberSounds(page);
  // What is read of the store, by the names of what is kept: pieces of music say whose they are.
  await page.addInitScript(() => {
    const read: string[] = [];
    const { get } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.get = function noted(key) {
      read.push(String(key));
      return get.call(this, key);
    };
    Object.assign(window, { read });
  });
  const pieceOf = (id: string) => `music:${demoShow().songs.find((song) => song.id === id)!.music!.hash}:0`;
  const reads = (id: string) =>
    page.evaluate(
      (key) => (window as unknown as { read: string[] }).read.filter((one) => one === key).length,
      pieceOf(id),
    );
  const loaded = () => page.evaluate(() => window.sounding.some((one) => one.src !== '' && one.readyState > 0));
  await open(page, '/gig');
  expect(await loaded()).toBe(false);
  await button(page, 'Set list').click();
  await button(page, 'Go to Paper Lighthouse').click();
  await expect.poll(loaded).toBe(true);
  await button(page, 'Play Paper Lighthouse').click();
  await playing(page, true);
  await expect.poll(() => reads('salt-and-signal')).toBe(1);
  expect(await reads('paper-lighthouse')).toBe(1);
  await button(page, 'Pause').click();
});

test('a song whose music is not on this device says so before it is played, and Preflight too', async ({ page }) => {
  await restoreShow(page, (show) => ({
    ...show,
    songs: show.songs.map((song) =>
      song.id === 'salt-and-signal' && song.music ? { ...song, music: { ...song.music, hash: 'f'.repeat(64) } } : song,
    ),
  }));
  await open(page, '/gig');
  await expect(page.getByTestId('silent')).toHaveCount(0);
  await button(page, 'Set list').click();
  await button(page, 'Go to Salt and Signal').click();
  await expect(page.getByTestId('silent')).toHaveText('Its music is not on this device: only its light plays.');
  await page.goto('/gig/preflight');
  await expect(page.getByText(/^“Salt and Signal.ogg” of “Salt and Signal” is not on this device/)).toBeVisible();
  // Nor is it in a file that is written here, which is not to be taken for the whole show.
  await open(page, '/shows');
  await button(page, 'More about Friday at the Boathouse').click();
  const download = page.waitForEvent('download');
  await button(page, 'Export').click();
  await download;
  await expect(page.getByTestId('said')).toHaveText(
    /^Exported as friday-at-the-boathouse\.hovlix, without music that is not on this device: Salt and Signal\.ogg\./,
  );
});

test('reloaded in the middle of a song it is back at its place, and the light was never gone', async ({ page }) => {
  await open(page, '/gig');
  await button(page, 'Play Paper Lighthouse').click();
  await playing(page, true);
  await expect.poll(() => barNow(page)).toBeGreaterThan(1);
  await page.reload();
  await title(page, 'Paper Lighthouse');
  await playing(page, true);
  await expect.poll(() => barNow(page)).toBeGreaterThan(1);
  const heard = await listen(page, 3);
  for (const { levels } of heard) expect(brightness(levels)).toBeGreaterThan(0);
  await expect(will(page, 'Press')).toHaveText(/Ready: Salt and Signal/);
});
