// Bars of a hit lane filled with notes: patterns, and what is heard in the music.

import type { OneCommand } from '@hovlix/core/show';
import { patternBeats, type HitLane, type Note, type Pattern, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import type { Pad } from './close-up/roll';
import { WORDS } from './words';

/** Length of a note that nobody gave one, in beats. */
export const USUAL_LENGTH = 0.25;

export type Struck = { readonly at: number; readonly velocity: number };

/** How hard the strokes of a pattern are: the first of a bar is accented. */
const ACCENT = 1;
const USUAL = 0.8;

/** The strokes of a pattern in the bars `first` to `last`. */
export function patternStrokes(song: Song, pattern: Pattern, first: number, last: number): readonly Struck[] {
  const downbeats = new Set<number>(patternBeats(song, 'downbeats', first, last));
  return patternBeats(song, pattern, first, last).map((at) => ({ at, velocity: downbeats.has(at) ? ACCENT : USUAL }));
}

/** Fills `[from, to)` with strokes of a pad, and says how many notes that made. `where` ends the sentence. */
export function useFill(song: Song, lane: HitLane, pad: Pad | undefined, from: number, to: number, where: string) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  return (struck: readonly Struck[]) => {
    if (!pad) return;
    const within = struck.filter(({ at }) => at >= from && at < to);
    const commands = fillCommands(song, lane, pad.note, within, from, to);
    if (commands.length === 0) return say(WORDS.nothingToPlace(where));
    document.together(commands);
    say(WORDS.notesPlaced(pad.name, within.length, where), { undo: document.takingBack() });
  };
}

/** Notes of one pad in `[from, to)`, in the place of those of the same pad that are there. */
function fillCommands(
  song: Song,
  lane: HitLane,
  pad: number,
  struck: readonly Struck[],
  from: number,
  to: number,
): OneCommand[] {
  const gone = lane.notes.filter(({ note, at }) => note === pad && at >= from && at < to).map(({ id }) => id);
  const notes = struck.map(({ at, velocity }): Note => ({
    id: freshId() as Note['id'],
    at: beats(at),
    length: beats(USUAL_LENGTH),
    note: pad,
    velocity,
  }));
  const on = { song: song.id, lane: lane.id };
  return [
    ...(gone.length > 0 ? [{ type: 'remove-notes' as const, ...on, notes: gone }] : []),
    ...(notes.length > 0 ? [{ type: 'put-notes' as const, ...on, notes }] : []),
  ];
}
