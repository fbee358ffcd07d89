// Timecode from outside, at every rate, over jitter, gaps, jumps and stops.

import fc from 'fast-check';
import { seconds } from '../units';
import { midiTimecode } from './midi-timecode';
import { timecodeFrom, timecodeText } from './time-of-day';

const CALLED = [24, 25, 29.97, 30];
const REAL = [24, 25, 30000 / 1001, 30];

/** Hour, minute, second and frame of a count of frames, with dropped numbers where they are. Independent of the follower. */
function figures(count: number, rate: number): [number, number, number, number] {
  const whole = Math.ceil(CALLED[rate]!);
  let shown = 0;
  // Counted one by one, as a machine does.
  if (rate !== 2) shown = count;
  else
    for (let n = 0, [m, s, f] = [0, 0, 0]; n < count; n++) {
      if (++f === 30) [f, s] = [0, s + 1];
      if (s === 60) [s, m] = [0, m + 1];
      if (s === 0 && f === 0 && m % 10 !== 0) f = 2;
      shown = (m * 60 + s) * 30 + f;
    }
  const second = Math.floor(shown / whole);
  return [Math.floor(second / 3600), Math.floor(second / 60) % 60, second % 60, shown % whole];
}

/** The eight quarter frames of a frame. */
function pieces(count: number, rate: number): number[][] {
  const [h, m, s, f] = figures(count, rate);
  const nibbles = [f & 15, f >> 4, s & 15, s >> 4, m & 15, m >> 4, h & 15, (h >> 4) | (rate << 1)];
  return nibbles.map((nibble, n) => [0xf1, (n << 4) | nibble]);
}

/** Tells timecode from a frame on, at a speed, early or late by up to so much. @returns how far the follower is off at worst, once it has settled. */
function tell(
  code: ReturnType<typeof midiTimecode>,
  from: number,
  rate: number,
  length: number,
  begin: number,
  { speed = 1, late = () => 0 } = {},
) {
  const frame = 1 / REAL[rate]! / speed;
  let worst = 0;
  for (let n = 0; n * 2 * frame < length; n++)
    pieces(from + n * 2, rate).forEach((bytes, k) => {
      const at = begin + n * 2 * frame + (k * frame) / 4;
      code.take(bytes, seconds(at + late()));
      const truth = (from + n * 2 + k / 4) / REAL[rate]!;
      if (at - begin > 0.3) worst = Math.max(worst, Math.abs(code.timeAt(seconds(at))! - truth));
    });
  return worst;
}

test('at any rate and from any place it is within 3 ms, with messages 2 ms early or late', () => {
  const jitter = fc.infiniteStream(fc.double({ min: -0.002, max: 0.002, noNaN: true }));
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 3 }), fc.nat(200_000), jitter, (rate, from, chance) => {
      const code = midiTimecode();
      expect(tell(code, from - (from % 2), rate, 4, 100, { late: () => chance.next().value })).toBeLessThan(0.003);
      expect(code.frames()).toBe(CALLED[rate]);
      expect(code.state(seconds(104))).toBe('running');
      expect(code.rate()).toBe(1);
    }),
    { seed: 15, numRuns: 60 },
  );
});

test('a machine that runs faster is followed; one that jumps, within its next two frames', () => {
  const code = midiTimecode();
  tell(code, 0, 1, 3, 10, { speed: 1.06 });
  expect(code.rate()).toBeCloseTo(1.06, 3);
  expect(tell(code, 50_000, 1, 2, 13.01)).toBeLessThan(0.003);
});

test('a gap is carried on and then it has stopped where it was heard last; told to stop, it stops at once', () => {
  const code = midiTimecode();
  expect([code.state(seconds(0)), code.timeAt(seconds(0))]).toEqual(['none', undefined]);
  tell(code, 0, 3, 2, 10);
  expect([12.1, 12.8, 14.5].map((at) => code.state(seconds(at)))).toEqual(['running', 'lost', 'stopped']);
  expect(code.timeAt(seconds(13))).toBeCloseTo(3, 2);
  expect(code.timeAt(seconds(20))).toBeCloseTo(2, 1);
  code.take([0xf0, 0x7f, 0x7f, 0x01, 0x01, 0x61, 2, 3, 4, 0xf7], seconds(21));
  expect(code.state(seconds(21))).toBe('stopped');
  // One hour, two minutes, three seconds, four frames of thirty.
  expect(code.timeAt(seconds(30))).toBeCloseTo(3723 + 4 / 30, 6);
});

test('pieces that are missing, out of order or no time at all move nothing', () => {
  const code = midiTimecode();
  const eight = pieces(1000, 1);
  for (const order of [
    [0, 1, 2, 4, 5, 6, 7],
    [7, 6, 5, 4, 3, 2, 1, 0],
  ])
    for (const n of order) code.take(eight[n]!, seconds(1));
  for (let n = 0; n < 8; n++) code.take([0xf1, (n << 4) | 0x0f], seconds(2));
  expect(code.state(seconds(2))).toBe('none');
  for (const other of [[0xf8], [0xf1], [0xf0, 0x7f, 0x7f, 0x06, 0x01, 0xf7], []])
    expect(code.take(other, seconds(3))).toBe(other[0] === 0xf1 && other.length > 1);
});

test('times are written and read as machines show them', () => {
  expect([0, 3723.5, 86_399].map(timecodeText)).toEqual(['00:00:00', '01:02:03.500', '23:59:59']);
  expect(['1:02:03,5', '01:00:00', '24:00:00', '1:60:00', '12:00', ''].map(timecodeFrom)).toEqual([
    3723.5,
    3600,
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
});
