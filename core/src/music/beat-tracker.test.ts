// The beat of music as it sounds, on patterns of our own: drums with noise between them, faster and slower, with breaks.

import fc from 'fast-check';
import { LOUDNESS_BANDS } from './bands';
import { beatTracker } from './beat-tracker';

type Pattern = { readonly kick: readonly number[]; readonly snare: readonly number[]; readonly hat: readonly number[] };

/** In beats of a bar of four. */
const ROCK: Pattern = { kick: [0, 2, 2.5], snare: [1, 3], hat: [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5] };
const FLOOR: Pattern = { kick: [0, 1, 2, 3], snare: [1, 3], hat: [0.5, 1.5, 2.5, 3.5] };
const SPARSE: Pattern = { kick: [0, 2], snare: [1, 3], hat: [] };

const noise = (n: number) => {
  const x = Math.sin(n * 12.9898) * 43758.5453;
  return x - Math.floor(x);
};

/** Sixteen bytes a hundredth of a second at a time: strokes die away over a bed of noise. */
function band(pattern: Pattern, beatAt: (time: number) => number, quiet: (time: number) => boolean = () => false) {
  const drums = [
    { hits: pattern.kick, low: 0, high: 5, level: 190, decay: 900 },
    { hits: pattern.snare, low: 6, high: 12, level: 170, decay: 1200 },
    { hits: pattern.hat, low: 12, high: 16, level: 140, decay: 2400 },
  ];
  return (time: number): number[] => {
    const beat = beatAt(time);
    const pace = (beatAt(time + 0.01) - beat) / 0.01;
    return Array.from({ length: LOUDNESS_BANDS }, (_, i) => {
      let level = 60 + 25 * noise(Math.round(time * 100) * 16 + i);
      if (!quiet(time))
        for (const { hits, low, high, level: peak, decay } of drums) {
          if (i < low || i >= high) continue;
          for (const hit of hits) {
            const since = ((((beat - hit) % 4) + 4) % 4) / pace;
            level = Math.max(level, peak - decay * since);
          }
        }
      return Math.max(0, Math.min(255, Math.round(level)));
    });
  };
}

const listen = (
  tracker: ReturnType<typeof beatTracker>,
  sound: (time: number) => number[],
  from: number,
  to: number,
) => {
  for (let n = Math.round(from * 100); n < Math.round(to * 100); n++) tracker.hear(sound(n / 100), n / 100);
};
/** How far the tracker's beat is from the nearest of the music, in seconds. */
const off = (at: number, beatAt: (time: number) => number, bpm: number) => {
  const beat = beatAt(at);
  return (Math.abs(beat - Math.round(beat)) * 60) / bpm;
};

test('locks within eight seconds, in tempo and in phase', () => {
  const drums = fc.constantFrom(ROCK, FLOOR, SPARSE);
  fc.assert(
    fc.property(drums, fc.integer({ min: 90, max: 145 }), fc.integer({ min: 0, max: 99 }), (pattern, bpm, start) => {
      const beatAt = (time: number) => ((time - start / 100) * bpm) / 60;
      const tracker = beatTracker();
      listen(tracker, band(pattern, beatAt), 0, 8);
      const heard = tracker.beat()!;
      expect(heard).toMatchObject({ sure: true });
      expect(Math.abs(heard.bpm / bpm - 1)).toBeLessThan(0.01);
      expect(off(heard.at, beatAt, bpm)).toBeLessThan(0.03);
    }),
    { numRuns: 16 },
  );
});

test('holds through a break of four bars, and follows a band that grows faster', () => {
  const beatAt = (time: number) => (time * (120 + time * 0.1)) / 60;
  const tracker = beatTracker();
  const sound = band(ROCK, beatAt, (time) => time > 20 && time < 28);
  listen(tracker, sound, 0, 19.5);
  expect(tracker.beat()).toMatchObject({ sure: true });
  listen(tracker, sound, 19.5, 28);
  expect(tracker.beat()!.sure).toBe(false);
  expect(Math.abs(tracker.beat()!.bpm / 124 - 1)).toBeLessThan(0.02);
  listen(tracker, sound, 28, 40);
  const heard = tracker.beat()!;
  expect(heard.sure).toBe(true);
  expect(Math.abs(heard.bpm / (120 + 40 * 0.2) - 1)).toBeLessThan(0.02);
  expect(off(heard.at, beatAt, 128)).toBeLessThan(0.06);
});

test('yields to a tap at once, and counts as it does from then on', () => {
  const beatAt = (time: number) => (time * 140) / 60;
  const tracker = beatTracker();
  const sound = band(FLOOR, beatAt);
  listen(tracker, sound, 0, 10);
  expect(tracker.beat()!.bpm).toBeCloseTo(140, 0);
  tracker.told(70, 10.2);
  expect(tracker.beat()).toMatchObject({ at: 10.2 });
  expect(tracker.beat()!.bpm).toBeCloseTo(70, 6);
  listen(tracker, sound, 10, 20);
  expect(tracker.beat()!.bpm).toBeCloseTo(70, 0);
});

test('silence, noise and one tone have no beat', () => {
  const deaf = (level: (band: number, n: number) => number) => {
    const tracker = beatTracker();
    for (let n = 0; n < 2000; n++)
      tracker.hear(
        Array.from({ length: LOUDNESS_BANDS }, (_, i) => level(i, n)),
        n / 100,
      );
    return tracker.beat()?.sure ?? false;
  };
  expect(deaf(() => 0)).toBe(false);
  expect(deaf((i) => (i === 6 ? 200 : 20))).toBe(false);
  expect(deaf((i, n) => Math.round(100 + 30 * noise(n * 16 + i)))).toBe(false);
});
