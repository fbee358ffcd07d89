import fc from 'fast-check';
import { gridOf, readHeard, writeHeard, type Heard } from '.';
import { harmonyTaker } from './harmony';
import { ACTIVATION_RATE } from './network';

const C = [261.6, 329.6, 392];
const A_MINOR = [220, 261.6, 329.6];
const F = [174.6, 220, 261.6];
const G = [196, 246.9, 293.7];
const CHORDS = [C, A_MINOR, F, G];

/** Chords of sines with three overtones, each begun anew every `stroke` seconds, as a guitar is strummed. */
function strummed(rate: number, length: number, stroke: number, chordAt: (time: number) => readonly number[]) {
  return Float32Array.from({ length: Math.round(rate * length) }, (_, i) => {
    const time = i / rate;
    const fall = Math.exp(-3 * (time % stroke));
    return chordAt(time).reduce((sum, hertz) => {
      for (let k = 1; k <= 3; k++) sum += (0.08 / k) * Math.sin(2 * Math.PI * hertz * k * time) * fall;
      return sum;
    }, 0);
  });
}

/** Changes, 50 a second, of sound that comes in slices. */
function changesIn(sound: Float32Array, rate: number, slice: number, channels = 1): Float32Array {
  const taker = harmonyTaker();
  for (let i = 0; i < sound.length; i += slice)
    taker.take(
      Array.from({ length: channels }, () => sound.subarray(i, i + slice)),
      rate,
    );
  return taker.end(Math.floor((sound.length / rate) * ACTIVATION_RATE), ACTIVATION_RATE);
}

describe('changes of harmony', () => {
  test('are largest where chords change, at any sample rate and in any slices; strokes of one chord are none', () => {
    const asked = fc.record({
      rate: fc.constantFrom(8000, 22_050, 44_100, 48_000),
      slice: fc.integer({ min: 700, max: 40_000 }),
      channels: fc.integer({ min: 1, max: 2 }),
      every: fc.double({ min: 1.6, max: 3, noNaN: true }),
      order: fc.shuffledSubarray([0, 1, 2, 3], { minLength: 3 }),
    });
    fc.assert(
      fc.property(asked, ({ rate, slice, channels, every, order }) => {
        const chordAt = (time: number) => CHORDS[order[Math.floor(time / every) % order.length]!]!;
        const changes = changesIn(strummed(rate, 4.5 * every, every / 4, chordAt), rate, slice, channels);
        for (let n = 1; n < 4; n++) {
          const at = Math.round(n * every * ACTIVATION_RATE);
          // Half a chord later, a stroke of the same one.
          const within = Math.round((n + 0.5) * every * ACTIVATION_RATE);
          expect(changes[at]!).toBeGreaterThan(3 * changes[within]!);
          expect(changes[at]!).toBeGreaterThan(0.1);
        }
      }),
      { numRuns: 5, endOnFailure: true },
    );
  });

  test('silence, one chord and nothing at all have none', () => {
    expect(Math.max(...changesIn(new Float32Array(22_050 * 5), 22_050, 5000))).toBe(0);
    const held = changesIn(
      strummed(22_050, 8, 0.5, () => C),
      22_050,
      5000,
    );
    expect(Math.max(...held.slice(50, -50))).toBeLessThan(0.02);
    expect(harmonyTaker().end(0, ACTIVATION_RATE)).toHaveLength(0);
  });
});

/** Beats at 120 that all sound as if they began a bar a little, and chords that change every `length` beats. */
function unsure(length: number, first: number, downbeat: (beat: number) => number): Heard {
  const frames = 60 * ACTIVATION_RATE;
  const row = () => new Float32Array(frames).fill(-6);
  const odds = { frames, beat: row(), downbeat: row(), section: row() };
  const change = new Float32Array(frames).fill(0.1);
  for (let i = 0; i < 112; i++) {
    const at = (1 + i / 2) * ACTIVATION_RATE;
    for (const k of [-1, 0]) {
      odds.beat[at + k] = 3;
      odds.downbeat[at + k] = downbeat(i);
    }
    if ((i - first) % length === 0) for (let k = -12; k <= 12; k++) change[at + k] = 1 - Math.abs(k) / 15;
  }
  return { odds, change, compound: false, sixEight: false };
}

describe('bars', () => {
  test.each([
    [4, 1],
    [4, 3],
    [3, 2],
  ])('of %i beats begin where the chords change, from beat %i, where nothing else tells', (length, first) => {
    const grid = gridOf(unsure(length, first, (i) => (i % 2 === first % 2 ? -1 : -1.3)));
    expect(grid.meter).toEqual([{ bar: 0, numerator: length, denominator: 4 }]);
    expect((grid.downbeats[0]! - 1) * 2).toBeCloseTo(first, 0);
  });

  test('begin where the network is sure, though chords come half a bar early', () => {
    const grid = gridOf(unsure(4, 2, (i) => (i % 4 === 0 ? 3 : -4)));
    expect(((grid.downbeats[0]! - 1) * 2) % 4).toBeCloseTo(0, 0);
  });
});

test('what was kept before changes of harmony were heard is read as it was, and kept with them from then on', () => {
  const heard = unsure(4, 1, () => -1);
  const bytes = writeHeard(heard);
  const again = readHeard(bytes, 'x');
  expect(
    again.ok && Math.max(...again.value.change.map((value, i) => Math.abs(value - heard.change[i]!))),
  ).toBeLessThan(0.01);
  const old = bytes.slice(0, bytes.length - heard.odds.frames);
  new DataView(old.buffer).setUint16(4, 1, true);
  const read = readHeard(old, 'x');
  if (!read.ok) throw new Error('not read');
  expect(read.value.change).toHaveLength(0);
  expect(gridOf(read.value).beats.length).toBe(gridOf(heard).beats.length);
  const kept = readHeard(writeHeard(read.value), 'x');
  expect(kept.ok && gridOf(kept.value)).toEqual(gridOf(read.value));
});
