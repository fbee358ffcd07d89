// Sounds of this screen that go with the song that plays: handed to the sound card a little before they are due.

import { songTimeAt } from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';

/** How often it is looked for what comes next, and how far ahead that is handed on. */
const LOOK_MS = 25;
const AHEAD_SECONDS = 0.12;
/** More than this no sound card takes: a browser that says so is not believed. */
const LATEST_SECONDS = 1;

/** What sounds in `[from, to)` of a song, in seconds of its music; `at` tells when a moment of it is due. */
export type Sounder = (sound: AudioContext, song: Song, from: number, to: number, at: (time: number) => number) => void;

export type Ahead = { readonly turn: (on: boolean) => void };

/**
 * What is heard right now, in the time of the sound card: a little before what it makes right now, and a good deal where the
 * loudspeaker is reached by radio. A browser that cannot tell is taken at its word that nothing lies between.
 */
export function heardNow(sound: Pick<AudioContext, 'currentTime'> & Partial<AudioContext>): number {
  const { contextTime = 0, performanceTime = 0 } = sound.getOutputTimestamp?.() ?? {};
  const { currentTime } = sound;
  if (contextTime === 0) return currentTime;
  const heard = contextTime + (performance.now() - performanceTime) / 1000;
  return Math.min(currentTime, Math.max(currentTime - LATEST_SECONDS, heard));
}

/** Each moment of the music is asked for once; started or moved, it is asked for anew. */
export function ahead(document: Document, conducting: Conducting, sounder: Sounder): Ahead {
  let sound: AudioContext | undefined;
  let looking: ReturnType<typeof setInterval> | undefined;
  /** Up to where it was handed on, in seconds of the music, and the start it counts from. */
  let told = -Infinity;
  let since: unknown;

  const look = () => {
    const live = conducting.store.getState().live.song;
    const song = live?.playing ? document.store.getState().show?.songs.find(({ id }) => id === live.id) : undefined;
    if (!song || !live || !sound) return;
    const now = songTimeAt(live, conducting.now());
    const heard = heardNow(sound);
    const { currentTime } = sound;
    const late = currentTime - heard;
    const further = (late + AHEAD_SECONDS) * live.rate;
    const until = Math.min(song.duration, now + further);
    // The first look comes a little after the start, whose beat is still wanted.
    if (live.since !== since) told = live.songTime + (live.since - live.at) * live.rate - 1e-6;
    else if (told > now + 2 * further) told = now;
    since = live.since;
    // What could only come too late is left out.
    const from = Math.max(told, now + (late - AHEAD_SECONDS) * live.rate);
    if (until <= from) return;
    told = until;
    sounder(sound, song, from, until, (time) => Math.max(currentTime, heard + (time - now) / live.rate));
  };

  return {
    turn(on) {
      clearInterval(looking);
      if (!on) return;
      sound ??= new AudioContext();
      void sound.resume();
      looking = setInterval(look, LOOK_MS);
    },
  };
}
