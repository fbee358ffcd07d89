// Bars of a hit lane filled with notes: patterns, and what is heard in the music.

import type { Command } from '@hovlix/core/show';
import type { HitLane, Note, Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';

/** Length of a note that nobody gave one, in beats. */
export const USUAL_LENGTH = 0.25;

export type Struck = { readonly at: number; readonly velocity: number };

/** Notes of one pad in `[from, to)`, in the place of those of the same pad that are there. */
export function fillCommands(
  song: Song,
  lane: HitLane,
  pad: number,
  struck: readonly Struck[],
  from: number,
  to: number,
): Command[] {
  const gone = lane.notes.filter(({ note, at }) => note === pad && at >= from && at < to).map(({ id }) => id);
  const notes = struck
    .filter(({ at }) => at >= from && at < to)
    .map(({ at, velocity }): Note => ({ id: freshId() as Note['id'], at: beats(at), length: beats(USUAL_LENGTH), note: pad, velocity })); // prettier-ignore
  const on = { song: song.id, lane: lane.id };
  return [
    ...(gone.length > 0 ? [{ type: 'remove-notes' as const, ...on, notes: gone }] : []),
    ...(notes.length > 0 ? [{ type: 'put-notes' as const, ...on, notes }] : []),
  ];
}
