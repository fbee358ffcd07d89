import fc from 'fast-check';
import { beats, seconds } from '../units';
import {
  barAt,
  barLength,
  beatAt,
  beatOfBar,
  pulsesInBar,
  steadyTempo,
  tapsWith,
  tempoMap,
  tempoOfTaps,
  timeAt,
} from '.';

const maps = fc
  .array(
    fc.record({
      beat: fc.double({ min: 0.05, max: 8, noNaN: true }),
      time: fc.double({ min: 0.05, max: 4, noNaN: true }),
    }),
    {
      minLength: 2,
      maxLength: 60,
    },
  )
  .map((steps) => {
    let [beat, time] = [-4, -1];
    return tempoMap(steps.map((step) => ({ beat: beats((beat += step.beat)), time: seconds((time += step.time)) })));
  });

describe('tempo map', () => {
  test('time to beat and back gives the same moment to 1e-9, also beyond both ends', () => {
    fc.assert(
      fc.property(maps, fc.double({ min: -100, max: 400, noNaN: true }), (map, time) => {
        expect(Math.abs(timeAt(map, beatAt(map, seconds(time))) - time)).toBeLessThan(
          1e-9 * Math.max(1, Math.abs(time)),
        );
      }),
      { seed: 7, numRuns: 300 },
    );
  });

  test('later in time is later in the music', () => {
    fc.assert(
      fc.property(
        maps,
        fc.double({ min: -50, max: 200, noNaN: true }),
        fc.double({ min: 1e-3, max: 9, noNaN: true }),
        (map, at, more) => {
          expect(beatAt(map, seconds(at + more))).toBeGreaterThan(beatAt(map, seconds(at)));
        },
      ),
      { seed: 8 },
    );
  });

  test('120 bpm puts beat 8 at 4 seconds after its start', () => {
    expect(timeAt(steadyTempo(120, seconds(0.4)), beats(8))).toBeCloseTo(4.4, 12);
  });

  test('anchors that do not rise are refused by number', () => {
    const anchors = [
      { beat: beats(0), time: seconds(0) },
      { beat: beats(1), time: seconds(0) },
    ];
    expect(() => tempoMap(anchors)).toThrow('Anchor 1');
    expect(() => tempoMap(anchors.slice(1))).toThrow('two anchors');
  });
});

describe('bars', () => {
  const changing = [
    { bar: 0, numerator: 4, denominator: 4 },
    { bar: 2, numerator: 6, denominator: 8 },
    { bar: 4, numerator: 3, denominator: 4 },
  ];

  test('6/8 is three quarters long and felt in two', () => {
    expect(barLength(changing[1]!)).toBe(3);
    expect(pulsesInBar(changing[1]!)).toBe(2);
  });

  test('bar starts and barAt agree across meter changes and before the first bar', () => {
    for (let bar = -3; bar < 12; bar++)
      expect(barAt(changing, beatOfBar(changing, bar))).toMatchObject({ bar, pulse: 0 });
    expect(beatOfBar(changing, 4)).toBe(14);
    expect(barAt(changing, beats(8 + 1.5))).toMatchObject({ bar: 2, pulse: 1 });
    expect(barAt(changing, beats(-1))).toMatchObject({ bar: -1, pulse: 3 });
  });
});

describe('tap', () => {
  const tapped = (times: readonly number[]) =>
    times.reduce<readonly ReturnType<typeof seconds>[]>((taps, at) => tapsWith(taps, seconds(at)), []);

  test('uneven taps around half a second give about 120', () => {
    expect(tempoOfTaps(tapped([10, 10.52, 10.99, 11.51, 12.0]))!.bpm).toBeCloseTo(120, 0);
  });

  test('a pause starts afresh, and one tap is no tempo', () => {
    expect(tapped([1, 1.5, 9])).toEqual([9]);
    expect(tempoOfTaps(tapped([3]))).toBeUndefined();
  });
});

test('seconds and beats do not mix', () => {
  // @ts-expect-error beats are not seconds
  const wrong: ReturnType<typeof seconds> = beats(1);
  expect(wrong).toBe(1);
});
