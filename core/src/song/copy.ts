// Bars lit like others: the clips of a stretch laid again somewhere else, once or until something.

import { beats, id } from '../units';
import { drawnOver, pointsWithin } from './curve';
import { MOST_ACTIONS, MOST_NOTES, MOST_POINTS, type Clip, type Lane, type Point } from './lane-schema';
import { clearedClips } from './lay';
import { copiedNotes, laidAgain } from './notes';

/** What is laid again: `[from, to)` of the lane, first at `at`, then end to end until `until`. In beats. */
export type Copying = {
  readonly from: number;
  readonly to: number;
  readonly at: number;
  readonly until: number;
  /** Degrees by which the colours of what is laid are turned. */
  readonly turn?: number | undefined;
};

/** A stretch is laid so many times at the most. */
export const MOST_COPIES = 1000;

/**
 * The lane with the copies on it; what lay where they go is cut away, and the last copy is cut at `until`. Bars that are
 * empty are copied as empty ones. The stretch itself is read before anything is laid, so it may be overlaid.
 * @param newId names the n-th clip that is laid; the second halves of clips that are cut are named by `halfId`.
 */
export function copiedClips(
  clips: readonly Clip[],
  { from, to, at, until, turn = 0 }: Copying,
  newId: (n: number) => Clip['id'],
  halfId: (of: Clip) => Clip['id'],
): readonly Clip[] {
  const length = to - from;
  if (!(length > 0) || !(until > at) || (until - at) / length > MOST_COPIES) return clips;
  const stretch = clips
    .filter((clip) => clip.to > from && clip.from < to)
    .map((clip) => ({
      ...turned(clip, turn),
      from: Math.max(clip.from, from) - from,
      to: Math.min(clip.to, to) - from,
    }));
  const laid: Clip[] = [];
  for (let start = at; start < until - 1e-6; start += length)
    for (const clip of stretch) {
      const end = Math.min(start + clip.to, until);
      if (end - (start + clip.from) > 1e-3)
        laid.push({ ...clip, id: newId(laid.length), from: beats(start + clip.from), to: beats(end) });
    }
  return [...clearedClips(clips, beats(at), beats(until), halfId), ...laid].sort((a, b) => a.from - b.from);
}

/** A clip whose colours are turned so many degrees further. */
function turned(clip: Clip, degrees: number): Clip {
  if (degrees === 0) return clip;
  const { turn = 0, ...plain } = clip;
  const sum = ((((turn + degrees + 180) % 360) + 360) % 360) - 180;
  return sum === 0 ? plain : { ...plain, turn: sum };
}

/** A lane with what lies on `[from, to)` moved by so many beats; what is there gives way. */
export function shiftedLane(
  lane: Lane,
  { from, to, by }: { readonly from: number; readonly to: number; readonly by: number },
  name: (n: number) => string,
  halfId: (of: Clip) => Clip['id'],
): Lane {
  if (by === 0 || !(to > from)) return lane;
  const laid = copiedLane(lane, { from, to, at: from + by, until: to + by }, name, halfId);
  const [first, last] = by > 0 ? [from, Math.min(to, from + by)] : [Math.max(from, to + by), to];
  return clearedLane(laid, first, last, (n) => name(20_000 + n), halfId);
}

/** Where a stretch waits while two change places: behind every song. */
const ASIDE = 500_000;

/** A lane with `[from, to)` and as much from `at` on in each other's place. They must not overlap. */
export function swappedLane(
  lane: Lane,
  { from, to, at }: { readonly from: number; readonly to: number; readonly at: number },
  name: (n: number) => string,
  halfId: (of: Clip) => Clip['id'],
): Lane {
  const length = to - from;
  if (!(length > 0) || Math.abs(at - from) < length) return lane;
  const step = (n: number) => (m: number) => name(n * 30_000 + m);
  const aside = copiedLane(lane, { from, to, at: ASIDE, until: ASIDE + length }, step(0), halfId);
  const there = copiedLane(aside, { from: at, to: at + length, at: from, until: to }, step(1), halfId);
  const here = copiedLane(there, { from: ASIDE, to: ASIDE + length, at, until: at + length }, step(2), halfId);
  return clearedLane(here, ASIDE, ASIDE + length, step(3), halfId);
}

/** A lane with a stretch of it laid again somewhere else. @param name names the n-th thing that is laid. */
export function copiedLane(
  lane: Lane,
  copying: Copying,
  name: (n: number) => string,
  halfId: (of: Clip) => Clip['id'],
): Lane {
  const { from, to, at, until } = copying;
  if (!(to > from) || !(until > at) || (until - at) / (to - from) > MOST_COPIES) return lane;
  switch (lane.type) {
    case 'looks':
      return { ...lane, clips: [...copiedClips(lane.clips, copying, (n) => id<'Clip'>(name(n)), halfId)] };
    case 'hits':
      return { ...lane, notes: [...copiedNotes(lane.notes, copying, (n) => id<'Note'>(name(n)))].slice(0, MOST_NOTES) };
    case 'curve':
      return {
        ...lane,
        points: [...copiedPoints(lane.points, copying, (n) => id<'Point'>(name(n)))].slice(0, MOST_POINTS),
      };
    case 'actions': {
      const actions = laidAgain(lane.actions, copying, (n) => id<'LaneAction'>(name(n)));
      return { ...lane, actions: actions.toSorted((a, b) => a.at - b.at).slice(0, MOST_ACTIONS) };
    }
  }
}

function copiedPoints(
  points: readonly Point[],
  { from, to, at, until }: Copying,
  name: (n: number) => Point['id'],
): readonly Point[] {
  const stretch = pointsWithin(points, from, to, (n) => name(n));
  let after = points;
  let round = 1;
  for (let start = at; start < until - 1e-6; start += to - from) {
    const end = Math.min(start + to - from, until);
    const first = round++ * 10_000;
    const shifted = stretch.map((point, n) => ({ ...point, id: name(first + n), at: beats(start + point.at - from) }));
    const inner = pointsWithin(shifted, start, end, (n) => name(first + 3000 + n));
    after = drawnOver(after, start, end, inner, (n) => name(first + 6000 + n));
  }
  return after;
}

/** A lane with nothing in `[from, to)`. */
export function clearedLane(
  lane: Lane,
  from: number,
  to: number,
  name: (n: number) => string,
  halfId: (of: Clip) => Clip['id'],
): Lane {
  if (!(to > from)) return lane;
  switch (lane.type) {
    case 'looks':
      return { ...lane, clips: [...clearedClips(lane.clips, beats(from), beats(to), halfId)] };
    case 'hits':
      return { ...lane, notes: lane.notes.filter((note) => note.at < from || note.at >= to) };
    case 'curve':
      return { ...lane, points: [...drawnOver(lane.points, from, to, [], (n) => id<'Point'>(name(n)))] };
    case 'actions':
      return { ...lane, actions: lane.actions.filter(({ at }) => at < from || at >= to) };
  }
}
