import fc from 'fast-check';
import { chance } from '../light';
import { ALIKE, offsetBetween } from './offset';

/** Peaks of music that was never played: strokes at odd moments that ring out. */
function made(seed: number, seconds: number, loud = 200): Uint8Array {
  const out = new Uint8Array(seconds * 100);
  let level = 0;
  for (let i = 0; i < out.length; i++) {
    if (chance(seed, i, 1) < 0.06) level = 60 + chance(seed, i, 2) * (loud - 60);
    out[i] = Math.round(level);
    level *= 0.9;
  }
  return out;
}
/** The same later, louder or softer, and with noise on it. */
function later(peaks: Uint8Array, by: number, gain: number, noise: number): Uint8Array {
  return Uint8Array.from({ length: peaks.length }, (_, i) =>
    Math.max(0, Math.min(255, (peaks[i - by] ?? 0) * gain + (chance(7, i, 3) - 0.5) * noise)),
  );
}

test('the same performance is found wherever it begins, louder or softer and through noise', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1e5 }),
      fc.integer({ min: -3000, max: 3000 }),
      fc.integer({ min: 5, max: 12 }),
      (seed, by, gain) => {
        const peaks = made(seed, 100);
        const { seconds, alike } = offsetBetween(peaks, later(peaks, by, gain / 10, 20));
        expect(Math.abs(seconds - by / 100)).toBeLessThan(0.006);
        expect(alike).toBeGreaterThan(ALIKE);
      },
    ),
    { numRuns: 15 },
  );
});

test('of a steady beat, which is like itself at every bar, as much as possible is laid over one another', () => {
  const beat = Uint8Array.from({ length: 2400 }, (_, i) => Math.round(160 * 0.9 ** (i % 240) + 90 * 0.9 ** (i % 60)));
  const silence = new Uint8Array(135);
  expect(offsetBetween(beat, Uint8Array.from([...silence, ...beat])).seconds).toBeCloseTo(1.35, 2);
  expect(offsetBetween(Uint8Array.from([...silence, ...beat]), beat).seconds).toBeCloseTo(-1.35, 2);
});

test('two performances are not one, and silence is like nothing', () => {
  for (let seed = 1; seed < 6; seed++)
    expect(offsetBetween(made(seed, 120), made(seed + 50, 120)).alike).toBeLessThan(ALIKE);
  expect(offsetBetween(new Uint8Array(1000), made(1, 10)).alike).toBe(0);
  const nothing = offsetBetween(new Uint8Array(0), new Uint8Array(0));
  expect(nothing.alike).toBe(0);
  expect(Number.isFinite(nothing.seconds)).toBe(true);
});
