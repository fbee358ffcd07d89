// Laying the steps that a chase is between, and moving what waves move.

import { pressedTo } from '../light';
import { songBeat } from './clock';
import { countBefore } from './follower-inputs';
import { addToLane, type Witness } from './layers';
import { moveSheet } from './motions';
import type { Program, SongProgram } from './program';
import type { ChaseProgram, Sheet } from './parts';

/** What waves and followers make of a sheet now, at so many beats a second. */
export function move(program: Program, sheet: Sheet, beat: number, at: number, pace: number, witness?: Witness): void {
  const { heights, layer, run } = program.scratch;
  // A witness is told of what does not show, too.
  moveSheet(sheet, beat, at, pace, heights, witness ? null : program.fields, layer, run.size);
}

/** So many strokes of a song into a course, the first `before` of them not counted. */
export function onStroke(
  course: ChaseProgram['course'],
  song: SongProgram,
  times: Float64Array,
  before: number,
  time: number,
  position: Program['scratch']['position'],
): void {
  const heard = countBefore(times, time);
  const since = heard > 0 ? songBeat(song, time) - songBeat(song, times[heard - 1]!) : Infinity;
  pressedTo(course, Math.max(0, heard - before), since, position);
}

/** Adds the steps a chase is between to the lane that is being gathered. */
export function addSteps(
  program: Program,
  chase: ChaseProgram,
  beat: number,
  at: number,
  pace: number,
  witness?: Witness,
): void {
  const { position, timing } = program.scratch;
  if (position.ended) return;
  const whole = timing.scale;
  if (position.before >= 0) {
    timing.scale = whole * (1 - position.share);
    addStep(program, chase, position.before, beat, at, pace, witness, chase.sheets[position.step]);
  }
  timing.scale = whole * position.share;
  addStep(program, chase, position.step, beat, at, pace, witness);
  timing.scale = whole;
}

function addStep(
  program: Program,
  chase: ChaseProgram,
  step: number,
  beat: number,
  at: number,
  pace: number,
  witness?: Witness,
  next?: Sheet,
): void {
  const sheet = chase.sheets[step]!;
  move(program, sheet, beat, at, pace, witness);
  addToLane(program, sheet, chase.levels[step]!, witness, next);
}
