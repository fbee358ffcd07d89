// Recordings that sound beside a song's music, kept beside it.

import { songTimeAt } from '@hovlix/core/live';
import type { Song, Track } from '@hovlix/core/song';
import type { Conducting } from '../conduct/conduct';
import { whilePlaying } from '../conduct/while-playing';
import type { Document } from '../document/document';
import type { Repository } from '../document/repository';
import { MIME } from './form';
import { sounder, type Sounder } from './sounder';
import { together, type Together } from './together';

/** How often it is looked where they are. */
const LOOK_MS = 100;
/** How often a recording that is not here is looked for: it may still come. */
const MISSING_MS = 2000;

type Sounding = { readonly hash: string; readonly sound: Sounder; readonly kept: Together };

/** Where a track is when its song is at a moment, in seconds of the track; undefined before its start. */
export const placeIn = ({ at }: Pick<Track, 'at'>, songTime: number): number | undefined =>
  songTime < at ? undefined : songTime - at;

export type Loudness = { readonly volume: number; readonly muted: boolean };

export type Tracks = {
  /** What lies beside a song is loaded before it is started. */
  readonly bring: (song: Song) => void;
};

/** @param loudness how loud this screen plays. */
export function followTracks(
  repository: Repository,
  document: Document,
  conducting: Conducting,
  loudness: () => Loudness,
): Tracks {
  const sounding = new Map<Track['id'], Sounding>();
  const coming = new Set<string>();

  const bring = async ({ id, music }: Track): Promise<void> => {
    if (coming.has(music.hash)) return;
    coming.add(music.hash);
    const kept = await repository.music(music.hash);
    if (!kept) return void setTimeout(() => coming.delete(music.hash), MISSING_MS);
    coming.delete(music.hash);
    if (sounding.has(id)) return;
    const sound = sounder();
    sounding.set(id, { hash: music.hash, sound, kept: together(sound) });
    await sound.load(new Blob([kept.bytes], { type: MIME[music.type] }));
  };
  const drop = (id: Track['id'], { sound }: Sounding): void => {
    sound.unload();
    sounding.delete(id);
  };

  const look = (): void => {
    const live = conducting.store.getState().live.song;
    const mine = live?.playing && live.sound === conducting.screen;
    const song: Song | undefined = mine
      ? document.store.getState().show?.songs.find(({ id }) => id === live.id)
      : undefined;
    const tracks = song?.tracks ?? [];
    for (const [id, one] of sounding)
      if (song && !tracks.some((track) => track.id === id && track.music.hash === one.hash)) drop(id, one);
      else if (!song) one.sound.audio.pause();
    if (!song || !live) return;
    const { volume, muted } = loudness();
    const time = songTimeAt(live, conducting.now());
    for (const track of tracks) {
      const one = sounding.get(track.id);
      if (!one) void bring(track);
      else playAt(one, placeIn(track, time), live.rate, track.level * volume, muted || track.muted === true);
    }
  };
  whilePlaying(conducting, look, LOOK_MS);
  return {
    bring({ tracks = [] }) {
      for (const track of tracks) if (!sounding.has(track.id)) void bring(track);
    },
  };
}

function playAt(
  { sound, kept }: Sounding,
  place: number | undefined,
  rate: number,
  level: number,
  muted: boolean,
): void {
  const { audio } = sound;
  audio.volume = level;
  audio.muted = muted;
  if (place === undefined || place >= (audio.duration || Infinity)) return audio.pause();
  kept.keepAt(place, rate);
}
