// Looks and chases: what the roles of a show should do, without a word about channels.

import { z } from 'zod';
import { beats } from '../units';
import { Chroma, DOES, Name, idOf } from '../rig/schema';
import { DRUMS } from '../music/drums';
import { drive } from './drive';
import { Follower } from './follow';
import { Pick } from './places';
import { Wave } from './wave';

/** Where heads point: a named aim, or pan and tilt in degrees from the middle. */
export const AimValue = z.union([
  z.strictObject({ aim: idOf<'Aim'>() }),
  z.strictObject({ pan: z.number().min(-540).max(540), tilt: z.number().min(-180).max(180) }),
]);
export type AimValue = z.infer<typeof AimValue>;

/**
 * What any other attribute should do: its whole channel as 0…1, a range by what it does (with a slot, or the physical
 * value it should have: Hz, rpm, degrees), or a range by the name the lamp's type gives it.
 */
export const Setting = z.union([
  z.number().min(0).max(1),
  z.strictObject({
    does: z.enum(DOES),
    slot: z.number().int().min(0).max(63).optional(),
    at: z.number().min(-10000).max(10000).optional(),
  }),
  z.strictObject({ range: z.string().trim().min(1).max(80) }),
]);
export type Setting = z.infer<typeof Setting>;

const FadeBeats = z.number().min(0).max(256).transform(beats);

/** Own times of what is said, in place of the look's. */
export const Times = z.strictObject({ in: FadeBeats.optional(), out: FadeBeats.optional() });
export type Times = z.infer<typeof Times>;

const Unit = z.number().min(0).max(1);

/** The attributes that have a word of their own; all others are told by `more`. */
export const ASPECTS = ['level', 'colour', 'aim', 'strobe', 'gobo', 'zoom', 'haze'] as const;
export type Aspect = (typeof ASPECTS)[number];

const aspects = {
  /** 0…1 */
  level: drive(Unit).optional(),
  colour: drive(Chroma).optional(),
  aim: drive(AimValue).optional(),
  /** Flashes a second; 0 is steady. */
  strobe: drive(z.number().min(0).max(30)).optional(),
  /** Slot of the gobo wheel; 0 is open. */
  gobo: drive(z.number().int().min(0).max(63)).optional(),
  /** 0 narrow … 1 wide */
  zoom: drive(Unit).optional(),
  /** 0…1 */
  haze: drive(Unit).optional(),
};

/** What is said to lamps, whichever they are. */
export const LampsDo = z.strictObject(aspects);
export type LampsDo = z.infer<typeof LampsDo>;

/** What one role, or some of its places, or bare lamps do in a look. What is left out is left alone. */
export const LookValue = z
  .strictObject({
    role: idOf<'Role'>().optional(),
    /** Which places of the role; without: all. */
    pick: Pick.optional(),
    /** Lamps by themselves, where no role is meant. They are known to one room only. */
    lamps: z.array(idOf<'Fixture'>()).min(1).max(2000).optional(),
    ...aspects,
    /** Any other attribute by its GDTF name: single emitters, a wheel's slot, focus, iris, frost, prism, a shutter held shut. */
    more: z.record(z.string().min(1).max(60), drive(Setting)).optional(),
    waves: z.array(Wave).max(16).optional(),
    followers: z.array(Follower).max(16).optional(),
    times: Times.optional(),
  })
  .refine((value) => (value.role === undefined) !== (value.lamps === undefined), 'either a role or lamps are needed');
export type LookValue = z.infer<typeof LookValue>;

/** The families in which attributes are timed and stored together. */
export const FAMILIES = ['level', 'colour', 'aim', 'beam', 'rate', 'other'] as const;

const Snaps = z.record(z.string().min(1).max(60), z.boolean());

const labels = {
  /** A colour to find it by: one of the eight tints of roles and sections. */
  tint: z.number().int().min(0).max(7).optional(),
  folder: z.string().trim().min(1).max(60).optional(),
};

const playable = {
  id: idOf<'Look'>(),
  number: z.number().int().min(1).max(9999),
  name: Name,
  fadeIn: FadeBeats,
  fadeOut: FadeBeats,
  /** Stays on when a song starts. */
  keep: z.boolean().default(false),
  /** Turns other looks off first. */
  clean: z.boolean().optional(),
  /** Whether attributes jump when the fade begins, by name; without, as the lamp's type says. */
  snaps: Snaps.optional(),
  ...labels,
};

export const Look = z.strictObject({
  ...playable,
  /** Beats it stays once it is in; then it goes out by itself. */
  hold: z.number().min(0).max(4096).transform(beats).optional(),
  /** Fade times of single families, and of single attributes by name, which come before those of their family. */
  times: z.record(z.string().min(1).max(60), Times).optional(),
  values: z.array(LookValue).max(400),
});
export type Look = z.infer<typeof Look>;

const StepTime = z.number().min(0).max(4096);

/** A step of a chase: a look, or values of its own. First it fades, then it holds. */
export const Step = z.strictObject({
  id: idOf<'Step'>(),
  look: idOf<'Look'>().optional(),
  values: z.array(LookValue).max(200).default([]),
  fade: StepTime,
  hold: StepTime,
  /** Scales the levels of the step. */
  level: Unit.default(1),
  /** Whether attributes jump as the step comes, by name; what is left out does as the chase says. */
  snaps: Snaps.optional(),
});
export type Step = z.infer<typeof Step>;

export const DIRECTIONS = ['forward', 'back', 'bounce', 'random'] as const;
/** What moves a chase on: beats of the clock, seconds, or a press or a drum stroke for each step (fades count in beats). */
export const PACES = ['beats', 'seconds', 'hand', 'sound'] as const;

/** Steps that follow one another. A chase can be used wherever a look can, and shares its ids. */
export const Chase = z.strictObject({
  ...playable,
  pace: z.enum(PACES),
  /** Which strokes move it on where it goes by sound; without, the kick's. */
  drum: z.enum(DRUMS).optional(),
  direction: z.enum(DIRECTIONS).default('forward'),
  /** How often it runs through; 0 is for ever. */
  loops: z.number().int().min(0).max(10000).default(0),
  seed: z.number().int().min(0).max(1e6).default(0),
  steps: z.array(Step).max(256),
});
export type Chase = z.infer<typeof Chase>;
