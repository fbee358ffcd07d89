// From a lamp's mount to where its beam goes, and back from a point on stage to pan and tilt.

import type { Mount, Profile } from './schema';

const RADIANS = Math.PI / 180;

/** Row-major 3x3 rotation of a mount: roll first, then pitch, then yaw. */
export function mountRotation({ yaw, pitch, roll }: Mount): Float64Array {
  const [cy, sy] = [Math.cos(yaw * RADIANS), Math.sin(yaw * RADIANS)];
  const [cp, sp] = [Math.cos(pitch * RADIANS), Math.sin(pitch * RADIANS)];
  const [cr, sr] = [Math.cos(roll * RADIANS), Math.sin(roll * RADIANS)];
  // Rz(yaw) * Rx(pitch) * Ry(roll)
  return Float64Array.of(
    cy * cr - sy * sp * sr, -sy * cp, cy * sr + sy * sp * cr,
    sy * cr + cy * sp * sr, cy * cp, sy * sr - cy * sp * cr,
    -cp * sr, sp, cp * cr,
  ); // prettier-ignore
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

/** Pan and tilt in degrees from the middle of their ranges. `reached` is false where the point lies outside them. */
export type PanTilt = { readonly pan: number; readonly tilt: number; readonly reached: boolean };

/**
 * Points a head at a stage point (metres). Of the solutions within range, the one with the least travel from `from`;
 * where none is, the nearest the head can do, with `reached` false.
 */
export function panTiltTo(
  mount: Mount,
  profile: Pick<Profile, 'panRange' | 'tiltRange'>,
  point: { readonly x: number; readonly y: number; readonly z: number },
  from: { readonly pan: number; readonly tilt: number } = { pan: 0, tilt: 0 },
): PanTilt {
  const rotation = mountRotation(mount);
  const d = [point.x - mount.x, point.y - mount.y, point.z - mount.z];
  const length = Math.hypot(...d) || 1;
  // The transpose turns a stage vector into the lamp's own frame.
  const [x, y, z] = [0, 1, 2].map((i) => [0, 1, 2].reduce((sum, k) => sum + rotation[k * 3 + i]! * d[k]!, 0) / length);
  const tilt = Math.acos(Math.min(1, Math.max(-1, -z!))) / RADIANS;
  const pan = Math.abs(x!) + Math.abs(y!) < 1e-9 ? from.pan : Math.atan2(-x!, y!) / RADIANS;
  const travel = (a: { pan: number; tilt: number }) => Math.abs(a.pan - from.pan) + Math.abs(a.tilt - from.tilt);
  const solutions = [-360, 0, 360]
    .flatMap((turn) => [
      { pan: pan + turn, tilt },
      { pan: pan + 180 + turn, tilt: -tilt },
      { pan: pan - 180 + turn, tilt: -tilt },
    ])
    .map((wish) => {
      const held = { pan: hold(wish.pan, profile.panRange / 2), tilt: hold(wish.tilt, profile.tiltRange / 2) };
      return { ...held, miss: Math.abs(held.pan - wish.pan) + Math.abs(held.tilt - wish.tilt) };
    });
  const best = solutions.reduce((a, b) =>
    b.miss < a.miss - 1e-9 || (b.miss < a.miss + 1e-9 && travel(b) < travel(a) - 1e-9) ? b : a,
  );
  return { pan: best.pan, tilt: best.tilt, reached: best.miss < 1e-6 };
}

function hold(value: number, most: number): number {
  return Math.min(most, Math.max(-most, value));
}
