// A tempo out of a hand's taps.

import fc from 'fast-check';
import { seconds, type Seconds } from '../units';
import { tapsWith, tempoOfTaps } from './tap';

/** Repeatable chance, −1…1. */
function chance(seed: number): () => number {
  let state = (seed * 2654435761 + 1) >>> 0;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 0x9e3779b9) >>> 0;
    return (state / 2 ** 32) * 2 - 1;
  };
}
const tapped = (moments: readonly number[]) =>
  tempoOfTaps(moments.reduce<readonly Seconds[]>((taps, at) => tapsWith(taps, seconds(at)), []))!;
/** Taps at 120 a minute, up to 20 ms early or late. */
const hand = (count: number, seed: number) => {
  const off = chance(seed);
  return Array.from({ length: count }, (_, i) => 5 + i * 0.5 + off() * 0.02);
};
const p95 = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)]!;

test.each([
  [4, 0.03],
  [8, 0.01],
])('%d taps that are up to 20 ms off give the tempo within %d, nineteen times in twenty', (count, within) => {
  const errors = Array.from({ length: 2000 }, (_, seed) => Math.abs(tapped(hand(count, seed)).bpm / 120 - 1));
  expect(p95(errors)).toBeLessThan(within);
});

test('the beat falls where the last taps fell', () => {
  const phases = Array.from({ length: 1000 }, (_, seed) => Math.abs(tapped(hand(8, seed)).at - 8.5));
  expect(p95(phases)).toBeLessThan(0.02);
});

test('a wild tap is ignored, a tap left out is counted, a pause starts anew', () => {
  fc.assert(
    fc.property(
      fc.nat(10_000),
      fc.integer({ min: 2, max: 7 }),
      fc.integer({ min: 30, max: 70 }),
      (seed, where, part) => {
        const even = hand(9, seed);
        const wild = [...even.slice(0, where), even[where - 1]! + (part / 100) * 0.5, ...even.slice(where)];
        expect(Math.abs(tapped(wild).bpm / 120 - 1)).toBeLessThan(0.03);
        expect(Math.abs(tapped(even.filter((_, i) => i !== where)).bpm / 120 - 1)).toBeLessThan(0.02);
      },
    ),
    { seed: 15, numRuns: 200 },
  );
  expect(tapped([1, 1.4, 1.8, 2.2, 9, 9.5, 10, 10.5]).bpm).toBeCloseTo(120, 6);
  expect(tempoOfTaps(tapsWith([], seconds(3)))).toBeUndefined();
});
