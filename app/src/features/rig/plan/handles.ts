// What is grabbed on the plan beside lamps: the arrow of a lamp that does not move, shapes and their corners. Pure.

import {
  beamDirection,
  mountRotation,
  mountTowards,
  snapped,
  type Fixture,
  type Point,
  type Shape,
} from '@hovlix/core/rig';
import type { Look } from './marks';
import type { Spot, Target } from './use-plan-gestures';

const direction = new Float64Array(3);
/** Where an arrow ends whose lamp shines past the room. */
const ARROW = 1.6;

/** Where the light of a lamp that does not move lands on the floor; a little way along where it does not. */
export function arrowEnd({ mount }: Pick<Fixture, 'mount'>): Point {
  beamDirection(mountRotation(mount), 0, 0, direction);
  const [x, y, z] = direction as unknown as [number, number, number];
  const reach = z < -0.05 ? Math.min(-mount.z / z, 9) : ARROW;
  return { x: mount.x + x * reach, y: mount.y + y * reach, z: Math.max(0, mount.z + z * reach) };
}

/** The mount after its arrow was drawn to a place: on the floor from above; in the audience's view, up or down too. */
export function turnedTo(
  { mount }: Fixture,
  to: { x: number; high: number },
  from: 'above' | 'audience',
): Fixture['mount'] {
  if (from === 'audience') {
    const end = arrowEnd({ mount });
    return mountTowards(mount, { x: to.x, y: end.y, z: to.high });
  }
  const shinesUp = mount.pitch > 90 && mount.pitch < 270;
  if (!shinesUp) return mountTowards(mount, { x: to.x, y: to.high, z: 0 });
  return { ...mountTowards({ ...mount, z: 4 }, { x: to.x, y: to.high, z: 0 }), z: mount.z, pitch: mount.pitch };
}

/** The corner by which a shape is sized: right and towards the audience, before it is turned. */
export function cornerOf(shape: Shape, from: 'above' | 'audience'): { x: number; y: number } {
  if (from === 'audience') return { x: shape.x + shape.width / 2, y: shape.z + shape.height };
  const angle = (shape.turn * Math.PI) / 180;
  const [dx, dy] = [shape.width / 2, -shape.depth / 2];
  return {
    x: shape.x + dx * Math.cos(angle) - dy * Math.sin(angle),
    y: shape.y + dx * Math.sin(angle) + dy * Math.cos(angle),
  };
}

/** The smallest shape under a finger: a riser before the stage it stands on. */
export function shapeAt(shapes: readonly Shape[], at: Spot, look: Look): Target {
  const inside = shapes.filter((shape) => {
    const above = look.from === 'above';
    const [dx, dy] = [
      (at.x - look.x(shape.x)) / look.scale,
      (look.y(above ? shape.y : shape.z + shape.height / 2) - at.y) / look.scale,
    ];
    const angle = above ? (-shape.turn * Math.PI) / 180 : 0;
    const [x, y] = [dx * Math.cos(angle) - dy * Math.sin(angle), dx * Math.sin(angle) + dy * Math.cos(angle)];
    const thumb = 16 / look.scale;
    return (
      Math.abs(x) <= Math.max(shape.width / 2, thumb) &&
      Math.abs(y) <= Math.max((above ? shape.depth : shape.height) / 2, thumb)
    );
  });
  const best = inside.reduce<Shape | null>((a, b) => (!a || b.width * b.depth < a.width * a.depth ? b : a), null);
  return best && { kind: 'shape', id: best.id };
}

export function shapeMoved(shape: Shape, dx: number, dy: number, from: 'above' | 'audience', grid: number): Shape {
  if (from === 'above') return { ...shape, x: snapped(shape.x + dx, grid), y: snapped(shape.y + dy, grid) };
  return { ...shape, x: snapped(shape.x + dx, grid), z: Math.max(0, snapped(shape.z + dy, grid)) };
}

/** Sized by its corner; its middle stays. */
export function shapeSized(shape: Shape, dx: number, dy: number, from: 'above' | 'audience', grid: number): Shape {
  const least = (value: number) => Math.max(0.1, snapped(value, grid / 2));
  if (from === 'audience') return { ...shape, width: least(shape.width + dx * 2), height: least(shape.height + dy) };
  const angle = (-shape.turn * Math.PI) / 180;
  const [x, y] = [dx * Math.cos(angle) - dy * Math.sin(angle), dx * Math.sin(angle) + dy * Math.cos(angle)];
  return { ...shape, width: least(shape.width + x * 2), depth: least(shape.depth - y * 2) };
}
