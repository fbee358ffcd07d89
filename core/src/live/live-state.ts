// What is on, since when, and on its way to what: the state that the log is reduced to.

import { z } from 'zod';
import { steady } from '../light/ramp';
import { LookValue } from '../light/schema';
import { idOf } from '../rig/schema';
import { beats, seconds, type Id } from '../units';
import { HeldChannel } from './actions';
import { Hearing } from './hearing';
import { Sounding } from './notes';
import { AT_CLOCK } from './run';

const Moment = z.number().transform(seconds);
const RunShape = z.strictObject({ rate: z.number(), from: z.number(), to: z.number() });
const way = { from: z.number(), to: z.number(), at: Moment, duration: Moment };
const RampShape = z.strictObject({ ...way, before: z.strictObject(way).optional() });

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
    only: z.array(z.number()).optional(),
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
  /** It is paused, and from then on not what one sees: a look was chosen by hand. Before, `true` stood for always. */
  unlit: z.union([z.literal(true).transform(() => seconds(0)), Moment]).optional(),
  /** The screen it is heard from, whose clock counts; none where no screen sounds. */
  sound: z.string().optional(),
  /** A stretch that comes again and again; and where it goes on from another place. See `songTimeAt`. */
  loop: Span.optional(),
  jump: z.strictObject({ when: Moment, to: Moment, loop: Span.optional(), fade: Moment.optional() }).optional(),
  /** The place it has jumped away from, whose light still fades: see `leftAt`. */
  left: z.strictObject({ songTime: Moment, at: Moment, fade: Moment }).optional(),
});

/** What gives light by itself: all but what lies above it, masters, blackout and bare channels. */
const lit = {
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
  /** What is in hand, or fading out of it; later ones over earlier ones. */
  hands: z.array(z.strictObject({ value: LookValue, on: z.boolean(), ramp: RampShape })),
  /** Speed of waves and chases against the clock. */
  speed: RunShape,
  /** Notes that sound, the oldest first. */
  sounding: z.array(Sounding),
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
};
const LitShape = z.strictObject(lit);
export type Lit = z.infer<typeof LitShape>;

export const LiveState = z.strictObject({
  /** The last entry that went in. */
  seq: z.number().int().min(0),
  ...lit,
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
  master: RampShape,
  roleMasters: z.array(z.strictObject({ role: idOf<'Role'>(), ramp: RampShape })),
  /** Scales the fades that are begun. */
  fadeTimes: z.number(),
  /** 1 is dark. */
  blackout: z.strictObject({ on: z.boolean(), ramp: RampShape }),
  sending: z.boolean(),
  taps: z.array(Moment),
  /** How often each hit was struck, and when notes flashed within the last second. */
  struck: z.record(z.string(), z.number()),
  flashes: z.array(Moment),
  /** Light that was frozen `at` a moment: all of it shows while the ramp is at 1, none at 0. */
  frozen: z.strictObject({ lit: LitShape, at: Moment, ramp: RampShape }).nullable().default(null),
  /** Bare channels held by hand, in the order of universe and address; `by` a screen that has to be there for it, `until` when it is let go. */
  held: z.array(HeldChannel.extend({ by: z.string().optional(), until: Moment.optional() })),
  /** Roles that are chosen for what is done next. */
  chosen: z.array(idOf<'Role'>()).default([]),
  /** What a second press would do until a moment. */
  armed: z.strictObject({ what: z.string(), until: Moment }).nullable().default(null),
  test: ChannelTest.nullable(),
  /** The screen whose song the stage follows. */
  programs: z.string().nullable(),
});
export type LiveState = z.infer<typeof LiveState>;

/** Named as the screen that sounds while songs go by a DJ player: no screen is called so, and none makes a sound of its own. */
export const PLAYER_SOUNDS = 'DJ player';

/** Who presses, where gear is plugged into the computer that conducts. */
export const GEAR = 'pedals';
/** And where a program in the network says what to do, without a control. */
export const OVER_OSC = 'OSC';
/** What the timetable does goes into the log under this name. */
export const BY_THE_CLOCK = 'Timetable';
export const isGear = (who: string): boolean => who === GEAR || who === OVER_OSC || who === BY_THE_CLOCK;

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
  frozen: null,
  hearing: null,
  tempo: { bpm: 120, at: seconds(0), beat: beats(0) },
  held: [],
  chosen: [],
  armed: null,
  test: null,
  programs: null,
};

/** A song that plays with nothing else on, so that the conductor's clock reads the song's own time. */
export function playedAlone(song: Id<'Song'>): LiveState {
  const zero = seconds(0);
  return { ...AT_REST, song: { id: song, playing: true, songTime: zero, at: zero, rate: 1, since: seconds(-60) } };
}
