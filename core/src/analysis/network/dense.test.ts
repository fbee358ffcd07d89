import fc from 'fast-check';
import { linearMaker } from './dense';

/** Sums in double precision, as a textbook has them. */
function summed(inputs: number, outputs: number, weights: readonly number[], values: readonly number[]): number[] {
  return Array.from({ length: 2 * outputs }, (_, place) => {
    const [vector, o] = [Math.floor(place / outputs), place % outputs];
    let sum = o;
    for (let i = 0; i < inputs; i++) sum += weights[o * inputs + i]! * values[vector * inputs + i]!;
    return sum;
  });
}

test('both ways to multiply give the products, for matrices of any size side by side', () => {
  const size = fc.record({ pairs: fc.integer({ min: 1, max: 40 }), fours: fc.integer({ min: 1, max: 9 }) });
  const number = fc.double({ min: -2, max: 2, noNaN: true });
  fc.assert(
    fc.property(fc.array(size, { minLength: 1, maxLength: 3 }), fc.infiniteStream(number), (sizes, numbers) => {
      const take = (count: number) => Array.from({ length: count }, () => numbers.next().value as number);
      for (const make of [linearMaker(), linearMaker(false)]) {
        const all = sizes.map(({ pairs, fours }) => {
          const [inputs, outputs] = [2 * pairs, 4 * fours];
          const weights = take(inputs * outputs);
          const values = take(2 * inputs);
          const biases = Array.from({ length: outputs }, (_, o) => o);
          const linear = make(inputs, outputs, biases, (output, input) => weights[output * inputs + input]!);
          linear.values.set(values);
          return { linear, wanted: summed(inputs, outputs, weights, values) };
        });
        for (const { linear } of all) linear.run();
        for (const { linear, wanted } of all)
          wanted.forEach((value, i) => expect(Math.abs(linear.sums[i]! - value)).toBeLessThan(1e-3));
      }
    }),
    { numRuns: 60 },
  );
});
