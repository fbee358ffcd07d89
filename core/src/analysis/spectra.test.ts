import fc from 'fast-check';
import { LANES, spectraOf, type Band } from './spectra';

type Seen = { readonly power: readonly number[]; readonly bands: readonly number[] };

function seenIn(windows: readonly Float32Array[], size: number, bands: readonly Band[], vector: boolean): Seen[] {
  const seen: Seen[] = [];
  const of = (values: Float32Array, lane: number) => Array.from(values).filter((_, i) => i % LANES === lane);
  const spectra = spectraOf(
    size,
    bands,
    ({ power, bands: sums, lane }) => seen.push({ power: of(power, lane), bands: of(sums, lane) }),
    vector,
  );
  for (const window of windows) spectra.put(window, 0);
  spectra.finish();
  return seen;
}

/** Power of bins, by the sum that defines the transform, in double precision, of a window by Hann. */
function byDefinition(samples: Float32Array, bins: readonly number[]): number[] {
  const size = samples.length;
  return bins.map((bin) => {
    let [re, im] = [0, 0];
    for (let i = 0; i < size; i++) {
      const value = samples[i]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
      re += value * Math.cos((2 * Math.PI * i * bin) / size);
      im -= value * Math.sin((2 * Math.PI * i * bin) / size);
    }
    return re * re + im * im;
  });
}

// Sizes whose half is a power of four, and those whose half is not.
const sizes = [8, 16, 64, 256, 512, 1024, 2048, 4096] as const;

test('power is what the transform is defined by, of any number of windows, in both ways and at any size', () => {
  const sample = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      fc.constantFrom(...sizes),
      fc.integer({ min: 1, max: 9 }),
      fc.infiniteStream(sample),
      fc.array(fc.nat(2048), { minLength: 1, maxLength: 3 }),
      (size, count, stream, asked) => {
        const windows = Array.from({ length: count }, () =>
          Float32Array.from({ length: size }, () => stream.next().value as number),
        );
        const bins = [0, size / 2, ...asked.map((bin) => bin % (size / 2))];
        for (const vector of [true, false]) {
          const seen = seenIn(windows, size, [], vector);
          expect(seen.map(({ power }) => power.length)).toEqual(windows.map(() => size / 2 + 1));
          windows.forEach((window, i) =>
            byDefinition(window, bins).forEach((wanted, k) =>
              expect(Math.abs(Math.sqrt(seen[i]!.power[bins[k]!]!) - Math.sqrt(wanted))).toBeLessThan(
                1e-4 * Math.sqrt(size),
              ),
            ),
          );
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('a band is the weighted sum of its bins; one without bins is nothing', () => {
  const windows = Array.from({ length: 5 }, (_, w) =>
    Float32Array.from({ length: 256 }, (_, i) => Math.sin(i * (w + 1) * 0.1)),
  );
  const bands = [
    { first: 0, weights: [1, 0.5] },
    { first: 7, weights: [] },
    { first: 126, weights: [0.25, 1, 2] },
  ];
  for (const vector of [true, false])
    for (const { power, bands: sums } of seenIn(windows, 256, bands, vector))
      bands.forEach(({ first, weights }, b) => {
        const wanted = weights.reduce((sum, weight, i) => sum + weight * power[first + i]!, 0);
        expect(Math.abs(sums[b]! - wanted)).toBeLessThan(1e-4 * Math.max(1, wanted));
      });
});

test('the longest windows there may be have room, with bands over all of their bins', () => {
  const size = 32_768;
  const sine = Float32Array.from({ length: size }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / size));
  const all = { first: 0, weights: Array.from({ length: size / 2 + 1 }, () => 1) };
  const [one] = seenIn([sine], size, [{ first: 999, weights: [1, 1, 1] }, all, all, all], true);
  // Of a sine at full scale, in the three bins over which the window spreads it.
  expect(one!.bands[0]! / (1.5 * (size / 4) ** 2)).toBeCloseTo(1, 3);
});
