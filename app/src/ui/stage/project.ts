// Stage metres to picture pixels: a camera in the audience, looking level at the stage.

/** The camera: this far in front of the stage's edge, at this height, in metres. */
const CAMERA_Y = -9;
const CAMERA_Z = 1.75;
/** The stretch of stage that must be seen: metres across and up, at this depth. */
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

/** True proportions whatever the strip's shape: what is left over shows more of the room at both sides. */
export function viewFor(width: number, height: number): View {
  const focal = Math.min(width / ACROSS, height / UP) * (DEPTH - CAMERA_Y);
  // The floor at the stage's middle lies a little above the lower edge.
  return { width, height, focal, centreX: width / 2, horizon: height * 0.93 - (focal * CAMERA_Z) / (DEPTH - CAMERA_Y) };
}

/** Writes x, y in pixels and the scale there (pixels a metre) to `out`. Points behind the camera are held just before it. */
export function project(view: View, x: number, y: number, z: number, out: Float64Array): void {
  const scale = view.focal / Math.max(0.6, y - CAMERA_Y);
  out[0] = view.centreX + x * scale;
  out[1] = view.horizon - (z - CAMERA_Z) * scale;
  out[2] = scale;
}
