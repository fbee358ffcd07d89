// Our clock for other gear: 24 ticks a quarter note, handed to the MIDI port a little before they are due.

import { freeBeat, songNow, songTimeAt, type Moment } from '@hovlix/core/live';
import { TICKS_A_BEAT } from '@hovlix/core/outside';
import { beatAt, timeAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import { momentOf, type Stage } from '../conduct/gestures';
import { useSession } from '../session';
import type { Midi } from './midi';

const TICK = [0xf8];
const START = [0xfa];
const CONTINUE = [0xfb];
const STOP = [0xfc];

const LOOK_MS = 30;
const AHEAD_SECONDS = 0.1;

/** Beats of what sounds, from a moment on: where it is, and when a beat will be. */
function beatsNow(moment: Moment): { readonly beat: number; readonly when: (beat: number) => number } {
  const { live, now } = moment;
  const song = live.song?.playing ? songNow(moment) : undefined;
  if (!song || !live.song) {
    const beat = freeBeat(live, now);
    return { beat, when: (to) => now + ((to - beat) * 60) / live.tempo.bpm };
  }
  const time = songTimeAt(live.song, now);
  const { rate } = live.song;
  return { beat: beatAt(song.tempo, time), when: (to) => now + (timeAt(song.tempo, beats(to)) - time) / rate };
}

/** What is sent: where its beats are by now, and when another will be; what begins anew has another name, null is at rest. */
export type ClockSource = {
  readonly now: number;
  readonly beat: number;
  readonly when: (beat: number) => number;
  readonly name: string | null;
};

/**
 * Sends the ticks of what sounds, a little before they are due.
 * @param source is asked many times a second; undefined sends nothing. @returns what ends it.
 */
export function clockSender(midi: Pick<Midi, 'sendBytes'>, source: () => ClockSource | undefined): () => void {
  /** The last tick that was handed on, and what it belonged to. */
  let told: number | undefined;
  let of: string | null = null;
  const sending = setInterval(() => {
    const one = source();
    if (!one) return void (told = undefined);
    const { now, beat, when, name } = one;
    if (name !== of) {
      const from = Math.max(0, Math.round(beat * 4));
      if (name === null) midi.sendBytes(STOP);
      else {
        // Sixteenths, in two halves of seven bits (MIDI 1.0, song position pointer).
        midi.sendBytes([0xf2, from & 127, (from >> 7) & 127]);
        midi.sendBytes(from === 0 ? START : CONTINUE);
      }
      [of, told] = [name, undefined];
    }
    const first = Math.ceil(beat * TICKS_A_BEAT - 1e-6);
    // After a jump it counts from where it is.
    let next = told === undefined || Math.abs(told + 1 - first) > TICKS_A_BEAT / 2 ? first : Math.max(first, told + 1);
    const base = performance.now();
    for (; when(next / TICKS_A_BEAT) < now + AHEAD_SECONDS; next++) {
      midi.sendBytes(TICK, base + Math.max(0, seconds(when(next / TICKS_A_BEAT) - now)) * 1000);
      told = next;
    }
  }, LOOK_MS);
  return () => clearInterval(sending);
}

/** Our own clock: of the song that plays, else the free one. */
export function sendClock(stage: Stage, midi: Pick<Midi, 'sendBytes'>): void {
  clockSender(midi, () => {
    const moment = useSession.getState().sendsClock ? momentOf(stage) : undefined;
    if (!moment) return undefined;
    const { song } = moment.live;
    return { now: moment.now, name: song?.playing ? `${song.id} ${song.since}` : null, ...beatsNow(moment) };
  });
}
