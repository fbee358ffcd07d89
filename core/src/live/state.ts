// The action log reduced: what is on, since when, and on its way to what.

import { z } from 'zod';
import { never } from '../problem';
import { seconds, type Seconds } from '../units';
import { idOf } from '../rig/schema';
import { rampAt, rampOn, steady, type Ramp } from '../light/ramp';
import { tapsWith, tempoOfTaps } from '../time';
import { HeldChannel, type Entry } from './actions';

const Moment = z.number().transform(seconds);
const RampShape = z.strictObject({ from: z.number(), to: z.number(), at: Moment, duration: Moment });

/** A test of bare channels, begun `at`: all of them flashing until `until`, or one after the other. */
const ChannelTest = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('flash'),
    universe: z.number(),
    from: z.number(),
    count: z.number(),
    at: Moment,
    until: Moment,
  }),
  z.strictObject({
    kind: z.literal('walk'),
    universe: z.number(),
    from: z.number(),
    to: z.number(),
    step: Moment,
    at: Moment,
  }),
]);
export type ChannelTest = z.infer<typeof ChannelTest>;

export const LiveState = z.strictObject({
  /** The last entry that went in. */
  seq: z.number().int().min(0),
  /** The song whose light is on: at `songTime` when the conductor's clock read `at`. `since` is when it was started. */
  song: z
    .strictObject({
      id: idOf<'Song'>(),
      playing: z.boolean(),
      songTime: Moment,
      at: Moment,
      rate: z.number(),
      since: Moment,
      /** The screen it is heard from, whose clock counts; none where no screen sounds. */
      sound: z.string().optional(),
    })
    .nullable(),
  /** Looks that are on or fading out, in the order in which they came on. */
  standing: z.array(z.strictObject({ look: idOf<'Look'>(), on: z.boolean(), ramp: RampShape })),
  master: RampShape,
  /** 1 is dark. */
  blackout: z.strictObject({ on: z.boolean(), ramp: RampShape }),
  sending: z.boolean(),
  taps: z.array(Moment),
  /** The free clock: pulses a minute, and a moment at which one falls. */
  tempo: z.strictObject({ bpm: z.number(), at: Moment }),
  /** Bare channels held by hand, in the order of universe and address. */
  held: z.array(HeldChannel),
  test: ChannelTest.nullable(),
});
export type LiveState = z.infer<typeof LiveState>;

/** Before anything was pressed. */
export const AT_REST: LiveState = {
  seq: 0,
  song: null,
  standing: [],
  master: steady(1),
  blackout: { on: false, ramp: steady(0) },
  sending: true,
  taps: [],
  tempo: { bpm: 120, at: seconds(0) },
  held: [],
  test: null,
};

/** A master that is dragged arrives in steps; this long a fade makes them one movement. */
const MASTER_SMOOTHING = seconds(0.04);

/** Where the song is at a moment, in seconds of its music. */
export function songTimeAt(song: NonNullable<LiveState['song']>, at: Seconds): Seconds {
  return song.playing ? seconds(song.songTime + (at - song.at) * song.rate) : song.songTime;
}

/** The state after one more entry. Pure: the same log always gives the same state. */
export function reduced(state: LiveState, entry: Entry): LiveState {
  return { ...next(state, entry), seq: entry.seq };
}

function next(state: LiveState, { action, at }: Entry): LiveState {
  switch (action.type) {
    case 'open-song':
      return {
        ...state,
        song: action.song && { id: action.song, playing: false, songTime: action.from, at, rate: 1, since: at },
      };
    case 'play':
      return {
        ...state,
        song: {
          id: action.song,
          playing: true,
          songTime: action.from,
          at,
          rate: 1,
          since: at,
          ...(action.sound === undefined ? {} : { sound: action.sound }),
        },
      };
    case 'pause':
      if (!state.song) return state;
      return { ...state, song: { ...state.song, playing: false, songTime: songTimeAt(state.song, at), at } };
    case 'seek':
      return state.song ? { ...state, song: { ...state.song, songTime: action.to, at } } : state;
    case 'anchor':
      if (!state.song?.playing) return state;
      return {
        ...state,
        song: {
          ...state.song,
          songTime: action.songTime,
          at: action.at,
          rate: action.rate,
          ...(action.sound === undefined ? {} : { sound: action.sound }),
        },
      };
    case 'look-on':
      return lookTurned(letGoOfStillSong(state), action.look, true, at, action.fade);
    case 'look-off':
      return lookTurned(state, action.look, false, at, action.fade);
    case 'master':
      return { ...state, master: rampOn(state.master, action.level, at, MASTER_SMOOTHING) };
    case 'blackout':
      return {
        ...state,
        blackout: { on: action.on, ramp: rampOn(state.blackout.ramp, action.on ? 1 : 0, at, action.fade) },
      };
    case 'sending':
      return { ...state, sending: action.on };
    case 'tap': {
      const taps = tapsWith(state.taps, at);
      const tapped = tempoOfTaps(taps);
      return { ...state, taps: [...taps], tempo: tapped ?? { bpm: state.tempo.bpm, at } };
    }
    case 'hold-channels':
      return { ...state, held: heldWith(state.held, action.channels) };
    case 'free-channels': {
      const { universe, from = 1, count = 512 } = action;
      const freed = (one: HeldChannel) =>
        universe === null || (one.universe === universe && one.address >= from && one.address < from + count);
      return { ...state, held: state.held.filter((one) => !freed(one)) };
    }
    case 'flash-channels': {
      const { universe, from, count, length } = action;
      return { ...state, test: { kind: 'flash', universe, from, count, at, until: seconds(at + length) } };
    }
    case 'walk-channels': {
      const { universe, from, to, step } = action;
      return { ...state, test: { kind: 'walk', universe, from, to: Math.max(from, to), step, at } };
    }
    case 'end-test':
      return { ...state, test: null };
    default:
      return never(action);
  }
}

/** Later values replace earlier ones of the same channel. */
function heldWith(held: readonly HeldChannel[], more: readonly HeldChannel[]): HeldChannel[] {
  const place = ({ universe, address }: HeldChannel) => universe * 512 + address;
  const all = new Map([...held, ...more].map((one) => [place(one), one]));
  return [...all.values()].sort((a, b) => place(a) - place(b));
}

/** A look chosen by hand while a song stands still is what one wants to see; the song's light comes back with play or seek. */
function letGoOfStillSong(state: LiveState): LiveState {
  return state.song && !state.song.playing ? { ...state, song: null } : state;
}

function lookTurned(
  state: LiveState,
  look: LiveState['standing'][number]['look'],
  on: boolean,
  at: Seconds,
  fade: Seconds,
): LiveState {
  const before = state.standing.find((one) => one.look === look);
  const gone = (one: { on: boolean; ramp: Ramp }) => !one.on && rampAt(one.ramp, at) <= 0;
  const others = state.standing.filter((one) => one.look !== look && !gone(one));
  if (!before && !on) return { ...state, standing: others };
  const turned = { look, on, ramp: rampOn(before?.ramp ?? steady(0), on ? 1 : 0, at, fade) };
  // A look that fades out keeps its place; one that comes on goes on top.
  const standing = before && !on ? state.standing.map((one) => (one === before ? turned : one)) : [...others, turned];
  return { ...state, standing };
}
