// What every picture of the stage needs: which lamps are lit in which hue, and where their beams end.

import { isStrobeLit, LAMP_STRIDE } from '@hovlix/core/picture';
import { beamDirection, mountRotation } from '@hovlix/core/rig';
import type { StageHead } from '../../host/light/light-messages';

export type Lamp = {
  readonly head: StageHead;
  readonly rotation: Float64Array;
  readonly direction: Float64Array;
  readonly from: Float64Array;
  readonly to: Float64Array;
};

export function lampOf(head: StageHead): Lamp {
  return {
    head,
    rotation: mountRotation(head.mount),
    direction: new Float64Array(3),
    from: new Float64Array(3),
    to: new Float64Array(3),
  };
}

/** A bar of cells is so long, in metres. */
const BAR_LENGTH = 1.1;

/** Where a head is across the stage, in metres: the cells of a bar lie beside each other. */
export const acrossOf = ({ mount, kind, cell, cells }: StageHead): number =>
  kind === 'bar' ? mount.x + ((cell + 0.5) / cells - 0.5) * BAR_LENGTH : mount.x;

/** CSS colours of one hue, from full to nothing. */
export type Styles = readonly [string, string, string, string];
export type StyleCache = Map<number, Styles>;

const BACK_WALL = 6;
/** Colours are told apart in steps this fine; style strings are made once for each. */
const STEPS = 31;

/** Writes hue (brightest component 1) to `out[0..2]` and strength 0…1 as the eye sees it to `out[3]`. */
export function lit(lamps: Float32Array, head: number, at: number, out: Float64Array): boolean {
  const from = head * LAMP_STRIDE;
  const most = Math.max(lamps[from]!, lamps[from + 1]!, lamps[from + 2]!);
  if (most < 0.002 || !isStrobeLit(lamps[from + 6]!, at)) return false;
  for (let k = 0; k < 3; k++) out[k] = lamps[from + k]! / most;
  out[3] = Math.min(1, most ** 0.55);
  return true;
}

/** CSS colours of a hue with alpha 1, 0.5, 0.18 and 0; cached by the hue in 31 steps a component. */
export function stylesOf(rgb: Float64Array, cache: StyleCache): Styles {
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
export function beamEnd(lamp: Lamp, lamps: Float32Array, index: number): 'floor' | 'wall' | 'air' {
  const { mount } = lamp.head;
  const at = index * LAMP_STRIDE;
  beamDirection(lamp.rotation, lamps[at + 3]!, lamps[at + 4]!, lamp.direction);
  const [dx, dy, dz] = [lamp.direction[0]!, lamp.direction[1]!, lamp.direction[2]!];
  let reach = 7;
  let hit: 'floor' | 'wall' | 'air' = 'air';
  if (dz < -0.02 && -mount.z / dz < 14) [reach, hit] = [-mount.z / dz, 'floor'];
  if (dy > 0.02 && (BACK_WALL - mount.y) / dy < reach) [reach, hit] = [(BACK_WALL - mount.y) / dy, 'wall'];
  // A beam towards the audience is followed to the stage's edge; from there on it is glare.
  const edge = dy < -0.02 ? (mount.y + 1.2) / -dy : 0;
  if (edge > 0 && edge < reach) [reach, hit] = [edge, 'air'];
  if (hit === 'floor' && mount.y + dy * reach < -6) hit = 'air';
  lamp.to[0] = mount.x + dx * reach;
  lamp.to[1] = mount.y + dy * reach;
  lamp.to[2] = Math.max(0, mount.z + dz * reach);
  return hit;
}

/** Half the width of a beam for each metre of its length. */
export function spread(lamp: Lamp, lamps: Float32Array, index: number): number {
  const moving = lamp.head.kind === 'moving wash';
  const angle = lamp.head.beamAngle * (moving ? 0.5 + lamps[index * LAMP_STRIDE + 5]! : 1);
  return Math.tan((angle * Math.PI) / 360);
}
