// Curves through points: what they are at a beat, and stretches of them drawn anew, copied and changed.

import { beats, clamp } from '../units';
import type { Point } from './lane-schema';

type Shape = Point['shape'];

/** How many times steeper a way that is bent to the most is at its end than a straight one. */
const MOST_BENT = 4;

/** How much of the way to the next point is done, 0…1, after a share `x` (0…1) of the time. Rises. */
export function shareOf(shape: Shape, bend: number, x: number): number {
  if (shape === 'hold' || shape === 'off') return 0;
  if (shape === 'smooth') return x * x * (3 - 2 * x);
  if (shape === 'straight' || bend === 0) return x;
  const power = 1 + (MOST_BENT - 1) * Math.abs(bend);
  return bend > 0 ? x ** power : 1 - (1 - x) ** power;
}

/** Index of the last point at or before a beat; -1 before the first. */
export function pointBefore(at: ArrayLike<number>, count: number, beat: number): number {
  let low = -1;
  let high = count - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (at[middle]! <= beat) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** What a curve says at a beat, 0…1; undefined where it lets the light be. A last point that holds goes on for ever. */
export function curveAt(points: readonly Point[], beat: number): number | undefined {
  const index = points.findLastIndex(({ at }) => at <= beat);
  const [here, next] = [points[index], points[index + 1]];
  if (!here || here.shape === 'off') return undefined;
  if (!next) return here.shape === 'hold' ? here.value : undefined;
  const x = (beat - here.at) / (next.at - here.at);
  return here.value + (next.value - here.value) * shareOf(here.shape, here.bend ?? 0, x);
}

/** Names a point that a cut needs. */
export type NewPoint = (n: number) => Point['id'];

/** A way that is not straight is cut into so many straight pieces. */
const PIECES = 12;

/** The same curve with a point at a beat, if it has a value there. */
function cutAt(points: readonly Point[], beat: number, name: NewPoint): readonly Point[] {
  const index = points.findLastIndex(({ at }) => at <= beat);
  const [here, next] = [points[index], points[index + 1]];
  const value = curveAt(points, beat);
  if (!here || value === undefined || here.at === beat) return points;
  const point = (n: number, at: number, height: number, shape: Shape): Point => ({
    id: name(n),
    at: beats(at),
    value: height,
    shape,
  });
  if (!next || here.shape === 'hold' || here.shape === 'straight')
    return points.toSpliced(index + 1, 0, point(0, beat, value, here.shape));
  const pieces = new Set([beat]);
  for (let i = 1; i < PIECES; i++) pieces.add(here.at + ((next.at - here.at) * i) / PIECES);
  const inner = [...pieces].sort((a, b) => a - b).map((at, n) => point(n, at, curveAt(points, at)!, 'straight'));
  const { bend: _, ...straight } = here;
  return points.toSpliced(index, 1, { ...straight, shape: 'straight' }, ...inner);
}

/** The points of `[from, to]`, with one at each end where the curve has a value there; the last one ends it. */
export function pointsWithin(points: readonly Point[], from: number, to: number, name: NewPoint): readonly Point[] {
  const cut = cutAt(cutAt(points, from, name), to, (n) => name(100 + n));
  const first = cut.findLastIndex(({ at }) => at <= from);
  const begins = cut[first]?.at === from ? first : first + 1;
  const inner = cut.slice(begins).filter(({ at }) => at < to);
  const last = inner.at(-1);
  if (!last || last.shape === 'off') return inner;
  const end = cut.find(({ at }) => at === to);
  // The last point of all is an end already.
  if (!end) return inner.with(-1, { ...last, shape: 'off' });
  return [...inner, { ...end, id: name(200), shape: 'off' }];
}

/** The curve with `inner` in place of all that it said in `[from, to)`; before and after it is as it was. */
export function drawnOver(
  points: readonly Point[],
  from: number,
  to: number,
  inner: readonly Point[],
  name: NewPoint,
): readonly Point[] {
  const before = pointsWithin(points, -Infinity, from, name);
  const cut = cutAt(points, to, (n) => name(300 + n));
  const last = cut.findLastIndex(({ at }) => at <= to);
  const after = cut.slice(cut[last]?.at === to ? last : last + 1);
  return tidied([...before, ...ended(inner, to, name(400)), ...after], name);
}

/** Points that let the light be from a beat on. */
function ended(points: readonly Point[], to: number, id: Point['id']): readonly Point[] {
  const last = points.at(-1);
  if (!last || last.shape === 'off') return points;
  if (last.at < to) return [...points, { id, at: beats(to), value: last.value, shape: 'off' }];
  return points.with(-1, { ...last, shape: 'off' });
}

/** Without points that change nothing: a second end, a third point at one beat. Each id once. */
function tidied(points: readonly Point[], name: NewPoint): readonly Point[] {
  const known = new Set<string>();
  return points
    .filter((point, n) => point.at !== points[n - 1]?.at || point.at !== points[n + 1]?.at)
    .filter((point, n, all) => point.shape !== 'off' || (n > 0 && all[n - 1]!.shape !== 'off'))
    .map((point, n) => {
      const one = known.has(point.id) ? { ...point, id: name(1000 + n) } : point;
      known.add(one.id);
      return one;
    });
}

/** Values scaled about 0, and moved; flipped upside down by a scale of -1 and a move of 1. Held within 0…1. */
export function scaledPoints(points: readonly Point[], scale: number, move: number): readonly Point[] {
  return points.map((point) => ({ ...point, value: clamp(point.value * scale + move, 0, 1) }));
}

/** The speed that a height of a speed curve means: half is the usual one, full four times as fast, nothing a stop. */
export const speedOfValue = (value: number): number => 4 * value * value;

/** The inverse. */
export const valueOfSpeed = (speed: number): number => Math.sqrt(speed / 4);
