import fc from 'fast-check';
import { findBeats } from './beats';
import { ACTIVATION_RATE } from './network';

/** Log odds as a network that is sure of these beats says them, and of the very start what it says there. */
function oddsOf(beats: readonly number[], start: number): Float32Array {
  const odds = new Float32Array(Math.ceil((beats.at(-1)! + 1) * ACTIVATION_RATE)).fill(-7);
  for (let frame = 0; frame < odds.length; frame++)
    for (const beat of beats) {
      const apart = Math.abs(frame / ACTIVATION_RATE - beat);
      if (apart < 0.03) odds[frame] = Math.max(odds[frame]!, 2 - apart * 100);
    }
  odds[0] = start;
  return odds;
}

test('a recording that is cut on its first beat has that beat, at any tempo', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.35, max: 0.72, noNaN: true }),
      fc.double({ min: 0, max: 0.02, noNaN: true }),
      (period, early) => {
        // Activations are a little early, so that the first of them lies before the recording.
        const beats = Array.from({ length: 30 }, (_, i) => (i + 1) * period - early);
        const found = findBeats(oddsOf(beats, -1)).beats;
        expect(found).toHaveLength(31);
        expect(found[0]).toBeGreaterThanOrEqual(0);
        expect(found[0]).toBeLessThan(0.05);
      },
    ),
    { numRuns: 40 },
  );
});

test('where nothing is heard at the start, nothing is counted there', () => {
  const beats = Array.from({ length: 30 }, (_, i) => (i + 1) * 0.5 - 0.01);
  const found = findBeats(oddsOf(beats, -7)).beats;
  expect(found).toHaveLength(30);
  expect(found[0]).toBeCloseTo(0.49, 1);
});
