// The action log reduced: what is on, since when, and on its way to what.

import { z } from 'zod';
import { never } from '../problem';
import { beats, seconds, type Id, type Seconds } from '../units';
import { idOf } from '../rig/schema';
import { rampOn, steady } from '../light/ramp';
import { tapsWith, tempoOfTaps } from '../time';
import { LookValue } from '../light/schema';
import { HeldChannel, type Action, type Entry } from './actions';
import { Hearing, hearingWith } from './hearing';
import { released, handsWith } from './hands';
import { notesWith, Sounding } from './notes';
import { AT_CLOCK, freeBeat, runAt, runChanged } from './run';
import { placeInSet } from './set-place';
import { jumping, loopKept, looped, songAt, soughtTo } from './song-clock';
import { isOn, lookTurned, ownBeat, stepped } from './standing';

const Moment = z.number().transform(seconds);
const RunShape = z.strictObject({ rate: z.number(), from: z.number(), to: z.number() });
const RampShape = z.strictObject({ from: z.number(), to: z.number(), at: Moment, duration: Moment });

const Span = z.strictObject({ from: Moment, to: Moment });

/** Strokes counted: all of them, and those with room between them. */
const Counted = z.strictObject({ count: z.number(), spaced: z.number() });

/** A test of bare channels, begun `at`: all of them flashing until `until`, or one after the other. */
const ChannelTest = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('flash'),
    by: z.string(),
    universe: z.number(),
    from: z.number(),
    count: z.number(),
    at: Moment,
    until: Moment,
  }),
  z.strictObject({
    kind: z.literal('walk'),
    by: z.string(),
    universe: z.number(),
    from: z.number(),
    to: z.number(),
    step: Moment,
    at: Moment,
  }),
]);
export type ChannelTest = z.infer<typeof ChannelTest>;

const SongState = z.strictObject({
  id: idOf<'Song'>(),
  playing: z.boolean(),
  songTime: Moment,
  at: Moment,
  rate: z.number(),
  since: Moment,
  /** It stands still and is not what one sees: a look was chosen by hand since. */
  unlit: z.boolean().optional(),
  /** The screen it is heard from, whose clock counts; none where no screen sounds. */
  sound: z.string().optional(),
  /** A stretch that comes again and again; and where it goes on from another place. See `songTimeAt`. */
  loop: Span.optional(),
  jump: z.strictObject({ when: Moment, to: Moment, loop: Span.optional() }).optional(),
});

export const LiveState = z.strictObject({
  /** The last entry that went in. */
  seq: z.number().int().min(0),
  /** The song whose light is on: at `songTime` when the conductor's clock read `at`. `since` is when it was started. */
  song: SongState.nullable(),
  /** Looks and chases that are on or fading out, in the order in which they came on. */
  standing: z.array(
    z.strictObject({
      look: idOf<'Look'>(),
      on: z.boolean(),
      ramp: RampShape,
      /** When it came on, by time and by the clock's beats, and how long a beat was then. */
      since: Moment.optional(),
      beat: z.number().transform(beats).optional(),
      pulse: Moment.optional(),
      /** When it goes out by itself, and how long that takes. */
      ends: z.strictObject({ at: Moment, fade: Moment }).optional(),
      /** Steps pressed on so far, and when the last one was, by the clock's beats. */
      presses: z.strictObject({ count: z.number().int(), beat: z.number().transform(beats) }).optional(),
      speed: RunShape.optional(),
      /** Where in a chase it began, in its beats or seconds. */
      from: z.number().optional(),
      /** It came in place of another: the two are mixed, so that nothing dips between them. */
      crossed: z.boolean().optional(),
      /** Screens that hold it down: it goes off when the last of them lets go, or goes. */
      holders: z.array(z.string()).optional(),
      /** What came on before it, the latest last: heads turn the nearest way from there. */
      after: z.array(idOf<'Look'>()).optional(),
      /** Strokes the microphone had counted when it came on. */
      heard: z.strictObject({ kick: Counted, snare: Counted, hat: Counted }).optional(),
    }),
  ),
  /** The stop of a set one is at, since when, when the set was begun, and the place that was left for it. */
  set: z
    .strictObject({
      set: idOf<'Set'>(),
      entry: idOf<'Entry'>(),
      stop: z.string(),
      since: Moment,
      began: Moment,
      left: z.strictObject({ stop: z.string(), song: SongState.nullable(), at: Moment }).optional(),
    })
    .nullable()
    .default(null),
  /** The bank one is in, and the look that was gone to last. */
  place: z.strictObject({ bank: idOf<'Bank'>().nullable(), look: idOf<'Look'>().nullable() }),
  /** What is in hand, or fading out of it; later ones over earlier ones. */
  hands: z.array(z.strictObject({ value: LookValue, on: z.boolean(), ramp: RampShape })),
  master: RampShape,
  roleMasters: z.array(z.strictObject({ role: idOf<'Role'>(), ramp: RampShape })),
  /** Speed of waves and chases against the clock. */
  speed: RunShape,
  /** Scales the fades that are begun. */
  fadeTimes: z.number(),
  /** 1 is dark. */
  blackout: z.strictObject({ on: z.boolean(), ramp: RampShape }),
  sending: z.boolean(),
  taps: z.array(Moment),
  /** Notes that sound, the oldest first, and how often each hit was struck. */
  sounding: z.array(Sounding),
  struck: z.record(z.string(), z.number()),
  /** When notes flashed within the last second. */
  flashes: z.array(Moment),
  /** What a microphone hears; null until one listens. */
  hearing: Hearing.nullable(),
  /** The free clock: pulses a minute, a moment at which one falls, and the number of that one. */
  tempo: z.strictObject({
    bpm: z.number(),
    at: Moment,
    beat: z.number().transform(beats),
    /** Somebody said where the beats fall: by tapping, or a clock from outside. */
    felt: z.boolean().optional(),
  }),
  /** Bare channels held by hand, in the order of universe and address; `by` a screen that has to be there for it. */
  held: z.array(HeldChannel.extend({ by: z.string().optional() })),
  test: ChannelTest.nullable(),
  /** The screen whose song the stage follows. */
  programs: z.string().nullable(),
});
export type LiveState = z.infer<typeof LiveState>;

/** Before anything was pressed. */
export const AT_REST: LiveState = {
  seq: 0,
  song: null,
  standing: [],
  set: null,
  place: { bank: null, look: null },
  hands: [],
  master: steady(1),
  roleMasters: [],
  speed: AT_CLOCK,
  fadeTimes: 1,
  blackout: { on: false, ramp: steady(0) },
  sending: true,
  taps: [],
  sounding: [],
  struck: {},
  flashes: [],
  hearing: null,
  tempo: { bpm: 120, at: seconds(0), beat: beats(0) },
  held: [],
  test: null,
  programs: null,
};

/** A song that plays with nothing else on, so that the conductor's clock reads the song's own time. */
export function playedAlone(song: Id<'Song'>): LiveState {
  const zero = seconds(0);
  return { ...AT_REST, song: { id: song, playing: true, songTime: zero, at: zero, rate: 1, since: seconds(-60) } };
}

/** A master that is dragged arrives in steps; this long a fade makes them one movement. */
const MASTER_SMOOTHING = seconds(0.04);

/** The state after one more entry. Pure: the same log always gives the same state. */
export function reduced(state: LiveState, entry: Entry): LiveState {
  return { ...next(state, entry), seq: entry.seq };
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
          ...(action.unlit ? { unlit: true } : {}),
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
      return state.song ? { ...state, song: { ...soughtTo(litAgain(state.song), action.to), at } } : state;
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
          ...songAt(state.song, action.at),
          songTime: action.songTime,
          at: action.at,
          rate: action.rate,
          ...(action.sound === undefined ? {} : { sound: action.sound }),
        },
      };
    case 'look-on':
    case 'look-off':
      return lookTurned(action.type === 'look-on' ? letGoOfStillSong(state) : state, action, comesAt(action, at));
    case 'pad':
      return padded(state, action, who, at);
    case 'go':
      return goneTo(letGoOfStillSong(state), action, comesAt(action, at));
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
      return { ...letGoOfStillSong(state), hands: handsWith(state.hands, action.values, action.only === true, at) };
    case 'release':
      return { ...state, hands: released(state.hands, action.role, at, seconds(action.fade * state.fadeTimes)) };
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
      const tempo = tapped ?? { bpm: state.tempo.bpm, at };
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
      return { ...letGoOfStillSong(state), sounding: [...sounding], struck: { ...struck }, flashes: [...flashes] };
    }
    case 'hold-channels':
      return {
        ...state,
        held: heldWith(
          state.held,
          action.check ? action.channels.map((one) => ({ ...one, by: who })) : action.channels,
        ),
      };
    case 'free-channels': {
      const { universe, from = 1, count = 512 } = action;
      const freed = (one: HeldChannel) =>
        universe === null || (one.universe === universe && one.address >= from && one.address < from + count);
      return { ...state, held: state.held.filter((one) => !freed(one)) };
    }
    case 'flash-channels': {
      const { universe, from, count, length } = action;
      return { ...state, test: { kind: 'flash', by: who, universe, from, count, at, until: seconds(at + length) } };
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
        roleMasters: [],
        sounding: [],
        struck: {},
        held: [],
        test: null,
      };
    default:
      return never(action);
  }
}

/** When a look comes: now, or when it has waited. */
const comesAt = (action: { readonly wait?: Seconds | undefined } | object, at: Seconds): Seconds =>
  'wait' in action && action.wait !== undefined ? seconds(at + action.wait) : at;

/** Next and previous crossfade from the look they replace. */
function goneTo(
  state: LiveState,
  { type: _, bank, ...coming }: Extract<Action, { type: 'go' }>,
  at: Seconds,
): LiveState {
  const before = state.place.look;
  const leaves =
    before !== null && before !== coming.look && state.standing.some((one) => one.look === before && one.on);
  const off = { type: 'look-off' as const, look: before!, fade: coming.fade, ...(coming.pulse ? { pulse: coming.pulse } : {}) }; // prettier-ignore
  const left = leaves ? lookTurned(state, off, at) : state;
  const on = lookTurned(left, { type: 'look-on', ...coming }, at);
  const mixed = (one: LiveState['standing'][number]) => one.look === coming.look || (leaves && one.look === before);
  return {
    ...on,
    standing: on.standing.map((one) => (mixed(one) ? { ...one, crossed: true } : one)),
    place: { bank, look: coming.look },
  };
}

type Held = LiveState['held'][number];

/** Later values replace earlier ones of the same channel. */
function heldWith(held: readonly Held[], more: readonly Held[]): Held[] {
  const place = ({ universe, address }: Held) => universe * 512 + address;
  const all = new Map([...held, ...more].map((one) => [place(one), one]));
  return [...all.values()].sort((a, b) => place(a) - place(b));
}

/**
 * A look chosen by hand while a song stands still is what one wants to see; the song's light comes back with play or
 * seek. Which song is chosen, and where it stands, stays as it is.
 */
function letGoOfStillSong(state: LiveState): LiveState {
  return state.song && !state.song.playing && !state.song.unlit
    ? { ...state, song: { ...state.song, unlit: true } }
    : state;
}

function litAgain<Song extends { readonly unlit?: boolean | undefined }>({
  unlit: _,
  ...song
}: Song): Omit<Song, 'unlit'> {
  return song;
}

/** What a pad does, by what it is for and what is on. */
function padded(before: LiveState, action: Extract<Action, { type: 'pad' }>, who: string, at: Seconds): LiveState {
  const { press, down, look, fade, fadeOut, pulse, group = [], clean = false } = action;
  const { beat, hold, out } = action;
  const stands = before.standing.find((one) => one.look === look && isOn(one, at));
  const off = (state: LiveState, which: string, length: Seconds, when = at) =>
    lookTurned(
      state,
      { type: 'look-off', look: which as typeof look, fade: length, ...(pulse ? { pulse } : {}) },
      when,
    );
  if (press === 'flash' && !down) return flashLifted(before, look, who, at);
  if (!down) return before;
  if (press === 'stop' || (press === 'toggle' && stands)) return off(before, look, fadeOut);
  const state = letGoOfStillSong(before);
  if (press === 'flash') {
    const lit = lookTurned(state, { type: 'look-on', look, fade: seconds(0), beat, pulse }, at);
    const holders = [...new Set([...(stands?.holders ?? []), who])];
    return { ...lit, standing: lit.standing.map((one) => (one.look === look ? { ...one, holders } : one)) };
  }
  if (stands) return before;
  const leave = state.standing.filter((one) => one.on && one.look !== look && (clean || group.includes(one.look)));
  const when = comesAt(action, at);
  const lit = lookTurned(state, { type: 'look-on', look, fade, beat, pulse, hold, out }, when);
  return leave.reduce((now, one) => off(now, one.look, fade, when), lit);
}

/** A held pad comes up: its look goes off at once, unless somebody else holds it still. */
function flashLifted(state: LiveState, look: string, who: string, at: Seconds): LiveState {
  const one = state.standing.find((standing) => standing.look === look);
  if (!one?.holders?.includes(who)) return state;
  const holders = one.holders.filter((holder) => holder !== who);
  const { holders: _, ...rest } = one;
  const next = holders.length > 0 ? { ...one, holders } : rest;
  const left = { ...state, standing: state.standing.map((standing) => (standing === one ? next : standing)) };
  return holders.length > 0 ? left : lookTurned(left, { type: 'look-off', look: one.look, fade: seconds(0) }, at);
}

/** What a screen held ends with it: pads held down, notes, lamps of a check, a test. What was switched on stays. */
function withoutScreen(state: LiveState, screen: string, at: Seconds): LiveState {
  const held = state.standing.filter(({ holders }) => holders?.includes(screen));
  const lifted = held.reduce((now, { look }) => flashLifted(now, look, screen, at), state);
  return {
    ...lifted,
    sounding: lifted.sounding.map((one) =>
      one.by === screen && one.lifted === undefined ? { ...one, lifted: at } : one,
    ),
    held: lifted.held.filter(({ by }) => by !== screen),
    test: lifted.test?.by === screen ? null : lifted.test,
    programs: lifted.programs === screen ? null : lifted.programs,
  };
}
