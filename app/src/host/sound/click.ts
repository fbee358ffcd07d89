// A click on each felt beat of the song that plays, from this screen; higher on the first beat of a bar.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { songTimeAt } from '@hovlix/core/live';
import type { Song } from '@hovlix/core/song';
import { barAt, beatAt, beatOfBar, meterAtBar, pulseLength, pulsesInBar, timeAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';

export type Click = {
  readonly store: StoreApi<{ readonly on: boolean }>;
  readonly turn: (on: boolean) => void;
};

/** How often it is looked for the next beat, and how far ahead beats are handed to the sound card. */
const LOOK_MS = 25;
const AHEAD_SECONDS = 0.12;
const LENGTH_SECONDS = 0.04;
const FIRST_HZ = 1760;
const OTHER_HZ = 880;
const LOUD = 0.35;

/** The first felt beat at or after a moment of the music, and whether a bar begins with it. */
export function nextPulse(
  song: Pick<Song, 'tempo' | 'meter'>,
  time: number,
): { readonly time: number; readonly first: boolean } {
  const beat = beatAt(song.tempo, seconds(time));
  const { bar } = barAt(song.meter, beats(beat - 1e-6));
  const meter = meterAtBar(song.meter, bar);
  const start = beatOfBar(song.meter, bar);
  const pulse = Math.max(0, Math.ceil((beat - start) / pulseLength(meter) - 1e-6));
  const at = pulse >= pulsesInBar(meter) ? beatOfBar(song.meter, bar + 1) : start + pulse * pulseLength(meter);
  return { time: timeAt(song.tempo, beats(at)), first: pulse === 0 || pulse >= pulsesInBar(meter) };
}

export function click(document: Document, conducting: Conducting): Click {
  const store = createStore(() => ({ on: false }));
  let sound: AudioContext | undefined;
  let looking: ReturnType<typeof setInterval> | undefined;
  /** The last beat that was handed on, in seconds of the music, and the start it counts from. */
  let told = -Infinity;
  let since: unknown;

  const look = () => {
    const live = conducting.store.getState().live.song;
    const song = live?.playing ? document.store.getState().show?.songs.find(({ id }) => id === live.id) : undefined;
    if (!song || !live || !sound) return;
    const now = songTimeAt(live, conducting.now());
    // Started or moved: it counts anew.
    if (live.since !== since || told > now + 2 * AHEAD_SECONDS) told = -Infinity;
    since = live.since;
    const { time, first } = nextPulse(song, Math.max(now, told + 0.01));
    const wait = (time - now) / live.rate;
    if (wait > AHEAD_SECONDS || time > song.duration) return;
    told = time;
    beep(sound, sound.currentTime + Math.max(0, wait), first);
  };

  return {
    store,
    turn(on) {
      clearInterval(looking);
      if (on) {
        sound ??= new AudioContext();
        void sound.resume();
        looking = setInterval(look, LOOK_MS);
      }
      store.setState({ on });
    },
  };
}

function beep(sound: AudioContext, at: number, first: boolean): void {
  const tone = sound.createOscillator();
  const gain = sound.createGain();
  tone.frequency.value = first ? FIRST_HZ : OTHER_HZ;
  gain.gain.setValueAtTime(LOUD, at);
  gain.gain.exponentialRampToValueAtTime(0.001, at + LENGTH_SECONDS);
  tone.connect(gain).connect(sound.destination);
  tone.start(at);
  tone.stop(at + LENGTH_SECONDS);
}
