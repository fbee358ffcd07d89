// Where in the music is a moment, and when does a place in the music sound?

import { beats, seconds, type Beats, type Seconds } from '../units';

/** One tie between music and time. */
export type Anchor = { readonly beat: Beats; readonly time: Seconds };

/** Anchors rising strictly in both beat and time: straight lines between them, extended past both ends. At least two. */
export type TempoMap = { readonly anchors: readonly Anchor[] };

/**
 * @param anchors at least two, each later than the one before in beat and in time.
 * @throws RangeError naming the first anchor that breaks the order.
 */
export function tempoMap(anchors: readonly Anchor[]): TempoMap {
  if (anchors.length < 2) throw new RangeError(`A tempo map needs two anchors, got: ${anchors.length}`);
  for (let i = 0; i < anchors.length; i++) {
    const here = anchors[i]!;
    const before = anchors[i - 1];
    const rises = !before || (here.beat > before.beat && here.time > before.time);
    if (!rises || !Number.isFinite(here.beat) || !Number.isFinite(here.time))
      throw new RangeError(`Anchor ${i} (beat ${here.beat}, ${here.time} s) does not rise from the one before`);
  }
  return { anchors };
}

/** One steady tempo. `bpm` counts quarter notes a minute; `start` is when beat 0 sounds. */
export function steadyTempo(bpm: number, start: Seconds = seconds(0)): TempoMap {
  return tempoMap([
    { beat: beats(0), time: start },
    { beat: beats(1), time: seconds(start + 60 / bpm) },
  ]);
}

/** The place in the music at a moment. Inverse of `timeAt` to 1e-9. O(log n). */
export function beatAt(map: TempoMap, time: Seconds): Beats {
  const i = segmentAt(map, time, 'time');
  const from = map.anchors[i]!;
  const to = map.anchors[i + 1]!;
  return beats(from.beat + ((time - from.time) / (to.time - from.time)) * (to.beat - from.beat));
}

/** The moment at which a place in the music sounds. Inverse of `beatAt` to 1e-9. O(log n). */
export function timeAt(map: TempoMap, beat: Beats): Seconds {
  const i = segmentAt(map, beat, 'beat');
  const from = map.anchors[i]!;
  const to = map.anchors[i + 1]!;
  return seconds(from.time + ((beat - from.beat) / (to.beat - from.beat)) * (to.time - from.time));
}

/** Quarter notes a minute around a moment: the slope of the stretch it lies in. */
export function tempoAt(map: TempoMap, time: Seconds): number {
  const i = segmentAt(map, time, 'time');
  const from = map.anchors[i]!;
  const to = map.anchors[i + 1]!;
  return (60 * (to.beat - from.beat)) / (to.time - from.time);
}

/** Index of the last anchor at or before `value`, held to a stretch that has an end. */
function segmentAt(map: TempoMap, value: number, by: 'beat' | 'time'): number {
  const anchors = map.anchors;
  let low = 0;
  let high = anchors.length - 2;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (anchors[middle]![by] <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}
