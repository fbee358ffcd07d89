import type { Play, Struck, Track } from './parts';
// A song's lanes as arrays.

export type LookLaneProgram = {
  readonly type: 'looks';
  readonly name: string;
  /** Its fader, 0…1. */
  readonly level: number;
  readonly blend: 'highest' | 'replace' | 'add' | 'multiply';
  readonly count: number;
  /** Seconds of the music. */
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** When the fade in is over; and that of the strand with the longest of its own. */
  readonly inUntil: Float64Array;
  readonly allIn: Float64Array;
  /** When the fade out begins; at or after `to` where the next clip takes over. */
  readonly outFrom: Float64Array;
  /** Seconds of one beat where a clip begins: for strands with times of their own. */
  readonly pulse: Float64Array;
  /** 1 where the next clip begins as this one ends: its fade in is this one's fade out. */
  readonly joined: Uint8Array;
  /** Beats at which clips begin. */
  readonly beats: Float64Array;
  /** Null is dark. */
  readonly plays: readonly (Play | null)[];
};

/** Strokes in the order of their times, in seconds of the music. What came too close to others to be let through is not there. */
export type HitLaneProgram = {
  readonly type: 'hits';
  readonly name: string;
  readonly level: number;
  readonly count: number;
  readonly at: Float64Array;
  /** Seconds from the stroke until it is let go, and until another one cuts it off (Infinity: never). */
  readonly lifted: Float64Array;
  readonly choked: Float64Array;
  /** When it is over; and the latest end of it and all before it. */
  readonly ends: Float64Array;
  readonly reach: Float64Array;
  readonly struck: readonly Struck[];
};

export type CurveLaneProgram = {
  readonly type: 'curve';
  readonly name: string;
  readonly track: Track;
  readonly blend: 'scale' | 'add' | 'replace';
  /** What it moves: a field of some heads; of a lane's fader none. */
  readonly field: number;
  readonly heads: Int32Array;
};

export type LaneProgram = LookLaneProgram | HitLaneProgram | CurveLaneProgram;
