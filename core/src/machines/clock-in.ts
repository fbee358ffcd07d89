// A MIDI clock from outside: the free clock goes by it, and songs if that is wanted. Silent, it is carried on.

import { freeBeat, placeAt, songNow, songTimeAt, waysEnded, type Action } from '../live';
import { midiClock, type ClockState, type MidiClock } from '../time/midi-clock';
import { tempoAt, timeAt } from '../time';
import { beats, seconds, type Seconds } from '../units';
import type { BytesTaker, BareHost } from '../gear/host';
import { DRIFT_SECONDS, DRIFT_TEMPO, GIVEN_UP_SECONDS, LOOK_MS, type Wishes } from './following';

export type ClockIn = { readonly device: string; readonly state: ClockState; readonly bpm: number | null };

const TICK = 0xf8;
const START = 0xfa;
const CONTINUE = 0xfb;
const STOP = 0xfc;
const POSITION = 0xf2;

/**
 * @param songsLed whether songs go by something else: then only the tempo goes by the clock.
 * @param tell is told what comes in, each time that changes.
 * @returns what hears it.
 */
export function clockIn(
  host: BareHost,
  wishes: Wishes,
  tell: (clock: ClockIn) => void,
  songsLed = () => false,
): BytesTaker {
  let told: ClockIn | undefined;
  let clock: MidiClock = midiClock();
  let device: string | undefined;
  let last = -Infinity;
  let was: ClockState = 'none';

  const follows = () => {
    const wanted = wishes.follows();
    return wanted === 'songs' && songsLed() ? 'tempo' : wanted;
  };
  const take: BytesTaker = (from, data, at) => {
    const status = data[0] ?? 0;
    if (status !== TICK && status !== START && status !== CONTINUE && status !== STOP && status !== POSITION) return;
    if (from !== device) {
      // Of two clocks the first counts.
      if (device !== undefined && at - last < GIVEN_UP_SECONDS) return;
      device = from;
      clock = midiClock();
    }
    last = at;
    if (status === TICK) clock.tick(at);
    else if (status === POSITION && data.length >= 3) clock.position(data[1]! + data[2]! * 128);
    else if (status === START) clock.start();
    else if (status === CONTINUE) clock.goOn();
    else if (status === STOP) clock.stop();
    if (follows() === 'songs') transport(status);
  };

  /** The song that is chosen, or the next of the set, goes and stops with the clock. */
  const transport = (status: number) => {
    const moment = host.moment();
    if (!moment) return;
    const { live } = moment;
    if (status === STOP && live.song?.playing) return host.act({ type: 'pause' });
    if (status !== START && status !== CONTINUE) return;
    const { set, stops, at } = placeAt(moment);
    const stop = stops.find((one, i) => i >= Math.max(0, at) && 'song' in one && one.at !== 'ready');
    const song = songNow(moment) ?? (stop && 'song' in stop ? stop.song : undefined);
    if (!song) return;
    if (stop && 'song' in stop && stop.song.id === song.id && live.set?.stop !== stop.id)
      host.act({ type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id });
    // A clock begins with the first beat, before which a recording may have some silence.
    const from = seconds(Math.max(0, timeAt(song.tempo, beats(clock.beatAt(moment.now)))));
    host.act({ type: 'play', song: song.id, from });
  };

  const correct = (now: Seconds): readonly Action[] => {
    const moment = host.moment();
    const bpm = clock.bpm();
    const beat = clock.beatAt(now);
    if (!moment || bpm === undefined) return [];
    const { live } = moment;
    const song = follows() === 'songs' && live.song?.playing ? songNow(moment) : undefined;
    if (song && live.song && live.song.sound === undefined) {
      const songTime = timeAt(song.tempo, beats(beat));
      const rate = Math.min(4, Math.max(0.1, bpm / tempoAt(song.tempo, songTime)));
      const own = waysEnded(live.song);
      const off = Math.abs(songTimeAt(live.song, now) - songTime);
      if (off < DRIFT_SECONDS && Math.abs(rate / live.song.rate - 1) < DRIFT_TEMPO) return own;
      // Past its end the song is over, whatever the clock says.
      return songTime < song.duration ? [...own, { type: 'anchor', songTime, at: now, rate }] : own;
    }
    const off = (Math.abs(freeBeat(live, now) - beat) * 60) / bpm;
    if (off < DRIFT_SECONDS && Math.abs(bpm / live.tempo.bpm - 1) < DRIFT_TEMPO) return [];
    return [{ type: 'tempo', bpm: Math.min(400, Math.max(30, bpm)), beat: { at: now, beat: beats(beat) } }];
  };

  host.time.every(LOOK_MS, () => {
    if (device === undefined) return;
    const now = host.now();
    const state = clock.state(now);
    const bpm = clock.bpm() ?? null;
    const shown = bpm === null ? null : Math.round(bpm * 10) / 10;
    if (told?.state !== state || told.bpm !== shown || told.device !== device)
      tell((told = { device, state, bpm: shown }));
    if (follows() === 'nothing') return void (was = state);
    if (state === 'lost' && was === 'running')
      wishes.say(`The MIDI clock of ${device} stopped. The tempo stays at ${shown} bpm.`, true);
    if (state === 'running' && was === 'lost') wishes.say(`The MIDI clock of ${device} is back.`, false);
    was = state;
    if (state === 'running') for (const action of correct(now)) host.act(action);
  });
  return take;
}
