// Which songs a track of a player may be. An entry of its own: only the page that asks needs it.

import { plain, SAME_LENGTH, type DeckTrack } from './known-track';

type Likely = { readonly title: string; readonly duration: number };

/** Songs in the order in which a track may be one: those with words of its title first, and those of its length. */
export function likelySongs<S extends Likely>(track: DeckTrack, songs: readonly S[]): readonly S[] {
  const wanted = words(track.title);
  const score = ({ title, duration }: S) => {
    const own = words(title);
    const shared = own.filter((word) => wanted.includes(word)).length / Math.max(1, own.length, wanted.length);
    return shared + (track.length > 0 && Math.abs(duration - track.length) <= SAME_LENGTH ? 0.5 : 0);
  };
  return songs
    .map((song, i) => ({ song, i, score: score(song) }))
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .map(({ song }) => song);
}

const words = (title: string): readonly string[] => title.split(/\s+/).map(plain).filter(Boolean);
