// Draws the stage as the bytes that go out light it: haze, beams that add like light, pools, silhouettes.

import { LAMP_STRIDE } from '@hovlix/core/picture';
import type { Shape } from '@hovlix/core/rig';
import type { StageHead } from '../../host/light/light-messages';
import { acrossOf, beamEnd, lampOf, lit, spread, stylesOf, type Lamp, type Styles, type StyleCache } from './beams';
import type { Canvas2D } from './canvas';
import { project, viewFor, type View } from './project';
import { paintPeople, paintRoom } from './room';

/** A painter for one rig; it keeps its scratch space, so painting again and again needs no new memory of ours. */
export type Painter = {
  /** @param lamps `LAMP_STRIDE` numbers a head. @param at seconds, for strobes. */
  readonly paint: (context: Canvas2D, width: number, height: number, lamps: Float32Array, at: number) => void;
  /** Puts a ring around some lamps from the next picture on. */
  readonly mark: (fixtures: readonly string[]) => void;
};

export function painter(heads: readonly StageHead[], shapes: readonly Shape[]): Painter {
  const all = heads.map(lampOf);
  const mounts = heads.map((head) => ({ ...head.mount, x: acrossOf(head) }));
  const styles: StyleCache = new Map();
  const rgb = new Float64Array(4);
  let view: View | undefined;
  let marked: readonly Lamp[] = [];

  const paint: Painter['paint'] = (context, width, height, lamps, at) => {
    if (!view || view.width !== width || view.height !== height) view = viewFor(width, height, mounts);
    const glow = ambient(lamps, all.length, rgb);
    paintRoom(context, view, glow, shapes);
    const haze = hazeOf(lamps, all);
    context.globalCompositeOperation = 'lighter';
    for (let i = 0; i < all.length; i++)
      if (lit(lamps, i, at, rgb)) paintPool(context, view, all[i]!, lamps, i, rgb, styles);
    context.globalCompositeOperation = 'source-over';
    paintPeople(context, view, glow, shapes);
    context.globalCompositeOperation = 'lighter';
    for (let i = 0; i < all.length; i++)
      if (lit(lamps, i, at, rgb)) paintBeam(context, view, all[i]!, lamps, i, rgb, styles, haze);
    context.globalCompositeOperation = 'source-over';
    for (let i = 0; i < all.length; i++) paintHousing(context, view, all[i]!, lit(lamps, i, at, rgb), rgb, styles);
    for (let i = 0; i < marked.length; i++) paintRing(context, view, marked[i]!);
  };
  return { paint, mark: (fixtures) => (marked = ringedIn(all, fixtures)) };
}

/** The heads that get a ring: of a bar, the one in the middle. */
function ringedIn(all: readonly Lamp[], fixtures: readonly string[]): readonly Lamp[] {
  const wanted = new Set(fixtures);
  return all.filter(({ head }) => wanted.has(head.fixture) && head.cell === Math.floor((head.cells - 1) / 2));
}

/** How far a ring stays inside the picture, in pixels: lamps before the stage hang outside of it. */
const RING = 9;

function paintRing(context: Canvas2D, view: View, { head }: Lamp): void {
  project(view, head.mount.x, head.mount.y, head.mount.z, point);
  const x = Math.min(view.width - RING - 2, Math.max(RING + 2, point[0]!));
  const y = Math.min(view.height - RING - 2, Math.max(RING + 2, point[1]!));
  context.lineWidth = 2;
  context.strokeStyle = '#FF7A59';
  context.beginPath();
  context.arc(x, y, RING, 0, 6.3);
  context.stroke();
}

/** How thick the air is: a little always, more where hazers say so. */
function hazeOf(lamps: Float32Array, all: readonly Lamp[]): number {
  let most = 0;
  for (let i = 0; i < all.length; i++) most = Math.max(most, lamps[i * LAMP_STRIDE + 8]!);
  return 0.85 + 0.45 * most;
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

const point = new Float64Array(3);
const end = new Float64Array(3);

function paintPool(
  context: Canvas2D,
  view: View,
  lamp: Lamp,
  lamps: Float32Array,
  index: number,
  rgb: Float64Array,
  cache: StyleCache,
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
  const pattern = patternOf(lamp, lamps, index);
  if (pattern === 'open') context.fillRect(-radius, -radius, radius * 2, radius * 2);
  else paintPattern(context, radius, pattern);
  context.restore();
  context.globalAlpha = 1;
}

function paintBeam(
  context: Canvas2D,
  view: View,
  lamp: Lamp,
  lamps: Float32Array,
  index: number,
  rgb: Float64Array,
  cache: StyleCache,
  haze: number,
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
  const inAir = (mount.y < 0 ? 0.1 : spot ? 0.5 : kind === 'moving wash' ? 0.36 : 0.3) * haze;
  const gradient = context.createLinearGradient(point[0]!, point[1]!, end[0]!, end[1]!);
  gradient.addColorStop(0, full);
  gradient.addColorStop(0.12, half);
  gradient.addColorStop(0.6, low);
  gradient.addColorStop(1, mount.y < 0 || lamp.to[2]! > 0.05 ? none : low);
  context.fillStyle = gradient;
  const pattern = patternOf(lamp, lamps, index);
  if (pattern !== 'open') {
    paintShafts(context, [nx, ny, narrow, wide], rgb[3]! * inAir * 1.1, pattern);
    context.globalAlpha = 1;
    return;
  }
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

function patternOf(lamp: Lamp, lamps: Float32Array, index: number): StageHead['patterns'][number] {
  return lamp.head.patterns[Math.round(lamps[index * LAMP_STRIDE + 7]!)] ?? 'open';
}

/** How many shafts of light a pattern makes in the air. */
const SHAFTS = { open: 1, dots: 5, rays: 6, bars: 4, waves: 3, rings: 3, net: 7, leaves: 4 } as const;

/** A gobo breaks the cone into shafts with dark between them. `point` and `end` hold where the beam runs. */
function paintShafts(
  context: Canvas2D,
  [nx, ny, narrow, wide]: readonly [number, number, number, number],
  strength: number,
  pattern: keyof typeof SHAFTS,
): void {
  const shafts = SHAFTS[pattern];
  context.globalAlpha = strength;
  for (let k = 0; k < shafts; k++) {
    const middle = shafts === 1 ? 0 : (k / (shafts - 1)) * 2 - 1;
    const half = 0.62 / shafts;
    const [from, to] = [middle * (1 - half) - half, middle * (1 - half) + half];
    context.beginPath();
    context.moveTo(point[0]! + nx * narrow * from, point[1]! + ny * narrow * from);
    context.lineTo(end[0]! + nx * wide * from, end[1]! + ny * wide * from);
    context.lineTo(end[0]! + nx * wide * to, end[1]! + ny * wide * to);
    context.lineTo(point[0]! + nx * narrow * to, point[1]! + ny * narrow * to);
    context.fill();
  }
}

/** The pattern where the beam lands, within a circle of `radius` about the origin. */
function paintPattern(context: Canvas2D, radius: number, pattern: keyof typeof SHAFTS): void {
  const r = radius * 0.6;
  const count = pattern === 'net' ? 9 : pattern === 'rings' ? 2 : 7;
  for (let k = 0; k < count; k++) {
    const angle = (k / count) * 6.283;
    context.beginPath();
    if (pattern === 'dots' || pattern === 'leaves' || pattern === 'net') {
      const far = k === 0 ? 0 : r * (k % 2 ? 0.85 : 0.5);
      const round = pattern === 'dots' ? 1 : 0.55;
      context.ellipse(Math.cos(angle) * far, Math.sin(angle) * far, r * 0.2, r * 0.2 * round, angle, 0, 6.3);
    } else if (pattern === 'rays') {
      context.moveTo(0, 0);
      context.lineTo(Math.cos(angle - 0.2) * r, Math.sin(angle - 0.2) * r);
      context.lineTo(Math.cos(angle + 0.2) * r, Math.sin(angle + 0.2) * r);
    } else if (pattern === 'rings') {
      context.arc(0, 0, r * (k === 0 ? 0.95 : 0.5), 0, 6.3);
      context.arc(0, 0, r * (k === 0 ? 0.75 : 0.3), 6.3, 0, true);
    } else {
      const y = ((k + 0.5) / count) * 2 * r - r;
      context.ellipse(pattern === 'waves' ? Math.sin(k * 2) * r * 0.2 : 0, y, r * 0.8, r * 0.07, 0, 0, 6.3);
    }
    context.fill();
  }
}

function paintFlash(context: Canvas2D, view: View, lamp: Lamp, rgb: Float64Array, cache: StyleCache): void {
  project(view, lamp.head.mount.x, lamp.head.mount.y, lamp.head.mount.z, point);
  halo(context, point[0]!, point[1]!, view.height * 0.75, rgb[3]! * 0.8, stylesOf(rgb, cache));
}

/** One cell of a bar: a bead of light on the floor, with a little of it in the air above. */
function paintCell(context: Canvas2D, view: View, lamp: Lamp, rgb: Float64Array, cache: StyleCache): void {
  const { mount } = lamp.head;
  project(view, acrossOf(lamp.head), mount.y, mount.z, point);
  const colours = stylesOf(rgb, cache);
  halo(context, point[0]!, point[1]!, point[2]! * 0.42, rgb[3]! * 0.5, colours);
  context.globalAlpha = rgb[3]!;
  context.fillStyle = colours[0];
  const [width, height] = [point[2]! * 0.1, point[2]! * 0.075];
  context.fillRect(point[0]! - width / 2, point[1]! - height / 2, width, height);
  context.globalAlpha = 1;
}

function halo(
  context: Canvas2D,
  x: number,
  y: number,
  radius: number,
  strength: number,
  [full, half, low, none]: Styles,
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
  context: Canvas2D,
  view: View,
  lamp: Lamp,
  on: boolean,
  rgb: Float64Array,
  cache: StyleCache,
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
