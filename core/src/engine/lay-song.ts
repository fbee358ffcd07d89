// A song's lanes, top lane last: which clips count at a moment, and how much of each.

import { positionAt } from '../light';
import { songBeat, songPace } from './clock';
import { faderAt, layCurve } from './curve-lane';
import { countBefore, strokesOf } from './follower-inputs';
import { layHitLane } from './hit-lane';
import { gainedBy, sizeAt, speedAt } from './pace';
import { addToLane, beginLane, laySheet, mergeLane, rampBetween, scaleLane, type Witness } from './layers';
import type { LookLaneProgram } from './lane-program';
import type { Program, SongProgram } from './program';
import { firstOf, lastStarted } from './shows';
import { slowedBy } from './slow';
import { addSteps, move, onStroke } from './steps';
import type { Pacing, Play } from './parts';

export function laySong(program: Program, song: SongProgram, time: number, witness?: Witness): void {
  const beat = songBeat(song, time);
  program.scratch.pace = songPace(song, time);
  for (let i = 0; i < song.lanes.length; i++) {
    const lane = song.lanes[i]!;
    program.scratch.layer = i;
    if (lane.type === 'curve') {
      layCurve(program, lane, beat, witness);
      continue;
    }
    const level = faderAt(lane.level, song.faders[i]!, beat);
    if (level <= 0) continue;
    paceLane(program, song.pacings[i]!, beat, time);
    // What hits ask for has the fader in it already.
    if (witness) witness.lane(lane.type === 'hits' ? 1 : level);
    if (lane.type === 'hits') layHitLane(program, lane, time, level, witness);
    else layLane(program, song, lane, time, level, witness);
  }
  program.scratch.run.size = 1;
}

/** Says where the waves of a lane are, and how fast and large. */
function paceLane({ scratch: { run, pace } }: Program, { speed, sizes }: Pacing, beat: number, time: number): void {
  run.size = sizes.length === 0 ? 1 : sizeAt(sizes, beat);
  run.speed = speed ? speedAt(speed.track, beat) : 1;
  run.beat = speed ? beat + gainedBy(speed, beat, false, pace) : beat;
  run.time = speed ? time + gainedBy(speed, beat, true, pace) : time;
}

function layLane(
  program: Program,
  song: SongProgram,
  lane: LookLaneProgram,
  time: number,
  level: number,
  witness?: Witness,
): void {
  const last = lastStarted(lane, time);
  if (last < 0) return;
  const first = firstOf(lane, last, time);
  if (first === last && level === 1 && layAlone(program, lane, last, time, witness)) return;
  const { timing } = program.scratch;
  // How much the clips after each one leave of it is known beforehand, unless some of their strands have times of their own.
  const known = leftsKnown(program, lane, first, last, time);
  let dark = 0;
  let spoke = false;
  beginLane(program);
  for (let k = first; k <= last; k++) {
    if (!lane.joined[k] && time >= lane.to[k]!) continue;
    const play = lane.plays[k]!;
    timeClip(program, lane, k, time);
    if (known) timing.scale = program.scratch.lefts[k - first]!;
    else {
      if (spoke) scaleLane(program, play ? play.sheet : null);
      if (witness) witness.yields(timing.rise);
    }
    dark *= 1 - timing.rise;
    spoke = true;
    if (witness) witness.source('lane', play ? play.name : 'dark', lane.name);
    if (play) addPlay(program, play, song, lane, k, time, witness);
    else {
      dark += timing.rise * timing.fall;
      if (witness) witness.dark(timing.rise * timing.fall * timing.scale);
    }
  }
  if (spoke) mergeLane(program, lane.blend, dark * level, level);
}

/** Writes what is left of each clip to `lefts`; false where it differs from strand to strand. */
function leftsKnown(program: Program, lane: LookLaneProgram, first: number, last: number, time: number): boolean {
  const { lefts } = program.scratch;
  if (last - first >= lefts.length) return false;
  let left = 1;
  for (let k = last; k >= first; k--) {
    if (lane.plays[k]?.sheet.timed) return false;
    lefts[k - first] = left;
    if (lane.joined[k] || time < lane.to[k]!) left *= 1 - rampBetween(time, lane.from[k]!, lane.inUntil[k]!);
  }
  return true;
}

/** A lane with one look on it that only adds height needs no gathering: the same light, at less cost. */
function layAlone(program: Program, lane: LookLaneProgram, k: number, time: number, witness?: Witness): boolean {
  if (!lane.joined[k] && time >= lane.to[k]!) return true;
  const play = lane.plays[k];
  if (!play || play.chase || lane.blend !== 'highest') return false;
  timeClip(program, lane, k, time);
  if (witness) witness.source('lane', play.name, lane.name);
  moveLane(program, play, witness);
  laySheet(program, play.sheet, witness);
  return true;
}

function timeClip(program: Program, lane: LookLaneProgram, k: number, time: number): void {
  const { timing } = program.scratch;
  const joined = lane.joined[k] === 1;
  timing.rise = rampBetween(time, lane.from[k]!, lane.inUntil[k]!);
  timing.fall = joined ? 1 : 1 - rampBetween(time, lane.outFrom[k]!, lane.to[k]!);
  timing.at = time;
  timing.begin = lane.from[k]!;
  timing.from = 0;
  timing.to = 1;
  timing.end = joined ? Infinity : lane.to[k]!;
  timing.pulse = lane.pulse[k]!;
  timing.leaving = false;
  timing.scale = 1;
}

function addPlay(
  program: Program,
  play: Play,
  song: SongProgram,
  lane: LookLaneProgram,
  k: number,
  time: number,
  witness?: Witness,
): void {
  if (!play.chase) {
    moveLane(program, play, witness);
    addToLane(program, play.sheet, 1, witness);
    return;
  }
  const { chase } = play;
  const { position, run, pace } = program.scratch;
  if (chase.pace === 'sound' && song.envelopes) {
    const { times } = strokesOf(song.envelopes, chase.drum, 1 / program.safety.most);
    onStroke(chase.course, song, times, countBefore(times, lane.from[k]!), time, position);
  } else {
    // Nobody presses on a lane, and music that was not analysed has no strokes: such a chase goes by its beats.
    const timed = chase.pace === 'seconds';
    const slow = slowedBy(chase.span / (timed ? run.speed : pace * run.speed));
    const speed = song.pacings[program.scratch.layer]!.speed;
    const began = speed ? gainedBy(speed, lane.beats[k]!, timed, pace) : 0;
    positionAt(
      chase.course,
      (timed ? run.time - lane.from[k]! - began : run.beat - lane.beats[k]! - began) / slow,
      position,
    );
  }
  addSteps(program, chase, run.beat, run.time, pace * run.speed, witness);
}

/** Moves the waves of a look on a lane. */
function moveLane(program: Program, { sheet }: Play, witness?: Witness): void {
  const { run, pace } = program.scratch;
  move(program, sheet, run.beat, run.time, pace * run.speed, witness);
}
