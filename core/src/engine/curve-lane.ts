// Curves on lanes: what they are at a moment, and what they make of the light below them.

import { SEGMENTS, pointBefore, shareOf, type CurveLane, type Point } from '../song';
import { HAZE, LEVEL, SLOT, ZOOM } from './fields';
import type { Ground } from './ground';
import type { CurveLaneProgram } from './lane-program';
import { touch, type Witness } from './layers';
import type { Program } from './program';
import type { Track } from './parts';

export function trackOf(points: readonly Point[]): Track {
  return {
    count: points.length,
    beats: Float64Array.from(points, ({ at }) => at),
    values: Float64Array.from(points, ({ value }) => value),
    shapes: Uint8Array.from(points, ({ shape }) => SEGMENTS.indexOf(shape)),
    bends: Float64Array.from(points, ({ bend }) => bend ?? 0),
  };
}

/** Attributes that a curve can move, beside those that a lamp's type names: each is one number, 0…1. */
const FIELD_BY_NAME: Readonly<Record<string, number>> = { level: LEVEL, zoom: ZOOM, haze: HAZE };

export function curveLaneProgram(lane: CurveLane, ground: Ground, casts: Program['casts']): CurveLaneProgram {
  const { target } = lane;
  const all = () => Int32Array.from(ground.heads, (_, head) => head);
  const attribute = target.on === 'role' ? target.attribute : 'level';
  const field = new Map(Object.entries(FIELD_BY_NAME)).get(attribute) ?? ground.ownFields.get(attribute);
  // What moves faders and waves lays no light of its own.
  const heads = target.on === 'all' ? all() : target.on === 'role' ? casts.get(target.role) : undefined;
  return {
    type: 'curve',
    name: lane.name,
    track: trackOf(lane.points),
    blend: lane.blend,
    field: field ?? LEVEL,
    heads: field === undefined || !heads ? new Int32Array(0) : heads,
  };
}

/** What a curve says at a beat, like `curveAt`; -1 where it lets the light be. */
export function trackAt({ count, beats, values, shapes, bends }: Track, beat: number): number {
  const index = pointBefore(beats, count, beat);
  if (index < 0) return -1;
  const shape = SEGMENTS[shapes[index]!]!;
  if (shape === 'off') return -1;
  const here = values[index]!;
  if (index + 1 >= count) return shape === 'hold' ? here : -1;
  const x = (beat - beats[index]!) / (beats[index + 1]! - beats[index]!);
  return here + (values[index + 1]! - here) * shareOf(shape, bends[index]!, x);
}

/** A lane's fader, as the curves that move it leave it. */
export function faderAt(level: number, tracks: readonly Track[], beat: number): number {
  let now = level;
  for (let i = 0; i < tracks.length; i++) {
    const value = trackAt(tracks[i]!, beat);
    if (value >= 0) now *= value;
  }
  return now;
}

/** Scales, adds to, or replaces what lies below. Allocates nothing. */
export function layCurve(program: Program, lane: CurveLaneProgram, beat: number, witness?: Witness): void {
  if (lane.heads.length === 0) return;
  const value = trackAt(lane.track, beat);
  if (value < 0) return;
  const field = program.fields[lane.field]!;
  if (lane.field !== LEVEL && field.shows > program.scratch.layer) return;
  // Where nothing spoke there is nothing to scale.
  if (!field.touched && lane.blend === 'scale') return;
  touch(field);
  const { values, weights, home } = field;
  const rests = lane.field > LEVEL && lane.field <= SLOT && lane.field !== HAZE;
  for (let k = 0; k < lane.heads.length; k++) {
    const head = lane.heads[k]!;
    const weight = weights[head]!;
    if (weight <= 0 && lane.blend === 'scale') continue;
    // Sums of what fades in are divided by their weight at the end: here they count as what is seen now.
    const below = !rests ? values[head]! : weight > 1e-6 ? values[head]! / weight : home[0]!;
    values[head] = lane.blend === 'replace' ? value : lane.blend === 'add' ? Math.min(1, below + value) : below * value;
    if (rests || lane.blend !== 'scale') weights[head] = 1;
    if (witness) witness.curve(lane, head, value);
  }
}
