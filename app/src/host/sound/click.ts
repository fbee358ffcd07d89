// A click on each felt beat of the song that plays, higher on the first beat of a bar; and the hits of its lanes, as drums.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { drumOfNote } from '@hovlix/core/light';
import { firstAt, playingLanes, type Note, type Song } from '@hovlix/core/song';
import { barAt, beatAt, beatOfBar, meterAtBar, pulseLength, pulsesInBar, timeAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import type { Document } from '../document/document';
import { ahead } from './ahead';
import { drumSound } from './drum-sounds';

export type Click = {
  /** Whether beats click, and whether hits are heard. */
  readonly store: StoreApi<{ readonly on: boolean; readonly hits: boolean }>;
  readonly turn: (on: boolean) => void;
  readonly turnHits: (on: boolean) => void;
};

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

/** The notes of all lanes of hits that play, struck in `[from, to)` seconds of the music. */
export function notesBetween(song: Song, from: number, to: number): readonly Note[] {
  const [first, last] = [beatAt(song.tempo, seconds(from)), beatAt(song.tempo, seconds(to))];
  return playingLanes(song.lanes).flatMap((lane) => {
    if (lane.type !== 'hits') return [];
    return lane.notes.slice(firstAt(lane.notes, first), firstAt(lane.notes, last));
  });
}

export function click(document: Document, conducting: Conducting): Click {
  const store = createStore(() => ({ on: false, hits: false }));
  const clicks = ahead(document, conducting, (sound, song, from, to, at) => {
    for (let pulse = nextPulse(song, from); pulse.time < to; pulse = nextPulse(song, pulse.time + 0.01))
      if (pulse.time >= from) beep(sound, at(pulse.time), pulse.first);
  });
  const drums = ahead(document, conducting, (sound, song, from, to, at) => {
    for (const { at: beat, note, velocity } of notesBetween(song, from, to))
      drumSound(sound, drumOfNote(note), note, velocity, at(timeAt(song.tempo, beat)));
  });
  return {
    store,
    turn(on) {
      clicks.turn(on);
      store.setState({ on });
    },
    turnHits(hits) {
      drums.turn(hits);
      store.setState({ hits });
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
