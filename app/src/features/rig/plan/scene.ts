// What lies where on the plan, and what a finger that drags it means: in pixels of the picture, and metres of the room.

import {
  extentOf,
  isInside,
  movedBy,
  snapped,
  type Aim,
  type Fixture,
  type Patched,
  type Point,
  type Rig,
  type Shape,
} from '@hovlix/core/rig';
import { arrowEnd, cornerOf, shapeAt, shapeMoved, shapeSized, turnedTo } from './handles';
import type { Look } from './marks';
import type { Spot, Target } from './use-plan-gestures';
import { metresX, metresY, nearestLine, type Size, type Window } from './window';

export type PlanMode = 'hang' | 'light' | 'aims' | 'room';

export type Scene = {
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly aims: readonly Aim[];
  readonly chosen: ReadonlySet<string>;
  readonly mode: PlanMode;
  /** Metres; 0 for none. */
  readonly grid: number;
  readonly size: Size;
  readonly view: Window;
  readonly look: Look;
};

/** Which way of the room goes upwards in the picture. */
export const upOf = ({ look }: Pick<Scene, 'look'>) => (look.from === 'above' ? 'y' : 'z');

/** All that the picture can show, in metres. */
export const extentIn = (rig: Rig, from: Look['from'], mode: PlanMode, aims: readonly Aim[]) =>
  extentOf(rig, from, mode === 'aims' ? aims : []);

/** The one lamp that is chosen and does not move, and where its arrow ends. */
export function arrowIn({ patched, chosen, mode }: Scene): { readonly lamp: Fixture; readonly to: Point } | undefined {
  if (mode !== 'hang' || chosen.size !== 1) return undefined;
  const one = patched.find(({ fixture }) => chosen.has(fixture.id));
  if (!one || one.profile.panRange !== 0 || one.profile.kind === 'hazer') return undefined;
  return { lamp: one.fixture, to: arrowEnd(one.fixture) };
}

/** The shape that is chosen, of those as they are now. */
export const shapeIn = ({ chosen, mode }: Scene, shapes: readonly Shape[]): Shape | undefined =>
  mode === 'room' ? shapes.find(({ id }) => chosen.has(id)) : undefined;

/** How near a finger must come, in pixels. */
const NEAR = 24;

/** What lies under a finger: only what can be taken hold of as one works on it. */
export function targetAt(scene: Scene, at: Spot): Target {
  const { rig, patched, aims, mode, look } = scene;
  const up = upOf(scene);
  const near = (kind: string, points: readonly (Spot & { readonly id: string })[]) => {
    const best = points
      .map((point) => ({ id: point.id, away: Math.hypot(look.x(point.x) - at.x, look.y(point.y) - at.y) }))
      .reduce<{ id: string; away: number } | null>((a, b) => (!a || b.away < a.away ? b : a), null);
    return best && best.away <= NEAR ? { kind, id: best.id } : null;
  };
  const spots = (things: readonly (Point & { readonly id: string })[]) =>
    things.map((thing) => ({ id: thing.id, x: thing.x, y: thing[up] }));
  const lamps = () => near('lamp', spots(patched.map(({ fixture }) => ({ ...fixture.mount, id: fixture.id }))));
  if (mode === 'aims') return near('aim', spots(aims)) ?? lamps();
  if (mode === 'room') {
    const shape = shapeIn(scene, rig.shapes);
    const corner = shape && near('corner', [{ id: shape.id, ...cornerOf(shape, look.from) }]);
    return corner ?? shapeAt(rig.shapes, at, look);
  }
  const arrow = arrowIn(scene);
  return (arrow && near('arrow', spots([{ ...arrow.to, id: 'arrow' }]))) ?? lamps();
}

/** Lines to snap to, in metres. */
export type Lines = { readonly xs: readonly number[]; readonly ys: readonly number[] };

/** Those for a lamp that is dragged: what hangs or stands there and does not move with it. */
export function linesBeside(scene: Scene, id: string): Lines {
  const { rig, patched, chosen } = scene;
  const up = upOf(scene);
  const stays = patched.filter(({ fixture }) => (chosen.has(id) ? !chosen.has(fixture.id) : fixture.id !== id));
  const trusses = rig.shapes.filter(({ kind, turn }) => kind === 'truss' && turn === 0);
  return {
    xs: [...new Set([0, ...stays.map(({ fixture }) => fixture.mount.x)])],
    ys: [...new Set([...stays.map(({ fixture }) => fixture.mount[up]), ...trusses.map((truss) => truss[up])])],
  };
}

const SNAP_PIXELS = 7;

/** A drag of a lamp in pixels once it has snapped to what is in line, and the lines it snapped to as a path. */
export function inLine(scene: Scene, { xs, ys }: Lines, id: string, by: Spot): { by: Spot; guides: string } {
  const { patched, grid, view, size, look } = scene;
  const lamp = patched.find(({ fixture }) => fixture.id === id)?.fixture;
  if (!lamp) return { by, guides: '' };
  const up = upOf(scene);
  const within = grid > 0 ? SNAP_PIXELS / view.scale : 0;
  const place = { x: lamp.mount.x + by.x / view.scale, y: lamp.mount[up] - by.y / view.scale };
  const [x, y] = [nearestLine(place.x, xs, within), nearestLine(place.y, ys, within)];
  const to = { x: x ?? snapped(place.x, grid), y: y ?? snapped(place.y, grid) };
  const across = y === undefined ? '' : `M0 ${look.y(y)}H${size.width}`;
  return {
    by: { x: (to.x - lamp.mount.x) * view.scale, y: (lamp.mount[up] - to.y) * view.scale },
    guides: `${x === undefined ? '' : `M${look.x(x)} 0V${size.height}`}${across}`,
  };
}

/** The lamps that were dragged, where they hang then. */
export function hungAfter({ view, look }: Scene, lamps: readonly Fixture[], by: Spot): readonly Fixture[] {
  const [dx, dy] = [by.x / view.scale, -by.y / view.scale];
  return movedBy(lamps, look.from === 'above' ? { x: dx, y: dy } : { x: dx, z: dy }, 0);
}

/** The place an aim was dragged to. The picture says two of its numbers; the third stays. */
export function pointAt({ view, size, look }: Scene, at: Spot, aim: Aim): Point {
  const x = snapped(metresX(view, size, at.x), 0);
  const high = snapped(metresY(view, size, at.y), 0);
  return look.from === 'above' ? { x, y: high, z: aim.z } : { x, y: aim.y, z: Math.max(0, high) };
}

/** A lamp whose arrow was let go at a spot. */
export function turnedAt({ view, size, look }: Scene, lamp: Fixture, at: Spot): Fixture {
  const to = { x: metresX(view, size, at.x), high: metresY(view, size, at.y) };
  return { ...lamp, mount: turnedTo(lamp, to, look.from), directed: true };
}

/** A shape that is dragged, or sized by its corner. */
export function shapeAfter({ rig, view, grid, look }: Scene, target: NonNullable<Target>, by: Spot): Shape | null {
  const shape = rig.shapes.find(({ id }) => id === target.id);
  if (!shape) return null;
  const after = target.kind === 'shape' ? shapeMoved : shapeSized;
  return after(shape, by.x / view.scale, -by.y / view.scale, look.from, grid);
}

/** The lamps that a line was drawn around, in pixels. */
export function lampsWithin(scene: Scene, line: readonly (readonly [number, number])[]): readonly string[] {
  const { patched, look } = scene;
  const up = upOf(scene);
  const within = ({ mount }: Fixture) => isInside(line, look.x(mount.x), look.y(mount[up]));
  return patched.filter(({ fixture }) => within(fixture)).map(({ fixture }) => fixture.id);
}
