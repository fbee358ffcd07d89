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
const SIXTEENTHS_A_BEAT = 4;
const TICKS_A_SIXTEENTH = TICKS_A_BEAT / SIXTEENTHS_A_BEAT;
/** Places beyond this cannot be told: 14 bits of sixteenths. */
const LAST_PLACE = 0x3fff;
/** Where the next tick is due later than this, the music went back. Gear waits for what is nearer: sound may begin a little late. */
const WENT_BACK_SECONDS = 0.4;
/** Ticks that are late by so little are sent at once, and gear has caught up. */
const CAUGHT_UP_SECONDS = 0.06;

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
 * Sends the ticks of what sounds, a little before they are due. What begins, or jumps, is told as MIDI 1.0 wants it (song
 * position pointer; start, continue): gear stands while it is told a sixteenth, just gone or still to come, and goes on with the
 * tick that falls on it. Where nobody looked for longer than a sixteenth, it is told anew.
 * @param source is asked many times a second; with undefined gear is stopped and told nothing more. @returns what ends it.
 */
export function clockSender(
  { every }: Timers,
  ports: Pick<Ports, 'sendTo'>,
  source: () => ClockSource | undefined,
): () => void {
  /** The last tick that was handed on, and what it belonged to. */
  let told: number | undefined;
  let of: string | null = null;
  /** The tick that gear goes on with; undefined where it stands, or has gone on. */
  let starts: number | undefined;
  /** When gear goes on that was told so last, and when it was looked last. */
  let goes = -Infinity;
  let looked = 0;
  return every(LOOK_MS, () => {
    const one = source();
    looked = one?.now ?? looked;
    // What was handed on ahead of its time comes first.
    const wait = Math.max(0, goes - looked);
    if (!one) {
      if (of !== null) ports.sendTo(null, STOP, wait);
      [of, told, starts] = [null, undefined, undefined];
      return;
    }
    const { now, beat, when, name } = one;
    const due = Math.ceil(beat * TICKS_A_BEAT - 1e-6);
    const jumped =
      told !== undefined &&
      (due - told > TICKS_A_SIXTEENTH || when((told + 1) / TICKS_A_BEAT) > now + WENT_BACK_SECONDS);
    if (jumped || name !== of) told = undefined;
    if (name !== of || (jumped && name !== null)) {
      if (of !== null) ports.sendTo(null, STOP, wait);
      starts = name === null ? undefined : standAt(one, wait);
      of = name;
    }
    const first = told === undefined ? Math.min(due, starts ?? due) : told + 1;
    for (let next = first; when(next / TICKS_A_BEAT) < now + AHEAD_SECONDS; next++) {
      const inSeconds = Math.max(0, when(next / TICKS_A_BEAT) - now);
      if (next === starts) {
        ports.sendTo(null, next === 0 ? START : CONTINUE, inSeconds);
        goes = now + inSeconds;
      }
      ports.sendTo(null, TICK, inSeconds);
      told = next;
    }
  });

  /** Tells a sixteenth that was just now, else the next one, in two halves of seven bits. @returns its tick. */
  function standAt({ now, beat, when }: ClockSource, wait: number): number {
    const here = Math.floor(beat * SIXTEENTHS_A_BEAT + 1e-6);
    const just = here >= 0 && now - when(here / SIXTEENTHS_A_BEAT) <= CAUGHT_UP_SECONDS && wait === 0;
    let place = just ? here : Math.max(0, here + 1);
    while (wait > 0 && when(place / SIXTEENTHS_A_BEAT) < now + wait) place++;
    if (place > 0 && place <= LAST_PLACE) ports.sendTo(null, [0xf2, place & 127, place >> 7], wait);
    return place * TICKS_A_SIXTEENTH;
  }
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
