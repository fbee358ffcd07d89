// Lamps, where they hang, which addresses they listen to, and which role they play.

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

const ImageData = z.string().regex(/^data:image\/(jpeg|png|webp);base64,/, 'an image is needed');

/** What a stretch of a channel makes the lamp do. */
export const DOES = [
  'open',
  'closed',
  'strobe',
  'slot',
  'rotate',
  'index',
  'shake',
  'level',
  'reset',
  'lamp on',
  'lamp off',
  'nothing',
] as const;

/** A stretch of a channel. `from` and `to` are DMX values of the coarse byte, both included. */
export const Range = z.strictObject({
  from: z.number().int().min(0).max(255),
  to: z.number().int().min(0).max(255),
  /** What the maker calls it. */
  name: z.string().trim().max(80).optional(),
  does: z.enum(DOES),
  /** What `from` and `to` mean: Hz of a strobe or a shake, rpm of a rotation (below 0 the other way), degrees of an index. */
  low: z.number().min(-10000).max(10000).optional(),
  high: z.number().min(-10000).max(10000).optional(),
  /** Which slot of the wheel, from 0 (open). */
  slot: z.number().int().min(0).max(63).optional(),
  /** Seconds for which an act that hurts by accident (reset, lamp on or off) must be sent before the lamp obeys. */
  hold: z.number().min(0).max(60).optional(),
});
export type Range = z.infer<typeof Range>;

/** One channel of a mode. `attribute` is a GDTF name (DIN SPEC 15800, annex A); `at` lists its places, coarse first. */
export const Channel = z.strictObject({
  attribute: z.string().trim().min(1).max(60),
  /** What the maker calls it. */
  name: z.string().trim().max(80).optional(),
  at: z.array(z.number().int().min(1).max(512)).min(1).max(3),
  /** Which cell of a multi-cell lamp it belongs to, from 0. Without: the whole lamp. */
  cell: z.number().int().min(0).max(255).optional(),
  /** Where the channel rests, 0…1; null leaves it alone: 0 goes out, and what an input brings comes through. */
  home: z.number().min(0).max(1).nullable().default(0),
  /** What it takes when the lamp is lit for a test; null leaves it alone. */
  test: z.number().min(0).max(1).nullable().optional(),
  /** What it takes while the stage is blacked out; null or nothing leaves it alone. */
  dark: z.number().min(0).max(1).nullable().optional(),
  /** Jumps instead of fading; without, as is usual for its attribute. */
  snap: z.boolean().optional(),
  /** Whether its level follows grand master and blackout; it does unless said otherwise. */
  masters: z.boolean().optional(),
  ranges: z.array(Range).max(128).default([]),
});
export type Channel = z.infer<typeof Channel>;

/** The order of `channels` is the user's: the order in which they are shown. Their places are in `at`. */
export const Mode = z.strictObject({
  id: idOf<'Mode'>(),
  name: Name,
  channels: z.array(Channel).min(1).max(512),
  /** What must be set on the lamp's own menu beside its address. */
  menu: z.string().trim().max(200).optional(),
});
export type Mode = z.infer<typeof Mode>;

export const LAMP_KINDS = ['dimmer', 'par', 'wash', 'bar', 'strobe', 'moving spot', 'moving wash', 'hazer'] as const;

/** How a gobo breaks the light up, as far as a small picture can hint at it. */
export const PATTERNS = ['open', 'dots', 'rays', 'bars', 'waves', 'rings', 'net', 'leaves'] as const;
export const Gobo = z.strictObject({ name: Name, pattern: z.enum(PATTERNS) });
export type Gobo = z.infer<typeof Gobo>;

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
  watts: z.number().min(0).max(20000).optional(),
  /** Slots of the colour wheel; a split one has its second half's colour too. */
  colours: z
    .array(z.strictObject({ name: Name, colour: Chroma, second: Chroma.optional() }))
    .max(64)
    .default([]),
  gobos: z.array(Gobo).max(64).default([]),
  /** Measured colours of emitters; the usual ones count for those not named. */
  emitters: z
    .array(z.strictObject({ attribute: z.string().min(1).max(60), colour: Chroma }))
    .max(24)
    .default([]),
  /** Strobe by level where the lamp has no shutter of its own. */
  strobesByLevel: z.boolean().default(true),
  modes: z.array(Mode).min(1).max(64),
  /** A small photo or drawing of one's own, as a data URL. */
  picture: ImageData.max(60_000).optional(),
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

/** Where a head may turn, degrees from the middle of its ranges. */
export const Limits = z.strictObject({
  panFrom: z.number().min(-540).max(540),
  panTo: z.number().min(-540).max(540),
  tiltFrom: z.number().min(-180).max(180),
  tiltTo: z.number().min(-180).max(180),
});
export type Limits = z.infer<typeof Limits>;

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
  /** Up to six letters on the plan in place of its number. */
  label: z.string().trim().min(1).max(6).optional(),
  /** The MIDI note that hits it, 0…127. */
  note: z.number().int().min(0).max(127).optional(),
  /** Ignores followers of sound. */
  deaf: z.boolean().optional(),
  /** Stands outside the grand master, or outside blackout. */
  freeOfMaster: z.boolean().optional(),
  freeOfBlackout: z.boolean().optional(),
  /** What it draws, where it differs from its type, and the circuit it hangs on. */
  watts: z.number().min(0).max(20000).optional(),
  circuit: z.string().trim().max(20).optional(),
  remark: z.string().trim().max(400).optional(),
  /** As set in its menu, or as its motors turn. */
  panInvert: z.boolean().optional(),
  tiltInvert: z.boolean().optional(),
  swapPanTilt: z.boolean().optional(),
  /** Degrees from the middle that it must not leave. */
  limits: Limits.optional(),
  /** Its mount was found or confirmed by looking at its beam. */
  directed: z.boolean().optional(),
});
export type Fixture = z.infer<typeof Fixture>;

export const Role = z.strictObject({ id: idOf<'Role'>(), name: Name, tint: z.number().int().min(0).max(7) });
export type Role = z.infer<typeof Role>;

/** Which lamps play a role, in which order. */
export const Casting = z.strictObject({ role: idOf<'Role'>(), fixtures: z.array(idOf<'Fixture'>()).max(2000) });
export type Casting = z.infer<typeof Casting>;

export const SHAPE_KINDS = ['stage', 'riser', 'truss', 'stand', 'curtain', 'bar', 'floor'] as const;

/** Something that stands or hangs in the room: its middle seen from above, its size, and how it is turned; metres, degrees. */
export const Shape = z.strictObject({
  id: idOf<'Shape'>(),
  kind: z.enum(SHAPE_KINDS),
  name: Name,
  x: metres,
  y: metres,
  /** Its lower edge. */
  z: metres.default(0),
  width: z.number().min(0.05).max(500),
  depth: z.number().min(0.05).max(500),
  height: z.number().min(0).max(100).default(0),
  turn: degrees.default(0),
});
export type Shape = z.infer<typeof Shape>;

/** A photo or drawing of the room under the plan: its middle and its width in metres. */
export const Picture = z.strictObject({
  data: ImageData.max(600_000),
  x: metres,
  y: metres,
  width: z.number().min(0.5).max(500),
  /** Height over width. */
  aspect: z.number().min(0.05).max(20),
});
export type Picture = z.infer<typeof Picture>;

export const Rig = z.strictObject({
  id: idOf<'Rig'>(),
  name: Name,
  fixtures: z.array(Fixture).max(10000),
  casting: z.array(Casting).max(200),
  shapes: z.array(Shape).max(500).default([]),
  picture: Picture.optional(),
});
export type Rig = z.infer<typeof Rig>;

/** A named point on stage, metres, that moving heads can point at. */
export const Aim = z.strictObject({ id: idOf<'Aim'>(), name: Name, x: metres, y: metres, z: metres });
export type Aim = z.infer<typeof Aim>;
export type AimId = Id<'Aim'>;
