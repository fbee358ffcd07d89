import { catchUp, together } from './together';

test('late it goes faster, early slower, and in time as it is', () => {
  expect(catchUp(0.003)).toBe(1);
  expect(catchUp(0.05)).toBeGreaterThan(1);
  expect(catchUp(-0.05)).toBeLessThan(1);
});

/**
 * A recording beside a song, in a browser that takes `begins` seconds from each jump until it sounds.
 * @returns how far off it is over time, and how often it was sent somewhere.
 */
function beside(begins: number, until: number, leaps: readonly number[] = []) {
  let clock = 50;
  let silent = 0;
  let place = 0;
  let sent = 0;
  const audio = { paused: true, seeking: false, playbackRate: 1, play: async () => void (audio.paused = false) };
  const goTo = (to: number) => void ([place, silent, sent] = [to, begins, sent + 1]);
  const kept = together({ audio: audio as unknown as HTMLAudioElement, at: () => place, goTo }, () => clock);
  const off: number[] = [];
  let song = 10;
  for (let i = 0; i * 0.01 < until; i++) {
    if (leaps.includes(i)) song += 20;
    if (i % 10 === 0) kept.keepAt(song, 1);
    song += 0.01;
    clock += 0.01;
    if (silent > 0) silent -= 0.01;
    else if (!audio.paused) place += 0.01 * audio.playbackRate;
    off.push(Math.abs(song - place));
  }
  return { off, sent };
}

test.each([0.02, 0.06, 0.15, 0.25])('a browser that takes %d s to sound is waited for, and together soon', (begins) => {
  const { off, sent } = beside(begins, 8);
  expect(sent).toBeLessThanOrEqual(2);
  expect(Math.max(...off.slice(600))).toBeLessThan(0.02);
});

test('how long it takes is known from the first time on: after a leap it is together at once', () => {
  const { off } = beside(0.15, 20, [1000]);
  // Without, it would be 0.15 s late there.
  expect(Math.max(...off.slice(1040, 1100))).toBeLessThan(0.03);
});
