// A MIDI clock from outside: the free clock goes by it, and songs if that is wanted. Silent, it is carried on.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { freeBeat, placeAt, songNow, songTimeAt, type Action } from '@hovlix/core/live';
import { midiClock, type ClockState, type MidiClock } from '@hovlix/core/outside';
import { tempoAt, timeAt } from '@hovlix/core/time';
import { beats, seconds, type Seconds } from '@hovlix/core/units';
import { momentOf } from '../conduct/gestures';
import type { Playing } from '../controls/act';
import { useSession } from '../session';
import { DRIFT_SECONDS, DRIFT_TEMPO, GIVEN_UP_MS, LOOK_MS } from './following';
import type { Midi } from './midi';

export type ClockInState = { readonly device: string; readonly state: ClockState; readonly bpm: number | null };
export type ClockIn = { readonly store: StoreApi<{ readonly clock: ClockInState | null }> };

const TICK = 0xf8;
const START = 0xfa;
const CONTINUE = 0xfb;
const STOP = 0xfc;
const POSITION = 0xf2;

/** @param songsLed whether songs go by something else: then only the tempo goes by the clock. */
export function clockIn(stage: Playing, midi: Pick<Midi, 'onBytes'>, songsLed = () => false): ClockIn {
  const store = createStore<{ clock: ClockInState | null }>(() => ({ clock: null }));
  const { conducting } = stage;
  const { say } = useSession.getState();
  let clock: MidiClock = midiClock();
  let device: string | undefined;
  let lastMs = -Infinity;
  let was: ClockState = 'none';

  const follows = () => {
    const { follows: wanted } = useSession.getState();
    return wanted === 'songs' && songsLed() ? 'tempo' : wanted;
  };
  midi.onBytes((from, data, ms) => {
    const status = data[0] ?? 0;
    if (status !== TICK && status !== START && status !== CONTINUE && status !== STOP && status !== POSITION) return;
    if (from !== device) {
      // Of two clocks the first counts.
      if (device !== undefined && ms - lastMs < GIVEN_UP_MS) return;
      device = from;
      clock = midiClock();
    }
    lastMs = ms;
    if (status === TICK) clock.tick(seconds(conducting.now() - (performance.now() - ms) / 1000));
    else if (status === POSITION && data.length >= 3) clock.position(data[1]! + data[2]! * 128);
    else if (status === START) clock.start();
    else if (status === CONTINUE) clock.goOn();
    else if (status === STOP) clock.stop();
    if (follows() === 'songs') transport(status);
  });

  /** The song that is chosen, or the next of the set, goes and stops with the clock. */
  const transport = (status: number) => {
    const moment = momentOf(stage);
    if (!moment) return;
    const { live } = moment;
    if (status === STOP && live.song?.playing) return conducting.act({ type: 'pause' });
    if (status !== START && status !== CONTINUE) return;
    const { set, stops, at } = placeAt(moment);
    const stop = stops.find((one, i) => i >= Math.max(0, at) && 'song' in one && one.at !== 'ready');
    const song = songNow(moment) ?? (stop && 'song' in stop ? stop.song : undefined);
    if (!song) return;
    if (stop && 'song' in stop && stop.song.id === song.id && live.set?.stop !== stop.id)
      conducting.act({ type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id });
    const from = status === START ? seconds(0) : seconds(Math.max(0, timeAt(song.tempo, beats(clock.beatAt(moment.now))))); // prettier-ignore
    conducting.act({ type: 'play', song: song.id, from });
  };

  const correct = (now: Seconds): Action | undefined => {
    const moment = momentOf(stage);
    const bpm = clock.bpm();
    const beat = clock.beatAt(now);
    if (!moment || bpm === undefined) return undefined;
    const { live } = moment;
    const song = follows() === 'songs' && live.song?.playing ? songNow(moment) : undefined;
    if (song && live.song && live.song.sound === undefined) {
      const songTime = timeAt(song.tempo, beats(beat));
      const rate = Math.min(4, Math.max(0.1, bpm / tempoAt(song.tempo, songTime)));
      const off = Math.abs(songTimeAt(live.song, now) - songTime);
      if (off < DRIFT_SECONDS && Math.abs(rate / live.song.rate - 1) < DRIFT_TEMPO) return undefined;
      // Past its end the song is over, whatever the clock says.
      return songTime < song.duration ? { type: 'anchor', songTime, at: now, rate } : undefined;
    }
    const off = (Math.abs(freeBeat(live, now) - beat) * 60) / bpm;
    if (off < DRIFT_SECONDS && Math.abs(bpm / live.tempo.bpm - 1) < DRIFT_TEMPO) return undefined;
    return { type: 'tempo', bpm: Math.min(400, Math.max(30, bpm)), beat: { at: now, beat: beats(beat) } };
  };

  setInterval(() => {
    if (device === undefined) return;
    const now = conducting.now();
    const state = clock.state(now);
    const bpm = clock.bpm() ?? null;
    const told = store.getState().clock;
    const shown = bpm === null ? null : Math.round(bpm * 10) / 10;
    if (told?.state !== state || told.bpm !== shown || told.device !== device)
      store.setState({ clock: { device, state, bpm: shown } });
    if (follows() === 'nothing') return void (was = state);
    if (state === 'lost' && was === 'running') say(`The MIDI clock of ${device} fell silent. It goes on at ${shown} bpm.`, { tone: 'bad' }); // prettier-ignore
    if (state === 'running' && was === 'lost') say(`The MIDI clock of ${device} is back.`);
    was = state;
    const action = state === 'running' ? correct(now) : undefined;
    if (action) conducting.act(action);
  }, LOOK_MS);
  return { store };
}
