// A MIDI file into a song and out again, and what the light does when a song is over.

import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readMidi } from '@hovlix/core/midi';
import { button, nodeReport, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

/** Kicks on 1 and 3 and a snare on 2 of bar 1, by channel 10; a melody of one note; two markers and a cue point. 96 ticks a beat, 120 a minute. */
function drumFile(): Buffer {
  const text = (kind: number, words: string) => [0, 0xff, kind, words.length, ...Buffer.from(words)];
  const chunk = (bytes: number[]) => [...Buffer.from('MTrk'), 0, 0, 0, bytes.length + 4, ...bytes, 0, 0xff, 0x2f, 0];
  const tempo = [
    0,
    0xff,
    0x51,
    3,
    7,
    0xa1,
    0x20,
    ...text(6, 'Start'),
    0x83,
    0x00,
    0xff,
    6,
    4,
    ...Buffer.from('Drop'),
    ...text(7, 'Smoke'),
  ];
  const drums = [...text(3, 'Beat'), 0, 0x99, 36, 127, 96, 0x99, 38, 127, 96, 0x99, 36, 127, 48, 0x89, 36, 0];
  const melody = [...text(3, 'Lead'), 0, 0x90, 72, 90, 96, 0x80, 72, 0];
  return Buffer.from([
    ...Buffer.from('MThd'),
    0,
    0,
    0,
    6,
    0,
    1,
    0,
    3,
    0,
    96,
    ...chunk(tempo),
    ...chunk(drums),
    ...chunk(melody),
  ]);
}
const bring = (page: Page, name: string, buffer: Buffer) =>
  page.getByLabel('Choose a MIDI file').setInputFiles({ name, mimeType: 'audio/midi', buffer });
/** The dimmers of the front wash, as the node heard them last. */
const front = async (page: Page) => {
  const { levels } = await nodeReport(page);
  return Math.max(...[0, 6, 12, 18].map((at) => levels[at]!));
};

test('a MIDI file: seen before anything changes, taken as chosen, written again with the same notes', async ({
  page,
}) => {
  await open(page, '/songs/low-tide-engine');
  await button(page, 'Lanes').click();
  await bring(page, 'letter.mid', Buffer.from('Dear friends'));
  await expect(page.getByTestId('said')).toHaveText(/“letter.mid” is not a MIDI file Hovlix can read/);
  await bring(page, 'beat.mid', drumFile());
  const sheet = page.getByRole('dialog', { name: 'Import MIDI' });
  await expect(sheet).toContainText('120.0 bpm · 4/4 · Start, Drop');
  // Drums are chosen, the melody is not; the song has music and sections of its own, which stay.
  await expect(sheet.getByRole('switch', { name: 'Beat: 3 notes' })).toHaveAttribute('aria-checked', 'true');
  await expect(sheet.getByRole('switch', { name: 'Lead: 1 note' })).toHaveAttribute('aria-checked', 'false');
  await expect(sheet.getByRole('switch', { name: /^Use its bars and tempo/ })).toHaveAttribute('aria-checked', 'false');
  await expect(sheet.getByRole('switch', { name: 'Use its 2 markers as sections' })).toHaveAttribute(
    'aria-checked',
    'false',
  );
  await sheet.getByRole('switch', { name: 'Use its 2 markers as sections' }).click();
  await expect(sheet.getByRole('switch', { name: 'Use its cue point as a marker' })).toHaveAttribute(
    'aria-checked',
    'true',
  );
  await sheet.getByRole('button', { name: 'Import 3 notes' }).click();
  await expect(page.getByTestId('said')).toHaveText('From “beat.mid”: 2 sections, 1 marker, 1 lane of hits.');
  await expect(button(page, 'Settings of Beat')).toBeVisible();
  await button(page, 'Close').click();
  await expect(button(page, 'Choose Drop')).toBeVisible();
  await expect(page.locator('[data-marker="Smoke"]')).toBeVisible();
  // The kick of bar 1 is seen by the node while the song stands there.
  await button(page, 'Bar 1').click();
  await expect.poll(() => front(page)).toBeGreaterThan(240);

  await button(page, 'Lanes').click();
  const [download] = await Promise.all([page.waitForEvent('download'), button(page, 'Export MIDI').click()]);
  expect(download.suggestedFilename()).toBe('Low Tide Engine.mid');
  const written = readMidi(new Uint8Array(readFileSync(await download.path())), 'x');
  if (!written.ok) throw new Error('it cannot be read');
  expect(written.value.parts.map(({ name, notes }) => [name, notes.map(({ at, note }) => [at, note])])).toEqual([
    [
      'Beat',
      [
        [0, 36],
        [1, 38],
        [2, 36],
      ],
    ],
  ]);
  expect(written.value.markers.map(({ name }) => name)).toEqual(['Start', 'Drop']);
  expect(written.value.cues.map(({ name }) => name)).toEqual(['Smoke']);
  await button(page, 'Close').click();
  await button(page, 'Undo: change the sections').click();
  await expect(button(page, 'Choose Drop')).toHaveCount(0);
  await expect(button(page, 'Choose Intro')).toBeVisible();
});

test('the end of a song is chosen where it ends: a look, dark, or the next song', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  const end = page.getByRole('group', { name: 'After the song', exact: true });
  for (let n = 0; n < 12 && !(await end.isVisible()); n++) {
    await page.mouse.move(195, 500);
    await page.mouse.wheel(0, 900);
    await page.waitForTimeout(150);
  }
  const then = page.getByLabel('After the song', { exact: true }).last();
  await then.selectOption('Fade to a look');
  await page.getByLabel('The look after the song').selectOption('Singer alone');
  await button(page, 'Fade after the song shorter').click();
  await expect(end).toContainText('1 s');
  // What will not come out as it was meant is said there too, and leads to its bar.
  await expect(page.getByRole('group', { name: 'Worth a look' })).toHaveCount(0);
  // The song runs from its last bar, where the front is dark, to its end.
  const bars = await page
    .getByRole('button', { name: /^Bar \d+$/ })
    .evaluateAll((all) => all.map((one) => Number(one.getAttribute('aria-label')!.slice(4))));
  const last = Math.max(...bars);
  await button(page, `Bar ${last}`).click();
  await expect.poll(() => front(page)).toBeLessThan(5);
  await button(page, 'Play from here').click();
  // The front shines once the song is over, however late this machine began to play it.
  await expect.poll(() => front(page), { timeout: 30_000 }).toBeGreaterThan(20);
  await expect(button(page, 'Play')).toBeVisible();
  await button(page, 'Clear selection').click();
  await then.selectOption('Fade to dark');
  await expect.poll(() => front(page)).toBe(0);

  await then.selectOption('Play the next song');
  await expect(end).toContainText('“Low Tide Engine” comes next.');
  await button(page, `Bar ${last}`).click();
  await button(page, 'Play from here').click();
  await expect(page.getByTestId('bpm')).toHaveText(/^11\d|^12\d/, { timeout: 20_000 });
  await page.goto('/gig');
  await expect(page.getByText('Low Tide Engine').first()).toBeVisible();
});

test('a song without music: by tempo and bars, with a click; or from a MIDI file', async ({ page }) => {
  await open(page, '/songs');
  await button(page, 'Song without music').click();
  await page.getByLabel('Title').fill('Rope and Tackle');
  const tempo = page.getByLabel('Tempo, beats a minute');
  await tempo.fill('9000');
  await page.getByLabel('Bars').fill('8');
  // Nothing is made of what makes no sense, and the line that is wrong is shown.
  await button(page, 'Add song').click();
  await expect(page.getByText('A number from 20 to 400.')).toBeVisible();
  await expect(tempo).toBeFocused();
  await tempo.fill('150');
  await page.getByLabel('Meter').selectOption('3/4');
  await button(page, 'Add song').click();
  await expect(page.getByRole('heading', { name: 'Rope and Tackle' })).toBeVisible();
  await expect(button(page, 'Bar 8')).toBeVisible();
  await expect(button(page, 'Bar 9')).toHaveCount(0);
  await button(page, 'Bar 1').click();
  await button(page, 'Bar 8').click();
  await button(page, 'Lay Full sail').click();
  await button(page, 'Clear selection').click();
  await button(page, 'Bars and tempo').click();
  await page.getByRole('switch', { name: 'Click on each beat while the song plays' }).click();
  await button(page, 'Close').click();
  await button(page, 'Bar 6').click();
  await button(page, 'Play from here').click();
  await expect(page.getByTestId('bpm')).toHaveText('150.0');
  await expect.poll(() => front(page)).toBeGreaterThan(100);
  // Three bars of three at 150 a minute are 3.6 s.
  await expect(button(page, 'Play')).toBeVisible({ timeout: 20_000 });

  await page.goto('/songs');
  await page
    .getByLabel('Add music')
    .setInputFiles({ name: 'rope_drill.mid', mimeType: 'audio/midi', buffer: drumFile() });
  await expect(page.getByRole('heading', { name: 'rope drill' })).toBeVisible();
  await expect(button(page, 'Choose Start')).toBeVisible();
  await button(page, 'Bar 1').click();
  await button(page, 'Beat').click();
  await button(page, 'Close-up').click();
  await expect(page.locator('[data-note]')).toHaveCount(3);
});
