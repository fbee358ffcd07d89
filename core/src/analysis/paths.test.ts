import fc from 'fast-check';
import { pathFinder } from './paths';

/** Evidence of beats at one tempo and then at another, among some that is none. */
const evidence = fc
  .record({
    steps: fc.integer({ min: 1, max: 2600 }),
    gaps: fc.tuple(fc.integer({ min: 24, max: 140 }), fc.integer({ min: 24, max: 140 })),
    noise: fc.array(fc.record({ at: fc.nat(2599), value: fc.double({ min: 0, max: 1, noNaN: true }) }), {
      maxLength: 60,
    }),
  })
  .map(({ steps, gaps, noise }) => {
    const strength = new Float32Array(steps);
    for (let at = 10; at < steps; at += at < steps / 2 ? gaps[0] : gaps[1]) strength[at] = 0.9;
    for (const { at, value } of noise) if (at < steps) strength[at] = value;
    return strength;
  });
const range = fc.tuple(fc.integer({ min: 22, max: 150 }), fc.integer({ min: 22, max: 150 }));

test('both ways find the same path, whatever is heard and whichever intervals are allowed', () => {
  fc.assert(
    fc.property(evidence, range, fc.double({ min: 0, max: 0.6, noNaN: true }), (strength, [a, b], threshold) => {
      const allowed = (interval: number) => interval >= Math.min(a, b) && interval <= Math.max(a, b);
      const [kernel, plain] = [pathFinder(strength), pathFinder(strength, false)];
      const first = kernel(threshold, allowed);
      expect(first).toEqual(plain(threshold, allowed));
      // Asked again, nothing is left of the time before.
      kernel(0.9 - threshold, () => true);
      expect(kernel(threshold, allowed)).toEqual(first);
      const gaps = first.slice(1).map((step, i) => step - first[i]!);
      expect(gaps.every(allowed)).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('the path goes through what is likely, and counts through what is missing', () => {
  const strength = new Float32Array(4000);
  const beats = Array.from({ length: 60 }, (_, i) => 20 + 61 * i);
  for (const at of beats) if (at % 4 > 0) strength[at] = 1;
  for (const vector of [true, false]) {
    const path = pathFinder(strength, vector)(0.4, () => true);
    expect(path.slice(0, beats.length)).toEqual(beats);
  }
});

test('where no interval is allowed there is no path to speak of', () => {
  for (const vector of [true, false]) expect(pathFinder(new Float32Array(500), vector)(0.4, () => false)).toEqual([0]);
});
