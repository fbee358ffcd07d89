// What does not shine: wall, floor, truss, and the people, dark against the light.

import type { Shape } from '@hovlix/core/rig';
import type { Canvas2D } from './canvas';
import { project, type View } from './project';

const point = new Float64Array(3);
const other = new Float64Array(3);

/** @param glow r, g, b 0…255 and strength 0…1 of all light together: it lifts the room a little. */
export function paintRoom(context: Canvas2D, view: View, glow: Float64Array, shapes: readonly Shape[]): void {
  const { width, height } = view;
  project(view, 0, 6, 0, point);
  const floor = point[1]!;
  const lift = glow[3]!;
  const wall = context.createLinearGradient(0, 0, 0, floor);
  wall.addColorStop(0, '#0b090f');
  wall.addColorStop(1, tinted(glow, 18, 15, 24, lift * 0.26));
  context.fillStyle = wall;
  context.fillRect(0, 0, width, floor + 1);
  const boards = context.createLinearGradient(0, floor, 0, height);
  boards.addColorStop(0, tinted(glow, 26, 21, 34, lift * 0.34));
  boards.addColorStop(1, tinted(glow, 14, 11, 18, lift * 0.12));
  context.fillStyle = boards;
  context.fillRect(0, floor, width, height - floor);
  for (const shape of shapes) {
    if (shape.kind === 'truss' && shape.y > -0.5) paintTruss(context, view, shape);
    if (shape.kind === 'curtain') paintCurtain(context, view, shape, glow);
    if (shape.kind === 'stand' && shape.y > -0.5) paintStand(context, view, shape);
  }
}

/** The two ends of a shape as the audience sees it, at one height. */
function ends(view: View, { x, y, width, turn }: Shape, z: number): void {
  const angle = (turn * Math.PI) / 180;
  const [dx, dy] = [(Math.cos(angle) * width) / 2, (Math.sin(angle) * width) / 2];
  project(view, x - dx, y - dy, z, point);
  project(view, x + dx, y + dy, z, other);
}

function paintCurtain(context: Canvas2D, view: View, shape: Shape, glow: Float64Array): void {
  ends(view, shape, shape.z + shape.height);
  const [left, top, right] = [point[0]!, point[1]!, other[0]!];
  ends(view, shape, shape.z);
  context.fillStyle = tinted(glow, 20, 13, 20, glow[3]! * 0.3);
  context.fillRect(left, top, right - left, point[1]! - top);
  context.fillStyle = 'rgba(0,0,0,0.28)';
  const folds = Math.max(4, Math.round(shape.width * 3));
  for (let i = 0; i < folds; i++)
    context.fillRect(left + ((right - left) * i) / folds, top, (right - left) / folds / 3, point[1]! - top);
}

function paintStand(context: Canvas2D, view: View, shape: Shape): void {
  project(view, shape.x, shape.y, shape.z, point);
  project(view, shape.x, shape.y, shape.z + shape.height, other);
  context.strokeStyle = '#2f283b';
  context.lineWidth = Math.max(1, point[2]! * 0.05);
  context.beginPath();
  context.moveTo(point[0]!, point[1]!);
  context.lineTo(other[0]!, other[1]!);
  context.stroke();
}

function paintTruss(context: Canvas2D, view: View, shape: Shape): void {
  ends(view, shape, shape.z + shape.height);
  const size = point[2]!;
  context.strokeStyle = '#2f283b';
  context.lineWidth = Math.max(1, size * 0.035);
  context.beginPath();
  for (const drop of [0, 0.2]) {
    context.moveTo(point[0]!, point[1]! + size * drop);
    context.lineTo(other[0]!, other[1]! + size * drop);
  }
  const bays = Math.max(2, Math.round(shape.width * 1.75));
  const step = (other[0]! - point[0]!) / bays;
  context.moveTo(point[0]!, point[1]!);
  for (let i = 1; i <= bays; i++) context.lineTo(point[0]! + i * step, point[1]! + (i % 2 ? size * 0.2 : 0));
  context.stroke();
}

/** Singer, guitar, bass, and the drummer on the riser. */
export function paintPeople(context: Canvas2D, view: View, glow: Float64Array, shapes: readonly Shape[]): void {
  context.fillStyle = tinted(glow, 7, 5, 10, glow[3]! * 0.1);
  context.strokeStyle = context.fillStyle;
  context.lineCap = 'round';
  paintDrums(
    context,
    view,
    shapes.find(({ kind }) => kind === 'riser'),
  );
  paintPerson(context, view, -2.3, 1.9, -1);
  paintPerson(context, view, 2.2, 1.7, 1);
  paintPerson(context, view, -0.4, 1.1, 0);
}

/** @param neck where the instrument's neck points: -1 left, 1 right, 0 a singer at a stand. */
function paintPerson(context: Canvas2D, view: View, x: number, y: number, neck: number): void {
  project(view, x, y, 0, point);
  const [px, py, s] = [point[0]!, point[1]!, point[2]!];
  const at = (dx: number, z: number): readonly [number, number] => [px + dx * s, py - z * s];
  context.beginPath();
  context.ellipse(...at(0.02, 1.66), s * 0.105, s * 0.13, 0, 0, 6.3);
  context.fill();
  context.beginPath();
  context.moveTo(...at(-0.2, 1.42));
  context.quadraticCurveTo(...at(0, 1.58), ...at(0.21, 1.42));
  context.lineTo(...at(0.15, 0.88));
  context.lineTo(...at(0.24, 0));
  context.lineTo(...at(0.08, 0));
  context.lineTo(...at(0, 0.78));
  context.lineTo(...at(-0.1, 0));
  context.lineTo(...at(-0.26, 0));
  context.lineTo(...at(-0.15, 0.88));
  context.fill();
  context.lineWidth = s * 0.085;
  context.beginPath();
  if (neck === 0) {
    context.moveTo(...at(0.2, 1.38));
    context.lineTo(...at(0.27, 1.18));
    context.lineTo(...at(0.1, 1.42));
    context.stroke();
    context.lineWidth = s * 0.025;
    context.beginPath();
    context.moveTo(...at(0.16, 0));
    context.lineTo(...at(0.13, 1.5));
    context.lineTo(...at(0.06, 1.58));
  } else {
    context.moveTo(...at(-0.19, 1.36));
    context.lineTo(...at(-0.27, 1.08));
    context.lineTo(...at(0, 1.02));
    context.moveTo(...at(0.19, 1.36));
    context.lineTo(...at(0.3, 1.14));
    context.stroke();
    context.lineWidth = s * 0.045;
    context.beginPath();
    context.moveTo(...at(0, 1.0));
    context.lineTo(...at(0.62 * neck, 1.26));
    context.stroke();
    context.beginPath();
    context.ellipse(...at(-0.06 * neck, 0.98), s * 0.21, s * 0.14, -0.4 * neck, 0, 6.3);
    context.fill();
    return;
  }
  context.stroke();
}

function paintDrums(context: Canvas2D, view: View, riser: Shape | undefined): void {
  project(view, riser?.x ?? 0, riser?.y ?? 3.6, 0, point);
  const [px, py, s] = [point[0]!, point[1]!, point[2]!];
  const oval = (dx: number, z: number, rx: number, rz: number) => {
    context.beginPath();
    context.ellipse(px + dx * s, py - z * s, rx * s, rz * s, 0, 0, 6.3);
    context.fill();
  };
  const [wide, high] = [(riser?.width ?? 2.7) * s, (riser?.height ?? 0.42) * s];
  context.fillRect(px - wide / 2, py - high, wide, high);
  oval(0, 0.78, 0.34, 0.34);
  oval(-0.62, 0.92, 0.24, 0.16);
  oval(0.62, 0.92, 0.26, 0.17);
  oval(-0.24, 1.2, 0.19, 0.12);
  oval(0.26, 1.2, 0.19, 0.12);
  oval(0.02, 1.86, 0.1, 0.12);
  context.beginPath();
  context.ellipse(px, py - 1.42 * s, s * 0.25, s * 0.36, 0, 0, 6.3);
  context.fill();
  context.lineWidth = s * 0.035;
  for (const side of [-1, 1]) {
    context.beginPath();
    context.moveTo(px + side * 0.95 * s, py - 0.42 * s);
    context.lineTo(px + side * 0.92 * s, py - 1.5 * s);
    context.moveTo(px + side * 0.62 * s, py - 1.56 * s);
    context.lineTo(px + side * 1.2 * s, py - 1.46 * s);
    context.stroke();
  }
}

/** A dark colour with a share of the room's light in it. */
function tinted(glow: Float64Array, r: number, g: number, b: number, share: number): string {
  const mix = (own: number, k: number) => Math.round(own + (glow[k]! - own) * share * 0.5);
  return `rgb(${mix(r, 0)},${mix(g, 1)},${mix(b, 2)})`;
}
