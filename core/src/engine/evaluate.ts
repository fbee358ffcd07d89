// What every head should do at one instant: the layers, lowest first. Shared by `render` and `explain`.

import { rampAt } from '../light/ramp';
import { songTimeAt, type LiveState } from '../live/state';
import { clamp, type Seconds } from '../units';
import { COLUMNS, GROUPS, HAS_LEVEL, HOME, LEVEL } from './columns';
import type { LaneProgram, Program, Sheet, SongProgram } from './program';

/** Told of each contribution to one head, in the order in which they are laid on. `weight` is 0…1. */
export type Witness = {
  readonly look: (head: number, row: number, sheet: Sheet, weight: number) => void;
  readonly clip: (head: number, row: number, sheet: Sheet | null, weight: number, lane: LaneProgram) => void;
};

/** How long a song takes to push standing looks aside, and to give them back. */
const SUSPEND_SECONDS = 0.25;

/**
 * Fills `program.scratch.values` (heads x columns): levels before masters, everything else final. Allocates nothing.
 */
export function evaluate(program: Program, live: LiveState, at: Seconds, witness?: Witness): void {
  const { values, weights } = program.scratch;
  values.fill(0);
  weights.fill(0);
  const song = live.song;
  const playing = song ? program.songs.get(song.id) : undefined;
  const songTime = song ? songTimeAt(song, at) : 0;
  const sounding = song !== null && playing !== undefined && song.playing && songTime < playing.duration;
  const suspended = sounding ? clamp((at - song.since) / SUSPEND_SECONDS, 0, 1) : 0;
  layStanding(program, live, at, 1 - suspended, witness);
  if (playing && songTime < playing.duration) laySong(program, playing, songTime, witness);
  takeHome(program);
}

/** How dark blackout makes the stage, 0…1. */
export function blackoutAt(live: LiveState, at: Seconds): number {
  return clamp(rampAt(live.blackout.ramp, at), 0, 1);
}

function layStanding(program: Program, live: LiveState, at: Seconds, left: number, witness?: Witness): void {
  const { values, weights } = program.scratch;
  for (let i = 0; i < live.standing.length; i++) {
    const one = live.standing[i]!;
    const sheet = program.looks.get(one.look);
    if (!sheet) continue;
    const weight = rampAt(one.ramp, at) * (sheet.keep ? 1 : left);
    if (weight <= 0) continue;
    for (let row = 0; row < sheet.count; row++) {
      const head = sheet.heads[row]!;
      if (witness) witness.look(head, row, sheet, weight);
      const has = sheet.has[row]!;
      const from = row * COLUMNS;
      const to = head * COLUMNS;
      if (has & HAS_LEVEL) values[to] = Math.max(values[to]!, sheet.values[from]! * weight);
      for (let g = 0; g < GROUPS.length; g++) {
        if (!(has & (2 << g))) continue;
        const group = GROUPS[g]!;
        const sum = head * GROUPS.length + g;
        const share = program.snaps[sum] ? 1 : weight;
        weights[sum] = weights[sum]! * (1 - share) + share;
        for (let c = group.first; c < group.first + group.count; c++)
          values[to + c] = values[to + c]! * (1 - share) + sheet.values[from + c]! * share;
      }
    }
  }
}

function laySong(program: Program, song: SongProgram, time: number, witness?: Witness): void {
  for (let i = 0; i < song.lanes.length; i++) {
    const lane = song.lanes[i]!;
    const last = lastStarted(lane, time);
    if (last < 0) continue;
    const first = weighClips(lane, last, time, program.scratch.clipWeights);
    if (first > last) continue;
    gatherLane(program, lane, first, last, witness);
    mergeLane(program, lane, darkWeight(program, lane, first, last));
  }
}

/** Index of the last clip that has begun, or -1. */
function lastStarted(lane: LaneProgram, time: number): number {
  let low = -1;
  let high = lane.count - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (lane.from[middle]! <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * Writes how much of the lane each clip has at a moment: the newest first takes its fade-in's share, the one before
 * what is left, and so on back. @returns the first clip that still has a share, or `last + 1`.
 */
function weighClips(lane: LaneProgram, last: number, time: number, out: Float64Array): number {
  let left = 1;
  let k = last;
  for (; k >= 0 && left > 0; k--) {
    if (!lane.joined[k] && time >= lane.to[k]!) break;
    const rise = ramp(time, lane.from[k]!, lane.inUntil[k]!);
    const fall = lane.joined[k] ? 1 : 1 - ramp(time, lane.outFrom[k]!, lane.to[k]!);
    out[k] = left * rise * fall;
    left *= 1 - rise;
  }
  return k + 1;
}

function ramp(time: number, from: number, to: number): number {
  return time >= to ? 1 : time <= from ? 0 : (time - from) / (to - from);
}

function darkWeight(program: Program, lane: LaneProgram, first: number, last: number): number {
  let dark = 0;
  for (let k = first; k <= last; k++) if (!lane.sheets[k]) dark += program.scratch.clipWeights[k]!;
  return dark;
}

/** Adds up the clips of one lane; their shares sum to at most 1. */
function gatherLane(program: Program, lane: LaneProgram, first: number, last: number, witness?: Witness): void {
  const { laneValues, laneWeights, lanePresence, clipWeights } = program.scratch;
  laneValues.fill(0);
  laneWeights.fill(0);
  lanePresence.fill(0);
  for (let k = first; k <= last; k++) {
    const weight = clipWeights[k]!;
    const sheet = lane.sheets[k]!;
    if (witness && !sheet) for (let h = 0; h < program.heads.length; h++) witness.clip(h, 0, null, weight, lane);
    if (!sheet || (weight <= 0 && k !== last)) continue;
    for (let row = 0; row < sheet.count; row++) {
      const head = sheet.heads[row]!;
      if (witness) witness.clip(head, row, sheet, weight, lane);
      const has = sheet.has[row]!;
      const from = row * COLUMNS;
      const to = head * COLUMNS;
      if (has & HAS_LEVEL) {
        laneValues[to] = laneValues[to]! + sheet.values[from]! * weight;
        lanePresence[head] = lanePresence[head]! + weight;
      }
      for (let g = 0; g < GROUPS.length; g++) {
        if (!(has & (2 << g))) continue;
        const group = GROUPS[g]!;
        const sum = head * GROUPS.length + g;
        // What jumps does so when its fade begins: the newest clip's value counts whole.
        const keep = program.snaps[sum] ? 0 : 1;
        const share = keep ? weight : 1;
        laneWeights[sum] = laneWeights[sum]! * keep + share;
        for (let c = group.first; c < group.first + group.count; c++)
          laneValues[to + c] = laneValues[to + c]! * keep + sheet.values[from + c]! * share;
      }
    }
  }
}

/** Lays a gathered lane over what is below it. */
function mergeLane(program: Program, lane: LaneProgram, dark: number): void {
  const { values, weights, laneValues, laneWeights, lanePresence } = program.scratch;
  const heads = program.heads.length;
  for (let head = 0; head < heads; head++) {
    const at = head * COLUMNS;
    const below = values[at + LEVEL]! * (1 - dark);
    const own = laneValues[at + LEVEL]!;
    const presence = lanePresence[head]!;
    values[at + LEVEL] =
      lane.blend === 'highest' ? Math.max(below, own)
      : lane.blend === 'replace' ? below * (1 - presence) + own
      : lane.blend === 'add' ? Math.min(1, below + own)
      : below * (own + 1 - presence); // prettier-ignore
    for (let g = 0; g < GROUPS.length; g++) {
      const sum = head * GROUPS.length + g;
      const share = laneWeights[sum]!;
      if (share <= 0) continue;
      const group = GROUPS[g]!;
      weights[sum] = weights[sum]! * (1 - share) + share;
      for (let c = at + group.first; c < at + group.first + group.count; c++)
        values[c] = values[c]! * (1 - share) + laneValues[c]!;
    }
  }
}

/**
 * Ends the merge: what was gathered is divided by its weight, so that home never tints a fade (blue rises as blue, not
 * as pale white); home shows only where nothing spoke at all.
 */
function takeHome(program: Program): void {
  const { values, weights } = program.scratch;
  const heads = program.heads.length;
  for (let head = 0; head < heads; head++) {
    for (let g = 0; g < GROUPS.length; g++) {
      const weight = weights[head * GROUPS.length + g]!;
      const group = GROUPS[g]!;
      for (let c = group.first; c < group.first + group.count; c++) {
        const at = head * COLUMNS + c;
        values[at] = weight > 1e-6 ? values[at]! / weight : HOME[c]!;
      }
    }
  }
}
