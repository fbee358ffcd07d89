// What can be pressed, and the log that keeps the order in which it was.

import { z } from 'zod';
import { beats, seconds } from '../units';
import { PRESSES } from '../light/presses';
import { LookValue } from '../light/schema';
import { LevelBytes, StrokeSizes } from './hearing';
import { NoteStroke } from './notes';
import { idOf } from '../rig/schema';

const Moment = z.number().min(-1e9).max(1e9).transform(seconds);
const Length = z.number().min(0).max(600).transform(seconds);
const Beat = z.number().min(-1e7).max(1e7).transform(beats);
/** Seconds of one beat. */
const Pulse = z.number().min(0.05).max(10).transform(seconds);
export const Rate = z
  .number()
  .min(1 / 16)
  .max(16);
const UniverseNumber = z.number().int().min(1).max(63999);
const Channel = z.number().int().min(1).max(512);

/** `[from, to)`, in seconds of a song's music. Shorter than a tenth of a second nothing can be heard. */
const LoopSpan = z
  .strictObject({ from: Moment, to: Moment })
  .refine(({ from, to }) => to - from >= 0.1, { message: 'a loop must be at least 0.1 s long' });

/** A channel and the DMX value it is held at. */
export const HeldChannel = z.strictObject({
  universe: UniverseNumber,
  address: Channel,
  value: z.number().int().min(0).max(255),
});
export type HeldChannel = z.infer<typeof HeldChannel>;

/** What is said of a look that comes on. */
const coming = {
  look: idOf<'Look'>(),
  fade: Length,
  /** Where the clock stood, in beats, and how long a beat was; without, those of the free clock. */
  beat: Beat.optional(),
  pulse: Pulse.optional(),
  /** How long from now it waits before it comes; it is armed until then. */
  wait: z.number().min(0).max(60).transform(seconds).optional(),
  /** How long it stays once it is in, and how long it then takes to go; without, it stays. */
  hold: Length.optional(),
  out: Length.optional(),
};

export const Action = z.discriminatedUnion('type', [
  /** A song's light at a place, still; null lets go of it. */
  z.strictObject({
    type: z.literal('open-song'),
    song: idOf<'Song'>().nullable(),
    from: Moment,
    /** It is next, and its light is not to be seen yet. */
    unlit: z.boolean().optional(),
  }),
  /** `sound` names the screen it is heard from; none where the one who pressed has no music of it. */
  z.strictObject({
    type: z.literal('play'),
    song: idOf<'Song'>(),
    from: Moment,
    sound: z.string().max(60).optional(),
  }),
  z.strictObject({ type: z.literal('pause') }),
  /** With a fade, the light of the place that is left goes on meanwhile, and gives way. */
  z.strictObject({ type: z.literal('seek'), to: Moment, fade: Length.optional() }),
  /** A stretch of the song that sounds comes again and again, in seconds of its music; null ends that. */
  z.strictObject({ type: z.literal('loop'), loop: LoopSpan.nullable() }),
  /** When the song that sounds comes to `when`, it goes on from `to`, and loops there if wanted. Null takes it back. */
  z.strictObject({
    type: z.literal('jump'),
    jump: z.strictObject({ when: Moment, to: Moment, loop: LoopSpan.optional(), fade: Length.optional() }).nullable(),
  }),
  /** Goes to a stop of a set. What is done there comes with it, in actions of their own. */
  z.strictObject({
    type: z.literal('set-place'),
    set: idOf<'Set'>(),
    entry: idOf<'Entry'>(),
    stop: z.string().min(1).max(200),
    /** The song that is left is taken up again where it would be, if this was a slip. */
    repair: z.boolean().optional(),
  }),
  /** Where the sound really is, from the screen that plays it. */
  z.strictObject({
    type: z.literal('anchor'),
    songTime: Moment,
    at: Moment,
    rate: z.number().min(0.1).max(4).default(1),
    /** Given where this screen takes up the sound. */
    sound: z.string().max(60).optional(),
  }),
  /** A look or a chase comes on: over all others that are on, as far as it sets their lamps. */
  z.strictObject({
    type: z.literal('look-on'),
    ...coming,
    /** Where in a chase to begin, in its beats or seconds. */
    from: z.number().min(0).max(1e6).optional(),
  }),
  /** Goes to a look of a bank: it comes on, and the one that was gone to before goes off with the same fade. */
  z.strictObject({ type: z.literal('go'), bank: idOf<'Bank'>(), ...coming }),
  /** Turns to a bank. Changes no light. */
  z.strictObject({ type: z.literal('bank'), bank: idOf<'Bank'>() }),
  z.strictObject({ type: z.literal('look-off'), look: idOf<'Look'>(), fade: Length, pulse: Pulse.optional() }),
  /**
   * A pad goes down or comes up. What that means is decided here, from what is on: two screens that press at once get
   * one order, and a group never has two on.
   */
  z.strictObject({
    type: z.literal('pad'),
    press: z.enum(PRESSES),
    down: z.boolean(),
    ...coming,
    fadeOut: Length,
    /** Looks of the same group: all of them go off as this one comes on. With `clean`, whatever is on does. */
    group: z.array(idOf<'Look'>()).max(200).optional(),
    clean: z.boolean().optional(),
  }),
  /** Every look that is on goes off, and every note. */
  z.strictObject({ type: z.literal('all-off'), fade: Length }),
  /** A chase that goes by hand moves on by so many steps, back where below 0. */
  z.strictObject({
    type: z.literal('step'),
    look: idOf<'Look'>(),
    by: z.number().int().min(-64).max(64).default(1),
    beat: Beat.optional(),
  }),
  /** How fast waves and chases run against the clock: all of them, or one look. */
  z.strictObject({ type: z.literal('speed'), rate: Rate, look: idOf<'Look'>().optional(), beat: Beat.optional() }),
  /** How long fades take that are begun from now on, against what they say. */
  z.strictObject({ type: z.literal('fade-times'), factor: z.number().min(0).max(16) }),
  z.strictObject({ type: z.literal('role-master'), role: idOf<'Role'>(), level: z.number().min(0).max(1) }),
  /**
   * Taken by hand over everything; one value for each role and pick, or set of lamps. A later one of the same counts.
   * With `only`, whatever else was in hand is given back.
   */
  z.strictObject({
    type: z.literal('hand'),
    values: z.array(LookValue).max(400),
    only: z.boolean().optional(),
    /** Taken for so long, and given back by itself in so many seconds: a burst of haze. */
    hold: Length.optional(),
    out: Length.optional(),
  }),
  /** Roles for what is done next to the chosen ones. Changes no light. */
  z.strictObject({ type: z.literal('choose'), roles: z.array(idOf<'Role'>()).max(200) }),
  /** Gives back what is in hand: of one role, or all. */
  z.strictObject({ type: z.literal('release'), role: idOf<'Role'>().optional(), fade: Length }),
  z.strictObject({ type: z.literal('master'), level: z.number().min(0).max(1) }),
  z.strictObject({ type: z.literal('blackout'), on: z.boolean(), fade: Length.default(seconds(0)) }),
  /**
   * All light stays as it is at this moment, whatever plays and is pressed; masters and blackout go on above it. Let go,
   * what is on by then comes in so many seconds.
   */
  z.strictObject({ type: z.literal('freeze'), on: z.boolean(), fade: Length.default(seconds(0)) }),
  /** Master output: are we sending at all? */
  z.strictObject({ type: z.literal('sending'), on: z.boolean() }),
  /** Notes struck and let go at one moment: what came in within a frame. Without a pulse, that of the free clock. */
  z.strictObject({
    type: z.literal('notes'),
    notes: z.array(NoteStroke).min(1).max(256),
    pulse: Pulse.optional(),
    /** Flashes that may be within a second, where they are limited. */
    most: z.number().int().min(1).max(10).optional(),
  }),
  /** `late`: it was made so long before it came, in seconds. */
  z.strictObject({ type: z.literal('tap'), late: z.number().min(0).max(1).optional() }),
  /** The free clock, typed or from elsewhere: so many beats a minute, and where a beat falls if that is known. */
  z.strictObject({
    type: z.literal('tempo'),
    bpm: z.number().min(30).max(400),
    beat: z.strictObject({ at: Moment, beat: Beat }).optional(),
  }),
  /** Its beats fall so much later, or earlier. */
  z.strictObject({ type: z.literal('nudge'), by: z.number().min(-0.5).max(0.5) }),
  /** A moment of what a screen's microphone hears: loudness in sixteen bands, and how strong the strokes were. */
  z.strictObject({ type: z.literal('heard'), levels: LevelBytes, strokes: StrokeSizes.optional() }),
  /**
   * Bare channels held by hand over everything, whatever is patched there. With `check`, only as long as the screen
   * that holds them is there: for a rig check, or lamps lit to be found.
   */
  z.strictObject({
    type: z.literal('hold-channels'),
    channels: z.array(HeldChannel).min(1).max(2048),
    check: z.boolean().optional(),
    /** For so long, and let go by itself: an act of a lamp. It goes out in a blackout too. */
    length: z.number().min(0.1).max(60).transform(seconds).optional(),
  }),
  /** Something that hurts by accident is armed: a second press within `length` does it. Null disarms. */
  z.strictObject({ type: z.literal('arm'), what: z.string().max(120).nullable(), length: Length.optional() }),
  /** Lets go of them: of a stretch of one universe, of all of it, or of all; with `over`, of those alone whose time is over. */
  z.strictObject({
    type: z.literal('free-channels'),
    universe: UniverseNumber.nullable(),
    from: Channel.optional(),
    count: z.number().int().min(1).max(512).optional(),
    over: z.boolean().optional(),
  }),
  /** All of these channels to full and to nothing in turn, twice a second. */
  z.strictObject({
    type: z.literal('flash-channels'),
    universe: UniverseNumber,
    from: Channel,
    count: z.number().int().min(1).max(512),
    /** These of them alone. */
    only: z.array(Channel).min(1).max(512).optional(),
    length: Length,
  }),
  /** One channel after the other to full; a step of 0 stays on the first. */
  z.strictObject({
    type: z.literal('walk-channels'),
    universe: UniverseNumber,
    from: Channel,
    to: Channel,
    step: z.number().min(0).max(60).transform(seconds),
  }),
  z.strictObject({ type: z.literal('end-test') }),
  /** The stage follows the song this screen looks at, so that one can program by it; null for no screen. */
  z.strictObject({ type: z.literal('program'), screen: z.string().max(60).nullable() }),
  /** A screen has gone: what it held is let go. Only the conductor says so. */
  z.strictObject({ type: z.literal('gone'), screen: z.string().max(60) }),
  /** Another show was put on: what was on of the one before goes. Only the conductor says so. */
  z.strictObject({ type: z.literal('show-on'), show: z.string().max(80) }),
]);
export type Action = z.infer<typeof Action>;

/** One line of the action log. `at` is the conductor's clock in seconds; `seq` counts from 1 without gaps. */
export const Entry = z.strictObject({
  seq: z.number().int().min(1),
  at: Moment,
  who: z.string().min(1).max(60),
  action: Action,
});
export type Entry = z.infer<typeof Entry>;
