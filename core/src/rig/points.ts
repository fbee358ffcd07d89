// Points of a room that people can name without a tape measure: aims, and the corners of the stage.

import type { Point } from './geometry';
import type { Aim, Rig } from './schema';

export type NamedPoint = Point & { readonly id: string; readonly name: string };

/** Aims at their height, then the corners of the first stage (or of what is usual for one) on the floor. */
export function namedPoints(rig: Rig, aims: readonly Aim[]): readonly NamedPoint[] {
  const stage = rig.shapes.find(({ kind }) => kind === 'stage') ?? { x: 0, y: 2, width: 6, depth: 4, turn: 0 };
  const angle = (stage.turn * Math.PI) / 180;
  const corner = (name: string, side: number, back: number): NamedPoint => {
    const [dx, dy] = [(side * stage.width) / 2, (back * stage.depth) / 2];
    return {
      id: name,
      name,
      x: stage.x + dx * Math.cos(angle) - dy * Math.sin(angle),
      y: stage.y + dx * Math.sin(angle) + dy * Math.cos(angle),
      z: 0,
    };
  };
  return [
    ...aims.map(({ id, name, x, y, z }) => ({ id, name, x, y, z })),
    corner('Front left corner', -1, -1),
    corner('Front right corner', 1, -1),
    corner('Back left corner', -1, 1),
    corner('Back right corner', 1, 1),
  ];
}
