// A show and a rig as flat arrays, ready to be rendered.

import type { LookValue, Position } from '../light';
import type { Sounding, Standing } from '../live';
import type { Envelopes } from '../music/envelopes';
import type { FollowerInput } from './follower-inputs';
import type { Field } from './fields';
import type { LaneProgram } from './lane-program';
import type {
  Head,
  HeadPlan,
  LightMeter,
  Pacing,
  Play,
  SafetyProgram,
  Sheet,
  Struck,
  Timing,
  Track,
  WriterTable,
} from './parts';

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
  readonly inputs: readonly FollowerInput[];
  readonly safety: SafetyProgram;
  /** A look that is on, as it is after what was on before it; undefined where it is gone. */
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
  /** The same of the light that is kept. */
  readonly keptMixedAims: Uint8Array;
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

/** So many clips of one lane may be in the middle of their fades; with more, the lane is taken down clip by clip. */
export const MOST_OVERLAPPING = 16;

/** A value taken by hand as a sheet, and what its followers listen with. */
export type Hand = { readonly sheet: Sheet; readonly inputs: readonly FollowerInput[] };

/** What the followers in some sheets listen with, each once. */
export function inputsIn(sheets: readonly Sheet[]): readonly FollowerInput[] {
  const found = new Set<FollowerInput>();
  for (const { strands } of sheets)
    for (const { motions } of strands) for (const { input } of motions) if (input) found.add(input);
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
