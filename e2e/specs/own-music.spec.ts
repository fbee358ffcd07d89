import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { bring, clickTrack, liveNow, open, restoreShow, stageBrightness } from './hovlix';
import { expect, test } from './screens';

/** A mono WAV of 16 bits as AIFF, as a recorder on another system writes it (Apple, AIFF 1.3). */
function aiffOf(wav: Buffer): Buffer {
  const sound = Buffer.from(wav.subarray(44)).swap16();
  const common = Buffer.alloc(26);
  common.write('COMM');
  common.writeUInt32BE(18, 4);
  common.writeInt16BE(1, 8);
  common.writeUInt32BE(sound.length / 2, 10);
  common.writeInt16BE(16, 14);
  // The rate, as a number of 80 bits.
  const rate = wav.readUInt32LE(24);
  const exponent = Math.floor(Math.log2(rate));
  common.writeUInt16BE(16383 + exponent, 16);
  common.writeUInt32BE(rate * 2 ** (31 - exponent), 18);
  const head = Buffer.alloc(12);
  head.write('FORM');
  head.writeUInt32BE(4 + common.length + 16 + sound.length, 4);
  head.write('AIFF', 8);
  const begin = Buffer.alloc(16);
  begin.write('SSND');
  begin.writeUInt32BE(8 + sound.length, 4);
  return Buffer.concat([head, common, begin, sound]);
}

test.afterEach(async ({ page }) => restoreShow(page));

test('own music: analysed, laid with looks, kept over a reload, exported and brought back', async ({ page }) => {
  await open(page, '/songs');
  await bring(page, 'my_rehearsal take.aif', aiffOf(clickTrack({ bpm: 100, seconds: 24 })));
  await expect(page.getByRole('heading', { name: 'my rehearsal take' })).toBeVisible();
  await expect(page.getByTestId('bpm')).toHaveText(/^(100\.\d|99\.[89])$/);
  // 24 s at 100 in 4/4: ten bars.
  await expect(page.getByRole('button', { name: 'Bar 10', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Bar 11', exact: true })).toHaveCount(0);

  // Bars 1 to 4 blue, 5 to 8 everything.
  const tap = (bar: number) => page.getByRole('button', { name: `Bar ${bar}`, exact: true }).click();
  await tap(1);
  await tap(4);
  await expect(page.getByTestId('range')).toHaveText('Bars 1 – 4');
  await page.getByRole('button', { name: 'Lay Harbour blue' }).click();
  await page.getByRole('button', { name: 'Clear selection' }).click();
  await tap(5);
  await tap(8);
  await page.getByRole('button', { name: 'Lay Full sail', exact: true }).click();
  await page.getByRole('button', { name: 'Section', exact: true }).click();
  await page.getByLabel('Section name').fill('Chorus');
  await page.getByLabel('What the light should do').fill('everything');
  await page.getByRole('button', { name: 'Begin section here' }).click();
  await expect(page.getByRole('heading', { name: 'Chorus' })).toBeVisible();
  await page.getByRole('button', { name: 'Play from here' }).click();
  await expect(page.locator('[data-clip="Harbour blue"]').first()).toBeVisible();
  await expect.poll(() => stageBrightness(page)).toBeGreaterThan(14);
  await page.getByRole('button', { name: 'Pause' }).click();

  await page.reload();
  await expect(page.getByRole('heading', { name: 'my rehearsal take' })).toBeVisible();
  await expect(page.locator('[data-clip="Full sail"]').first()).toBeVisible();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:(0[1-9]|1|2)/);
  await expect(page.getByRole('alert')).toHaveText([]);
  await page.getByRole('button', { name: 'Pause' }).click();

  await page.getByRole('button', { name: 'All songs' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /All shows$/ }).click();
  await page.getByRole('button', { name: 'More about Friday at the Boathouse' }).click();
  await page.getByRole('button', { name: 'Export' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('friday-at-the-boathouse.hovlix');
  const bytes = readFileSync(await file.path());

  // A browser that has never seen it.
  await page.evaluate(async () => {
    for (const { name } of await indexedDB.databases()) indexedDB.deleteDatabase(name!);
    localStorage.clear();
  });
  await page.goto('/shows');
  await page
    .getByLabel('Open a .hovlix file')
    .setInputFiles({ name: 'friday.hovlix', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByTestId('said')).toHaveText(/Opened friday\.hovlix/);
  await page.getByRole('link', { name: 'Songs' }).click();
  await page.getByRole('button', { name: 'Open my rehearsal take' }).click();
  await expect(page.locator('[data-clip="Harbour blue"]').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Chorus' })).toBeVisible();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:(0[1-9]|1|2)/);
  await expect(page.getByRole('alert')).toHaveText([]);
  await page.getByRole('button', { name: 'Pause' }).click();
});

test('a long recording shows its progress and can be cancelled; nothing of it stays', async ({ page }) => {
  await open(page, '/songs');
  const rows = page.getByRole('button', { name: /^Open / });
  await expect(rows.first()).toBeVisible();
  const songs = await rows.count();
  await bring(page, 'long.wav', clickTrack({ seconds: 900, rate: 16000 }));
  await expect(page.getByRole('progressbar', { name: 'Listening to long.wav' })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByTestId('said')).toHaveText('Cancelled. Nothing was changed.');
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  expect(await rows.count()).toBe(songs);
});

test('loaded anew in the middle of a song, the page is back at its place within two seconds, and sounds', async ({
  page,
}) => {
  await open(page, '/songs');
  await bring(page, 'reloaded.wav', clickTrack({ seconds: 60 }));
  await expect(page.getByRole('heading', { name: 'reloaded' })).toBeVisible();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[4-9]/);
  const before = (await liveNow()).song!;
  expect(before.sound).toMatch(/^screen-/);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.getByTestId('position')).toHaveText(/0:(0[5-9]|[123])/);
  // Another screen now, the same tab: it leads the song, which has never stood still.
  await expect.poll(async () => (await liveNow()).song?.sound).not.toBe(before.sound);
  const after = (await liveNow()).song!;
  expect(after).toMatchObject({ id: before.id, playing: true, since: before.since });
  expect(after.sound).toMatch(/^screen-/);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect.poll(async () => (await liveNow()).song?.playing).toBe(false);
});

test('undo and redo, by button and by key', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  const dark = page.locator('[data-clip="Dark"]');
  await page.getByRole('button', { name: 'Bar 2', exact: true }).click();
  await page.getByRole('button', { name: 'Lay Dark' }).click();
  await expect(dark).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo: lay a look' }).click();
  await expect(dark).toHaveCount(0);
  await page.keyboard.press('Control+Shift+Z');
  await expect(dark).toHaveCount(1);
  await page.keyboard.press('Control+Z');
  await expect(dark).toHaveCount(0);
});

/** M4A and Opus are unpacked by the browser and kept as WAV. */
for (const [type, title, cut = 0] of [
  ['mp3', 'chorus mp3'],
  ['mp3', 'chorus mp3', 900],
  ['flac', 'chorus flac'],
  ['ogg', 'chorus ogg'],
  ['m4a', 'Chorus in a box'],
  ['opus', 'chorus opus'],
] as const)
  test(`a recording as ${type.toUpperCase()}${cut > 0 ? ', cut out of a stream,' : ''} is decoded in the browser and plays`, async ({
    page,
  }) => {
    await open(page, '/songs');
    const sample = fileURLToPath(new URL(`../samples/chorus.${type}`, import.meta.url));
    await bring(page, `chorus ${type}.${type}`, readFileSync(sample).subarray(cut));
    await expect(page.getByRole('heading', { name: title })).toBeVisible();
    await expect(page.getByTestId('bpm')).toHaveText(/^(112\.\d|111\.[5-9])$/);
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await expect(page.getByTestId('position')).toHaveText(/0:(0[2-9]|1)/);
    await expect(page.getByRole('alert')).toHaveText([]);
    await page.getByRole('button', { name: 'Pause' }).click();
  });
