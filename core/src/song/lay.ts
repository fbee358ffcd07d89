// Laying a clip on a lane: whatever lies there makes room.

import { beats, type Beats } from '../units';
import type { Clip } from './lane-schema';

/** Clips shorter than this (in beats) are crumbs of a cut and are dropped. */
const CRUMB = 1e-3;

/**
 * The clips outside `[from, to)`, cut where they reach into it.
 * @param newId names the second half of a clip that the gap falls inside.
 */
export function clearedClips(
  clips: readonly Clip[],
  from: Beats,
  to: Beats,
  newId: (of: Clip) => Clip['id'],
): readonly Clip[] {
  return clips.flatMap((clip) => {
    if (clip.to <= from || clip.from >= to) return [clip];
    const before = { ...clip, to: from };
    const after = { ...clip, from: to, id: clip.from < from ? newId(clip) : clip.id };
    return [before, after].filter((part) => part.to - part.from > CRUMB);
  });
}

/** The lane's clips with one more, sorted; what it covers is cut away. */
export function laidClips(clips: readonly Clip[], clip: Clip, newId: (of: Clip) => Clip['id']): readonly Clip[] {
  const others = clearedClips(clips, clip.from, clip.to, newId);
  return [...others, clip].sort((a, b) => a.from - b.from);
}

/** Some of a lane's clips moved by so many beats, each as it was; what lies where they go makes room. */
export function movedClips(
  clips: readonly Clip[],
  ids: readonly string[],
  by: number,
  newId: (of: Clip) => Clip['id'],
): readonly Clip[] {
  const wanted = new Set(ids);
  const moved = clips
    .filter(({ id }) => wanted.has(id))
    .map((clip) => ({ ...clip, from: beats(clip.from + by), to: beats(clip.to + by) }));
  const others = clips.filter(({ id }) => !wanted.has(id));
  const left = moved.reduce((rest, { from, to }) => clearedClips(rest, from, to, newId), others as readonly Clip[]);
  return [...left, ...moved].sort((a, b) => a.from - b.from);
}

/** An angle turned on, in degrees, −180 to 180. */
export const turnedBy = (turn: number, by: number): number => ((((turn + by + 180) % 360) + 360) % 360) - 180;

/** The clip that lies on a place in the music. */
export function clipAt(clips: readonly Clip[], beat: Beats): Clip | undefined {
  return clips.find((clip) => clip.from <= beat && beat < clip.to);
}
