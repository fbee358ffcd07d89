// The action log reduced, entry by entry, to what is on.

import { never } from '../problem';
import { rampOn, steady } from '../light/ramp';
import { tapsWith, tempoOfTaps } from '../time';
import { beats, seconds, type Seconds } from '../units';
import type { Entry, HeldChannel } from './actions';
import { frozenWith, stillFrozen } from './frozen';
import { handsTaken, released } from './hands';
import { hearingWith } from './hearing';
import { AT_REST, type LiveState } from './live-state';
import { notesWith } from './notes';
import { comesAt, goneTo, letGoOfStillSong, padded, turnedOff, withoutScreen } from './pads';
import { AT_CLOCK, freeBeat, runAt, runChanged } from './run';
import { placeInSet } from './set-place';
import { anchoredAt, isLit, jumping, loopKept, looped, songAt, songTimeAt, soughtTo } from './song-clock';
import { lookTurned, ownBeat, stepped } from './standing';

/** A master that is dragged arrives in steps; this long a fade makes them one movement. */
const MASTER_SMOOTHING = seconds(0.04);

/** The state after one more entry. Pure: the same log always gives the same state. */
export function reduced(state: LiveState, entry: Entry): LiveState {
  const after = next(state, entry);
  return { ...after, frozen: stillFrozen(after.frozen, entry.at), seq: entry.seq };
}

function next(state: LiveState, { action, at, who }: Entry): LiveState {
  switch (action.type) {
    case 'open-song':
      return {
        ...state,
        song: action.song && {
          id: action.song,
          playing: false,
          songTime: action.from,
          at,
          rate: 1,
          since: at,
          ...(action.unlit ? { unlit: at } : {}),
        },
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
          ...loopKept(state.song, action),
        },
      };
    case 'pause':
      return state.song ? { ...state, song: { ...songAt(state.song, at), playing: false } } : state;
    case 'seek':
      return state.song ? { ...state, song: sought(state.song, action, at) } : state;
    case 'loop':
      return state.song ? { ...state, song: looped(songAt(state.song, at), action.loop) } : state;
    case 'jump':
      return state.song?.playing ? { ...state, song: jumping(songAt(state.song, at), action.jump) } : state;
    case 'set-place':
      return { ...state, set: placeInSet(state, action, at) };
    case 'anchor':
      if (!state.song?.playing) return state;
      return {
        ...state,
        song: {
          ...anchoredAt(state.song, action.songTime, action.at),
          rate: action.rate,
          ...(action.sound === undefined ? {} : { sound: action.sound }),
        },
      };
    case 'look-on': {
      const when = comesAt(action, at);
      return lookTurned(letGoOfStillSong(state, when), action, when, at);
    }
    case 'look-off':
      return turnedOff(state, action, at);
    case 'pad':
      return padded(state, action, who, at);
    case 'go':
      return goneTo(letGoOfStillSong(state, comesAt(action, at)), action, at);
    case 'bank':
      return { ...state, place: { ...state.place, bank: action.bank } };
    case 'all-off':
      return state.standing.reduce<LiveState>(
        (left, { look }) => lookTurned(left, { type: 'look-off', look, fade: action.fade }, at),
        { ...state, sounding: [] },
      );
    case 'step':
      return {
        ...state,
        standing: state.standing.map((one) =>
          one.look === action.look ? stepped(one, action.by, ownBeat(state, one, action.beat, at)) : one,
        ),
      };
    case 'speed': {
      const beat = action.beat ?? freeBeat(state, at);
      if (action.look === undefined) return { ...state, speed: runChanged(state.speed, action.rate, beat) };
      const scaled = runAt(state.speed, beat);
      return {
        ...state,
        standing: state.standing.map((one) =>
          one.look === action.look ? { ...one, speed: runChanged(one.speed ?? AT_CLOCK, action.rate, scaled) } : one,
        ),
      };
    }
    case 'fade-times':
      return { ...state, fadeTimes: action.factor };
    case 'role-master': {
      const before = state.roleMasters.find((one) => one.role === action.role);
      const ramp = rampOn(before?.ramp ?? steady(1), action.level, at, MASTER_SMOOTHING);
      const others = state.roleMasters.filter((one) => one.role !== action.role);
      return { ...state, roleMasters: [...others, { role: action.role, ramp }] };
    }
    case 'hand':
      return { ...letGoOfStillSong(state, at), hands: handsTaken(state.hands, action, at) };
    case 'choose':
      return { ...state, chosen: action.roles };
    case 'release':
      return { ...state, hands: released(state.hands, action.role, at, seconds(action.fade * state.fadeTimes)) };
    case 'master':
      return { ...state, master: rampOn(state.master, action.level, at, MASTER_SMOOTHING) };
    case 'blackout':
      return {
        ...state,
        blackout: { on: action.on, ramp: rampOn(state.blackout.ramp, action.on ? 1 : 0, at, action.fade) },
      };
    case 'freeze':
      return { ...state, frozen: frozenWith(state, action, at) };
    case 'sending':
      return { ...state, sending: action.on };
    case 'tap': {
      const made = seconds(at - (action.late ?? 0));
      const taps = tapsWith(state.taps, made);
      const tapped = tempoOfTaps(taps);
      const tempo = tapped ?? { bpm: state.tempo.bpm, at: made };
      // The count goes on, so that what runs over several beats does not start anew with each tap.
      return {
        ...state,
        taps: [...taps],
        tempo: { ...tempo, beat: beats(Math.round(freeBeat(state, tempo.at))), felt: true },
      };
    }
    case 'tempo': {
      // Without a place of its own the clock goes on from where it is.
      const from = action.beat ?? { at, beat: freeBeat(state, at) };
      const felt = action.beat !== undefined || state.tempo.felt === true;
      return { ...state, taps: [], tempo: { bpm: action.bpm, ...from, ...(felt ? { felt } : {}) } };
    }
    case 'nudge':
      return { ...state, tempo: { ...state.tempo, at: seconds(state.tempo.at + action.by) } };
    case 'heard':
      return { ...state, hearing: hearingWith(state.hearing, who, action, at) };
    case 'notes': {
      const pulse = action.pulse ?? 60 / state.tempo.bpm;
      const { sounding, struck, flashes } = notesWith(state, action.notes, pulse, at, who, action.most);
      return { ...letGoOfStillSong(state, at), sounding: [...sounding], struck: { ...struck }, flashes: [...flashes] };
    }
    case 'hold-channels': {
      const { channels, check, length } = action;
      const how = { ...(check ? { by: who } : {}), ...(length === undefined ? {} : { until: seconds(at + length) }) };
      return {
        ...state,
        held: heldWith(
          stillHeld(state.held, at),
          channels.map((one) => ({ ...one, ...how })),
        ),
      };
    }
    case 'arm': {
      const { what, length = seconds(0) } = action;
      return { ...state, armed: what === null ? null : { what, until: seconds(at + length) } };
    }
    case 'free-channels': {
      const { universe, from = 1, count = 512, over } = action;
      if (over) return { ...state, held: stillHeld(state.held, at) };
      const freed = (one: HeldChannel) =>
        universe === null || (one.universe === universe && one.address >= from && one.address < from + count);
      return { ...state, held: stillHeld(state.held, at).filter((one) => !freed(one)) };
    }
    case 'flash-channels': {
      const { type: _, length, ...channels } = action;
      return { ...state, test: { kind: 'flash', by: who, ...channels, at, until: seconds(at + length) } };
    }
    case 'walk-channels': {
      const { universe, from, to, step } = action;
      return { ...state, test: { kind: 'walk', by: who, universe, from, to: Math.max(from, to), step, at } };
    }
    case 'end-test':
      return { ...state, test: null };
    case 'program':
      return { ...state, programs: action.screen };
    case 'gone':
      return withoutScreen(state, action.screen, at);
    case 'show-on':
      return {
        ...state,
        song: null,
        standing: [],
        set: null,
        place: AT_REST.place,
        hands: [],
        chosen: [],
        roleMasters: [],
        sounding: [],
        struck: {},
        held: [],
        test: null,
        frozen: null,
      };
    default:
      return never(action);
  }
}

type Held = LiveState['held'][number];

/** Without those whose time is over. */
export const stillHeld = (held: readonly Held[], at: Seconds): Held[] =>
  held.filter(({ until }) => until === undefined || at < until);

/** Later values replace earlier ones of the same channel. */
function heldWith(held: readonly Held[], more: readonly Held[]): Held[] {
  const place = ({ universe, address }: Held) => universe * 512 + address;
  const all = new Map([...held, ...more].map((one) => [place(one), one]));
  return [...all.values()].sort((a, b) => place(a) - place(b));
}

type Song = NonNullable<LiveState['song']>;

/** Sought, with a fade from where it was if its light was on. */
function sought(song: Song, { to, fade }: Extract<Entry['action'], { type: 'seek' }>, at: Seconds): Song {
  const from = songTimeAt(song, at);
  const there = { ...soughtTo(litAgain(song), to), at };
  return fade && isLit(song, at) ? { ...there, left: { songTime: from, at, fade } } : there;
}

function litAgain<Song extends { readonly unlit?: Seconds | undefined }>({
  unlit: _,
  ...song
}: Song): Omit<Song, 'unlit'> {
  return song;
}
