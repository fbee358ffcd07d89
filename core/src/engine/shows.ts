// What of the lower layers shows at all: where a lane sets a field of every head, what lies under it need not be
// worked out. Levels always are, as the highest of them counts.

import { pointBefore } from '../song';
import { LEVEL, STANDING } from './fields';
import { rampBetween } from './layers';
import type { LookLaneProgram } from './lane-program';
import type { Program, SongProgram } from './program';
import type { Play, Sheet } from './parts';

/** Says of sheets which fields they set wholly: for all heads that any of them sets. */
export function markCovers(sheets: readonly Sheet[], fields: number, heads: number): void {
  const set = new Uint8Array(fields * heads);
  const all = new Int32Array(fields);
  for (const { strands } of sheets)
    for (const strand of strands) {
      const from = strand.field * heads;
      for (let i = 0; i < strand.count; i++) {
        const at = from + strand.heads[i]!;
        if (set[at] === 1) continue;
        set[at] = 1;
        all[strand.field] = all[strand.field]! + 1;
      }
    }
  const counts = new Int32Array(fields);
  for (const sheet of sheets) {
    counts.fill(0);
    // No two strands of a sheet set the same field of one head.
    for (const { field, count } of sheet.strands) counts[field] = counts[field]! + count;
    for (let field = 0; field < fields; field++)
      sheet.covers[field] = Number(all[field]! > 0 && counts[field] === all[field] && !sheet.timed);
  }
}

/** Finds, for each field, the lowest layer of which anything shows now. Allocates nothing. */
export function findShows(program: Program, song: SongProgram | undefined, time: number): void {
  const { fields } = program;
  for (let f = 0; f < fields.length; f++) fields[f]!.shows = STANDING;
  if (!song) return;
  for (let l = song.lanes.length - 1; l >= 0; l--) {
    const lane = song.lanes[l]!;
    // A lane whose fader is down, or moves, lets what is under it through.
    if (lane.type === 'looks' && lane.level === 1 && song.faders[l]!.length === 0) coverBy(program, lane, l, time);
  }
}

function coverBy({ fields }: Program, lane: LookLaneProgram, layer: number, time: number): void {
  const last = lastStarted(lane, time);
  if (last < 0 || time >= lane.to[last]!) return;
  const first = firstOf(lane, last, time);
  if (rampBetween(time, lane.from[first]!, lane.inUntil[first]!) < 1 || fallsAt(lane, last, time)) return;
  for (let f = 0; f < fields.length; f++) {
    const field = fields[f]!;
    if (f === LEVEL || field.shows >= layer) continue;
    let whole = true;
    for (let k = first; k <= last && whole; k++) whole = coversWhole(lane.plays[k]!, f);
    if (whole) field.shows = layer;
  }
}

function coversWhole(play: Play | null, field: number): boolean {
  if (!play) return false;
  if (!play.chase) return play.sheet.covers[field] === 1;
  const { sheets, course } = play.chase;
  // One that ends leaves its place to what is under it.
  if (sheets.length === 0 || course.loops !== Infinity) return false;
  for (let i = 0; i < sheets.length; i++) if (sheets[i]!.covers[field] !== 1) return false;
  return true;
}

function fallsAt(lane: LookLaneProgram, k: number, time: number): boolean {
  return lane.joined[k] !== 1 && time > lane.outFrom[k]!;
}

/** Index of the last clip that has begun, or -1. */
export const lastStarted = (lane: LookLaneProgram, time: number): number => pointBefore(lane.from, lane.count, time);

/** The first of the clips that still count: the clip that is all there hides those before it. */
export function firstOf(lane: LookLaneProgram, last: number, time: number): number {
  let first = last;
  while (first > 0 && lane.joined[first - 1] && time < lane.allIn[first]!) first--;
  return first;
}
