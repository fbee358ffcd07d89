// Moving lamps about the plan: snapping, lining up, spacing out, mirroring, and what a drawn line encloses.

import type { Point } from './geometry';
import type { Fixture, Mount, Rig } from './schema';

/** A direction on the plan: across, up-stage, or up. */
export type Axis = 'x' | 'y' | 'z';

/** The nearest multiple of `step` metres; `step` 0 leaves the value, to the centimetre. */
export function snapped(metres: number, step: number): number {
  const grid = step > 0 ? step : 0.01;
  return Math.round(Math.round(metres / grid) * grid * 1000) / 1000;
}

/** All lamps on the mean of one axis. */
export function aligned(lamps: readonly Fixture[], axis: Axis): readonly Fixture[] {
  if (lamps.length === 0) return lamps;
  const mean = lamps.reduce((sum, { mount }) => sum + mount[axis], 0) / lamps.length;
  return lamps.map((lamp) => withMount(lamp, { [axis]: snapped(mean, 0) }));
}

/** Equal gaps between the outermost two, in the order in which they hang. Fewer than three stay as they are. */
export function spacedOut(lamps: readonly Fixture[], axis: Axis): readonly Fixture[] {
  if (lamps.length < 3) return lamps;
  const sorted = [...lamps].sort((a, b) => a.mount[axis] - b.mount[axis]);
  const [first, last] = [sorted[0]!.mount[axis], sorted.at(-1)!.mount[axis]];
  const place = new Map(sorted.map((lamp, i) => [lamp.id, first + ((last - first) * i) / (sorted.length - 1)]));
  return lamps.map((lamp) => withMount(lamp, { [axis]: snapped(place.get(lamp.id)!, 0) }));
}

/** The other side of the stage, seen in a mirror on its middle line: left for right, and turned the other way. */
export function mirrored({ x, yaw, roll, ...rest }: Mount): Mount {
  return { ...rest, x: -x || 0, yaw: -yaw || 0, roll: -roll || 0 };
}

/** Lamps moved by so many metres, each snapped to the grid. */
export function movedBy(
  lamps: readonly Fixture[],
  by: { readonly x?: number; readonly y?: number; readonly z?: number },
  grid: number,
): readonly Fixture[] {
  return lamps.map((lamp) => {
    const { mount } = lamp;
    return withMount(lamp, {
      ...(by.x === undefined ? {} : { x: snapped(mount.x + by.x, grid) }),
      ...(by.y === undefined ? {} : { y: snapped(mount.y + by.y, grid) }),
      ...(by.z === undefined ? {} : { z: Math.max(0, snapped(mount.z + by.z, grid)) }),
    });
  });
}

/** Whether a point lies inside a closed line of points, by the even-odd rule. */
export function isInside(line: readonly (readonly [number, number])[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = line.length - 1; i < line.length; j = i++) {
    const [ax, ay] = line[i]!;
    const [bx, by] = line[j]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}

/** A stretch of the room in metres, from above (x, y) or from the audience (x, z). */
export type Extent = { readonly left: number; readonly right: number; readonly low: number; readonly high: number };

/** What must be seen of a rig: every lamp and shape, some points beside, at least a small stage, with some air around. */
export function extentOf(rig: Rig, view: 'above' | 'audience', points: readonly Point[] = []): Extent {
  const up = view === 'above' ? 'y' : 'z';
  const places = [...rig.fixtures.map(({ mount }) => mount), ...points];
  const lamps = places.map((place) => ({ left: place.x, right: place.x, low: place[up], high: place[up] }));
  const shapes = rig.shapes.map((shape) => {
    const half = Math.hypot(shape.width, shape.depth * (view === 'above' ? 1 : 0)) / 2;
    const wide = shape.turn % 180 === 0 ? shape.width / 2 : half;
    const tall = shape.turn % 180 === 0 ? shape.depth / 2 : half;
    return view === 'above'
      ? { left: shape.x - wide, right: shape.x + wide, low: shape.y - tall, high: shape.y + tall }
      : { left: shape.x - wide, right: shape.x + wide, low: shape.z, high: shape.z + shape.height };
  });
  const least = view === 'above' ? { left: -3, right: 3, low: -1, high: 4 } : { left: -3, right: 3, low: 0, high: 3 };
  const all = [...lamps, ...shapes].reduce<Extent>(
    (a, b) => ({
      left: Math.min(a.left, b.left),
      right: Math.max(a.right, b.right),
      low: Math.min(a.low, b.low),
      high: Math.max(a.high, b.high),
    }),
    least,
  );
  return { left: all.left - 0.9, right: all.right + 0.9, low: all.low - 0.9, high: all.high + 0.9 };
}

function withMount(lamp: Fixture, change: Partial<Mount>): Fixture {
  return { ...lamp, mount: { ...lamp.mount, ...change } };
}
