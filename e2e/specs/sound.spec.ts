// Lamps that follow a song and a microphone.

import type { Page } from '@playwright/test';
import { songTimeAt, type SongClock } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import {
  bring,
  button,
  clickTrack,
  listen,
  listenUntil,
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
  type Heard,
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
 * What the node hears for some seconds of the music, each frame with where the song was as it came: a busy machine plays
 * slower than it should.
 */
async function heardInSong(page: Page, length: number) {
  const clocks: SongClock[] = [];
  const place = (clock: SongClock, when: number): number => songTimeAt(clock, seconds(when));
  const heard = await listenUntil(page, async () => {
    const { song } = await liveNow();
    if (song) clocks.push(song);
    return clocks.length > 1 && place(clocks.at(-1)!, steadyNow()) - place(clocks[0]!, clocks[0]!.at) > length;
  });
  return heard.map((one) => ({
    ...one,
    at: place(clocks.findLast(({ at }) => at <= one.when) ?? clocks[0]!, one.when),
  }));
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
  const heard = await heardInSong(page, 8);
  const lit = (i: number) => heard[i]!.levels[0]! > 80;
  const begins = heard.filter((_, i) => i > 0 && lit(i) && !lit(i - 1)).map(({ at }) => at);
  expect(begins.length).toBeGreaterThanOrEqual(5);
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
 * Light follows a tone of half a second on and half a second off: full for some of the time, dark for some of it, and back
 * again and again. While flashes are limited it takes a third of a second to rise and to fall; and a browser on a busy
 * machine plays slower than it should.
 */
async function followsTone(page: Page): Promise<void> {
  const level = ({ levels }: Heard) => levels[0]! / 255;
  const rises = (heard: readonly Heard[]) =>
    heard.filter((one, i) => level(one) > 0.5 && i > 0 && level(heard[i - 1]!) <= 0.5).length;
  const heard = await listenUntil(page, (heard) => rises(heard) >= 4);
  const share = (is: (level: number) => boolean) => heard.filter((one) => is(level(one))).length / heard.length;
  expect(share((level) => level > 0.9)).toBeGreaterThan(0.08);
  expect(share((level) => level < 0.1)).toBeGreaterThan(0.08);
  // Once a second, or less often: what came in one look may hold one more.
  expect(rises(heard)).toBeGreaterThanOrEqual(4);
  expect((rises(heard) - 1) / heard.at(-1)!.at).toBeLessThan(1.4);
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
  await followsTone(page);
  // Stored as a look it follows as well.
  await button(page, 'Store').click();
  const sheet = page.getByRole('dialog', { name: 'Store a look' });
  await sheet.getByLabel('Name').fill('Heartbeat');
  await expect(sheet.getByRole('status', { name: 'This is stored' })).toContainText('Front wash: level, 1 follower');
  await sheet.getByRole('button', { name: 'Store the look' }).click();
  await lookIs(page, 'Heartbeat', true);
  await followsTone(page);
  await button(page, 'Heartbeat, on').click();

  await button(page, 'More about Heartbeat').click();
  await button(page, 'Change the light').click();
  await button(page, 'Front wash').click();
  await tab(page, 'Sound').click();
  // High is not what it sends.
  await button(page, 'High').click();
  const most = async () => Math.max(...(await listen(page, 1.2)).map(({ levels }) => levels[0]! / 255));
  await expect.poll(most).toBeLessThan(0.1);
  await button(page, 'Low').click();
  await microphone.click();
  await expect.poll(most).toBe(0);
});

test('the tempo follows a band through the microphone, and a count that is tapped or typed', async ({ page }) => {
  test.setTimeout(300_000);
  // A kick on each beat of 128 a minute and a hat between them, in place of a microphone.
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      const { sampleRate } = context;
      const beat = new AudioBuffer({ length: Math.round((sampleRate * 60) / 128), sampleRate });
      const samples = beat.getChannelData(0);
      const hat = samples.length >> 1;
      for (let i = 0; i < samples.length; i++) {
        const [t, since] = [i / sampleRate, (i - hat) / sampleRate];
        samples[i] = 0.8 * Math.exp(-t / 0.02) * Math.sin(2 * Math.PI * 60 * t);
        if (since >= 0) samples[i]! += 0.1 * Math.exp(-since / 0.006) * (Math.random() * 2 - 1);
      }
      const band = new AudioBufferSourceNode(context, { buffer: beat, loop: true });
      band.connect(out);
      band.start();
      Object.assign(window, { band: context });
      return out.stream;
    };
  });
  await open(page, '/looks');
  await button(page, /^Tempo/).click();
  await page.getByRole('switch', { name: 'The tempo follows the microphone' }).click();
  /** The tempo at which the page plays its kicks: a busy machine plays slower than it should. */
  const played = () =>
    page.evaluate(async () => {
      const { band } = window as unknown as { band: AudioContext };
      const [place, when] = [band.currentTime, performance.now()];
      await new Promise((later) => setTimeout(later, 4000));
      return (128_000 * (band.currentTime - place)) / (performance.now() - when);
    });
  const heard = async () =>
    Number(/^Hears ([\d.]+) bpm/.exec((await page.getByTestId('heard-beat').textContent())!)?.[1]);
  // Some five seconds; on a busy machine, in which the page plays its kicks unevenly, longer.
  await expect
    .poll(async () => Math.abs((await played()) / (await heard()) - 1), { timeout: 150_000 })
    .toBeLessThan(0.03);
  const tempo = async () => Number(await page.getByTestId('bpm').textContent());
  const follows = async (part: number) => Math.abs((await tempo()) / (part * (await played())) - 1);
  await expect.poll(() => follows(1)).toBeLessThan(0.03);
  await button(page, 'Half the tempo').click();
  await expect.poll(() => follows(0.5)).toBeLessThan(0.03);
  // And it stays so, seconds later.
  expect(await follows(0.5)).toBeLessThan(0.1);
  await page.getByRole('switch', { name: 'The tempo follows the microphone' }).click();
});
