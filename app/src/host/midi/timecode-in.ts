// Timecode from outside: the song that plays at that time goes by it. Silent for a moment it is carried on; then the song stops.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { placeAt, songTimeAt, type Moment } from '@hovlix/core/live';
import { songAtTimecode, type Song } from '@hovlix/core/song';
import { midiTimecode, type ClockState } from '@hovlix/core/outside';
import { timecodeText } from '@hovlix/core/time';
import { seconds, type Seconds } from '@hovlix/core/units';
import { momentOf } from '../conduct/gestures';
import type { Playing } from '../controls/act';
import { useSession } from '../session';
import { DRIFT_SECONDS, DRIFT_TEMPO, GIVEN_UP_MS, LOOK_MS } from './following';
import type { Midi } from './midi';

export type TimecodeInState = {
  readonly device: string;
  readonly state: ClockState;
  /** Where it is, in whole seconds, and what its frames are called. */
  readonly text: string;
  readonly frames: number | undefined;
};

export type TimecodeIn = {
  readonly store: StoreApi<{ readonly timecode: TimecodeInState | null }>;
  /** Whether songs go by it now, and by no other clock. */
  readonly leads: () => boolean;
};

export function timecodeIn(stage: Playing, midi: Pick<Midi, 'onBytes'>): TimecodeIn {
  const store = createStore<{ timecode: TimecodeInState | null }>(() => ({ timecode: null }));
  const { conducting } = stage;
  const { say } = useSession.getState();
  let code = midiTimecode();
  let device: string | undefined;
  let lastMs = -Infinity;
  let was: ClockState = 'none';
  /** The song that goes by it. */
  let led: Song['id'] | undefined;

  const wanted = () => useSession.getState().follows === 'songs';
  midi.onBytes((from, data, ms) => {
    // Of two machines the first counts.
    const other = from !== device && device !== undefined;
    if (other && ms - lastMs < GIVEN_UP_MS) return;
    const fresh = other ? midiTimecode() : code;
    if (!fresh.take(data, seconds(conducting.now() - (performance.now() - ms) / 1000))) return;
    code = fresh;
    device = from;
    lastMs = ms;
  });

  /** The song goes on where the other machine is; what sounds on a screen is left alone. */
  const lead = ({ live, ...rest }: Moment, song: Song, songTime: Seconds, rate: number) => {
    const { now } = rest;
    if (live.song?.playing && live.song.sound !== undefined) return;
    led = song.id;
    if (live.song?.id !== song.id || !live.song.playing) {
      const { set, stops } = placeAt({ live, ...rest });
      const stop = stops.find((one) => 'song' in one && one.at !== 'ready' && one.song.id === song.id);
      if (stop && live.set?.stop !== stop.id)
        conducting.act({ type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id });
      return conducting.act({ type: 'play', song: song.id, from: songTime });
    }
    const off = Math.abs(songTimeAt(live.song, now) - songTime);
    if (off >= DRIFT_SECONDS || Math.abs(rate / live.song.rate - 1) >= DRIFT_TEMPO)
      conducting.act({ type: 'anchor', songTime, at: now, rate });
  };
  /** It stands: the song does, too, and where that is told its light is that of the place. */
  const stand = ({ show, live }: Moment, time: Seconds | undefined) => {
    if (led !== undefined && live.song?.id === led && live.song.playing) conducting.act({ type: 'pause' });
    const to = time === undefined ? undefined : songAtTimecode(show.songs, time, live.song?.id);
    const there = to && live.song?.id === to.song.id && Math.abs(live.song.songTime - to.songTime) < DRIFT_SECONDS;
    if (to && !there && !live.song?.playing) conducting.act({ type: 'open-song', song: to.song.id, from: to.songTime });
    led = undefined;
  };

  setInterval(() => {
    if (device === undefined) return;
    const now = conducting.now();
    const state = code.state(now);
    const time = code.timeAt(now);
    const text = time === undefined ? '' : timecodeText(Math.floor(time));
    const told = store.getState().timecode;
    if (told?.state !== state || told.text !== text || told.device !== device)
      store.setState({ timecode: { device, state, text, frames: code.frames() } });
    const moment = wanted() ? momentOf(stage) : undefined;
    const before = was;
    was = state;
    if (!moment || time === undefined) return;
    if (state === 'lost' && before === 'running') say(`The timecode of ${device} fell silent. The song goes on.`, { tone: 'bad' }); // prettier-ignore
    if (state === 'stopped') {
      if (before === 'lost') say(`The timecode of ${device} has stopped.`);
      if (before !== 'stopped' || code.stands()) stand(moment, code.stands() ? time : undefined);
      return;
    }
    const to = songAtTimecode(moment.show.songs, time, moment.live.song?.id);
    if (to) lead(moment, to.song, to.songTime, code.rate());
    else if (led !== undefined) stand(moment, undefined);
  }, LOOK_MS);
  return { store, leads: () => wanted() && (was === 'running' || was === 'lost') };
}
