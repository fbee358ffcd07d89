// From a lamp's mount to where its beam goes, and back from a point on stage to pan and tilt.

import { clamp } from '../units';
import type { Limits, Mount } from './schema';

const RADIANS = Math.PI / 180;

/** A place on stage in metres, see `Mount`. */
export type Point = { readonly x: number; readonly y: number; readonly z: number };

/** The angles of a mount, whatever else it says. */
type Turned = { readonly yaw: number; readonly pitch: number; readonly roll: number };

/** Row-major 3x3 rotation of a mount: roll first, then pitch, then yaw. */
export function mountRotation({ yaw, pitch, roll }: Turned): Float64Array {
  const [cy, sy] = [Math.cos(yaw * RADIANS), Math.sin(yaw * RADIANS)];
  const [cp, sp] = [Math.cos(pitch * RADIANS), Math.sin(pitch * RADIANS)];
  const [cr, sr] = [Math.cos(roll * RADIANS), Math.sin(roll * RADIANS)];
  // Rz(yaw) * Rx(pitch) * Ry(roll)
  return Float64Array.of(
    cy * cr - sy * sp * sr,
    -sy * cp,
    cy * sr + sy * sp * cr,
    sy * cr + cy * sp * sr,
    cy * cp,
    sy * sr - cy * sp * cr,
    -cp * sr,
    sp,
    cp * cr,
  );
}

/** The angles of a rotation, degrees: the inverse of `mountRotation`. Level (pitch ±90) has no roll of its own. */
export function mountAngles(rotation: ArrayLike<number>): Pick<Mount, 'yaw' | 'pitch' | 'roll'> {
  const sp = clamp(rotation[7]!, -1, 1);
  const level = Math.abs(sp) > 1 - 1e-9;
  const yaw = level ? Math.atan2(rotation[3]!, rotation[0]!) : Math.atan2(-rotation[1]!, rotation[4]!);
  const roll = level ? 0 : Math.atan2(-rotation[6]!, rotation[8]!);
  return { yaw: yaw / RADIANS, pitch: Math.asin(sp) / RADIANS, roll: roll / RADIANS };
}

/**
 * Writes the unit vector along a lamp's beam to `out[0..2]`, in stage coordinates.
 * @param pan, tilt degrees from the middle of their ranges; both 0 for a lamp that does not move.
 */
export function beamDirection(rotation: Float64Array, pan: number, tilt: number, out: Float64Array): void {
  const s = Math.sin(tilt * RADIANS);
  const x = -Math.sin(pan * RADIANS) * s;
  const y = Math.cos(pan * RADIANS) * s;
  const z = -Math.cos(tilt * RADIANS);
  for (let i = 0; i < 3; i++) out[i] = rotation[i * 3]! * x + rotation[i * 3 + 1]! * y + rotation[i * 3 + 2]! * z;
}

/** The angles of a lamp that does not move, so that it points at `point`: an arrow drawn on the plan. */
export function mountTowards(mount: Mount, point: Point): Mount {
  const [dx, dy, dz] = [point.x - mount.x, point.y - mount.y, point.z - mount.z];
  const flat = Math.hypot(dx, dy);
  if (flat < 1e-6 && Math.abs(dz) < 1e-6) return mount;
  const yaw = flat < 1e-6 ? 0 : Math.atan2(-dx, dy) / RADIANS;
  return { ...mount, yaw, pitch: Math.atan2(flat, -dz) / RADIANS, roll: 0 };
}

/** How far a head turns, degrees from end to end, and where it must stay, degrees from the middle. */
export type Turning = {
  readonly panRange: number;
  readonly tiltRange: number;
  readonly limits?: Limits | undefined;
};

/** Pan and tilt in degrees from the middle of their ranges. `reached` is false where the point lies outside them. */
export type PanTilt = { readonly pan: number; readonly tilt: number; readonly reached: boolean };

/** A beam this near to a point, in degrees, has reached it. */
const REACHED = 0.05;

/**
 * Points a head at a stage point (metres). Of the solutions within range and limits, the one with the least travel from
 * `from`; where none is, the one whose beam passes nearest to the point, with `reached` false. Always the same answer
 * for the same question.
 */
export function panTiltTo(
  mount: Mount,
  turning: Turning,
  point: Point,
  from: { readonly pan: number; readonly tilt: number } = { pan: 0, tilt: 0 },
): PanTilt {
  const [x, y, z] = localDirection(mount, point);
  const [panLow, panHigh, tiltLow, tiltHigh] = bounds(turning);
  const tilt = Math.acos(clamp(-z, -1, 1)) / RADIANS;
  const pan = Math.abs(x) + Math.abs(y) < 1e-9 ? from.pan : Math.atan2(-x, y) / RADIANS;
  const travel = (a: { pan: number; tilt: number }) => Math.abs(a.pan - from.pan) + Math.abs(a.tilt - from.tilt);
  const candidates: { pan: number; tilt: number; miss: number }[] = [];
  const consider = (wishedPan: number, wishedTilt?: number) => {
    const heldPan = clamp(wishedPan, panLow, panHigh);
    const best = wishedTilt ?? bestTilt(heldPan, x, y, z);
    const held = { pan: heldPan, tilt: clamp(best, tiltLow, tiltHigh) };
    candidates.push({ ...held, miss: angleTo(held, x, y, z) });
  };
  for (let turn = -720; turn <= 720; turn += 360) {
    consider(pan + turn, tilt);
    consider(pan + 180 + turn, -tilt);
    // Where pan ends before the point, another tilt may bring the beam nearer.
    consider(pan + turn);
  }
  const best = candidates.reduce((a, b) =>
    b.miss < a.miss - 1e-6 || (b.miss < a.miss + 1e-6 && travel(b) < travel(a) - 1e-9) ? b : a,
  );
  return { pan: best.pan, tilt: best.tilt, reached: best.miss < REACHED };
}

/**
 * Writes pan and tilt, degrees, that point a head at a stage point to `out[0..1]`: of the solutions inside its bounds
 * the one nearest to a pan and tilt; and how far it is from those, in degrees, to `out[2]`. For the frame loop: allocates
 * nothing, and no number is passed by itself, as that would put it on the heap.
 * @param rotation, place, limits see `mountRotation`, the mount's place in metres, and `bounds`.
 * @param aims pan and tilt to be near to, and the point's x, y, z in metres, from `at` on.
 * @returns false where no solution lies inside: nothing is written then.
 */
export function pointNear(
  rotation: Float64Array,
  place: Float64Array,
  limits: Float64Array,
  aims: Float64Array,
  at: number,
  out: Float64Array,
): boolean {
  const nearPan = aims[at]!;
  const nearTilt = aims[at + 1]!;
  const dx = aims[at + 2]! - place[0]!;
  const dy = aims[at + 3]! - place[1]!;
  const dz = aims[at + 4]! - place[2]!;
  const length = Math.sqrt(dx * dx + dy * dy + dz * dz) || 1;
  const x = (rotation[0]! * dx + rotation[3]! * dy + rotation[6]! * dz) / length;
  const y = (rotation[1]! * dx + rotation[4]! * dy + rotation[7]! * dz) / length;
  const z = (rotation[2]! * dx + rotation[5]! * dy + rotation[8]! * dz) / length;
  const tilt = Math.acos(clamp(-z, -1, 1)) / RADIANS;
  const level = Math.abs(x) + Math.abs(y);
  let least = Infinity;
  for (let flip = 0; flip < 2; flip++) {
    const t = flip === 0 ? tilt : -tilt;
    if (t < limits[2]! - 1e-6 || t > limits[3]! + 1e-6) continue;
    const base = level < 1e-9 ? nearPan : Math.atan2(-x, y) / RADIANS + flip * 180;
    const p = base + 360 * Math.round((nearPan - base) / 360);
    if (p < limits[0]! - 1e-6 || p > limits[1]! + 1e-6) continue;
    const travel = Math.abs(p - nearPan) + Math.abs(t - nearTilt);
    if (travel >= least) continue;
    least = travel;
    out[0] = p;
    out[1] = t;
    out[2] = travel;
  }
  return least < Infinity;
}

/** Degrees between where a head points and a stage point, as seen from the head. */
export function aimError(mount: Mount, turned: { readonly pan: number; readonly tilt: number }, point: Point): number {
  const [x, y, z] = localDirection(mount, point);
  return angleTo(turned, x, y, z);
}

/** Lowest and highest pan, then tilt, in degrees from the middle: the ranges, and the limits inside them. */
export function bounds({ panRange, tiltRange, limits }: Turning): readonly [number, number, number, number] {
  const [pan, tilt] = [panRange / 2, tiltRange / 2];
  if (!limits) return [-pan, pan, -tilt, tilt];
  const panLow = clamp(Math.min(limits.panFrom, limits.panTo), -pan, pan);
  const panHigh = clamp(Math.max(limits.panFrom, limits.panTo), -pan, pan);
  const tiltLow = clamp(Math.min(limits.tiltFrom, limits.tiltTo), -tilt, tilt);
  return [panLow, panHigh, tiltLow, clamp(Math.max(limits.tiltFrom, limits.tiltTo), -tilt, tilt)];
}

/** The unit vector to a point in the lamp's own frame: the transpose turns a stage vector into it. */
function localDirection(mount: Mount, point: Point): readonly [number, number, number] {
  const rotation = mountRotation(mount);
  const d = [point.x - mount.x, point.y - mount.y, point.z - mount.z];
  const length = Math.hypot(...d) || 1;
  const along = (i: number) => (rotation[i]! * d[0]! + rotation[3 + i]! * d[1]! + rotation[6 + i]! * d[2]!) / length;
  return [along(0), along(1), along(2)];
}

function bestTilt(pan: number, x: number, y: number, z: number): number {
  return Math.atan2(-Math.sin(pan * RADIANS) * x + Math.cos(pan * RADIANS) * y, -z) / RADIANS;
}

function angleTo({ pan, tilt }: { pan: number; tilt: number }, x: number, y: number, z: number): number {
  const s = Math.sin(tilt * RADIANS);
  const beam = [-Math.sin(pan * RADIANS) * s, Math.cos(pan * RADIANS) * s, -Math.cos(tilt * RADIANS)] as const;
  const cross = Math.hypot(beam[1] * z - beam[2] * y, beam[2] * x - beam[0] * z, beam[0] * y - beam[1] * x);
  return Math.atan2(cross, beam[0] * x + beam[1] * y + beam[2] * z) / RADIANS;
}
