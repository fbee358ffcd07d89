// Curves: what they say, and that a stretch that is drawn, copied or cleared leaves the rest as it was.

import fc from 'fast-check';
import { beats, id } from '../units';
import {
  copiedLane,
  clearedLane,
  curveAt,
  drawnOver,
  SEGMENTS,
  scaledPoints,
  shareOf,
  type CurveLane,
  type Point,
} from '.';

let named = 0;
const name = () => id<'Point'>(`p${named++}`);
const point = (at: number, value: number, shape: Point['shape'] = 'straight', bend?: number): Point => ({
  id: name(),
  at: beats(at),
  value,
  shape,
  ...(bend === undefined ? {} : { bend }),
});
const lane = (points: readonly Point[]): CurveLane => ({
  id: id<'Lane'>('curve'),
  name: 'Swell',
  type: 'curve',
  target: { on: 'all' },
  blend: 'scale',
  points: [...points],
});
const anyPoint = fc
  .tuple(
    fc.integer({ min: 0, max: 40 }),
    fc.integer({ min: 0, max: 100 }),
    fc.constantFrom(...SEGMENTS),
    fc.integer({ min: -10, max: 10 }),
  )
  .map(([at, value, shape, bend]) => point(at, value / 100, shape, bend / 10));
const anyCurve = fc
  .array(anyPoint, { maxLength: 10, size: 'max' })
  .map((points) => points.toSorted((a, b) => a.at - b.at));
const places = Array.from({ length: 200 }, (_, i) => i * 0.25 + 0.01);

test('the way from a point to the next: half-way, by shape', () => {
  const half = (shape: Point['shape'], bend = 0) => shareOf(shape, bend, 0.5);
  expect([half('straight'), half('smooth'), half('hold'), half('bent')]).toEqual([0.5, 0.5, 0, 0.5]);
  expect(half('bent', 1)).toBeCloseTo(0.0625);
  expect(half('bent', -1)).toBeCloseTo(0.9375);
});

test('a curve has a value from point to point and none elsewhere; a last point that holds goes on', () => {
  const swell = [point(4, 0), point(8, 1, 'off'), point(12, 0.5, 'hold')];
  expect([3, 4, 6, 8, 10, 12, 400].map((beat) => curveAt(swell, beat))).toEqual([
    undefined,
    0,
    0.5,
    undefined,
    undefined,
    0.5,
    0.5,
  ]);
  expect(curveAt([point(0, 1), point(4, 1)], 4)).toBeUndefined();
  // Two points at one beat: it jumps.
  expect(curveAt([point(0, 1), point(4, 1), point(4, 0), point(8, 0)], 4)).toBe(0);
});

test('drawn over a stretch: there as drawn, elsewhere as before', () => {
  const stretch = fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 12 }));
  fc.assert(
    fc.property(
      anyCurve,
      stretch,
      fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 0, maxLength: 5 }),
      (curve, [from, length], drawn) => {
        const to = from + length;
        const inner = drawn.map((value, i) => point(from + (length * i) / Math.max(1, drawn.length - 1), value / 100));
        const after = drawnOver(curve, from, to, inner, name);
        for (const beat of places) {
          const wanted =
            beat >= from && beat < to ? curveAt(inner.length > 1 ? inner : [], beat) : curveAt(curve, beat);
          const is = curveAt(after, beat);
          if (wanted === undefined)
            expect([beat, is]).toEqual([
              beat,
              inner.length === 1 && beat >= from && beat < to ? inner[0]!.value : undefined,
            ]);
          // Ways that are not straight are cut into straight pieces where they are cut.
          else expect(Math.abs(is! - wanted)).toBeLessThan(0.06);
        }
        expect(new Set(after.map((one) => one.id)).size).toBe(after.length);
        after.forEach((one, i) => expect(i === 0 || after[i - 1]!.at <= one.at).toBe(true));
      },
    ),
  );
});

test('copied: there as in the stretch; cleared: silent there', () => {
  const copy = fc.tuple(fc.nat(20), fc.integer({ min: 2, max: 10 }), fc.nat(30), fc.integer({ min: 1, max: 25 }));
  fc.assert(
    fc.property(anyCurve, copy, (curve, [from, length, at, reach]) => {
      let n = 0;
      const laid = copiedLane(
        lane(curve),
        { from, to: from + length, at, until: at + reach },
        () => `n${n++}`,
        (clip) => clip.id,
      );
      const points = laid.type === 'curve' ? laid.points : [];
      for (const beat of places) {
        const within = beat >= at && beat < at + reach;
        const wanted = curveAt(curve, within ? from + ((beat - at) % length) : beat);
        const is = curveAt(points, beat);
        if (wanted === undefined) expect([beat, is]).toEqual([beat, undefined]);
        else expect(Math.abs(is! - wanted)).toBeLessThan(0.06);
      }
      const clear = clearedLane(
        lane(curve),
        at,
        at + reach,
        () => `c${n++}`,
        (clip) => clip.id,
      );
      for (const beat of places)
        if (beat >= at && beat < at + reach)
          expect(curveAt(clear.type === 'curve' ? clear.points : [], beat)).toBeUndefined();
    }),
  );
});

test('flipped twice is as it was; values stay within 0 and 1', () => {
  const curve = [point(0, 0.2), point(4, 0.9)];
  const flipped = scaledPoints(curve, -1, 1);
  expect(flipped.map(({ value }) => value)).toEqual([0.8, expect.closeTo(0.1)]);
  expect(scaledPoints(flipped, -1, 1).map(({ value }) => value)).toEqual([expect.closeTo(0.2), expect.closeTo(0.9)]);
  expect(scaledPoints(curve, 3, 0).map(({ value }) => value)).toEqual([expect.closeTo(0.6), 1]);
});
