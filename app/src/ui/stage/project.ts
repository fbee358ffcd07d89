// Stage metres to picture pixels: a camera in the audience, looking level at the stage.

/** The camera: this far in front of the stage's edge, at this height, in metres. */
const CAMERA_Y = -9;
const CAMERA_Z = 1.75;
/** The stretch of stage that is usually seen: metres across and up, at this depth. */
const ACROSS = 9.8;
const UP = 4.15;
const DEPTH = 2;

export type View = {
  readonly width: number;
  readonly height: number;
  /** Pixels for one metre at one metre's distance. */
  readonly focal: number;
  readonly centreX: number;
  readonly horizon: number;
};

/** The floor at the stage's middle lies so far down the picture, and lamps stay so far from its edges, as shares of it. */
const FLOOR = 0.93;
const TOP = 0.05;
const BOTTOM = 0.98;
const SIDE = 0.02;
/** Lamps nearer to the audience than this hang before the picture. */
const FRONT_Y = -0.5;
/** For a rig as large as a hall the stage is at least so much of its usual size. */
const LEAST = 0.4;

type Place = { readonly x: number; readonly y: number; readonly z: number };

/**
 * True proportions whatever the strip's shape: what is left over shows more of the room at both sides. Where lamps hang
 * higher or wider than usual, the camera steps back until they are in the picture; where some stand at the stage's edge, it
 * looks a little further down.
 */
export function viewFor(width: number, height: number, lamps: readonly Place[]): View {
  const usual = Math.min(width / ACROSS, height / UP) * (DEPTH - CAMERA_Y);
  const drop = CAMERA_Z / (DEPTH - CAMERA_Y);
  const onStage = lamps.filter(({ y }) => y >= FRONT_Y);
  /** How far below the camera the lowest lamp is seen, at one metre's distance. */
  const low = onStage.reduce((most, { y, z }) => Math.max(most, (CAMERA_Z - z) / (y - CAMERA_Y)), 0);
  let focal = usual;
  for (const { x, y, z } of onStage) {
    const up = (z - CAMERA_Z) / (y - CAMERA_Y);
    const aside = Math.abs(x) / (y - CAMERA_Y);
    if (up + drop > 0) focal = Math.min(focal, ((FLOOR - TOP) * height) / (up + drop));
    if (up + low > 0) focal = Math.min(focal, ((BOTTOM - TOP) * height) / (up + low));
    if (aside > 0) focal = Math.min(focal, ((0.5 - SIDE) * width) / aside);
  }
  focal = Math.max(focal, usual * LEAST);
  const horizon = Math.min(height * FLOOR - focal * drop, height * BOTTOM - focal * low);
  return { width, height, focal, centreX: width / 2, horizon };
}

/** Writes x, y in pixels and the scale there (pixels a metre) to `out`. Points behind the camera are held just before it. */
export function project(view: View, x: number, y: number, z: number, out: Float64Array): void {
  const scale = view.focal / Math.max(0.6, y - CAMERA_Y);
  out[0] = view.centreX + x * scale;
  out[1] = view.horizon - (z - CAMERA_Z) * scale;
  out[2] = scale;
}
