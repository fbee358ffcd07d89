// What a program is made of: types that know nothing of how they are made.

import type { Mixer } from '../colour';
import type { Chase, Course, Hit, MoveShape, strikeOf, WaveShape } from '../light';
import type { Drum } from '../music/drums';
import type { Amounts, Fixture, Mode, Mount, Profile, Role } from '../rig';
import type { FollowerInput } from './follower-inputs';
import type { Field } from './fields';

/** Room for the emitters of one head. */
export const MIX = 8;

/** So many heads, or so many of their channels, are looked at between two breaths of a compile: less than a millisecond. */
export const HEADS_AT_ONCE = 64;
export const ROWS_AT_ONCE = 1000;

/** In how many steps the slots of a colour wheel on the way from one colour to another are looked up. */
export const SLOT_STEPS = 24;

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
  readonly input: FollowerInput | null;
  /** The lamps fill up one after the other. */
  readonly meter: boolean;
  /** By row: 1 where the lamp hears nothing and stays as it rests. */
  readonly deaf: Uint8Array;
  /** Which of the field's numbers it moves. */
  readonly column: number;
  /** Goes by seconds, not by beats. */
  readonly timed: boolean;
  /**
   * Of a wave: turns a beat or a second, and where in its turn it is at 0. In an array, as `from` and `to` are, so that a frame
   * puts no number on the heap.
   */
  readonly turning: Float64Array;
  /** By row: how far behind in turns, and whose lamp it is. */
  readonly behind: Float64Array;
  readonly ranks: Int32Array;
  readonly add: boolean;
  readonly width: number;
  readonly points: Float64Array;
  readonly seed: number;
  /**
   * At low and at high: the number, the degrees of hue, or OKLab. Of a wheel `from` holds, by row, the slots on the way,
   * `SLOT_STEPS` each; of a figure `from` holds the signs of a mirrored one, by row, and `to` its width and height.
   */
  readonly from: Float64Array;
  readonly to: Float64Array;
};

/** What one look says to some heads in one field. Heads rise; each is set by one strand of a field only. */
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
  /** By field: 1 where it sets every head that any look or chase sets. */
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

/**
 * How one head's numbers become bytes. `whole` is the dimmer before all cells of a lamp: it stays open, the cells dim.
 * `effect` is what a lamp that nothing dims makes by itself, and so its light.
 */
export type ChannelKind =
  | 'rest'
  | 'dimmer'
  | 'whole'
  | 'emitter'
  | 'direct'
  | 'effect'
  | 'filter'
  | 'hue'
  | 'saturation'
  | 'warmth'
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
  /** Which emitter of the mix; full range in degrees; 1 of an emitter outside the mix that follows the level; or 0. */
  readonly param: number;
  readonly home: number;
  /** Pan and tilt: degrees it must stay within; else the whole of it. */
  readonly low: number;
  readonly high: number;
  /** Of a level, an emitter, a filter, zoom and haze: where its amounts lie; null for all of the channel. */
  readonly amounts: Amounts | null;
  /** Whether its level goes through grand master and blackout. */
  readonly masters: boolean;
  /** 0…1 while the stage is blacked out; -1 leaves it alone. */
  readonly dark: number;
  /** DMX value for each slot of a wheel. */
  readonly slots: Float64Array;
  /**
   * Shutter: DMX open, and the strobe range as DMX from, to and Hz low, high (-1 where it has none); then where it is
   * closed while the lamp has no level, -1 where something else dims it.
   */
  readonly shutter: Float64Array;
  /** The field in which a look may set this channel by its name; null where none may. */
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

/** What a note that sounds asks of the lamps. */
export type Struck = {
  readonly sheet: Sheet;
  readonly hit: Hit;
  readonly kit: string;
  readonly strike: ReturnType<typeof strikeOf>;
  /** 0…1, by velocity. */
  readonly strength: number;
  /** Whether it changes enough of the rig's light to be a flash. */
  readonly flashes: boolean;
};

/** The channels of all heads that make light: those of head i are the rows `[starts[i], starts[i + 1])`. */
export type LightMeter = {
  readonly starts: Int32Array;
  readonly kinds: Uint8Array;
  /** Coarse, fine and ultra place by row; -1 where there is none. */
  readonly places: Int32Array;
  /** By row, what an emitter at full gives: linear red, green and blue. */
  readonly given: Float64Array;
  /**
   * By row of a shutter: open, strobe from and to in DMX, lowest and highest Hz; DMX from is -1 where it has none. By row of a
   * wheel: the DMX value of a place that lets no light through, or -1.
   */
  readonly shutters: Float64Array;
  /** By row, where amounts lie; null for all of the channel. */
  readonly amounts: readonly (Amounts | null)[];
  /** By row of a wheel, the DMX value of each slot; by head, the light of each slot, or of a lamp of one colour. */
  readonly slots: readonly Float64Array[];
  readonly colours: readonly Float64Array[];
  /** By head: its share of the rig's light; 1 where it mixes its colour, 2 where it does so by hue and saturation; 1 where its white emitters are all it has. */
  readonly shares: Float64Array;
  readonly mixes: Uint8Array;
  readonly bare: Uint8Array;
  /** By head: 1 where it is a further cell of the lamp before it, whose shutter and dimmer it shares. */
  readonly further: Uint8Array;
  /** All places whose bytes may change light. */
  readonly lit: Int32Array;
};

/** What flash safety knows of a program. */
export type SafetyProgram = {
  /** Flashes a second that may be; Infinity where it is off. */
  readonly most: number;
  /** By head: its share of the rig's light, and the slowest strobe it has, in Hz. */
  readonly shares: Float64Array;
  readonly slowest: Float64Array;
};

/** The channel writers of all heads: those of head i are the rows `[starts[i], starts[i + 1])`. */
export type WriterTable = {
  readonly starts: Int32Array;
  readonly kinds: Uint8Array;
  /** Coarse, fine and ultra place by row, and the range of emitters or degrees: see `ChannelWriter`. */
  readonly places: Int32Array;
  readonly params: Float64Array;
  /** Home, low, high, dark by row. */
  readonly rests: Float64Array;
  readonly masters: Uint8Array;
  /** By row, 1 where amounts lie in a part of the channel; and none, least, most of them: see `Amounts`. */
  readonly partly: Uint8Array;
  readonly amounts: Float64Array;
  readonly slots: readonly Float64Array[];
  readonly shutters: readonly Float64Array[];
  /** A field in which a look may set this channel by its name. */
  readonly owns: readonly (Field | null)[];
};

/** A row of a strand: a head, and which place of how many it has among those meant. */
export type Row = {
  readonly head: number;
  readonly place: number;
  readonly count: number;
  readonly values: readonly number[];
};

/** A curve as arrays: beats, values and the way from each point to the next. */
export type Track = {
  readonly count: number;
  readonly beats: Float64Array;
  readonly values: Float64Array;
  /** Index into `SEGMENTS`. */
  readonly shapes: Uint8Array;
  readonly bends: Float64Array;
};

/**
 * How many beats, and seconds, a lane's waves have gained by a beat on the song's own: the sum of what their speed is
 * above 1. In steps of an eighth of a beat, wider over a very long curve, straight in between; before the first and after
 * the last, as at those.
 */
export type Gains = {
  readonly track: Track;
  /** In beats. */
  readonly step: number;
  readonly first: number;
  readonly count: number;
  readonly beats: Float64Array;
  readonly seconds: Float64Array;
  /** What it goes on by, a beat, behind the last: where the curve holds. */
  readonly on: number;
};

/** What moves the waves of one lane; null where nothing does. */
export type Pacing = { readonly speed: Gains | null; readonly sizes: readonly Track[] };
