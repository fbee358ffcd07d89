// A show and a rig as flat arrays, ready to be rendered.

import type { Mixer } from '../colour';
import type { Fixture, Mode, Mount, Part, Profile } from '../rig';

/** One thing that gives light of its own: a lamp, or one cell of a bar. */
export type Head = {
  readonly fixture: Fixture;
  readonly profile: Profile;
  readonly mode: Mode;
  /** Which cell of how many. */
  readonly cell: number;
  readonly cells: number;
  readonly mount: Mount;
  /** The parts it plays. */
  readonly parts: readonly Part['id'][];
};

/** What one look says to the heads: rows of (head, which groups, numbers). */
export type Sheet = {
  readonly id: string;
  readonly name: string;
  readonly keep: boolean;
  readonly count: number;
  readonly heads: Int32Array;
  /** Bits: 1 level, then one per group. */
  readonly has: Uint16Array;
  readonly values: Float32Array;
};

export type LaneProgram = {
  readonly name: string;
  readonly blend: 'highest' | 'replace' | 'add' | 'multiply';
  readonly count: number;
  /** Seconds of the music. */
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** When the fade in is over. */
  readonly inUntil: Float64Array;
  /** When the fade out begins; at or after `to` where the next clip takes over. */
  readonly outFrom: Float64Array;
  /** 1 where the next clip begins as this one ends: its fade in is this one's fade out. */
  readonly joined: Uint8Array;
  /** Null is dark. */
  readonly sheets: readonly (Sheet | null)[];
};

export type SongProgram = { readonly lanes: readonly LaneProgram[]; readonly duration: number };

/** How one head's numbers become bytes. */
export type ChannelKind =
  'rest' | 'dimmer' | 'emitter' | 'filter' | 'pan' | 'tilt' | 'shutter' | 'gobo' | 'slot' | 'zoom' | 'haze';

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
};

/** Result of `compile`. Scratch space belongs to it, so one program is rendered by one caller at a time. */
export type Program = {
  readonly heads: readonly Head[];
  readonly plans: readonly HeadPlan[];
  /** Universes that have fixtures, rising; universe i fills bytes `[512 i, 512 i + 512)` of a frame. */
  readonly universes: readonly number[];
  readonly looks: ReadonlyMap<string, Sheet>;
  readonly songs: ReadonlyMap<string, SongProgram>;
  /** Fixtures that could not be compiled, and aims that are out of reach, in words. */
  readonly notes: readonly string[];
  /** Heads x groups: 1 where a head jumps in a group that otherwise fades, or the group always jumps. */
  readonly snaps: Uint8Array;
  readonly scratch: Scratch;
};

export type Scratch = {
  readonly values: Float64Array;
  readonly weights: Float64Array;
  readonly laneValues: Float64Array;
  readonly laneWeights: Float64Array;
  readonly lanePresence: Float64Array;
  readonly clipWeights: Float64Array;
  readonly linear: Float64Array;
  readonly mix: Float64Array;
  readonly solve: Float64Array;
};

/** A frame for this program: 512 bytes per universe. */
export function frameFor(program: Program): Uint8Array<ArrayBuffer> {
  return new Uint8Array(program.universes.length * 512);
}

/** The 512 levels of one universe within a frame, shared with it; undefined where no fixture lives there. */
export function levelsOf(program: Program, frame: Uint8Array, universe: number): Uint8Array | undefined {
  const at = program.universes.indexOf(universe);
  return at >= 0 ? frame.subarray(at * 512, at * 512 + 512) : undefined;
}
