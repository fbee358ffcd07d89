// Curves that make the waves and chases of a lane faster, slower, larger or smaller.

import { speedOfValue, type CurveLane, type Song } from '../song';
import { timeAt } from '../time';
import { beats } from '../units';
import { trackAt, trackOf } from './curve-lane';
import type { Gains, Pacing, Track } from './parts';

export const UNPACED: Pacing = { speed: null, sizes: [] };

const STEP = 1 / 8;
/** Over half an hour of beats steps are wider: a curve over ten hours costs no more. */
const MOST_STEPS = 32_768;
/** So many are worked out between two breaths. */
const STEPS_AT_ONCE = 2000;

export function* gainsOf({ points }: CurveLane, tempo: Song['tempo']): Generator<void, Gains | null> {
  const [start, end] = [points[0], points.at(-1)];
  if (!start || !end) return null;
  const track = trackOf(points);
  const step = Math.max(STEP, (end.at - start.at) / MOST_STEPS);
  const first = Math.floor(start.at / step);
  const count = Math.ceil(end.at / step) - first + 1;
  const [inBeats, inSeconds] = [new Float64Array(count), new Float64Array(count)];
  let from = timeAt(tempo, beats(first * step));
  for (let i = 1; i < count; i++) {
    if (i % STEPS_AT_ONCE === 0) yield;
    const to = timeAt(tempo, beats((first + i) * step));
    const more = speedAt(track, (first + i - 0.5) * step) - 1;
    inBeats[i] = inBeats[i - 1]! + more * step;
    inSeconds[i] = inSeconds[i - 1]! + more * (to - from);
    from = to;
  }
  const on = end.shape === 'hold' ? speedOfValue(end.value) - 1 : 0;
  return { track, step, first, count, beats: inBeats, seconds: inSeconds, on };
}

/** How fast at a beat; 1 where the curve lets it be. */
export function speedAt(track: Track, beat: number): number {
  const value = trackAt(track, beat);
  return value < 0 ? 1 : speedOfValue(value);
}

/** Gained by a beat, in beats or in seconds. @param pace beats a second there. Allocates nothing. */
export function gainedBy(gains: Gains, beat: number, inSeconds: boolean, pace: number): number {
  const { step, first, count, on } = gains;
  const list = inSeconds ? gains.seconds : gains.beats;
  const place = beat / step - first;
  if (place <= 0) return 0;
  if (place >= count - 1) {
    const behind = (place - (count - 1)) * step;
    return list[count - 1]! + (behind * on) / (inSeconds ? pace : 1);
  }
  const at = Math.floor(place);
  return list[at]! + (list[at + 1]! - list[at]!) * (place - at);
}

/** How large the waves are, 0…1. */
export function sizeAt(sizes: readonly Track[], beat: number): number {
  let now = 1;
  for (let i = 0; i < sizes.length; i++) {
    const value = trackAt(sizes[i]!, beat);
    if (value >= 0) now *= value;
  }
  return now;
}
