// Timecode from outside: the song that plays at that time goes by it. Silent for a moment it is carried on; then the song stops.

import { placeAt, songTimeAt, waysEnded, type Moment } from '../live';
import { songAtTimecode, type Song } from '../song';
import { timecodeText } from '../time';
import type { ClockState } from '../time/midi-clock';
import { midiTimecode } from '../time/midi-timecode';
import type { Seconds } from '../units';
import type { BytesTaker, BareHost } from '../gear/host';
import { DRIFT_SECONDS, DRIFT_TEMPO, GIVEN_UP_SECONDS, LOOK_MS, type Wishes } from './following';

export type TimecodeIn = {
  readonly device: string;
  readonly state: ClockState;
  /** Where it is, in whole seconds, and what its frames are called. */
  readonly text: string;
  readonly frames: number | undefined;
};

export type TimecodeFollower = {
  readonly take: BytesTaker;
  /** Whether songs go by it now, and by no other clock. */
  readonly leads: () => boolean;
};

/** @param tell is told what comes in, each time that changes. */
export function timecodeIn(host: BareHost, wishes: Wishes, tell: (timecode: TimecodeIn) => void): TimecodeFollower {
  let told: TimecodeIn | undefined;
  let code = midiTimecode();
  let device: string | undefined;
  let last = -Infinity;
  let was: ClockState = 'none';
  /** The song that goes by it. */
  let led: Song['id'] | undefined;

  const wanted = () => wishes.follows() === 'songs';
  const take: BytesTaker = (from, data, at) => {
    // Of two machines the first counts.
    const other = from !== device && device !== undefined;
    if (other && at - last < GIVEN_UP_SECONDS) return;
    const fresh = other ? midiTimecode() : code;
    if (!fresh.take(data, at)) return;
    code = fresh;
    device = from;
    last = at;
  };

  /** The song goes on where the other machine is; what sounds on a screen is left alone. */
  const lead = ({ live, ...rest }: Moment, song: Song, songTime: Seconds, rate: number) => {
    const { now } = rest;
    if (live.song?.playing && live.song.sound !== undefined) return;
    led = song.id;
    if (live.song?.id !== song.id || !live.song.playing) {
      const { set, stops } = placeAt({ live, ...rest });
      const stop = stops.find((one) => 'song' in one && one.at !== 'ready' && one.song.id === song.id);
      if (stop && live.set?.stop !== stop.id)
        host.act({ type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id });
      return host.act({ type: 'play', song: song.id, from: songTime });
    }
    for (const action of waysEnded(live.song)) host.act(action);
    const off = Math.abs(songTimeAt(live.song, now) - songTime);
    if (off >= DRIFT_SECONDS || Math.abs(rate / live.song.rate - 1) >= DRIFT_TEMPO)
      host.act({ type: 'anchor', songTime, at: now, rate });
  };
  /** It has stopped: so does the song, and where that is told its light is that of the place. */
  const stand = ({ show, live }: Moment, time: Seconds | undefined) => {
    if (led !== undefined && live.song?.id === led && live.song.playing) host.act({ type: 'pause' });
    const to = time === undefined ? undefined : songAtTimecode(show.songs, time, live.song?.id);
    const there = to && live.song?.id === to.song.id && Math.abs(live.song.songTime - to.songTime) < DRIFT_SECONDS;
    if (to && !there && !live.song?.playing) host.act({ type: 'open-song', song: to.song.id, from: to.songTime });
    led = undefined;
  };

  host.time.every(LOOK_MS, () => {
    if (device === undefined) return;
    const now = host.now();
    const state = code.state(now);
    const time = code.timeAt(now);
    const text = time === undefined ? '' : timecodeText(Math.floor(time));
    if (told?.state !== state || told.text !== text || told.device !== device)
      tell((told = { device, state, text, frames: code.frames() }));
    const moment = wanted() ? host.moment() : undefined;
    const before = was;
    was = state;
    if (!moment || time === undefined) return;
    if (state === 'lost' && before === 'running')
      wishes.say(`The timecode of ${device} stopped coming. The song goes on.`, true);
    if (state === 'stopped') {
      if (before === 'lost') wishes.say(`The timecode of ${device} has stopped.`, false);
      if (before !== 'stopped' || code.halted()) stand(moment, code.halted() ? time : undefined);
      return;
    }
    const to = songAtTimecode(moment.show.songs, time, moment.live.song?.id);
    if (to) lead(moment, to.song, to.songTime, code.rate());
    else if (led !== undefined) stand(moment, undefined);
  });
  return { take, leads: () => wanted() && (was === 'running' || was === 'lost') };
}
