// A clock from outside, over jitter, lost ticks, changes of tempo, stops and starts.

import fc from 'fast-check';
import { seconds } from '../units';
import { midiClock, TICKS_A_BEAT } from './midi-clock';

/** Repeatable chance, −1…1. */
function jitter(seed: number): () => number {
  let state = seed * 2654435761 + 1;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 0x9e3779b9) >>> 0;
    return (state / 2 ** 32) * 2 - 1;
  };
}
type Played = { readonly bpm: number; readonly beats: number };

/** Plays stretches of tempo from 10 s on, up to 2 ms early or late; `lost` leaves out ticks. Tells how far the follower is off. */
function follow(stretches: readonly Played[], seed: number, lost: (n: number) => boolean = () => false, settle = 1.5) {
  const clock = midiClock();
  const chance = jitter(seed);
  let at = 10;
  let n = 0;
  let worst = 0;
  clock.start();
  for (const { bpm, beats } of stretches) {
    const period = 60 / bpm / TICKS_A_BEAT;
    for (let k = 0; k < beats * TICKS_A_BEAT; k++, n++, at += period) {
      if (!lost(n)) clock.tick(seconds(at + chance() * 0.002));
      // After each change it has some beats to settle.
      if (k > settle * TICKS_A_BEAT) {
        const beat = clock.beatAt(seconds(at + period / 2));
        worst = Math.max(worst, Math.abs(beat - (n + 0.5) / TICKS_A_BEAT) * (60 / bpm));
      }
    }
  }
  return { clock, worst, at };
}

test('with ticks 2 ms early or late, the beat is within 5 ms, at any tempo', () => {
  fc.assert(
    fc.property(fc.integer({ min: 50, max: 200 }), fc.nat(10_000), (bpm, seed) => {
      const { clock, worst } = follow([{ bpm, beats: 16 }], seed);
      expect(worst).toBeLessThan(0.005);
      expect(Math.abs(clock.bpm()! / bpm - 1)).toBeLessThan(0.01);
    }),
    { seed: 15, numRuns: 100 },
  );
});

test('lost ticks are counted: a tenth of them, or two beats in a row', () => {
  fc.assert(
    fc.property(fc.integer({ min: 60, max: 180 }), fc.nat(10_000), fc.integer({ min: 80, max: 200 }), (bpm, seed, hole) => {
      const chance = jitter(seed + 1);
      const gone = new Set(Array.from({ length: 400 }, (_, n) => n).filter((n) => n > 48 && chance() < -0.8));
      expect(follow([{ bpm, beats: 16 }], seed, (n) => gone.has(n)).worst).toBeLessThan(0.005);
      const { worst } = follow([{ bpm, beats: 16 }], seed, (n) => n >= hole && n < hole + 2 * TICKS_A_BEAT);
      expect(worst).toBeLessThan(0.012);
    }),
    { seed: 15, numRuns: 60 },
  ); // prettier-ignore
});

test('a change of tempo is followed within two beats, and no beat is lost over it', () => {
  fc.assert(
    fc.property(fc.integer({ min: 70, max: 160 }), fc.integer({ min: -16, max: 16 }), fc.nat(10_000), (bpm, change, seed) => {
      const { worst } = follow([{ bpm, beats: 8 }, { bpm: bpm * (1 + change / 100), beats: 8 }], seed, undefined, 2);
      expect(worst).toBeLessThan(0.006);
    }),
    { seed: 15, numRuns: 100 },
  ); // prettier-ignore
});

test('silent, it is lost and carried on at its last tempo; stopped, it stays; continued, it goes on from there', () => {
  const { clock, at } = follow([{ bpm: 120, beats: 8 }], 3);
  expect(clock.state(seconds(at))).toBe('running');
  expect(clock.state(seconds(at + 1))).toBe('lost');
  expect(clock.beatAt(seconds(at + 1))).toBeCloseTo(10, 1);
  clock.stop();
  expect(clock.state(seconds(at + 1))).toBe('stopped');
  expect(clock.beatAt(seconds(at + 5))).toBe(8);
  clock.goOn();
  for (let k = 0; k < 48; k++) clock.tick(seconds(at + 6 + k / 48));
  expect(clock.beatAt(seconds(at + 7))).toBeCloseTo(10, 2);
  // A song position is where the next tick falls; 16 sixteenths are four beats.
  clock.stop();
  clock.position(16);
  expect(clock.beatAt(seconds(at + 9))).toBe(4);
  clock.goOn();
  for (let k = 0; k < 48; k++) clock.tick(seconds(at + 10 + k / 48));
  expect(clock.beatAt(seconds(at + 11))).toBeCloseTo(6, 2);
  clock.start();
  for (let k = 0; k < 48; k++) clock.tick(seconds(at + 12 + k / 48));
  expect(clock.beatAt(seconds(at + 13))).toBeCloseTo(2, 2);
});

test('whatever comes in, and in whatever order, its tempo stays one that music has', () => {
  const anything = fc.oneof(
    fc.record({ do: fc.constant('tick' as const), gap: fc.integer({ min: 0, max: 6000 }) }),
    fc.record({ do: fc.constantFrom('start' as const, 'stop' as const, 'goOn' as const), gap: fc.constant(0) }),
    fc.record({ do: fc.constant('position' as const), gap: fc.integer({ min: 0, max: 16383 }) }),
  );
  fc.assert(
    fc.property(fc.array(anything, { maxLength: 200 }), (all) => {
      const clock = midiClock();
      let at = 0;
      for (const one of all) {
        if (one.do === 'tick') clock.tick(seconds((at += one.gap / 1000)));
        else if (one.do === 'position') clock.position(one.gap);
        else clock[one.do]();
        const bpm = clock.bpm();
        if (bpm !== undefined) expect(bpm >= 19.99 && bpm <= 400.01).toBe(true);
        expect(Number.isFinite(clock.beatAt(seconds(at)))).toBe(true);
      }
    }),
    { seed: 15, numRuns: 200 },
  );
});
