// Which song of a show a player's track is.

import { plain, SAME_LENGTH, sameTrack, type DeckTrack, type DjPlayer } from '../gig/known-track';
import type { Song } from '../song';

export type Matched = {
  /** Null is known to be none. */
  readonly song: Song | null;
  /** What it was found by: what was kept, the bytes of the file, or title and length. */
  readonly by: 'kept' | 'file' | 'title';
};

type Named = Pick<Song, 'title' | 'by' | 'duration' | 'music'>;

/**
 * The song of a track, if there is no doubt: what was kept of it, else the same file, else the one song with its title,
 * the same artist where both name one, and the same length where it is told.
 */
export function songOfTrack(
  track: DeckTrack,
  show: { readonly songs: readonly Song[]; readonly player?: DjPlayer | undefined },
): Matched | undefined {
  const kept = show.player?.tracks.find((one) => sameTrack(one.track, track));
  if (kept) {
    const song = kept.song === null ? null : show.songs.find(({ id }) => id === kept.song);
    if (song !== undefined) return { song, by: 'kept' };
  }
  const file = show.songs.find(({ music }) => music !== null && music.hash === track.content);
  if (file) return { song: file, by: 'file' };
  const named = show.songs.filter((song) => fits(track, song));
  return named.length === 1 ? { song: named[0]!, by: 'title' } : undefined;
}

function fits(track: DeckTrack, song: Named): boolean {
  const title = plain(track.title);
  if (title === '' || title !== plain(song.title)) return false;
  const [mine, theirs] = [plain(song.by), plain(track.by)];
  if (mine !== '' && theirs !== '' && mine !== theirs) return false;
  return track.length === 0 || Math.abs(track.length - song.duration) <= SAME_LENGTH;
}
