// What is on after the conductor has been away for long: as it was left, standing still.

import { steady } from '../light/ramp';
import { beats, seconds, type Seconds } from '../units';
import { AT_CLOCK } from './run';
import { isOn } from './standing';
import { songTimeAt } from './song-clock';
import { AT_REST, type LiveState } from './live-state';

/**
 * The state as it was at one moment of an old clock, put at rest at a moment of a new one: what was on is on, fades are
 * over, the song is at its place. What somebody held is let go.
 * @param was the moment on the clock of `state`. @param now the moment on the new clock.
 */
export function leftAs(state: LiveState, was: Seconds, now: Seconds): LiveState {
  const { song, seq, set, place, fadeTimes, sending, programs } = state;
  return {
    ...AT_REST,
    seq,
    place,
    set: set && { set: set.set, entry: set.entry, stop: set.stop, since: now, began: seconds(now - (was - set.began)) },
    fadeTimes,
    sending,
    programs,
    song: song && {
      id: song.id,
      playing: false,
      songTime: songTimeAt(song, was),
      at: now,
      rate: 1,
      since: now,
      ...(song.unlit === undefined ? {} : { unlit: now }),
    },
    standing: state.standing
      .filter((one) => isOn(one, was) && !one.holders)
      .map(({ look, presses, from }) => ({
        look,
        on: true,
        ramp: steady(1),
        since: now,
        beat: beats(0),
        ...(presses ? { presses: { count: presses.count, beat: beats(0) } } : {}),
        ...(from === undefined ? {} : { from }),
      })),
    hands: state.hands.filter(({ on }) => on).map(({ value }) => ({ value, on: true, ramp: steady(1) })),
    master: steady(state.master.to),
    roleMasters: state.roleMasters.map(({ role, ramp }) => ({ role, ramp: steady(ramp.to) })),
    speed: { ...AT_CLOCK, rate: state.speed.rate },
    blackout: { on: state.blackout.on, ramp: steady(state.blackout.on ? 1 : 0) },
    tempo: { bpm: state.tempo.bpm, at: now, beat: beats(0) },
    held: state.held.filter(({ by, until }) => by === undefined && until === undefined),
    armed: null,
    chosen: [],
  };
}
