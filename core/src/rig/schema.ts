// Lamps, where they hang, which addresses they listen to, and which part they play.

import { z } from 'zod';
import { address, id, universe, type Id } from '../units';

export const Name = z.string().trim().min(1).max(120);
export const idOf = <Kind extends string>() =>
  z
    .string()
    .min(1)
    .max(80)
    .transform((value) => id<Kind>(value));

export const Chroma = z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(0.001).max(1) });

/** What a stretch of a channel does. `from` and `to` are DMX values of the coarse byte, both included. */
export const Range = z.strictObject({
  from: z.number().int().min(0).max(255),
  to: z.number().int().min(0).max(255),
  does: z.enum(['open', 'closed', 'strobe', 'slot', 'nothing']),
  /** Strobe rate in Hz at `from` and at `to`. */
  low: z.number().min(0).max(100).optional(),
  high: z.number().min(0).max(100).optional(),
  /** Which slot of the wheel, from 0 (open). */
  slot: z.number().int().min(0).max(63).optional(),
});
export type Range = z.infer<typeof Range>;

/** One channel of a mode. `attribute` is a GDTF name (DIN SPEC 15800, annex A); `at` lists its places, coarse first. */
export const Channel = z.strictObject({
  attribute: z.string().min(1).max(60),
  at: z.array(z.number().int().min(1).max(512)).min(1).max(3),
  /** Which cell of a multi-cell lamp it belongs to, from 0. Without: the whole lamp. */
  cell: z.number().int().min(0).max(255).optional(),
  /** Where the channel rests, 0…1. */
  home: z.number().min(0).max(1).default(0),
  ranges: z.array(Range).max(128).default([]),
});
export type Channel = z.infer<typeof Channel>;

export const Mode = z.strictObject({ id: idOf<'Mode'>(), name: Name, channels: z.array(Channel).min(1).max(512) });
export type Mode = z.infer<typeof Mode>;

export const LAMP_KINDS = ['dimmer', 'par', 'wash', 'bar', 'strobe', 'moving spot', 'moving wash', 'hazer'] as const;

export const Profile = z.strictObject({
  id: idOf<'Profile'>(),
  maker: Name,
  model: Name,
  label: z.string().trim().min(1).max(6),
  kind: z.enum(LAMP_KINDS),
  /** Full opening angle in degrees. */
  beamAngle: z.number().min(0.5).max(180),
  /** Degrees from one end to the other; 0 for lamps that do not move. */
  panRange: z.number().min(0).max(1080).default(0),
  tiltRange: z.number().min(0).max(360).default(0),
  /** Light output against a common LED par, which is 1. */
  output: z.number().min(0).max(50).default(1),
  colours: z
    .array(z.strictObject({ name: Name, colour: Chroma }))
    .max(64)
    .default([]),
  gobos: z.array(Name).max(64).default([]),
  modes: z.array(Mode).min(1).max(64),
});
export type Profile = z.infer<typeof Profile>;

const metres = z.number().min(-1000).max(1000);
const degrees = z.number().min(-360).max(360);

/**
 * Where and how a lamp hangs. x to the right as the audience sees it, y away from the audience (0 is the front edge
 * of the stage), z up, in metres. Without rotation it points straight down; pitch turns it up-stage (90 is level,
 * 180 straight up), roll then leans it sideways, yaw turns all of it about the vertical, seen from above against the clock.
 */
export const Mount = z.strictObject({
  x: metres,
  y: metres,
  z: metres,
  yaw: degrees.default(0),
  pitch: degrees.default(0),
  roll: degrees.default(0),
});
export type Mount = z.infer<typeof Mount>;

export const Fixture = z.strictObject({
  id: idOf<'Fixture'>(),
  number: z.number().int().min(1).max(99999),
  name: Name,
  profile: idOf<'Profile'>(),
  mode: idOf<'Mode'>(),
  universe: z.number().int().min(1).max(63999).transform(universe),
  address: z.number().int().min(1).max(512).transform(address),
  mount: Mount,
  /** The colour of its gel, for a lamp that cannot change colour. */
  gel: Chroma.optional(),
});
export type Fixture = z.infer<typeof Fixture>;

export const Part = z.strictObject({ id: idOf<'Part'>(), name: Name, tint: z.number().int().min(0).max(7) });
export type Part = z.infer<typeof Part>;

/** Which lamps play a part, in which order. */
export const Casting = z.strictObject({ part: idOf<'Part'>(), fixtures: z.array(idOf<'Fixture'>()).max(2000) });
export type Casting = z.infer<typeof Casting>;

export const Rig = z.strictObject({
  id: idOf<'Rig'>(),
  name: Name,
  fixtures: z.array(Fixture).max(10000),
  casting: z.array(Casting).max(200),
});
export type Rig = z.infer<typeof Rig>;

/** A named point on stage, metres, that moving heads can point at. */
export const Aim = z.strictObject({ id: idOf<'Aim'>(), name: Name, x: metres, y: metres, z: metres });
export type Aim = z.infer<typeof Aim>;
export type AimId = Id<'Aim'>;
