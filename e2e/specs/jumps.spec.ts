// Where a recording is sent to, it sounds from there: what is heard and what lamps are lit for is one moment.

import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { songTimeAt, type SongClock } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { bring, button, liveNow, open, restoreShow, steadyNow } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

test.afterEach(async ({ page }) => restoreShow(page));

/** Of the recording in `samples`: each of its seconds begins with a tone of its own, some in silence and some among noise. */
const SECONDS = 42;
const TONE = 0.3;
const secondOf = (hertz: number) => (hertz - 400) / 40;

/** Runs in the page: listens to all that sounds. */
function ears() {
  let ear: AnalyserNode | undefined;
  const listening = async (): Promise<AnalyserNode> => {
    if (ear) return ear;
    const context = new AudioContext({ sampleRate: 44_100 });
    ear = new AnalyserNode(context, { fftSize: 32_768 });
    for (const sound of window.sounding) context.createMediaElementSource(sound).connect(ear);
    ear.connect(context.destination);
    await context.resume();
    return ear;
  };
  return Object.assign(window, {
    /**
     * Stretches of what is heard from now on, and how far the clock of the sound was behind the time of day, again and again, both
     * in seconds: a computer that is busy lets sound wait.
     */
    hear: async (ms: number) => {
      const ear = await listening();
      const { context, fftSize } = ear;
      const stretches: { readonly ends: number; readonly sound: readonly number[] }[] = [];
      const behind: (readonly [at: number, by: number])[] = [];
      const last = new Float32Array(fftSize);
      for (let until = performance.now() + ms, next = until - ms + 800; performance.now() < until;) {
        await new Promise((resolve) => setTimeout(resolve, 10));
        const at = context.currentTime;
        behind.push([at, (performance.timeOrigin + performance.now()) / 1000 - at]);
        if (performance.now() < next) continue;
        next = performance.now() + 350;
        ear.getFloatTimeDomainData(last);
        stretches.push({ ends: context.currentTime, sound: Array.from(last, (value) => Math.round(value * 1000)) });
      }
      return { stretches, behind, rate: context.sampleRate };
    },
  });
}
type Ears = ReturnType<typeof ears>;

/** Where tones begin in a sound, in samples, and which second each is. */
function tonesIn(sound: readonly number[], rate: number) {
  const tones: { readonly begins: number; readonly second: number }[] = [];
  const length = Math.round(TONE * rate);
  let quiet = 0;
  for (let i = 0; i + length < sound.length; i++) {
    const isLoud = Math.abs(sound[i]!) > 60;
    if (isLoud && quiet > 0.04 * rate) {
      // Twice over a hundredth of a second short of half its length: noise would differ.
      const part = Math.round(length * 0.4);
      const [first, second] = [0.1, 0.5].map((share) => {
        let rises = 0;
        for (let k = i + Math.round(length * share), end = k + part; k < end; k++)
          if (sound[k]! < 0 && sound[k + 1]! >= 0) rises++;
        return secondOf((rises * rate) / part);
      }) as [number, number];
      const both = (first + second) / 2;
      if (Math.abs(first - second) < 0.5 && both > -0.3 && both < SECONDS - 0.7)
        tones.push({ begins: i, second: Math.round(both) });
    }
    quiet = isLoud ? 0 : quiet + 1;
  }
  return tones;
}

/** How far the clock of the sound was behind around a moment of its own: of some looks, the one in the middle. */
function behindAt(looks: readonly (readonly [at: number, by: number])[], when: number): number {
  const nearest = [...looks].sort(([a], [b]) => Math.abs(a - when) - Math.abs(b - when)).slice(0, 21);
  return nearest.map(([, by]) => by).sort((a, b) => a - b)[nearest.length >> 1]!;
}

/** How far the song that is lit is ahead of the one that is heard, in seconds, at each tone. */
async function apart(page: Page): Promise<readonly number[]> {
  const clocks: SongClock[] = [];
  const heard = page.evaluate(() => (window as unknown as Ears).hear(2700));
  for (const until = steadyNow() + 2.7; steadyNow() < until;) {
    const { song } = await liveNow();
    if (song) clocks.push(song);
  }
  const { stretches, behind, rate } = await heard;
  const toSteady = steadyNow() - Date.now() / 1000;
  return stretches.flatMap(({ ends, sound }) =>
    tonesIn(sound, rate).map(({ begins, second }) => {
      const at = ends - (sound.length - begins) / rate;
      const when = at + behindAt(behind, at) + toSteady;
      const clock = clocks.findLast(({ at }) => at <= when) ?? clocks[0]!;
      return songTimeAt(clock, seconds(when)) - second;
    }),
  );
}

for (const type of ['mp3', 'ogg'] as const)
  test(`after each jump in a recording as ${type.toUpperCase()}, light and sound are together`, async ({ page }) => {
    await rememberSounds(page);
    await page.addInitScript(ears);
    await open(page, '/songs');
    const sample = fileURLToPath(new URL(`../samples/uneven.${type}`, import.meta.url));
    await bring(page, `uneven.${type}`, readFileSync(sample));
    await expect(page.getByRole('heading', { name: 'uneven' })).toBeVisible({ timeout: 60_000 });
    for (const bar of [9, 2]) {
      await button(page, `Bar ${bar}`).click();
      await button(page, 'Play from here').click();
      const off: number[] = [];
      // A busy computer plays too little of it in that time.
      for (let tries = 0; off.length < 2 && tries < 5; tries++) off.push(...(await apart(page)));
      expect(off.length).toBeGreaterThanOrEqual(2);
      // A page that was held up is put right within a moment; where a browser guesses wrong, it stays so.
      expect(Math.min(...off.map(Math.abs))).toBeLessThan(0.03);
    }
    await button(page, 'Pause').click();
  });
