// Music made ready before it is asked for: of the song that stands ready, or comes next. It is kept as text, so that to read
// it and to bring it into its form takes a moment, in which nothing would be heard.

import type { Song } from '@hovlix/core/song';
import type { Repository } from '../document/repository';
import { MIME, playingForm, type Playing } from './form';
import type { Sounder } from './sounder';

type Music = NonNullable<Song['music']>;

export type MusicAtHand = {
  /** It can be played now. */
  readonly isLoaded: (music: Music) => boolean;
  /** The last one that was asked for is kept; undefined where it is not in this browser. */
  readonly fetch: (music: Music) => Promise<Playing | undefined>;
  /** Takes the place of what sounds. Resolves to false where something else did so meanwhile. */
  readonly load: (music: Music, as: Playing) => Promise<boolean>;
};

/** @param stop ends what sounds, so that it is not taken up again while other music is loaded. */
export function musicAtHand(
  repository: Pick<Repository, 'music'>,
  sound: Pick<Sounder, 'audio' | 'load'>,
  stop: () => void,
): MusicAtHand {
  let fetched: { readonly hash: string; readonly music: Promise<Playing | undefined> } | undefined;
  let loaded: string | undefined;
  let loading: { readonly hash: string; readonly done: Promise<boolean> } | undefined;
  const read = async ({ hash, type }: Music): Promise<Playing | undefined> => {
    const kept = await repository.music(hash);
    return kept && playingForm(sound.audio, new Blob([kept.bytes], { type: MIME[type] }));
  };
  return {
    isLoaded: ({ hash }) => loaded === hash,
    fetch(music) {
      if (fetched?.hash === music.hash) return fetched.music;
      const mine = { hash: music.hash, music: read(music) };
      fetched = mine;
      // What is not here may still come.
      const forget = () => void (fetched === mine && (fetched = undefined));
      void mine.music.then((found) => found ?? forget(), forget);
      return mine.music;
    },
    load({ hash }, as) {
      if (loading?.hash === hash) return loading.done;
      stop();
      loaded = undefined;
      const done = sound.load(as).then((fine) => {
        if (loading !== mine) return false;
        loading = undefined;
        if (fine) loaded = hash;
        return fine;
      });
      const mine = { hash, done };
      loading = mine;
      return done;
    },
  };
}
