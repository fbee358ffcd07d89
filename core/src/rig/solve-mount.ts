// How a head is hung, from where its beam landed: somebody steers it onto points they can name, and taps each one.

import { beamDirection, mountAngles, type Point } from './geometry';
import type { Mount } from './schema';

/** Where the head was sent (degrees from the middle of its ranges, as the channels say it) and where its light landed. */
export type Tap = { readonly pan: number; readonly tilt: number; readonly point: Point };

export type Solved = {
  readonly mount: Mount;
  /** Pan runs the other way round. An inverted tilt is a mount turned by half, so there is no such question. */
  readonly panInvert: boolean;
  /** The two motors listen to each other's channel. */
  readonly swapPanTilt: boolean;
  /** Degrees between where the light landed and where this mount says it should, root mean square and at most. */
  readonly residual: number;
  readonly worst: number;
  /** Taps too few, or too much in one plane, to know which way round pan runs: another point would tell. */
  readonly unsure: boolean;
};

export type MountProblem = 'too few taps' | 'taps in one line';

/** Taps nearer to one another than this, in degrees seen from the head, say nothing new. */
const TOO_NEAR = 4;
/** Three directions that span less than this volume cannot tell a mount from its mirror image. */
const FLAT = 0.02;
/** A stranger explanation must fit better by so many degrees to be believed. */
const CONVINCING = 1.5;

/**
 * Least squares over the rotation of a head whose place is known (Horn 1987, “Closed-form solution of absolute
 * orientation using unit quaternions”, section 4), for each way its motors may run.
 * @param ranges full ranges in degrees; they count only where pan and tilt are swapped.
 */
export function solveMount(
  place: Point,
  taps: readonly Tap[],
  ranges: { readonly panRange: number; readonly tiltRange: number },
): Solved | MountProblem {
  const landed = taps.map(({ point }) => unit([point.x - place.x, point.y - place.y, point.z - place.z]));
  if (taps.length < 2) return 'too few taps';
  if (!landed.some((one) => angleBetween(one, landed[0]!) > TOO_NEAR)) return 'taps in one line';
  const flat = volume(landed) < FLAT;
  const ways = [
    { panInvert: false, swapPanTilt: false },
    ...(flat ? [] : [{ panInvert: true, swapPanTilt: false }]),
    ...(flat || taps.length < 3 ? [] : [false, true].map((panInvert) => ({ panInvert, swapPanTilt: true }))),
  ];
  const fits = ways.map((way) => ({
    ...way,
    ...fitted(
      taps.map((tap) => sent(tap, way, ranges)),
      landed,
    ),
  }));
  // The plainest explanation is kept unless another one fits clearly better.
  const best = fits.reduce((a, b) => (b.residual < a.residual - CONVINCING ? b : a));
  return {
    mount: { x: place.x, y: place.y, z: place.z, ...mountAngles(best.rotation) },
    panInvert: best.panInvert,
    swapPanTilt: best.swapPanTilt,
    residual: best.residual,
    worst: best.worst,
    unsure: flat,
  };
}

/** Which of some named points, tapped next, would tell most about the mount: the one that spans most with those tapped. */
export function pointToAdd<P extends Point>(place: Point, taps: readonly Tap[], points: readonly P[]): P | undefined {
  const landed = taps.map(({ point }) => unit([point.x - place.x, point.y - place.y, point.z - place.z]));
  const worth = (point: P) => {
    const way = unit([point.x - place.x, point.y - place.y, point.z - place.z]);
    if (landed.some((one) => angleBetween(one, way) < TOO_NEAR)) return 0;
    if (landed.length < 2) return landed.reduce((sum, one) => sum + Math.hypot(...cross(one, way)), 1e-3);
    return volume([...landed, way]);
  };
  const best = points.reduce<P | undefined>((a, b) => (!a || worth(b) > worth(a) ? b : a), undefined);
  return best && worth(best) > 0 ? best : undefined;
}

type Vector = readonly [number, number, number];
type Way = { readonly panInvert: boolean; readonly swapPanTilt: boolean };

const UPRIGHT = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);

/** The beam in the head's own frame for what was sent, if its motors run this way. */
function sent({ pan, tilt }: Tap, way: Way, ranges: { panRange: number; tiltRange: number }): Vector {
  const [turnedPan, turnedTilt] = way.swapPanTilt
    ? [(tilt / ranges.tiltRange) * ranges.panRange, (pan / ranges.panRange) * ranges.tiltRange]
    : [pan, tilt];
  const out = new Float64Array(3);
  beamDirection(UPRIGHT, way.panInvert ? -turnedPan : turnedPan, turnedTilt, out);
  return [out[0]!, out[1]!, out[2]!];
}

/** The rotation that brings `from` nearest to `onto`, and what is left between them, in degrees. */
function fitted(from: readonly Vector[], onto: readonly Vector[]) {
  const s = new Float64Array(9);
  from.forEach((a, i) => {
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) s[r * 3 + c]! += a[r]! * onto[i]![c]!;
  });
  const [xx, xy, xz, yx, yy, yz, zx, zy, zz] = s as unknown as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const rotation = rotationOf(
    strongest([
      [xx + yy + zz, yz - zy, zx - xz, xy - yx],
      [yz - zy, xx - yy - zz, xy + yx, zx + xz],
      [zx - xz, xy + yx, -xx + yy - zz, yz + zy],
      [xy - yx, zx + xz, yz + zy, -xx - yy + zz],
    ]),
  );
  const misses = from.map((a, i) => angleBetween(turned(rotation, a), onto[i]!));
  const residual = Math.sqrt(misses.reduce((sum, miss) => sum + miss * miss, 0) / misses.length);
  return { rotation, residual, worst: Math.max(...misses) };
}

/** Eigenvector of the greatest eigenvalue of a symmetric 4x4 matrix, by Jacobi rotations. */
function strongest(matrix: number[][]): readonly number[] {
  const m = matrix.map((row) => [...row]);
  const v: number[][] = [0, 1, 2, 3].map((i) => [0, 1, 2, 3].map((k) => (i === k ? 1 : 0)));
  for (let sweep = 0; sweep < 40; sweep++)
    for (let p = 0; p < 3; p++)
      for (let q = p + 1; q < 4; q++) {
        if (Math.abs(m[p]![q]!) < 1e-14) continue;
        const angle = 0.5 * Math.atan2(2 * m[p]![q]!, m[q]![q]! - m[p]![p]!);
        const [c, sn] = [Math.cos(angle), Math.sin(angle)];
        for (let k = 0; k < 4; k++) {
          const [a, b] = [m[k]![p]!, m[k]![q]!];
          m[k]![p] = c * a - sn * b;
          m[k]![q] = sn * a + c * b;
        }
        for (let k = 0; k < 4; k++) {
          const [a, b] = [m[p]![k]!, m[q]![k]!];
          m[p]![k] = c * a - sn * b;
          m[q]![k] = sn * a + c * b;
          const [d, e] = [v[k]![p]!, v[k]![q]!];
          v[k]![p] = c * d - sn * e;
          v[k]![q] = sn * d + c * e;
        }
      }
  const best = [0, 1, 2, 3].reduce((a, b) => (m[b]![b]! > m[a]![a]! ? b : a));
  return v.map((row) => row[best]!);
}

function rotationOf([w, x, y, z]: readonly number[]): Float64Array {
  const [a, b, c, d] = [w!, x!, y!, z!];
  return Float64Array.of(
    a * a + b * b - c * c - d * d,
    2 * (b * c - a * d),
    2 * (b * d + a * c),
    2 * (b * c + a * d),
    a * a - b * b + c * c - d * d,
    2 * (c * d - a * b),
    2 * (b * d - a * c),
    2 * (c * d + a * b),
    a * a - b * b - c * c + d * d,
  );
}

function turned(r: Float64Array, [x, y, z]: Vector): Vector {
  return [r[0]! * x + r[1]! * y + r[2]! * z, r[3]! * x + r[4]! * y + r[5]! * z, r[6]! * x + r[7]! * y + r[8]! * z];
}

/** The greatest volume that any three of some directions span, 0…1. */
function volume(directions: readonly Vector[]): number {
  let most = 0;
  for (let i = 0; i < directions.length; i++)
    for (let j = i + 1; j < directions.length; j++)
      for (let k = j + 1; k < directions.length; k++)
        most = Math.max(most, Math.abs(dot(cross(directions[i]!, directions[j]!), directions[k]!)));
  return most;
}

const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const angleBetween = (a: Vector, b: Vector) => (Math.atan2(Math.hypot(...cross(a, b)), dot(a, b)) * 180) / Math.PI;

function unit([x, y, z]: Vector): Vector {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}
