import fc from 'fast-check';
import { confidenceOf, doubtfulPassages, gridOf, otherGrid, readHeard, writeHeard, type Heard } from '.';
import { ACTIVATION_RATE } from './network';

/** What a network that is sure says of beats and downbeats: triangles of 30 ms, as it is taught. */
function saying(beats: readonly number[], downbeats: readonly number[], certain = 0.97): Heard {
  const frames = Math.ceil((beats.at(-1)! + 2) * ACTIVATION_RATE);
  const drawn = (moments: readonly number[]) => {
    const odds = new Float32Array(frames).fill(-5);
    for (const moment of moments)
      for (let i = Math.floor((moment - 0.04) * ACTIVATION_RATE); i <= (moment + 0.04) * ACTIVATION_RATE; i++) {
        const share = certain * Math.max(0, 1 - Math.abs((i + 0.25) / ACTIVATION_RATE - moment) / 0.03);
        if (i >= 0 && share > 0.01) odds[i] = Math.log(share / (1 - share));
      }
    return odds;
  };
  const odds = { frames, beat: drawn(beats), downbeat: drawn(downbeats), section: drawn([]) };
  return { odds, change: new Float32Array(), compound: false, sixEight: false };
}

/** Beats of a tempo that wanders: each gap differs a little from the one before. */
const wandering = fc
  .record({
    bpm: fc.double({ min: 55, max: 200, noNaN: true }),
    drift: fc.array(fc.double({ min: -0.012, max: 0.012, noNaN: true }), { minLength: 60, maxLength: 120 }),
    length: fc.constantFrom(2, 3, 4, 5, 7),
    first: fc.integer({ min: 0, max: 6 }),
  })
  .map(({ bpm, drift, length, first }) => {
    let gap = 60 / bpm;
    const beats = [0.4];
    for (const step of drift) {
      gap *= Math.exp(step);
      beats.push(beats.at(-1)! + gap);
    }
    return { beats, downbeats: beats.filter((_, i) => i % length === first % length), length };
  });

// A tempo that hardly wanders becomes a straight line: 8 ms off at the median, 40 ms for nearly all (`tempo.ts`).
test('beats and bars of any tempo that wanders are found where they are', () => {
  fc.assert(
    fc.property(wandering, ({ beats, downbeats, length }) => {
      const grid = gridOf(saying(beats, downbeats));
      expect(grid.beats.length).toBe(beats.length);
      const misses = beats.map((beat, i) => Math.abs(grid.beats[i]! - beat)).sort((a, b) => a - b);
      expect(misses[misses.length >> 1]).toBeLessThan(0.01);
      expect(misses[Math.floor(misses.length * 0.95) - 1]).toBeLessThan(0.04);
      expect(misses.at(-1)).toBeLessThan(0.1);
      // Of two and two, people make a bar of four where every other one came out a little stronger.
      const counted = length === 2 && grid.meter[0]!.numerator === 4 ? 4 : length;
      expect(grid.meter[0]!.numerator).toBe(counted);
      expect(Math.abs(grid.downbeats.length - (downbeats.length * length) / counted)).toBeLessThan(1);
    }),
    { numRuns: 12, endOnFailure: true },
  );
});

test('no recording makes a tempo map that does not rise', () => {
  const noise = fc.array(fc.double({ min: -8, max: 8, noNaN: true }), { minLength: 0, maxLength: 600 });
  fc.assert(
    fc.property(noise, noise, (beat, downbeat) => {
      const frames = Math.min(beat.length, downbeat.length);
      const row = (values: readonly number[]) => Float32Array.from(values.slice(0, frames));
      const odds = { frames, beat: row(beat), downbeat: row(downbeat), section: row(beat) };
      const { tempo, beats } = gridOf({ odds, change: new Float32Array(), compound: false, sixEight: false });
      tempo.anchors.forEach((anchor, i) => {
        const before = tempo.anchors[i - 1];
        if (before) expect(anchor.time > before.time && anchor.beat > before.beat).toBe(true);
      });
      beats.forEach((one, i) => i > 0 && expect(one).toBeGreaterThan(beats[i - 1]!));
    }),
    { numRuns: 60, endOnFailure: true },
  );
});

const even = (bpm: number, count: number) => Array.from({ length: count }, (_, i) => 0.5 + (i * 60) / bpm);
const four = (beats: readonly number[]) => beats.filter((_, i) => i % 4 === 0);

test('other readings: half, double, between, from another beat, three for four; each the likeliest of its kind', () => {
  const beats = even(120, 96);
  const heard = saying(beats, four(beats));
  const now = gridOf(heard);
  expect(now.bpm).toBeCloseTo(120, 0);
  const half = otherGrid(heard, now, 'half');
  expect(half.bpm).toBeCloseTo(60, 0);
  // Of the two halves, the one that has the downbeats.
  expect(Math.abs(half.downbeats[0]! - 0.5)).toBeLessThan(0.02);
  expect(otherGrid(heard, now, 'double').bpm).toBeCloseTo(240, -1);
  const offBeats = saying(
    beats.map((beat) => beat + 0.25),
    four(beats),
    0.3,
  );
  const both = {
    ...heard,
    odds: { ...heard.odds, beat: heard.odds.beat.map((value, i) => Math.max(value, offBeats.odds.beat[i] ?? -9)) },
  };
  const between = otherGrid(both, now, 'off-beat');
  // It goes as long as the music, also where nothing is heard on its beats.
  expect(between.beats[0]!).toBeLessThan(1);
  expect(between.beats.every((beat) => beats.every((one) => Math.abs(one - beat) > 0.1))).toBe(true);
  const other = otherGrid(heard, now, 'other-beat');
  expect(other.downbeats.some((one) => now.downbeats.includes(one))).toBe(false);
  expect(otherGrid(heard, now, 'other-meter').meter[0]).toMatchObject({ numerator: 3, denominator: 4 });
});

describe('fast beats that are sure and less sure in turn', () => {
  const inTurn = (bpm: number, weak: number): Heard => {
    const beats = even(bpm, 160);
    const strong = saying(
      beats.filter((_, i) => i % 2 === 0),
      beats.filter((_, i) => i % 8 === 0),
      0.9,
    );
    const between = saying(beats, [], weak).odds.beat;
    return {
      ...strong,
      odds: { ...strong.odds, beat: strong.odds.beat.map((value, i) => Math.max(value, between[i]!)) },
    };
  };

  test.each([150, 162, 174, 190])('at %p they are counted half as fast where the turns are plain', (bpm) => {
    expect(gridOf(inTurn(bpm, 0.5)).bpm).toBeCloseTo(bpm / 2, 0);
  });

  test.each([150, 162, 174])('at %p they are not where the turns are slight', (bpm) => {
    expect(gridOf(inTurn(bpm, 0.85)).bpm).toBeCloseTo(bpm, 0);
  });

  test('slower ones are not, however plain the turns', () => {
    expect(gridOf(inTurn(120, 0.5)).bpm).toBeCloseTo(120, 0);
  });
});

/** Beats of one song, and others its network takes for beats in some passages, a share of the interval later. */
function misheard(beats: readonly number[], passages: readonly (readonly [number, number])[], shift: number): Heard {
  const gap = beats[1]! - beats[0]!;
  const moved = (i: number) => passages.some(([from, to]) => i >= from && i < to);
  const said = beats.map((beat, i) => (moved(i) ? beat + shift * gap : beat));
  return saying(said, four(beats));
}

test('a song at one tempo keeps its beat where the off-beats are taken for it for a while', () => {
  const place = fc.record({
    bpm: fc.double({ min: 72, max: 164, noNaN: true }),
    from: fc.integer({ min: 20, max: 130 }),
  });
  fc.assert(
    fc.property(place, fc.integer({ min: 8, max: 20 }), ({ bpm, from }, length) => {
      const beats = even(bpm, 200);
      const grid = gridOf(misheard(beats, [[from, from + length]], 0.5));
      expect(grid.beats.length).toBe(beats.length);
      beats.forEach((beat, i) => expect(Math.abs(grid.beats[i]! - beat)).toBeLessThan(0.03));
      expect(grid.tempo.anchors.length).toBe(2);
    }),
    { numRuns: 6, endOnFailure: true },
  );
});

test('a break without a beat is counted through, and a drummer’s drift is kept', () => {
  const beats = Array.from({ length: 160 }, (_, i) => 0.5 + i * 0.5 + 0.04 * Math.sin(i / 18));
  const heard = beats.filter((_, i) => i < 70 || i >= 102);
  const grid = gridOf(saying(heard, four(beats)));
  expect(grid.beats.length).toBe(beats.length);
  beats.forEach((beat, i) => expect(Math.abs(grid.beats[i]! - beat)).toBeLessThan(i < 66 || i > 106 ? 0.03 : 0.16));
});

test('a song that goes on at another tempo is followed there', () => {
  const first = even(100, 80);
  const then = Array.from({ length: 80 }, (_, i) => first.at(-1)! + ((i + 1) * 60) / 132);
  const beats = [...first, ...then];
  const grid = gridOf(saying(beats, four(beats)));
  expect(Math.abs(grid.beats.length - beats.length)).toBeLessThanOrEqual(1);
  const nearest = (beat: number) => Math.min(...grid.beats.map((one) => Math.abs(one - beat)));
  // It takes some beats to be sure of it.
  beats.forEach((beat, i) => expect(nearest(beat)).toBeLessThan(i < 72 || i > 82 ? 0.03 : 0.3));
});

test('one doubtful bar line does not move all bars after it', () => {
  const beats = even(120, 128);
  // From the middle on, the third beat now and then looks more like a start than the first.
  const downbeats = beats.filter((_, i) => (i >= 60 && i < 84 ? i % 4 === 2 : i % 4 === 0));
  const grid = gridOf(saying(beats, downbeats));
  expect(grid.meter).toEqual([{ bar: 0, numerator: 4, denominator: 4 }]);
});

test('the meter may change: bars of two among bars of four become entries of their own', () => {
  const beats = even(96, 74);
  const downbeats = beats.filter((_, i) => (i <= 32 ? i % 4 === 0 : (i - 34) % 4 === 0));
  const grid = gridOf(saying(beats, downbeats));
  expect(grid.meter.map(({ bar, numerator }) => [bar, numerator])).toEqual([
    [0, 4],
    [8, 2],
    [9, 4],
  ]);
});

test('confidence falls with what the network is not sure of, and says in which bars', () => {
  const beats = even(120, 128);
  const sure = saying(beats, four(beats));
  const unsure = saying(beats, four(beats), 0.35);
  expect(confidenceOf(sure, gridOf(sure))).toBeGreaterThan(0.85);
  expect(confidenceOf(unsure, gridOf(unsure))).toBeLessThan(confidenceOf(sure, gridOf(sure)) - 0.2);
  const mixed = {
    ...sure,
    odds: { ...sure.odds, beat: sure.odds.beat.map((value, i) => (i > 1000 && i < 1800 ? -4 : value)) },
  };
  const [passage, ...more] = doubtfulPassages(mixed, gridOf(sure));
  expect(more).toEqual([]);
  expect(passage!.first).toBeGreaterThan(7);
  expect(passage!.last).toBeLessThan(19);
});

test('what was heard is kept in bytes and read back; anything else is refused with a sentence', () => {
  const heard = saying(even(100, 40), even(25, 10));
  const bytes = writeHeard(heard);
  const back = readHeard(bytes, 'x.wav');
  if (!back.ok) throw new Error('not read');
  expect(gridOf(back.value).beats).toHaveLength(gridOf(heard).beats.length);
  back.value.odds.beat.forEach((value, i) => expect(Math.abs(value - heard.odds.beat[i]!)).toBeLessThan(0.051));
  expect(readHeard(bytes.subarray(0, 5), 'x.wav')).toMatchObject({ ok: false, problem: { code: 'cut-short' } });
  expect(readHeard(bytes.subarray(0, -1), 'x.wav')).toMatchObject({ ok: false, problem: { code: 'cut-short' } });
  expect(
    readHeard(
      Uint8Array.from(bytes, (byte, i) => (i === 0 ? 1 : byte)),
      'x.wav',
    ),
  ).toMatchObject({ ok: false });
});
