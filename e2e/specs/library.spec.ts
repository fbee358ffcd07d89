// Many recordings at once: listened to in the background, cancelled, corrected, taken up after a reload.

import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { button, clickTrack, onDisk, open, restoreShow } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

type Named = { readonly name: string; readonly buffer: Buffer };

const drop = (page: Page, files: readonly Named[]) =>
  page.getByLabel('Add music').setInputFiles(files.map(({ name, buffer }) => onDisk(name, buffer)));

const group = (page: Page) => page.getByRole('group', { name: 'Brought in' });

/** Listening takes as long as other programs leave it; it is waited for, and not timed. */
const listenedTo = (page: Page, count: string) =>
  expect(group(page).getByText(`${count} done`)).toBeVisible({ timeout: 180_000 });

test.beforeEach(async ({ page }) => {
  await open(page, '/songs');
  await restoreShow(page);
  await open(page, '/songs');
});

test('three files and a playlist: progress, one cancelled, one counted at half the tempo, the order becomes a set', async ({
  page,
}) => {
  const rows = page.getByRole('button', { name: /^Open / });
  await expect(rows.first()).toBeVisible();
  const songs = await rows.count();
  await drop(page, [
    { name: 'first_take.wav', buffer: clickTrack({ bpm: 120, seconds: 30 }) },
    { name: 'second_take.wav', buffer: clickTrack({ bpm: 96, seconds: 31 }) },
    { name: 'very_long.wav', buffer: clickTrack({ bpm: 100, seconds: 700, rate: 16000 }) },
    { name: 'friday.m3u8', buffer: Buffer.from('#EXTM3U\nsecond_take.wav\nfirst_take.wav\n') },
  ]);
  await expect(page.getByRole('progressbar').first()).toBeVisible();
  await group(page).getByRole('button', { name: 'Cancel very_long.wav' }).click();
  await listenedTo(page, '2 of 2');
  await expect(rows).toHaveCount(songs + 2);
  await expect(page.getByTestId('said')).toHaveText(/2 songs of “friday.m3u8” are a set now\./);

  const bpm = (title: string) => page.getByRole('button', { name: `Open ${title}`, exact: true });
  await expect(bpm('first take')).toContainText(/(120\.\d|119\.\d) bpm/);
  await group(page).getByRole('button', { name: 'Half the tempo of first take' }).click();
  await expect(bpm('first take')).toContainText(/(60\.\d|59\.\d) bpm/);
  // Back by its other button: as it was found, not counted twice.
  await group(page).getByRole('button', { name: 'Double the tempo of first take' }).click();
  await expect(bpm('first take')).toContainText(/(120\.\d|119\.\d) bpm/);

  await group(page).getByRole('button', { name: 'Clear the list' }).click();
  await expect(group(page)).toHaveCount(0);
  await open(page, '/gig');
  await page.getByRole('button', { name: 'Set list', exact: true }).click();
  await page.getByLabel('Tonight’s set').selectOption({ label: 'friday' });
  const inSet = page.getByRole('list', { name: 'Set list' }).getByRole('button');
  await expect(inSet.filter({ hasText: /(first|second) take/ })).toHaveText([/second take/, /first take/]);
});

test('a folder is dropped: what is music in it and in its folders comes in, a playlist is a set, the rest is named', async ({
  page,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'hovlix-folder-'));
  mkdirSync(join(folder, 'second half'));
  writeFileSync(join(folder, 'opener.wav'), clickTrack({ bpm: 104, seconds: 20 }));
  writeFileSync(join(folder, 'second half', 'closer.wav'), clickTrack({ bpm: 88, seconds: 21 }));
  writeFileSync(join(folder, 'cover.png'), 'no picture at all');
  writeFileSync(join(folder, 'evening.m3u'), 'second half/closer.wav\nopener.wav\n');
  const rows = page.getByRole('button', { name: /^Open / });
  await expect(rows.first()).toBeVisible();
  const songs = await rows.count();
  const client = await page.context().newCDPSession(page);
  const data = { items: [], files: [folder], dragOperationsMask: 1 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const)
    await client.send('Input.dispatchDragEvent', { type, x: 200, y: 300, data });
  await listenedTo(page, '2 of 2');
  await expect(rows).toHaveCount(songs + 2);
  await expect(page.getByTestId('said')).toHaveText(
    '2 songs of “evening.m3u” are a set now. Left out, as it is no music: cover.png.',
  );
  rmSync(folder, { recursive: true });
});

test('another file of a recording that is in the show is told from it, and taken out again', async ({ page }) => {
  const rows = page.getByRole('button', { name: /^Open / });
  await expect(rows.first()).toBeVisible();
  const songs = await rows.count();
  const uneven = { bpm: 93, seconds: 30, rate: 22050 };
  await drop(page, [{ name: 'the take.wav', buffer: clickTrack(uneven) }]);
  await expect(page.getByRole('heading', { name: 'the take' })).toBeVisible();
  await open(page, '/songs');
  await drop(page, [
    // The same at another rate and on two channels; and one that is as long, but another.
    { name: 'the take again.wav', buffer: clickTrack({ ...uneven, rate: 32000, channels: 2 }) },
    { name: 'another song.wav', buffer: clickTrack({ ...uneven, bpm: 124 }) },
  ]);
  await listenedTo(page, '2 of 2');
  await expect(group(page).getByText(/^Another file of/)).toHaveText(
    'Another file of “the take”, which is in this show.',
  );
  await group(page).getByRole('button', { name: 'Take the take again out again' }).click();
  await expect(rows).toHaveCount(songs + 2);
  await expect(page.getByRole('button', { name: 'Open the take', exact: true })).toBeVisible();
  await expect(group(page).getByText(/^Another file of/)).toHaveCount(0);
});

test('a reload in the middle of the queue: it goes on, and every file becomes one song', async ({ page }) => {
  await drop(page, [
    { name: 'long one.wav', buffer: clickTrack({ bpm: 110, seconds: 240, rate: 16000 }) },
    { name: 'long two.wav', buffer: clickTrack({ bpm: 90, seconds: 241, rate: 16000 }) },
  ]);
  await expect(page.getByRole('progressbar').first()).toBeVisible();
  await expect(group(page).getByText('is being kept')).toHaveCount(0);
  await page.reload();
  await listenedTo(page, '2 of 2');
  for (const title of ['long one', 'long two'])
    await expect(page.getByRole('button', { name: `Open ${title}`, exact: true })).toHaveCount(1);
});

test('a file that is in the show already, one twice, and one that is no music are told apart', async ({ page }) => {
  const take = clickTrack({ bpm: 104, seconds: 20 });
  await drop(page, [
    { name: 'take.wav', buffer: take },
    { name: 'copy of take.wav', buffer: take },
    { name: 'letter.wav', buffer: Buffer.from('Dear friends, tonight we play') },
  ]);
  await listenedTo(page, '3 of 3');
  await expect(group(page).getByText(/“copy of take.wav” is (here twice|in this show already)/)).toBeVisible();
  await expect(group(page).getByText(/letter\.wav” is not music Hovlix can read/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Open take', exact: true })).toHaveCount(1);
});

test('a recording that a second computer has not: it says which, and has it when that is added there', async ({
  page,
  other,
}) => {
  const take = { name: 'the take.wav', buffer: clickTrack({ bpm: 104, seconds: 20 }) };
  await drop(page, [take]);
  await expect(page.getByRole('heading', { name: 'the take' })).toBeVisible();
  const { pathname } = new URL(page.url());

  await rememberSounds(other);
  await open(other, pathname);
  await button(other, 'Play').click();
  await expect(
    other.getByText('The music of “the take” is not in this browser. Add “the take.wav” again.'),
  ).toBeVisible();
  await button(other, 'Pause').click();
  await other.getByLabel('Choose the recording that is missing').setInputFiles(onDisk(take.name, take.buffer));
  // It can be played as soon as it is kept; what is heard in it comes after.
  await expect(other.getByText('is not in this browser')).toHaveCount(0);
  await expect(other.getByTestId('said')).toHaveText(/“the take.wav” is on this device again\./, { timeout: 180_000 });
  await expect(other.getByRole('heading', { name: 'the take' })).toBeVisible();
  await button(other, 'Play').click();
  await expect
    .poll(() => other.evaluate(() => window.sounding.some((one) => !one.paused && one.currentTime > 0)))
    .toBe(true);
  await button(other, 'Pause').click();
  await open(other, '/songs');
  await expect(button(other, 'Open the take')).toHaveCount(1);
  // It is there now: once more is once too many.
  await drop(other, [take]);
  await expect(other.getByTestId('said')).toHaveText(/“the take.wav” is in this show already: “the take”\./);
});

test('other readings of a song: bars from another beat, and back as they were found', async ({ page }) => {
  await drop(page, [{ name: 'groove.wav', buffer: clickTrack({ bpm: 100, seconds: 40 }) }]);
  await expect(page.getByRole('heading', { name: 'groove' })).toBeVisible();
  await page.getByRole('button', { name: 'Bars and tempo' }).click();
  await page.getByRole('button', { name: 'Show other readings' }).click();
  const others = page.getByRole('group', { name: 'Other readings' });
  await others.getByRole('button', { name: 'Take: Half the tempo' }).click();
  await expect(page.getByTestId('said')).toHaveText(/“groove” is at (50|49)\.\d bpm now\./);
  await page.getByRole('button', { name: 'Show other readings' }).click();
  await others.getByRole('button', { name: 'Take: As they were found' }).click();
  await expect(page.getByTestId('said')).toHaveText(/“groove” is at (100|99)\.\d bpm now\./);
});
