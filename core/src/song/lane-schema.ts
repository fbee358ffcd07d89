// Lanes: the strands of a song. Looks in clips, hits as notes, curves through points.

import { z } from 'zod';
import { beats } from '../units';
import { idOf, Name } from '../rig/schema';
import { FAMILIES } from '../light/schema';

export const Beat = z.number().min(-1e6).max(1e6).transform(beats);
const Unit = z.number().min(0).max(1);

/** The slowest and the fastest that a clip may go. */
export const CLIP_SPEEDS = { least: 0.125, most: 8 } as const;

/** One look on a lane, `[from, to)` in beats. Without a look it is dark: it forces level to zero below it. */
export const Clip = z
  .strictObject({
    id: idOf<'Clip'>(),
    look: idOf<'Look'>().nullable(),
    from: Beat,
    to: Beat,
    /** In beats; without, the look's own. */
    fadeIn: z.number().min(0).max(256).transform(beats).optional(),
    fadeOut: z.number().min(0).max(256).transform(beats).optional(),
    /** How fast its waves and its chase go, of their own pace; 1 where it is left out. */
    speed: z.number().min(CLIP_SPEEDS.least).max(CLIP_SPEEDS.most).optional(),
    /** Scales its levels. */
    level: Unit.optional(),
    /** Degrees by which its colours are turned on the colour circle; white stays white. */
    turn: z.number().min(-180).max(180).optional(),
  })
  .refine((clip) => clip.to > clip.from, 'a clip must end after it starts');
export type Clip = z.infer<typeof Clip>;

export const BLENDS = ['highest', 'replace', 'add', 'multiply'] as const;

/** What every lane has, whatever lies on it. */
const lane = {
  id: idOf<'Lane'>(),
  name: Name,
  /** A lane that is muted does nothing. Where any lane is solo, only such lanes do something. */
  muted: z.boolean().optional(),
  solo: z.boolean().optional(),
};

/** Its fader, 0…1; full where it is left out. */
const level = Unit.optional();

/** So many clips a lane may have. */
export const MOST_CLIPS = 20_000;

/** A lane of looks. Clips are sorted and do not overlap; one that begins where another ends crossfades from it. */
export const LookLane = z.strictObject({
  ...lane,
  type: z.literal('looks'),
  level,
  /** How its levels meet what lies below. */
  blend: z.enum(BLENDS).default('highest'),
  /** Only what its looks say to these roles, and only in these families of attributes; without, all. */
  only: z
    .strictObject({
      roles: z.array(idOf<'Role'>()).min(1).max(200).optional(),
      families: z.array(z.enum(FAMILIES)).min(1).max(FAMILIES.length).optional(),
    })
    .optional(),
  clips: z.array(Clip).max(MOST_CLIPS),
});
export type LookLane = z.infer<typeof LookLane>;

/** A stroke of a kit, and how long its note is held. */
export const Note = z.strictObject({
  id: idOf<'Note'>(),
  at: Beat,
  length: z.number().min(0).max(4096).transform(beats),
  /** MIDI number, which says which hits of the kit answer. */
  note: z.number().int().min(0).max(127),
  velocity: Unit,
});
export type Note = z.infer<typeof Note>;

/** So many notes a lane may have. */
export const MOST_NOTES = 50_000;

/** A lane of hits: one kit, played on one role. Notes are sorted by time. */
export const HitLane = z.strictObject({
  ...lane,
  type: z.literal('hits'),
  level,
  kit: idOf<'Kit'>(),
  role: idOf<'Role'>(),
  notes: z.array(Note).max(MOST_NOTES),
});
export type HitLane = z.infer<typeof HitLane>;

/** How a curve goes from a point to the next: at the end, `off`, it lets the light be until then. */
export const SEGMENTS = ['straight', 'smooth', 'bent', 'hold', 'off'] as const;

/** A point of a curve. Of several at one beat, the last one counts from there on: the curve jumps. */
export const Point = z.strictObject({
  id: idOf<'Point'>(),
  at: Beat,
  /** 0…1 */
  value: Unit,
  /** The way to the next point. */
  shape: z.enum(SEGMENTS).default('straight'),
  /** Of a bent way: above 0 it is late, below 0 early; ±1 at the most. */
  bend: z.number().min(-1).max(1).optional(),
});
export type Point = z.infer<typeof Point>;

/** So many points a curve may have. */
export const MOST_POINTS = 20_000;

/**
 * What a curve moves: an attribute of a role (`zoom`, or one by its GDTF name), all levels, the fader of a lane, or how
 * fast and how large the waves of a lane (null: of all lanes) are; the speed is that of its chases too.
 */
export const CurveTarget = z.discriminatedUnion('on', [
  z.strictObject({ on: z.literal('role'), role: idOf<'Role'>(), attribute: z.string().min(1).max(60) }),
  z.strictObject({ on: z.literal('all') }),
  z.strictObject({ on: z.literal('lane'), lane: idOf<'Lane'>() }),
  z.strictObject({ on: z.literal('speed'), lane: idOf<'Lane'>().nullable() }),
  z.strictObject({ on: z.literal('size'), lane: idOf<'Lane'>().nullable() }),
]);
export type CurveTarget = z.infer<typeof CurveTarget>;

/** How a curve meets what lies below it: it scales it, adds to it (up to full), or takes its place. */
export const CURVE_BLENDS = ['scale', 'add', 'replace'] as const;

/** A lane of one curve. It has a value from each point to the next, and nowhere else. */
export const CurveLane = z.strictObject({
  ...lane,
  type: z.literal('curve'),
  target: CurveTarget,
  blend: z.enum(CURVE_BLENDS).default('scale'),
  points: z.array(Point).max(MOST_POINTS),
});
export type CurveLane = z.infer<typeof CurveLane>;

const Seconds = z.number().min(0).max(60);
const Data = z.number().int().min(0).max(127);
/** 1…16, as people count them. */
const Channel = z.number().int().min(1).max(16);

/** A message that other gear understands (MIDI 1.0, table 1). */
export const MidiMessage = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('program'), channel: Channel, program: Data }),
  z.strictObject({ kind: z.literal('control'), channel: Channel, control: Data, value: Data }),
  z.strictObject({ kind: z.literal('note'), channel: Channel, note: Data, velocity: Data }),
]);
export type MidiMessage = z.infer<typeof MidiMessage>;

/**
 * What is done at a moment. Looks that are started stay on, masters and blackout stay as they are set, until another
 * action of their lane or the end of the song.
 */
export const Deed = z.discriminatedUnion('act', [
  /** A look or a chase comes on, in all its roles or in one of them. */
  z.strictObject({ act: z.literal('start'), look: idOf<'Look'>(), role: idOf<'Role'>().optional() }),
  /** It goes off; null: all that were started here do. */
  z.strictObject({ act: z.literal('stop'), look: idOf<'Look'>().nullable() }),
  /** A master over all lanes, of one role or (null) of all light; 0…1 within so many seconds. */
  z.strictObject({ act: z.literal('master'), role: idOf<'Role'>().nullable(), level: Unit, fade: Seconds }),
  z.strictObject({ act: z.literal('blackout'), on: z.boolean(), fade: Seconds }),
  /** Another song begins. */
  z.strictObject({ act: z.literal('song'), song: idOf<'Song'>() }),
  z.strictObject({ act: z.literal('midi'), message: MidiMessage }),
]);
export type Deed = z.infer<typeof Deed>;

export const LaneAction = z.strictObject({ id: idOf<'LaneAction'>(), at: Beat, does: Deed });
export type LaneAction = z.infer<typeof LaneAction>;

/** So many actions a lane may have. */
export const MOST_ACTIONS = 5000;

/** A lane of things that are done at a moment, sorted by time. */
export const ActionLane = z.strictObject({
  ...lane,
  type: z.literal('actions'),
  level,
  actions: z.array(LaneAction).max(MOST_ACTIONS),
});
export type ActionLane = z.infer<typeof ActionLane>;

export const Lane = z.discriminatedUnion('type', [LookLane, HitLane, CurveLane, ActionLane]);
export type Lane = z.infer<typeof Lane>;

export const MOST_LANES = 256;

/** The lanes of a song that looks can be laid on, in their order. */
export const lookLanes = (song: { readonly lanes: readonly Lane[] }): readonly LookLane[] =>
  song.lanes.filter((one) => one.type === 'looks');

/** The clips of all lanes. */
export const clipsIn = (song: { readonly lanes: readonly Lane[] }): readonly Clip[] =>
  lookLanes(song).flatMap(({ clips }) => clips);

/** Whether anything lies on any lane. */
export const isLit = ({ lanes }: { readonly lanes: readonly Lane[] }): boolean =>
  lanes.some((one) => lyingOn(one).length > 0);

/** What lies on a lane, whatever it is. */
export function lyingOn(one: Lane): readonly (Clip | Note | Point | LaneAction)[] {
  switch (one.type) {
    case 'looks':
      return one.clips;
    case 'hits':
      return one.notes;
    case 'curve':
      return one.points;
    case 'actions':
      return one.actions;
  }
}

/** The lanes that do something: none that is muted and, where one is solo, only such. */
export function playingLanes<One extends Pick<Lane, 'muted' | 'solo'>>(lanes: readonly One[]): readonly One[] {
  const solo = lanes.some((one) => one.solo && !one.muted);
  return lanes.filter((one) => !one.muted && (!solo || one.solo));
}
