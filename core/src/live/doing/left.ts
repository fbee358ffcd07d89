// How long a set still takes.

import type { Entry } from '../../gig';
import type { Moment } from '../press';
import { songTimeAt } from '../song-clock';
import { placeAt } from './place';

/** Seconds of an entry: its song, or its pause. A look takes no time. */
export function entrySeconds({ show }: Pick<Moment, 'show'>, entry: Entry): number {
  if (entry.kind === 'pause') return entry.minutes * 60;
  return entry.kind === 'song' ? (show.songs.find(({ id }) => id === entry.song)?.duration ?? 0) : 0;
}

/** Seconds left of the song that plays, null while none does; and of the set without its encores, that counted in. */
export function timeLeft(moment: Moment): { readonly song: number | null; readonly set: number } {
  const { live, show, now } = moment;
  const { set, stops, at } = placeAt(moment);
  const here = set.entries.findIndex(({ id }) => id === stops[at]?.entry.id);
  const song = live.song?.playing ? show.songs.find(({ id }) => id === live.song?.id) : undefined;
  const left = song && live.song ? Math.max(0, song.duration - songTimeAt(live.song, now)) / live.song.rate : null;
  const stop = stops[at];
  // What is only ready, or has not begun, is still to come; so is all behind it.
  const begun = here >= 0 && stop?.at !== 'ready';
  const coming = set.entries.filter((entry, i) => !entry.encore && i >= here + (begun ? 1 : 0));
  return { song: left, set: coming.reduce((sum, entry) => sum + entrySeconds(moment, entry), begun ? (left ?? 0) : 0) };
}
