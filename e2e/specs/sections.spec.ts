// Sections, markers, the song's own page and its time, at phone size.

import type { Page } from '@playwright/test';
import { tapOn } from './feet';
import { bring, button, clickTrack, open, restoreConnections, restoreShow } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => restoreShow(page));

const strip = (page: Page) => page.getByRole('navigation', { name: 'Sections' });
const names = (page: Page) => strip(page).getByRole('button').allTextContents();
/** The song's name opens all about it. */
const about = (page: Page, title: string) => page.getByRole('heading', { name: title }).getByRole('button');
const letGo = (page: Page) => button(page, 'Clear selection').click();
async function sectionAt(page: Page, bar: number): Promise<void> {
  await button(page, `Bar ${bar}`).click();
  await button(page, 'Section').click();
}

test('a section is split, coloured, moved, repeated with its light and joined again; the strip jumps there', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await expect.poll(() => names(page)).toEqual(['A', 'B Verse 1', 'C Chorus 1', 'D Verse 2', 'E Chorus 2', 'F Outro']);
  await strip(page).getByRole('button', { name: 'Go to Chorus 2' }).click();
  await expect(button(page, 'Bar 29')).toBeInViewport();
  await expect(strip(page).getByRole('button', { name: 'Go to Chorus 2' })).toHaveAttribute('aria-current', 'true');

  // Chorus 2 in two: its second half is a bridge.
  await sectionAt(page, 33);
  await button(page, 'Bridge').click();
  await button(page, 'Begin section here').click();
  await letGo(page);
  await expect.poll(() => names(page)).toContain('F');
  await expect(page.getByRole('heading', { name: 'Bridge' })).toBeVisible();
  await sectionAt(page, 33);
  await button(page, 'Colour 5').click();
  await expect(button(page, 'Colour 5')).toHaveAttribute('aria-pressed', 'true');
  await button(page, 'Section begins a bar later').click();
  await expect(page.getByTestId('range')).toHaveText('Bars 34 – 36');
  await button(page, 'Section begins a bar earlier').click();
  await expect(page.getByTestId('range')).toHaveText('Bars 33 – 36');
  await button(page, 'Join with Chorus 2').click();
  await expect(page.getByTestId('said')).toHaveText('Bridge is part of Chorus 2 now.');
  await letGo(page);
  await expect(page.getByRole('heading', { name: 'Bridge' })).toHaveCount(0);

  // Once more: chorus 1 again where verse 2 began, and verse 2 has no bars left.
  const lanterns = page.locator('[data-clip="Lanterns"]');
  await strip(page).getByRole('button', { name: 'Go to Chorus 1' }).click();
  const count = await lanterns.count();
  await button(page, 'Choose Chorus 1').click();
  await button(page, 'Section').click();
  await button(page, 'Repeat behind it').click();
  await expect(page.getByTestId('said')).toHaveText('Chorus 3 follows, lit like Chorus 1.');
  await expect.poll(() => lanterns.count()).toBeGreaterThan(count);
  await page.keyboard.press('Control+z');
  await letGo(page);
  await expect.poll(() => names(page)).toEqual(['A', 'B Verse 1', 'C Chorus 1', 'D Verse 2', 'E Chorus 2', 'F Outro']);
});

test('the strip shows whole names, however many sections a song has', async ({ page }) => {
  await open(page, '/songs/paper-lighthouse');
  await expect.poll(() => names(page)).toContain('D Chorus 1');
  const cut = await strip(page)
    .getByRole('button')
    .evaluateAll((all) =>
      all
        .filter((one) => {
          const words = document.createRange();
          words.selectNodeContents(one);
          return words.getBoundingClientRect().right > one.getBoundingClientRect().right + 0.5;
        })
        .map((one) => one.textContent),
    );
  expect(cut).toEqual([]);
  // Short sections have their letter alone on a phone only.
  expect(await names(page)).toContain('A');
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(() => names(page)).toContain('A Intro');
});

test('markers stand on the sheet and in the list, and go where they are told', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 10').click();
  await button(page, 'Marker').click();
  await page.getByLabel('New marker').fill('Guitar change');
  await button(page, 'Set marker').click();
  await expect(page.locator('[data-marker="Guitar change"]')).toBeVisible();
  await button(page, 'Marker').click();
  await page.getByRole('group', { name: 'Markers' }).getByLabel('Bar and beat').fill('10:2.5');
  await page.keyboard.press('Enter');
  await letGo(page);
  await page.reload();
  await expect(page.locator('[data-marker="Guitar change"]')).toBeVisible();
  await strip(page).getByRole('button', { name: 'Go to Outro' }).click();
  await about(page, 'Salt and Signal').click();
  await button(page, 'Go to Guitar change').click();
  await expect(button(page, 'Bar 10')).toBeInViewport();
  await about(page, 'Salt and Signal').click();
  await expect(page.getByRole('group', { name: 'Markers' })).toContainText('10:2.5');
});

test('key and notes of a song; how loud it plays here, and from where', async ({ page }) => {
  await open(page, '/songs/salt-and-signal');
  await about(page, 'Salt and Signal').click();
  await page.getByLabel('Key').fill('E flat');
  await page.getByLabel('Notes').fill('capo 3');
  await page.keyboard.press('Enter');
  await page.getByRole('switch', { name: 'Mute the music' }).click();
  await button(page, 'Two bars').click();
  await button(page, 'Close').click();
  await button(page, 'Bar 9').click();
  await button(page, 'Play from here').click();
  // Two bars of 1.8 s before bar 9, which begins after fifteen seconds.
  await expect(page.getByTestId('position')).toHaveText(/^0:1[1-3]/);
  await button(page, 'Pause').click();
  await page.reload();
  await about(page, 'Salt and Signal').click();
  await expect(button(page, 'Two bars')).toHaveAttribute('aria-pressed', 'true');
  await button(page, 'At the bar').click();
  await button(page, 'Close').click();
  await button(page, 'All songs').click();
  await expect(button(page, 'Open Salt and Signal')).toContainText('E flat');
});

test('a bar line moved, bars evened out, a passage tapped along: the bars are where they were put', async ({
  page,
}) => {
  await open(page, '/songs/salt-and-signal');
  await button(page, 'Bar 9').click();
  await button(page, 'Bar 12').click();
  await button(page, 'Bars and tempo').click();
  const begins = page.getByRole('group', { name: 'Bar 9 begins at' });
  const at = async () => {
    const [, minutes, rest] = /(\d+):([\d.]+)/.exec((await begins.textContent())!)!;
    return Number(minutes) * 60 + Number(rest);
  };
  const before = await at();
  await button(page, 'Bar 9 begins 10 ms later').click();
  await expect.poll(at).toBeCloseTo(before + 0.01, 3);
  await page.getByLabel('Bar 9 begins at, minutes and seconds').fill('0:30');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('said')).toHaveText('Bar 9 must begin between the bars beside it.');
  expect(await at()).toBeCloseTo(before + 0.01, 3);
  await page.keyboard.press('Escape');

  // Twice the tempo from bar 9 on, for as long as it is tapped: of 6/8 two beats a bar, 66 a minute before.
  await button(page, 'Bars and tempo').click();
  await button(page, 'Tap along from bar 9').click();
  await expect(button(page, 'Pause')).toBeVisible();
  // What is tapped while the sound comes, or stutters on a busy machine, begins anew: so does who taps.
  await expect(async () => {
    await button(page, 'Once more').click();
    await tapOn(page, 'Tap a beat', 13, 440);
    await expect(button(page, 'Tap a beat')).toContainText(/^1[23]/, { timeout: 2000 });
  }).toPass({ timeout: 120_000 });
  await button(page, 'Use these taps').click();
  await expect(page.getByTestId('said')).toHaveText(/^The bars follow your 1[23] taps from bar \d+ on\.$/);
  await button(page, 'Close').click();
  await letGo(page);
  // Six bars' worth of beats came in the time of three: the song has more bars than it had.
  await strip(page).getByRole('button', { name: 'Go to Outro' }).click();
  await expect(button(page, 'Bar 43')).toBeAttached();
  await page.keyboard.press('Control+z');
  await expect(button(page, 'Bar 43')).toHaveCount(0);
});

test('another recording of the same performance is found to be later, and takes the place of the one before', async ({
  page,
}) => {
  await open(page, '/songs');
  const take = clickTrack({ bpm: 100, seconds: 24 });
  await bring(page, 'first take.wav', take);
  await expect(page.getByRole('heading', { name: 'first take' })).toBeVisible();
  await button(page, 'Bar 3').click();
  await button(page, 'Lay Harbour blue').click();
  await letGo(page);
  // The same with 1.35 s of silence before it.
  const rate = 22050;
  const silence = Buffer.alloc(Math.round(rate * 1.35) * 2);
  const later = Buffer.concat([take.subarray(0, 44), silence, take.subarray(44)]);
  later.writeUInt32LE(later.length - 8, 4);
  later.writeUInt32LE(later.length - 44, 40);
  await about(page, 'first take').click();
  await page
    .getByLabel('Choose a recording', { exact: true })
    .setInputFiles({ name: 'remaster.wav', mimeType: 'audio/wav', buffer: later });
  await expect(page.getByRole('group', { name: 'Recording' })).toContainText(
    '“remaster.wav” is the same performance, 1.35 s later.',
  );
  await button(page, 'The bars as they are').click();
  await expect(page.getByRole('group', { name: 'Recording' })).toContainText('remaster.wav');
  await button(page, 'Close').click();
  // The light is on its bar, and bar 1 is 1.35 s later.
  await button(page, 'Bar 3').click();
  await expect(page.locator('[data-clip="Harbour blue"]')).toBeVisible();
  await button(page, 'Bars and tempo').click();
  await expect(page.getByRole('group', { name: 'Bar 1 begins at' })).toContainText(/0:01\.3[2-8]/);
  await button(page, 'Close').click();
  await button(page, 'Play').click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[3-9]|0:1/);
  await expect(page.getByRole('alert')).toHaveText([]);
  await button(page, 'Pause').click();
});

test('a song that is heard again takes the sections found in it, on the bars it has; undone as one', async ({
  page,
}) => {
  test.setTimeout(150_000);
  await open(page, '/songs/salt-and-signal');
  await expect.poll(() => names(page)).toHaveLength(6);
  const before = await names(page);
  await about(page, 'Salt and Signal').click();
  const card = page.getByRole('group', { name: 'Recording' });
  await card.getByRole('button', { name: 'Listen again' }).click();
  await expect(card).toContainText('is the same performance, at the same moment.', { timeout: 60_000 });
  const sections = card.getByRole('switch', { name: /^Take the \d+ sections found in it, in place of 6$/ });
  // Those one made oneself are not thrown away unasked.
  await expect(sections).not.toBeChecked();
  const found = Number(/\d+/.exec((await sections.getAttribute('aria-label'))!)![0]);
  await sections.click();
  await button(page, 'The bars as they are').click();
  await button(page, 'Close').click();
  await expect.poll(() => names(page)).toHaveLength(found);
  const now = await names(page);
  expect(now).not.toEqual(before);
  await page.keyboard.press('Control+Z');
  await expect.poll(() => names(page)).toEqual(before);
});

test('a stem beside the music begins so that both sound together, by its level, muted or not', async ({ page }) => {
  await rememberSounds(page);
  const sounds = () =>
    page.evaluate(() =>
      window.sounding
        .filter((one) => !one.paused)
        .map(({ currentTime, volume, muted }) => ({ currentTime, volume, muted })),
    );
  await open(page, '/songs');
  const take = clickTrack({ bpm: 100, seconds: 24 });
  await bring(page, 'take.wav', take);
  await expect(page.getByRole('heading', { name: 'take' })).toBeVisible();
  const silence = Buffer.alloc(Math.round(22050 * 1.35) * 2);
  const stem = Buffer.concat([take.subarray(0, 44), silence, take.subarray(44)]);
  stem.writeUInt32LE(stem.length - 8, 4);
  stem.writeUInt32LE(stem.length - 44, 40);
  await about(page, 'take').click();
  await page
    .getByLabel('Choose a recording beside the music')
    .setInputFiles({ name: 'stem.wav', mimeType: 'audio/wav', buffer: stem });
  await expect(page.getByTestId('said')).toHaveText('“stem” sounds together with the music.');
  const form = page.getByRole('group', { name: 'stem', exact: true });
  await expect(form.getByLabel('Begins at, s')).toHaveValue(/^-1\.3[4-6]/);
  await form.getByLabel('Level of stem, typed').fill('40');
  await page.keyboard.press('Enter');
  await button(page, 'Close').click();
  await button(page, 'Play').click();
  await expect.poll(async () => (await sounds()).length).toBe(2);
  // The stem is 1.35 s further in its own file.
  await expect
    .poll(async () => {
      const [music, beside] = (await sounds()).sort((a, b) => b.volume - a.volume);
      return Math.abs(beside!.currentTime - music!.currentTime - 1.35);
    })
    .toBeLessThan(0.04);
  expect((await sounds()).map(({ volume }) => volume).sort()).toEqual([0.4, 1]);
  await about(page, 'take').click();
  await button(page, 'Mute stem').click();
  await expect.poll(async () => (await sounds()).filter(({ muted }) => muted).length).toBe(1);
  await button(page, 'Close').click();
  await button(page, 'Pause').click();
  await expect.poll(sounds).toEqual([]);
  await about(page, 'take').click();
  await button(page, 'Remove stem').click();
  await expect(page.getByRole('group', { name: 'stem', exact: true })).toHaveCount(0);
});
