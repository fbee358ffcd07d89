// Our clock for other gear: 24 ticks a quarter note, handed to the MIDI port a little before they are due.

import { freeBeat, songNow, songTimeAt, type Moment } from '../live';
import { beatAt, timeAt } from '../time';
import { TICKS_A_BEAT } from '../time/midi-clock';
import { beats } from '../units';
import type { BareHost, Ports, Timers } from '../gear/host';

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
export function clockSender(
  { every }: Timers,
  ports: Pick<Ports, 'sendTo'>,
  source: () => ClockSource | undefined,
): () => void {
  /** The last tick that was handed on, and what it belonged to. */
  let told: number | undefined;
  let of: string | null = null;
  return every(LOOK_MS, () => {
    const one = source();
    if (!one) return void (told = undefined);
    const { now, beat, when, name } = one;
    if (name !== of) {
      const from = Math.max(0, Math.round(beat * 4));
      if (name === null) ports.sendTo(null, STOP);
      else {
        // Sixteenths, in two halves of seven bits (MIDI 1.0, song position pointer).
        ports.sendTo(null, [0xf2, from & 127, (from >> 7) & 127]);
        ports.sendTo(null, from === 0 ? START : CONTINUE);
      }
      [of, told] = [name, undefined];
    }
    const first = Math.ceil(beat * TICKS_A_BEAT - 1e-6);
    // After a jump it counts from where it is.
    let next = told === undefined || Math.abs(told + 1 - first) > TICKS_A_BEAT / 2 ? first : Math.max(first, told + 1);
    for (; when(next / TICKS_A_BEAT) < now + AHEAD_SECONDS; next++) {
      ports.sendTo(null, TICK, Math.max(0, when(next / TICKS_A_BEAT) - now));
      told = next;
    }
  });
}

/** Our own clock, while that is wanted: of the song that plays, else the free one. */
export function sendClock(host: BareHost, ports: Pick<Ports, 'sendTo'>, wanted: () => boolean): void {
  clockSender(host.time, ports, () => {
    const moment = wanted() ? host.moment() : undefined;
    if (!moment) return undefined;
    const { song } = moment.live;
    return { now: moment.now, name: song?.playing ? `${song.id} ${song.since}` : null, ...beatsNow(moment) };
  });
}
