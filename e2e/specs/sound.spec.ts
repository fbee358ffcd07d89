// Lamps that follow a song and a microphone.

import type { Page } from '@playwright/test';
import { songTimeAt, type SongClock } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import {
  bring,
  button,
  clickTrack,
  listen,
  liveNow,
  lookIs,
  middle,
  nodeReport,
  open,
  restoreConnections,
  restoreShow,
  steadyNow,
  tab,
  typed,
  waveIn,
} from './hovlix';
import { expect, test } from './screens';

test.beforeEach(async ({ page }) => restoreConnections(page));
test.afterEach(async ({ page }) => {
  await restoreShow(page);
  await restoreConnections(page);
});

/** A front lamp's dimmer. */
const front = async (page: Page) => (await nodeReport(page)).levels[0]!;

async function followWith(page: Page): Promise<void> {
  await open(page, '/looks/new');
  await button(page, 'Front wash').click();
  await tab(page, 'Sound').click();
  await page.getByRole('group', { name: 'Let the sound move' }).getByRole('button', { name: 'Level' }).click();
}

/**
 * What the node hears for some seconds, each frame with where the song was as it came: a busy machine plays slower than it
 * should.
 */
async function heardInSong(page: Page, length: number) {
  const clocks: SongClock[] = [];
  const heard = await listen(page, length, async () => {
    for (const until = steadyNow() + length; steadyNow() < until; await page.waitForTimeout(250)) {
      const { song } = await liveNow();
      if (song) clocks.push(song);
    }
  });
  return heard.map((one) => {
    const clock = clocks.findLast(({ at }) => at <= one.when) ?? clocks[0]!;
    return { ...one, at: songTimeAt(clock, seconds(one.when)) };
  });
}

test('a look that follows the kick of a song beats with it; some lamps follow, others hold a colour', async ({
  page,
}) => {
  await followWith(page);
  await expect(page.getByText('Level follows the kick')).toBeVisible();
  await expect(page.getByText('Nothing is heard now.')).toBeVisible();
  await typed(page, 'Falls in', '200');
  await button(page, 'Back wash').click();
  await tab(page, 'Level').click();
  await typed(page, 'Level', '60');
  await expect(page.getByRole('region', { name: 'By hand' })).toContainText('Front wash: level, 1 follower');
  // No song, no microphone: nothing is followed.
  await expect.poll(() => front(page)).toBe(0);

  // What is shaped stays in hand while the song plays: the looks of its lanes are out of the way.
  await open(page, '/songs/night-ferry');
  await button(page, 'Bar 9').click();
  await button(page, 'Play from here').click();
  await page.waitForTimeout(1500);
  const heard = await heardInSong(page, 6);
  const level = (levels: readonly number[]) => levels[0]! / 255;
  const beat = 60 / 124;
  const most = Math.max(...heard.map(({ levels }) => level(levels)));
  expect(most).toBeGreaterThan(0.9);
  for (const other of [beat * 0.8, beat * 1.25, beat * 1.5])
    expect(waveIn(heard, level, beat).power).toBeGreaterThan(3 * waveIn(heard, level, other).power);
  await button(page, 'Pause').click();
});

test('the light follows a band of the song within 30 ms of where the song is', async ({ page }) => {
  await open(page, '/songs');
  // A low click each 1.2 s: the first of four at 200.
  await bring(page, 'clicks.wav', clickTrack({ bpm: 200, seconds: 24 }));
  await expect(page.getByRole('heading', { name: 'clicks' })).toBeVisible();
  const song = page.url();
  await followWith(page);
  await typed(page, 'Falls in', '100');
  await open(page, new URL(song).pathname);
  await button(page, 'Play').click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[1-9]/);
  const heard = await listen(page, 5);
  const { song: clock } = await liveNow();
  const lit = (i: number) => heard[i]!.levels[0]! > 80;
  const begins = heard
    .filter((_, i) => i > 0 && lit(i) && !lit(i - 1))
    .map(({ when }) => songTimeAt(clock!, seconds(when)));
  expect(begins.length).toBeGreaterThanOrEqual(3);
  const late = begins.map((at) => at - Math.round(at / 1.2) * 1.2);
  // A frame of 23 ms may have gone out just before.
  expect(Math.abs(middle(late))).toBeLessThan(0.03);
  await button(page, 'Pause').click();
});

test('a microphone that is refused says so, and what to do; nothing else changes', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('Permission denied', 'NotAllowedError'));
  });
  await followWith(page);
  await page.getByRole('switch', { name: 'Microphone of this screen' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'refused' })).toContainText('Allow it beside the address');
  await expect(page.getByRole('switch', { name: 'Microphone of this screen' })).not.toBeChecked();
  await expect(page.getByText('Level follows the kick')).toBeVisible();
});

/**
 * Light that follows a tone of half a second on and half a second off, heard for five seconds: full for some of the time,
 * dark for some of it, and back again and again. While flashes are limited it takes a third of a second to rise and to
 * fall; and a browser on a busy machine plays slower than it should.
 */
function followsTone(levels: readonly number[]): void {
  const share = (is: (level: number) => boolean) => levels.filter(is).length / levels.length;
  expect(share((level) => level > 0.9)).toBeGreaterThan(0.08);
  expect(share((level) => level < 0.1)).toBeGreaterThan(0.08);
  const rises = levels.filter((level, i) => i > 0 && level > 0.5 && levels[i - 1]! <= 0.5).length;
  expect(rises).toBeGreaterThanOrEqual(2);
  expect(rises).toBeLessThanOrEqual(7);
}

test('a microphone is followed, and falls silent when it is turned off', async ({ page }) => {
  // A tone of 200 Hz, half a second on and half a second off, in place of a microphone.
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      const tone = new OscillatorNode(context, { frequency: 200 });
      const gate = new GainNode(context, { gain: 0 });
      tone.connect(gate).connect(out);
      for (let i = 0; i < 60; i++) {
        gate.gain.setValueAtTime(0.5, context.currentTime + i);
        gate.gain.setValueAtTime(0, context.currentTime + i + 0.5);
      }
      tone.start();
      return out.stream;
    };
  });
  await followWith(page);
  await button(page, 'Low').click();
  await expect(page.getByText('Level follows the low band')).toBeVisible();
  await typed(page, 'Falls in', '50');
  const microphone = page.getByRole('switch', { name: 'Microphone of this screen' });
  await microphone.click();
  await page.waitForTimeout(1500);
  const heard = await listen(page, 5);
  const level = (levels: readonly number[]) => levels[0]! / 255;
  followsTone(heard.map(({ levels }) => level(levels)));
  // Stored as a look it follows as well.
  await button(page, 'Store').click();
  const sheet = page.getByRole('dialog', { name: 'Store a look' });
  await sheet.getByLabel('Name').fill('Heartbeat');
  await expect(sheet.getByRole('status', { name: 'This is stored' })).toContainText('Front wash: level, 1 follower');
  await sheet.getByRole('button', { name: 'Store the look' }).click();
  await lookIs(page, 'Heartbeat', true);
  followsTone((await listen(page, 5)).map(({ levels }) => level(levels)));
  await button(page, 'Heartbeat, on').click();

  await button(page, 'More about Heartbeat').click();
  await button(page, 'Change the light').click();
  await button(page, 'Front wash').click();
  await tab(page, 'Sound').click();
  // High is not what it sends.
  await button(page, 'High').click();
  await expect
    .poll(async () => Math.max(...(await listen(page, 1.2)).map(({ levels }) => level(levels))))
    .toBeLessThan(0.1);
  await button(page, 'Low').click();
  await microphone.click();
  await expect.poll(async () => Math.max(...(await listen(page, 1.2)).map(({ levels }) => level(levels)))).toBe(0);
});

test('the tempo follows a band through the microphone, and a count that is tapped or typed', async ({ page }) => {
  // A kick on each beat of 128 a minute and a hat between them, in place of a microphone.
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      const hiss = new AudioBuffer({ length: context.sampleRate, sampleRate: context.sampleRate });
      const samples = hiss.getChannelData(0);
      for (let i = 0; i < samples.length; i++) samples[i] = Math.random() * 2 - 1;
      const strike = (source: AudioScheduledSourceNode, at: number, level: number, length: number) => {
        const gain = new GainNode(context, { gain: 0 });
        source.connect(gain).connect(out);
        gain.gain.setValueAtTime(level, at);
        gain.gain.exponentialRampToValueAtTime(0.0001, at + length);
        source.start(at);
        source.stop(at + length);
      };
      const begun = context.currentTime + 0.2;
      for (let beat = 0; beat < 240; beat++) {
        const at = begun + (beat * 60) / 128;
        strike(new OscillatorNode(context, { frequency: 60 }), at, 0.8, 0.15);
        strike(new AudioBufferSourceNode(context, { buffer: hiss }), at + 30 / 128, 0.1, 0.04);
      }
      return out.stream;
    };
  });
  await open(page, '/looks');
  await button(page, /^Tempo/).click();
  await page.getByRole('switch', { name: 'The tempo follows the microphone' }).click();
  // Some five seconds; on a busy machine, in which the page plays its kicks unevenly, longer.
  await expect(page.getByTestId('heard-beat')).toHaveText(/^Hears 1(2[5-9]|3[01])\.\d bpm\.$/, { timeout: 50_000 });
  const tempo = async () => Number(await page.getByTestId('bpm').textContent());
  await expect.poll(async () => Math.abs((await tempo()) - 128)).toBeLessThan(3);
  await button(page, 'Half the tempo').click();
  await expect.poll(async () => Math.abs((await tempo()) - 64)).toBeLessThan(2);
  await page.waitForTimeout(4000);
  expect(Math.abs((await tempo()) - 64)).toBeLessThan(2);
  await page.getByRole('switch', { name: 'The tempo follows the microphone' }).click();
});
