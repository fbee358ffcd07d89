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
    fc.property(
      fc.integer({ min: 60, max: 180 }),
      fc.nat(10_000),
      fc.integer({ min: 80, max: 200 }),
      (bpm, seed, hole) => {
        const chance = jitter(seed + 1);
        const gone = new Set(Array.from({ length: 400 }, (_, n) => n).filter((n) => n > 48 && chance() < -0.8));
        expect(follow([{ bpm, beats: 16 }], seed, (n) => gone.has(n)).worst).toBeLessThan(0.005);
        const { worst } = follow([{ bpm, beats: 16 }], seed, (n) => n >= hole && n < hole + 2 * TICKS_A_BEAT);
        expect(worst).toBeLessThan(0.012);
      },
    ),
    { seed: 15, numRuns: 60 },
  );
});

test('a change of tempo is followed within two beats, and no beat is lost over it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 70, max: 160 }),
      fc.integer({ min: -16, max: 16 }),
      fc.nat(10_000),
      (bpm, change, seed) => {
        const { worst } = follow(
          [
            { bpm, beats: 8 },
            { bpm: bpm * (1 + change / 100), beats: 8 },
          ],
          seed,
          undefined,
          2,
        );
        expect(worst).toBeLessThan(0.006);
      },
    ),
    { seed: 15, numRuns: 100 },
  );
});

test('of ticks that are delivered late, several at once, none is counted twice, and the tempo holds', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 60, max: 180 }),
      fc.nat(10_000),
      fc.integer({ min: 40, max: 250 }),
      (bpm, seed, stall) => {
        const clock = midiClock();
        const chance = jitter(seed);
        const period = 60 / bpm / TICKS_A_BEAT;
        clock.start();
        let busyUntil = 0;
        for (let n = 0; n < 20 * TICKS_A_BEAT; n++) {
          const due = n * period;
          // Now and then whoever hands the ticks on is busy for a while, from the very first one on.
          if (due >= busyUntil && (n === 0 || chance() > 0.9)) busyUntil = due + stall / 1000;
          clock.tick(seconds(Math.max(due, busyUntil)));
        }
        const end = 20 * TICKS_A_BEAT;
        let at = Math.max(end * period, busyUntil);
        // Ten beats later, undisturbed, it knows the tempo and the place exactly.
        for (let n = end; n < end + 10 * TICKS_A_BEAT; n++) clock.tick(seconds((at = Math.max(at, n * period))));
        expect(clock.bpm()! / bpm).toBeCloseTo(1, 2);
        expect(Math.abs(clock.beatAt(seconds(at)) - (end + 10 * TICKS_A_BEAT - 1) / TICKS_A_BEAT)).toBeLessThan(0.02);
      },
    ),
    { seed: 15, numRuns: 300 },
  );
});

test('a tempo that halves is not taken for every second tick lost, nor are first ticks that come too fast', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(1 / 2, 1 / 3, 2, 3),
      fc.integer({ min: 100, max: 130 }),
      fc.nat(10_000),
      (times, bpm, seed) => {
        const { clock, at } = follow(
          [
            { bpm, beats: 8 },
            { bpm: bpm * times, beats: 8 },
          ],
          seed,
        );
        expect(clock.bpm()! / (bpm * times)).toBeCloseTo(1, 1);
        expect(Math.abs(clock.beatAt(seconds(at)) - 16)).toBeLessThan(0.05);
      },
    ),
    { seed: 15, numRuns: 100 },
  );
  const clock = midiClock();
  clock.start();
  // Three at 200 beats a minute, then at 100.
  for (const n of [0, 1, 2]) clock.tick(seconds(n / 80));
  for (let n = 0; n < 48; n++) clock.tick(seconds(0.05 + n / 40));
  expect(clock.bpm()).toBeCloseTo(100, 0);
  expect(clock.beatAt(seconds(0.05 + 48 / 40))).toBeCloseTo(51 / TICKS_A_BEAT, 1);
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
