// A show and a rig as flat arrays, ready to be rendered.

import type { Mixer } from '../colour';
import type { Chase, Course, LookValue, MoveShape, Position, WaveShape } from '../light';
import type { Fixture, Mode, Mount, Role, Profile } from '../rig';
import type { Sounding, Standing } from '../live';
import type { Drum } from '../music/drums';
import type { Envelopes } from '../music/envelopes';
import type { Ear } from './ears';
import type { Field } from './fields';
import type { Struck } from './kits';
import type { LightMeter } from './light-meter';
import type { LaneProgram, Track } from './lane-program';
import type { Pacing } from './pace';
import type { SafetyProgram } from './safety';
import type { WriterTable } from './write';

/** One thing that gives light of its own: a lamp, or one cell of a bar. */
export type Head = {
  readonly fixture: Fixture;
  readonly profile: Profile;
  readonly mode: Mode;
  /** Which cell of how many. */
  readonly cell: number;
  readonly cells: number;
  readonly mount: Mount;
  /** The roles it plays. */
  readonly roles: readonly Role['id'][];
};

/** One wave or follower on one strand: what it does to each of its rows. */
export type Motion = {
  readonly kind: 'number' | 'hue' | 'colours' | 'slot' | 'figure';
  readonly shape: WaveShape | MoveShape;
  /** Of a follower: what it listens with; null for a wave. */
  readonly ear: Ear | null;
  /** The lamps fill up one after the other. */
  readonly meter: boolean;
  /** By row: 1 where the lamp hears nothing and stays as it rests. */
  readonly deaf: Uint8Array;
  /** Which of the field's numbers it moves. */
  readonly column: number;
  /** Turns a beat, or a second where `timed`. */
  readonly rate: number;
  readonly timed: boolean;
  readonly offset: number;
  /** By row: how far behind in turns, and whose lamp it is. */
  readonly behind: Float64Array;
  readonly ranks: Int32Array;
  readonly low: number;
  readonly high: number;
  readonly add: boolean;
  readonly width: number;
  readonly points: Float64Array;
  readonly seed: number;
  /** OKLab at low and at high; of a wheel, by row, the slots on the way, `SLOT_STEPS` each; signs of a mirrored figure. */
  readonly from: Float64Array;
  readonly to: Float64Array;
};

/** What one look says to some heads in one field. Heads rise; each is spoken to by one strand of a field only. */
export type Strand = {
  /** It moves light, so flash safety may hold its waves back. */
  readonly shines: boolean;
  readonly field: number;
  readonly count: number;
  readonly heads: Int32Array;
  /** `count` rows of the field's width, as they rest, and as waves leave them in this instant. */
  readonly values: Float64Array;
  readonly live: Float64Array;
  /** By row: 1 where the value jumps. */
  readonly snaps: Uint8Array;
  /** Whether any row does. */
  readonly jumps: boolean;
  /** Of aims, by row: 1 where a place is meant that is reached, so that any way there will do. */
  readonly free: Uint8Array;
  /** Own times in beats; -1 for the look's. */
  readonly fadeIn: number;
  readonly fadeOut: number;
  readonly motions: readonly Motion[];
};

/** What one look, one step of a chase or one hand says. */
export type Sheet = {
  readonly name: string;
  readonly strands: readonly Strand[];
  readonly timed: boolean;
  /** By field: 1 where it speaks to every head that any look or chase speaks to. */
  readonly covers: Uint8Array;
  /** What its waves go by, and how closely their flashes lie: see `flashSpanOf`. */
  readonly timing: 'beats' | 'seconds' | 'both';
  readonly span: number;
};

/** A look, or a chase: what can stand, and lie on a lane. */
export type Play = {
  readonly id: string;
  readonly name: string;
  readonly keep: boolean;
  /** Of a look; empty for a chase. */
  readonly sheet: Sheet;
  readonly chase: ChaseProgram | null;
};

export type ChaseProgram = {
  readonly course: Course;
  readonly pace: Chase['pace'];
  readonly drum: Drum;
  readonly sheets: readonly Sheet[];
  readonly levels: Float64Array;
  /** How closely its flashes lie, in its beats or seconds: see `flashSpanOfChase`. */
  readonly span: number;
};

export type SongProgram = {
  /** Lowest first; lanes that are muted, or not solo where others are, are not among them. */
  readonly lanes: readonly LaneProgram[];
  /** By lane, what moves its fader. */
  readonly faders: readonly (readonly Track[])[];
  /** By lane, what makes its waves faster or larger. */
  readonly pacings: readonly Pacing[];
  readonly duration: number;
  /** What its light does when it is over; null where it just ends. */
  readonly ending: {
    readonly then: 'hold' | 'dark' | 'look';
    readonly fade: number;
    readonly play: Play | null;
  } | null;
  /** What can be heard in it; null where its music was not analysed here. */
  readonly envelopes: Envelopes | null;
  /** The tempo map's anchors. */
  readonly anchorBeats: Float64Array;
  readonly anchorTimes: Float64Array;
};

/** How one head's numbers become bytes. `whole` is the dimmer before all cells of a lamp: it stands open, the cells dim. */
export type ChannelKind =
  | 'rest'
  | 'dimmer'
  | 'whole'
  | 'emitter'
  | 'direct'
  | 'filter'
  | 'pan'
  | 'tilt'
  | 'shutter'
  | 'gobo'
  | 'slot'
  | 'zoom'
  | 'haze';

export type ChannelWriter = {
  readonly kind: ChannelKind;
  readonly head: number;
  /** Places in the frame, coarse first; -1 where there is no finer byte. */
  readonly coarse: number;
  readonly fine: number;
  readonly ultra: number;
  /** Which emitter of the mix; full range in degrees; or 0. */
  readonly param: number;
  readonly home: number;
  /** Pan and tilt: degrees it must stay within; else the whole of it. */
  readonly low: number;
  readonly high: number;
  /** Whether its level goes through grand master and blackout. */
  readonly masters: boolean;
  /** 0…1 while the stage is blacked out; -1 leaves it alone. */
  readonly dark: number;
  /** DMX value for each slot of a wheel. */
  readonly slots: Float64Array;
  /** Shutter: DMX open, and the strobe range as DMX from, to and Hz low, high (-1 where it has none). */
  readonly shutter: Float64Array;
  /** The field in which a look may speak to this channel by its name; null where none may. */
  readonly own: Field | null;
};

export type HeadPlan = {
  readonly mixer: Mixer | null;
  /** True where there is no dimmer channel, so that level dims the emitters. */
  readonly dimsEmitters: boolean;
  /** True where there is no shutter, so that a strobe is made by level. */
  readonly strobesByLevel: boolean;
  /** Outside the grand master; outside blackout. */
  readonly freeOfMaster: boolean;
  readonly freeOfBlackout: boolean;
  readonly writers: readonly ChannelWriter[];
  /** Row-major rotation of the mount, its place, and where it may turn; null for heads that do not. */
  readonly turning: {
    readonly rotation: Float64Array;
    readonly place: Float64Array;
    readonly bounds: Float64Array;
  } | null;
};

/** Result of `compile`. Scratch space belongs to it, so one program is rendered by one caller at a time. */
export type Program = {
  readonly heads: readonly Head[];
  readonly plans: readonly HeadPlan[];
  readonly table: WriterTable;
  /** What measures the rig's light in a frame; of a rig, and so the same for as long as that stays as it is. */
  readonly meter: LightMeter;
  /** Universes that have fixtures, rising; universe i fills bytes `[512 i, 512 i + 512)` of a frame. */
  readonly universes: readonly number[];
  /** Looks and chases by id. */
  readonly plays: ReadonlyMap<string, Play>;
  readonly songs: ReadonlyMap<string, SongProgram>;
  /** Fixtures that could not be compiled, and aims that are out of reach, in words. */
  readonly notes: readonly string[];
  /** Fixtures that share channels with another. */
  readonly overlapping: ReadonlySet<string>;
  readonly fields: readonly Field[];
  /** Heads of each role. */
  readonly casts: ReadonlyMap<string, Int32Array>;
  /** A value taken by hand; the same one for the same value. */
  readonly hand: (value: LookValue) => Hand;
  /** All ways of listening that followers of looks and chases have. */
  readonly ears: readonly Ear[];
  readonly safety: SafetyProgram;
  /** What stands as it is after what stood before it; undefined where it is gone. */
  readonly standing: (one: Standing) => Play | undefined;
  /** What a note that sounds asks for. */
  readonly struck: (note: Sounding) => Struck | undefined;
  readonly scratch: Scratch;
};

export type Scratch = {
  /** By head: what role masters leave. */
  readonly masters: Float64Array;
  /** By head: 1 where the aim is a mix of several; in the whole frame, and in the lane being gathered. */
  readonly mixedAims: Uint8Array;
  readonly laneMixedAims: Uint8Array;
  readonly timing: Timing;
  readonly linear: Float64Array;
  /** Heights of a wave, by row of the strand that is being moved. */
  readonly heights: Float64Array;
  /** The emitters of each head as last solved, `MIX` a head, and the OKLab colour they were solved for. */
  readonly mixes: Float64Array;
  readonly mixed: Float64Array;
  /** Places of the channel that is being read back. */
  readonly place: Int32Array;
  readonly turned: Float64Array;
  /** What is on its way to a channel: see `writeHead`. */
  readonly now: Float64Array;
  readonly position: Position;
  /** What the clips after each one on a lane leave of it, as far as they overlap. */
  readonly lefts: Float64Array;
  /** Beats a second of the song that is being laid. */
  pace: number;
  /** Of the lane that is being laid: where its waves are, in beats and seconds, how fast they go and how large they are. */
  run: { beat: number; time: number; speed: number; size: number };
  /** The layer that is being laid: see `Field.shows`. */
  layer: number;
};

/** How far a fade is, for strands with times of their own and for all others. */
export type Timing = {
  /** What counts where a strand has no times: of the rise, and of the fall. */
  rise: number;
  fall: number;
  /** Now; when the rise began, what it goes from and to; when the fall ends (Infinity: none), and a beat's seconds. */
  at: number;
  begin: number;
  from: number;
  to: number;
  end: number;
  pulse: number;
  /** Whether the rise goes by fade-out times: a look on its way out. */
  leaving: boolean;
  /** Scales the whole. */
  scale: number;
};

/** Room for the emitters of one head. */
export const MIX = 8;

/** In how many steps the slots of a colour wheel on the way from one colour to another are looked up. */
export const SLOT_STEPS = 24;

/** So many clips of one lane may be in the middle of their fades; with more, the lane is taken down clip by clip. */
export const MOST_OVERLAPPING = 16;

/** A value taken by hand as a sheet, and what its followers listen with. */
export type Hand = { readonly sheet: Sheet; readonly ears: readonly Ear[] };

/** What the followers in some sheets listen with, each once. */
export function earsIn(sheets: readonly Sheet[]): readonly Ear[] {
  const found = new Set<Ear>();
  for (const { strands } of sheets)
    for (const { motions } of strands) for (const { ear } of motions) if (ear) found.add(ear);
  return [...found];
}

/** The sheets of a look or a chase. */
export const sheetsIn = ({ chase, sheet }: Play): readonly Sheet[] => chase?.sheets ?? [sheet];

/** A frame for this program: 512 bytes per universe. */
export function frameFor(program: Program): Uint8Array<ArrayBuffer> {
  return new Uint8Array(program.universes.length * 512);
}

/** The 512 levels of one universe within a frame, shared with it; undefined where no fixture lives there. */
export function levelsOf(program: Program, frame: Uint8Array, universe: number): Uint8Array | undefined {
  const at = program.universes.indexOf(universe);
  return at >= 0 ? frame.subarray(at * 512, at * 512 + 512) : undefined;
}
