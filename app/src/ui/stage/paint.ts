// Draws the stage as the bytes that go out light it: haze, beams that add like light, pools, silhouettes.

import { isStrobeLit, LAMP_STRIDE } from '@hovlix/core/engine';
import { beamDirection, mountRotation } from '@hovlix/core/rig';
import type { StageHead } from '../../host/light-messages';
import { project, viewFor, type View } from './project';
import { paintPeople, paintRoom } from './room';

type Lamp = {
  readonly head: StageHead;
  readonly rotation: Float64Array;
  readonly direction: Float64Array;
  readonly from: Float64Array;
  readonly to: Float64Array;
};

/** A painter for one rig; it keeps its scratch space, so painting again and again needs no new memory of ours. */
export type Painter = {
  /** @param lamps `LAMP_STRIDE` numbers a head. @param at seconds, for strobes. */
  readonly paint: (
    context: CanvasRenderingContext2D,
    width: number,
    height: number,
    lamps: Float32Array,
    at: number,
  ) => void;
};

const BACK_WALL = 6;
/** Colours are told apart in steps this fine; style strings are made once for each. */
const STEPS = 31;

export function painter(heads: readonly StageHead[]): Painter {
  const all = heads.map((head): Lamp => ({
    head,
    rotation: mountRotation(head.mount),
    direction: new Float64Array(3),
    from: new Float64Array(3),
    to: new Float64Array(3),
  }));
  const styles = new Map<number, readonly [string, string, string, string]>();
  const rgb = new Float64Array(4);
  let view: View | undefined;

  const paint: Painter['paint'] = (context, width, height, lamps, at) => {
    if (!view || view.width !== width || view.height !== height) view = viewFor(width, height);
    const glow = ambient(lamps, all.length, rgb);
    paintRoom(context, view, glow);
    context.globalCompositeOperation = 'lighter';
    for (let i = 0; i < all.length; i++)
      if (lit(lamps, i, at, rgb)) paintPool(context, view, all[i]!, lamps, i, rgb, styles);
    context.globalCompositeOperation = 'source-over';
    paintPeople(context, view, glow);
    context.globalCompositeOperation = 'lighter';
    for (let i = 0; i < all.length; i++)
      if (lit(lamps, i, at, rgb)) paintBeam(context, view, all[i]!, lamps, i, rgb, styles);
    context.globalCompositeOperation = 'source-over';
    for (let i = 0; i < all.length; i++) paintHousing(context, view, all[i]!, lit(lamps, i, at, rgb), rgb, styles);
  };
  return { paint };
}

/** Writes hue (brightest component 1) to `out[0..2]` and strength 0…1 as the eye sees it to `out[3]`. */
function lit(lamps: Float32Array, head: number, at: number, out: Float64Array): boolean {
  const from = head * LAMP_STRIDE;
  const most = Math.max(lamps[from]!, lamps[from + 1]!, lamps[from + 2]!);
  if (most < 0.002 || !isStrobeLit(lamps[from + 6]!, at)) return false;
  for (let k = 0; k < 3; k++) out[k] = lamps[from + k]! / most;
  out[3] = Math.min(1, most ** 0.55);
  return true;
}

/** Mean light of all heads, as the room takes it: display r, g, b 0…255 and strength 0…1. */
function ambient(lamps: Float32Array, count: number, out: Float64Array): Float64Array {
  out.fill(0);
  for (let i = 0; i < count; i++) for (let k = 0; k < 3; k++) out[k] = out[k]! + lamps[i * LAMP_STRIDE + k]!;
  const most = Math.max(out[0]!, out[1]!, out[2]!, 1e-6);
  out[3] = Math.min(1, (most / Math.max(1, count)) * 1.6);
  for (let k = 0; k < 3; k++) out[k] = Math.round(255 * (out[k]! / most) ** (1 / 2.2));
  return out;
}

/** CSS colours of a hue with alpha 1, 0.5, 0.18 and 0; cached by the hue in 31 steps a component. */
function stylesOf(rgb: Float64Array, cache: Map<number, readonly [string, string, string, string]>) {
  const key = (Math.round(rgb[0]! * STEPS) * 32 + Math.round(rgb[1]! * STEPS)) * 32 + Math.round(rgb[2]! * STEPS);
  let found = cache.get(key);
  if (!found) {
    const channel = (linear: number) => Math.round(255 * (Math.round(linear * STEPS) / STEPS) ** (1 / 2.2));
    const css = `${channel(rgb[0]!)},${channel(rgb[1]!)},${channel(rgb[2]!)}`;
    found = [`rgba(${css},1)`, `rgba(${css},.42)`, `rgba(${css},.13)`, `rgba(${css},0)`];
    cache.set(key, found);
  }
  return found;
}

/** Where a beam ends: the floor, the back wall, or out of sight. Writes the point to `lamp.to`; true for floor or wall. */
function beamEnd(lamp: Lamp, lamps: Float32Array, index: number): 'floor' | 'wall' | 'air' {
  const { mount } = lamp.head;
  const at = index * LAMP_STRIDE;
  beamDirection(lamp.rotation, lamps[at + 3]!, lamps[at + 4]!, lamp.direction);
  const [dx, dy, dz] = [lamp.direction[0]!, lamp.direction[1]!, lamp.direction[2]!];
  let reach = 7;
  let hit: 'floor' | 'wall' | 'air' = 'air';
  if (dz < -0.02 && -mount.z / dz < 14) [reach, hit] = [-mount.z / dz, 'floor'];
  if (dy > 0.02 && (BACK_WALL - mount.y) / dy < reach) [reach, hit] = [(BACK_WALL - mount.y) / dy, 'wall'];
  // A beam towards the audience is followed to the stage's edge; from there on it is glare.
  if (dy < -0.02) reach = Math.min(reach, (mount.y + 1.2) / -dy);
  if (hit === 'floor' && mount.y + dy * reach < -6) hit = 'air';
  lamp.to[0] = mount.x + dx * reach;
  lamp.to[1] = mount.y + dy * reach;
  lamp.to[2] = Math.max(0, mount.z + dz * reach);
  return hit;
}

const point = new Float64Array(3);
const end = new Float64Array(3);

function spread(lamp: Lamp, lamps: Float32Array, index: number): number {
  const moving = lamp.head.kind === 'moving wash';
  const angle = lamp.head.beamAngle * (moving ? 0.5 + lamps[index * LAMP_STRIDE + 5]! : 1);
  return Math.tan((angle * Math.PI) / 360);
}

function paintPool(
  context: CanvasRenderingContext2D,
  view: View,
  lamp: Lamp,
  lamps: Float32Array,
  index: number,
  rgb: Float64Array,
  cache: Map<number, readonly [string, string, string, string]>,
): void {
  if (lamp.head.kind === 'strobe') return;
  const hit = beamEnd(lamp, lamps, index);
  if (lamp.head.kind === 'bar' || hit === 'air') return;
  const { mount } = lamp.head;
  project(view, lamp.to[0]!, lamp.to[1]!, lamp.to[2]!, end);
  const length = Math.hypot(lamp.to[0]! - mount.x, lamp.to[1]! - mount.y, lamp.to[2]! - mount.z);
  const radius = Math.max(4, length * spread(lamp, lamps, index) * end[2]! * 1.15);
  const [full, half, low, none] = stylesOf(rgb, cache);
  const front = mount.y < 0;
  context.globalAlpha = rgb[3]! * (front ? 0.2 : 0.62) * Math.min(1.2, 0.6 + lamp.head.output * 0.25);
  context.save();
  context.translate(end[0]!, end[1]!);
  context.scale(1, hit === 'floor' ? 0.2 : 0.9);
  const gradient = context.createRadialGradient(0, 0, 0, 0, 0, radius);
  gradient.addColorStop(0, full);
  gradient.addColorStop(0.35, half);
  gradient.addColorStop(0.7, low);
  gradient.addColorStop(1, none);
  context.fillStyle = gradient;
  context.fillRect(-radius, -radius, radius * 2, radius * 2);
  context.restore();
  context.globalAlpha = 1;
}

function paintBeam(
  context: CanvasRenderingContext2D,
  view: View,
  lamp: Lamp,
  lamps: Float32Array,
  index: number,
  rgb: Float64Array,
  cache: Map<number, readonly [string, string, string, string]>,
): void {
  const { mount, kind } = lamp.head;
  if (kind === 'strobe') return paintFlash(context, view, lamp, rgb, cache);
  if (kind === 'bar') return paintCell(context, view, lamp, rgb, cache);
  beamEnd(lamp, lamps, index);
  project(view, mount.x, mount.y, mount.z, point);
  project(view, lamp.to[0]!, lamp.to[1]!, lamp.to[2]!, end);
  const length = Math.hypot(lamp.to[0]! - mount.x, lamp.to[1]! - mount.y, lamp.to[2]! - mount.z);
  const wide = length * spread(lamp, lamps, index) * end[2]!;
  const narrow = Math.max(1.2, 0.07 * point[2]!);
  const [dx, dy] = [end[0]! - point[0]!, end[1]! - point[1]!];
  const along = Math.hypot(dx, dy) || 1;
  const [nx, ny] = [-dy / along, dx / along];
  const [full, half, low, none] = stylesOf(rgb, cache);
  const spot = kind === 'moving spot';
  // Light from in front of the stage is seen on what it meets, hardly in the air.
  const inAir = mount.y < 0 ? 0.1 : spot ? 0.5 : kind === 'moving wash' ? 0.36 : 0.3;
  const gradient = context.createLinearGradient(point[0]!, point[1]!, end[0]!, end[1]!);
  gradient.addColorStop(0, full);
  gradient.addColorStop(0.12, half);
  gradient.addColorStop(0.6, low);
  gradient.addColorStop(1, mount.y < 0 || lamp.to[2]! > 0.05 ? none : low);
  context.fillStyle = gradient;
  // Three cones, one in the other, make a soft edge.
  for (let k = 0; k < 3; k++) {
    const share = 1 - k * 0.3;
    context.globalAlpha = rgb[3]! * inAir * (0.55 + 0.2 * k);
    context.beginPath();
    context.moveTo(point[0]! - nx * narrow * share, point[1]! - ny * narrow * share);
    context.lineTo(end[0]! - nx * wide * share, end[1]! - ny * wide * share);
    context.lineTo(end[0]! + nx * wide * share, end[1]! + ny * wide * share);
    context.lineTo(point[0]! + nx * narrow * share, point[1]! + ny * narrow * share);
    context.fill();
  }
  context.globalAlpha = 1;
}

function paintFlash(
  context: CanvasRenderingContext2D,
  view: View,
  lamp: Lamp,
  rgb: Float64Array,
  cache: Map<number, readonly [string, string, string, string]>,
): void {
  project(view, lamp.head.mount.x, lamp.head.mount.y, lamp.head.mount.z, point);
  halo(context, point[0]!, point[1]!, view.height * 0.75, rgb[3]! * 0.8, stylesOf(rgb, cache));
}

/** One cell of a bar: a bead of light on the floor, with a little of it in the air above. */
function paintCell(
  context: CanvasRenderingContext2D,
  view: View,
  lamp: Lamp,
  rgb: Float64Array,
  cache: Map<number, readonly [string, string, string, string]>,
): void {
  const { mount, cell, cells } = lamp.head;
  project(view, mount.x + ((cell + 0.5) / cells - 0.5) * 1.1, mount.y, mount.z, point);
  const colours = stylesOf(rgb, cache);
  halo(context, point[0]!, point[1]!, point[2]! * 0.42, rgb[3]! * 0.5, colours);
  context.globalAlpha = rgb[3]!;
  context.fillStyle = colours[0];
  const [width, height] = [point[2]! * 0.1, point[2]! * 0.075];
  context.fillRect(point[0]! - width / 2, point[1]! - height / 2, width, height);
  context.globalAlpha = 1;
}

function halo(
  context: CanvasRenderingContext2D,
  x: number,
  y: number,
  radius: number,
  strength: number,
  [full, half, low, none]: readonly [string, string, string, string],
): void {
  const gradient = context.createRadialGradient(x, y, 0, x, y, radius);
  gradient.addColorStop(0, full);
  gradient.addColorStop(0.18, half);
  gradient.addColorStop(0.5, low);
  gradient.addColorStop(1, none);
  context.globalAlpha = strength;
  context.fillStyle = gradient;
  context.fillRect(x - radius, y - radius, radius * 2, radius * 2);
  context.globalAlpha = 1;
}

/** The lamp itself, and the glare of its lens. */
function paintHousing(
  context: CanvasRenderingContext2D,
  view: View,
  lamp: Lamp,
  on: boolean,
  rgb: Float64Array,
  cache: Map<number, readonly [string, string, string, string]>,
): void {
  const { mount, kind, cell } = lamp.head;
  if (mount.y < -0.5 || kind === 'hazer' || (kind === 'bar' && cell > 0)) return;
  project(view, mount.x, mount.y, mount.z, point);
  const size = point[2]!;
  context.fillStyle = '#1f1a29';
  if (kind === 'bar') {
    context.fillRect(point[0]! - size * 0.56, point[1]! + size * 0.04, size * 1.12, size * 0.07);
    return;
  }
  const moving = kind.startsWith('moving');
  context.beginPath();
  context.roundRect(
    point[0]! - size * 0.1,
    point[1]! - size * (moving ? 0.3 : 0.16),
    size * 0.2,
    size * (moving ? 0.34 : 0.2),
    size * 0.05,
  );
  context.fill();
  if (!on) return;
  context.globalCompositeOperation = 'lighter';
  // A lens that looks at the audience blinds it.
  const facing = Math.max(0, -lamp.direction[1]!);
  const glare = size * (kind === 'moving spot' ? 0.5 : 0.36) * (1 + (moving ? 3 : 0.8) * facing ** 2);
  halo(context, point[0]!, point[1]!, glare, rgb[3]! * 0.9, stylesOf(rgb, cache));
  context.globalAlpha = rgb[3]! * 0.9;
  context.fillStyle = '#fff';
  context.beginPath();
  context.arc(point[0]!, point[1]!, Math.max(1, size * 0.045), 0, 6.3);
  context.fill();
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}
