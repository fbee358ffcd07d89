// Bars lit like others: the clips of a stretch laid again somewhere else, once or until something.

import { beats } from '../units';
import type { Clip } from './schema';
import { clearedClips } from './lay';

/** What is laid again: `[from, to)` of the lane, first at `at`, then end to end until `until`. In beats. */
export type Copying = { readonly from: number; readonly to: number; readonly at: number; readonly until: number };

/** A stretch is laid so many times at the most. */
export const MOST_COPIES = 1000;

/**
 * The lane with the copies on it; what lay where they go is cut away, and the last copy is cut at `until`. Bars that are
 * empty are copied as empty ones. The stretch itself is read before anything is laid, so it may be overlaid.
 * @param newId names the n-th clip that is laid; the second halves of clips that are cut are named by `halfId`.
 */
export function copiedClips(
  clips: readonly Clip[],
  { from, to, at, until }: Copying,
  newId: (n: number) => Clip['id'],
  halfId: (of: Clip) => Clip['id'],
): readonly Clip[] {
  const length = to - from;
  if (!(length > 0) || !(until > at) || (until - at) / length > MOST_COPIES) return clips;
  const stretch = clips
    .filter((clip) => clip.to > from && clip.from < to)
    .map((clip) => ({ ...clip, from: Math.max(clip.from, from) - from, to: Math.min(clip.to, to) - from }));
  const laid: Clip[] = [];
  for (let start = at; start < until - 1e-6; start += length)
    for (const clip of stretch) {
      const end = Math.min(start + clip.to, until);
      if (end - (start + clip.from) > 1e-3)
        laid.push({ ...clip, id: newId(laid.length), from: beats(start + clip.from), to: beats(end) });
    }
  return [...clearedClips(clips, beats(at), beats(until), halfId), ...laid].sort((a, b) => a.from - b.from);
}
