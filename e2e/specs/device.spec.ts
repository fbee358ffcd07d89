// What the device does with the sound by itself: a call stops it, a headset has keys.

import type { Page } from '@playwright/test';
import { songTimeAt } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { button, liveNow, open, steadyNow } from './hovlix';
import { expect, test } from './screens';
import { rememberSounds } from './sounding';

/** Runs in the page: does what the device does, and remembers what its keys do. */
function device() {
  const keys: Record<string, MediaSessionActionHandler | null> = {};
  navigator.mediaSession.setActionHandler = (action, does) => void (keys[action] = does);
  Object.assign(window, {
    device: {
      stop: () => window.sounding.filter(({ paused }) => !paused).forEach((sound) => sound.pause()),
      press: (key: MediaSessionAction) => keys[key]?.({ action: key }),
      sounding: () => window.sounding.filter(({ paused }) => !paused).map(({ currentTime }) => currentTime),
      shown: () => [navigator.mediaSession.metadata?.title, navigator.mediaSession.playbackState],
    },
  });
}
type Device = {
  readonly stop: () => void;
  readonly press: (key: string) => void;
  readonly sounding: () => readonly number[];
  readonly shown: () => readonly string[];
};
const on = <T>(page: Page, what: keyof Device, key = ''): Promise<T> =>
  page.evaluate(([what, key]) => (window as unknown as { device: Device }).device[what](key) as T, [
    what,
    key,
  ] as const);

test('music that the device stops comes back where the light is; its keys pause and play both', async ({ page }) => {
  await rememberSounds(page);
  await page.addInitScript(device);
  await open(page, '/songs/night-ferry');
  await button(page, 'Play').click();
  await expect(page.getByTestId('position')).toHaveText(/0:0[1-9]/);
  expect(await on(page, 'shown')).toEqual(['Night Ferry', 'playing']);

  await on(page, 'stop');
  await expect(page.getByRole('alert')).toContainText('This device stopped the music');
  // The light goes on meanwhile, and the music is with it again.
  await expect(page.getByRole('alert')).toHaveCount(0);
  expect((await liveNow()).song?.playing).toBe(true);
  await expect
    .poll(async () => {
      const [heard = -1] = await on<readonly number[]>(page, 'sounding');
      const { song } = await liveNow();
      return Math.abs(heard - songTimeAt(song!, seconds(steadyNow())));
    })
    .toBeLessThan(0.25);

  await page.getByRole('link', { name: 'Gig' }).click();
  await expect(page.getByTestId('silent')).toHaveCount(0);
  await on(page, 'stop');
  await expect(page.getByTestId('silent')).toContainText('This device stopped the music');
  await expect(page.getByTestId('silent')).toHaveCount(0);

  await on(page, 'press', 'pause');
  await expect.poll(async () => (await liveNow()).song?.playing).toBe(false);
  expect(await on(page, 'sounding')).toEqual([]);
  await expect.poll(() => on(page, 'shown')).toEqual(['Night Ferry', 'paused']);
  // Nobody takes it for stopped by the device.
  await page.waitForTimeout(1500);
  expect(await on(page, 'sounding')).toEqual([]);
  await on(page, 'press', 'play');
  await expect.poll(async () => (await liveNow()).song?.playing).toBe(true);
  await expect.poll(async () => (await on<readonly number[]>(page, 'sounding')).length).toBe(1);
  await on(page, 'press', 'pause');
});
