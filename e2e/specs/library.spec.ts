// Many recordings at once: listened to in the background, cancelled, corrected, taken up after a reload.

import { expect, test, type Page } from '@playwright/test';
import { clickTrack, open, restoreShow } from './hovlix';

type Named = { readonly name: string; readonly buffer: Buffer };

const drop = (page: Page, files: readonly Named[]) =>
  page.getByLabel('Add music').setInputFiles(files.map((file) => ({ ...file, mimeType: 'application/octet-stream' })));

const group = (page: Page) => page.getByRole('group', { name: 'Brought in' });

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
  await expect(group(page).getByText('2 of 2 done')).toBeVisible();
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

test('a reload in the middle of the queue: it goes on, and every file becomes one song', async ({ page }) => {
  await drop(page, [
    { name: 'long one.wav', buffer: clickTrack({ bpm: 110, seconds: 240, rate: 16000 }) },
    { name: 'long two.wav', buffer: clickTrack({ bpm: 90, seconds: 241, rate: 16000 }) },
  ]);
  await expect(page.getByRole('progressbar').first()).toBeVisible();
  await expect(group(page).getByText('is being kept')).toHaveCount(0);
  await page.reload();
  await expect(group(page).getByText('2 of 2 done')).toBeVisible({ timeout: 60_000 });
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
  await expect(group(page).getByText('3 of 3 done')).toBeVisible();
  await expect(group(page).getByText(/“copy of take.wav” is (here twice|in this show already)/)).toBeVisible();
  await expect(group(page).getByText(/letter\.wav” is not music Hovlix can read/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Open take', exact: true })).toHaveCount(1);
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
