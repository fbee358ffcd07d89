// What every head should do at one instant: the layers, lowest first. Shared by `render` and `explain`.

import { heightOfHit, positionAt, pressedTo, rampAt } from '../light';
import {
  AT_CLOCK,
  AT_REST,
  chasePlace,
  endingWeight,
  heardPlace,
  runAt,
  songTimeAt,
  type LiveState,
  type Standing,
} from '../live';
import { pointNear } from '../rig';
import { clamp, seconds, type Seconds } from '../units';
import { songBeat, songPace, standingBeat } from './clock';
import { countBefore, listen, strokesOf } from './ears';
import { ABOVE, AIM, HAZE, MOVE, SLOT, STANDING, STROBE } from './fields';
import {
  addToLane,
  beginLane,
  clearFields,
  layHand,
  laySheet,
  mergeLane,
  rampBetween,
  scaleLane,
  type Witness,
} from './layers';
import { moveSheet } from './motions';
import { holdStrobes } from './safety';
import { findShows, firstOf, lastStarted } from './shows';
import { slowedBy } from './slow';
import type { ChaseProgram, LaneProgram, Play, Program, Sheet, SongProgram } from './program';

/** How long a song takes to push standing looks aside, and to give them back. */
const SUSPEND_SECONDS = 0.25;

/**
 * Fills the values of `program.fields`: levels before masters, everything else final. Allocates nothing, but for what
 * is taken in hand for the first time.
 */
export function evaluate(program: Program, live: LiveState, at: Seconds, witness?: Witness): void {
  clearFields(program);
  const song = live.song;
  const playing = song ? program.songs.get(song.id) : undefined;
  const songTime = song ? songTimeAt(song, at) : 0;
  const there = playing !== undefined && songTime < playing.duration;
  const sounding = song !== null && there && song.playing;
  const suspended = sounding ? clamp((at - song.since) / SUSPEND_SECONDS, 0, 1) : 0;
  listen(program.ears, there ? playing.envelopes : null, songTime, live.hearing, at);
  const beat = runAt(live.speed, standingBeat(live, sounding ? playing : undefined, songTime, at));
  scene.live = live;
  scene.at = at;
  scene.beat = beat;
  scene.pace = (sounding ? songPace(playing, songTime) * song.rate : live.tempo.bpm / 60) * live.speed.rate;
  scene.left = 1 - suspended;
  scene.song = there ? playing : undefined;
  scene.songTime = songTime;
  findShows(program, scene.song, songTime);
  program.scratch.layer = STANDING;
  layStanding(program, scene, witness);
  if (there) laySong(program, playing, songTime, witness);
  program.scratch.layer = ABOVE;
  layHits(program, live, at, witness);
  layHands(program, live, at, beat, witness);
  finish(program);
}

/** How dark blackout makes the stage, 0…1. */
export function blackoutAt(live: LiveState, at: Seconds): number {
  return clamp(rampAt(live.blackout.ramp, at), 0, 1);
}

/** Filled anew for each frame, so that a frame makes nothing. */
const scene: Scene = { live: AT_REST, at: seconds(0), beat: 0, pace: 2, left: 1, song: undefined, songTime: 0 };

/** The moment at which standing looks are laid, and the song that sounds then. */
type Scene = {
  live: LiveState;
  at: Seconds;
  beat: number;
  /** Beats a second. */
  pace: number;
  /** What a song that plays leaves of looks that do not stay. */
  left: number;
  song: SongProgram | undefined;
  songTime: number;
};

function layStanding(program: Program, scene: Scene, witness?: Witness): void {
  const { standing } = scene.live;
  let crossing = -1;
  for (let i = 0; i < standing.length; i++) if (standing[i]!.crossed) crossing = i;
  for (let i = 0; i < standing.length; i++) {
    if (i === crossing) layCrossed(program, scene, witness);
    if (!standing[i]!.crossed) layOne(program, scene, standing[i]!, witness);
  }
}

/** What came in place of one another lies together: each has the share of its fade, and the shares add up. */
function layCrossed(program: Program, scene: Scene, witness?: Witness): void {
  beginLane(program);
  for (let i = 0; i < scene.live.standing.length; i++) {
    const one = scene.live.standing[i]!;
    const play = program.standing(one);
    if (!one.crossed || !play || !timeStanding(program, scene, one, play)) continue;
    if (witness) witness.source('look', play.name, '');
    addStanding(program, scene, one, play, witness);
  }
  mergeLane(program, 'highest', 0, 1);
}

function layOne(program: Program, scene: Scene, one: Standing, witness?: Witness): void {
  const play = program.standing(one);
  if (!play || !timeStanding(program, scene, one, play)) return;
  if (witness) witness.source('look', play.name, '');
  if (!play.chase) {
    const speed = one.speed ?? AT_CLOCK;
    move(program, play.sheet, runAt(speed, scene.beat), scene.at, scene.pace * speed.rate, witness);
    laySheet(program, play.sheet, witness);
    return;
  }
  const { timing } = program.scratch;
  const weight = timing.rise * timing.scale;
  timing.rise = 1;
  timing.scale = 1;
  beginLane(program);
  addStanding(program, scene, one, play, witness);
  mergeLane(program, 'highest', 0, weight);
}

/** Tells the timing how far the fade of a standing look is. False where nothing is left of it. */
function timeStanding(program: Program, scene: Scene, one: Standing, play: Play): boolean {
  const { timing } = program.scratch;
  const { ramp } = one;
  timing.scale = endingWeight(one, scene.at) * (play.keep ? 1 : scene.left);
  timing.rise = rampAt(ramp, scene.at);
  timing.fall = 1;
  timing.at = scene.at;
  timing.begin = ramp.at;
  timing.from = ramp.from;
  timing.to = ramp.to;
  timing.end = Infinity;
  timing.pulse = one.pulse ?? 60 / scene.live.tempo.bpm;
  timing.leaving = !one.on;
  return timing.scale > 0 && (timing.rise > 0 || play.sheet.timed);
}

/** Adds a look, or the steps of a chase, to the lane that is being gathered. */
function addStanding(program: Program, scene: Scene, one: Standing, play: Play, witness?: Witness): void {
  const speed = one.speed ?? AT_CLOCK;
  const own = runAt(speed, scene.beat);
  const pace = scene.pace * speed.rate;
  const { chase } = play;
  if (!chase) {
    move(program, play.sheet, own, scene.at, pace, witness);
    addToLane(program, play.sheet, 1, witness);
    return;
  }
  if (chase.pace === 'sound') strokesPlace(program, chase, one, scene);
  else {
    const slow = slowedBy(chase.span / (chase.pace === 'beats' ? pace : 1));
    chasePlace(one, chase.course, chase.pace, own, scene.at, slow, program.scratch.position);
  }
  addSteps(program, chase, own, scene.at, pace, witness);
}

/** Where a chase is that goes by drum strokes: those of the song, else those the microphone heard since it came on. */
function strokesPlace(program: Program, { course, drum }: ChaseProgram, one: Standing, scene: Scene): void {
  const { position } = program.scratch;
  const { live, song, songTime, at } = scene;
  const { most } = program.safety;
  if (!song?.envelopes || !live.song) return heardPlace(live, one, course, drum, most < Infinity, at, position);
  const { times } = strokesOf(song.envelopes, drum, 1 / most);
  const begun = Math.max(live.song.since, one.since ?? 0);
  const before = countBefore(times, Math.max(0, songTimeAt(live.song, seconds(begun))));
  onStroke(course, song, times, before, songTime, position);
}

/** So many strokes of a song into a course, the first `before` of them not counted. */
function onStroke(
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
function addSteps(
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
    addStep(program, chase, position.before, beat, at, pace, witness);
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
): void {
  const sheet = chase.sheets[step]!;
  move(program, sheet, beat, at, pace, witness);
  addToLane(program, sheet, chase.levels[step]!, witness);
}

function laySong(program: Program, song: SongProgram, time: number, witness?: Witness): void {
  const beat = songBeat(song, time);
  program.scratch.pace = songPace(song, time);
  for (let i = 0; i < song.lanes.length; i++) {
    program.scratch.layer = i;
    layLane(program, song, song.lanes[i]!, time, beat, witness);
  }
}

function layLane(
  program: Program,
  song: SongProgram,
  lane: LaneProgram,
  time: number,
  beat: number,
  witness?: Witness,
): void {
  const last = lastStarted(lane, time);
  if (last < 0) return;
  const first = firstOf(lane, last, time);
  if (first === last && layAlone(program, lane, last, time, beat, witness)) return;
  const { timing } = program.scratch;
  // How much the clips after each one leave of it is known beforehand, unless some of their strands have times of their own.
  const known = leftsKnown(program, lane, first, last, time);
  let dark = 0;
  let spoke = false;
  beginLane(program);
  if (witness) witness.lane();
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
    if (play) addPlay(program, play, song, lane, k, time, beat, witness);
    else {
      dark += timing.rise * timing.fall;
      if (witness) witness.dark(timing.rise * timing.fall * timing.scale);
    }
  }
  if (spoke) mergeLane(program, lane.blend, dark, 1);
}

/** Writes what is left of each clip to `lefts`; false where it differs from strand to strand. */
function leftsKnown(program: Program, lane: LaneProgram, first: number, last: number, time: number): boolean {
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
function layAlone(
  program: Program,
  lane: LaneProgram,
  k: number,
  time: number,
  beat: number,
  witness?: Witness,
): boolean {
  if (!lane.joined[k] && time >= lane.to[k]!) return true;
  const play = lane.plays[k];
  if (!play || play.chase || lane.blend !== 'highest') return false;
  timeClip(program, lane, k, time);
  if (witness) witness.source('lane', play.name, lane.name);
  move(program, play.sheet, beat, time, program.scratch.pace, witness);
  laySheet(program, play.sheet, witness);
  return true;
}

function timeClip(program: Program, lane: LaneProgram, k: number, time: number): void {
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
  lane: LaneProgram,
  k: number,
  time: number,
  beat: number,
  witness?: Witness,
): void {
  if (!play.chase) {
    move(program, play.sheet, beat, time, program.scratch.pace, witness);
    addToLane(program, play.sheet, 1, witness);
    return;
  }
  const { chase } = play;
  const { position } = program.scratch;
  if (chase.pace === 'sound' && song.envelopes) {
    const { times } = strokesOf(song.envelopes, chase.drum, 1 / program.safety.most);
    onStroke(chase.course, song, times, countBefore(times, lane.from[k]!), time, position);
  } else {
    // Nobody presses on a lane, and music that was not analysed has no strokes: such a chase goes by its beats.
    const timed = chase.pace === 'seconds';
    const slow = slowedBy(chase.span / (timed ? 1 : program.scratch.pace));
    positionAt(chase.course, (timed ? time - lane.from[k]! : beat - lane.beats[k]!) / slow, position);
  }
  addSteps(program, chase, beat, time, program.scratch.pace, witness);
}

function layHits(program: Program, live: LiveState, at: Seconds, witness?: Witness): void {
  const { timing } = program.scratch;
  for (let i = 0; i < live.sounding.length; i++) {
    const note = live.sounding[i]!;
    const struck = program.struck(note);
    if (!struck) continue;
    const { sheet, hit, strike } = struck;
    const lifted = note.lifted === undefined ? Infinity : note.lifted - note.at;
    const choked = note.choked === undefined ? Infinity : note.choked - note.at;
    const height = heightOfHit(strike, at - note.at, lifted, choked) * struck.strength;
    if (height <= 0 || (struck.flashes && note.crowded)) continue;
    if (witness) witness.source('hit', hit.name, struck.kit);
    if (hit.blend === 'replace') {
      layHand(program, sheet, height, witness);
      continue;
    }
    timing.rise = height;
    timing.fall = 1;
    timing.scale = 1;
    timing.end = Infinity;
    laySheet(program, sheet, witness);
  }
}

function layHands(program: Program, live: LiveState, at: Seconds, beat: number, witness?: Witness): void {
  for (let i = 0; i < live.hands.length; i++) {
    const hand = live.hands[i]!;
    const weight = rampAt(hand.ramp, at);
    if (weight <= 0) continue;
    const sheet: Sheet = program.handSheet(hand.value);
    if (witness) witness.source('hand', sheet.name, '');
    move(program, sheet, beat, at, scene.pace, witness);
    layHand(program, sheet, weight, witness);
  }
}

/**
 * Ends the merge: sums are divided by their weight, so that home never tints a fade (blue rises as blue, not as pale
 * white); home shows only where nothing spoke at all. Haze and figures grow from nothing with their weight, and fields
 * that speak to one channel keep theirs: what the channel does without them shows through.
 */
function finish(program: Program): void {
  for (let f = 1; f < program.fields.length; f++) {
    const field = program.fields[f]!;
    if (!field.touched || f > SLOT || f === MOVE || f === HAZE) continue;
    const { values, weights, width, home } = field;
    for (let head = 0; head < weights.length; head++) {
      const weight = weights[head]!;
      if (weight > 1e-6) {
        if (weight !== 1) for (let c = head * width; c < (head + 1) * width; c++) values[c] = values[c]! / weight;
      } else for (let c = 0; c < width; c++) values[head * width + c] = home[c]!;
    }
  }
  if (program.fields[AIM]!.touched) pointMixed(program);
  if (program.safety.most < Infinity && program.fields[STROBE]!.touched) holdStrobes(program);
}

/** What waves and followers make of a sheet now, at so many beats a second. */
function move(program: Program, sheet: Sheet, beat: number, at: number, pace: number, witness?: Witness): void {
  const { heights, layer } = program.scratch;
  // A witness is told of what does not show, too.
  moveSheet(sheet, beat, at, pace, heights, witness ? null : program.fields, layer);
}

/** Degrees of travel up to which a mixed aim goes by its stage point, and from which it goes by the motors' degrees. */
const SAME_WAY = 25;
const OTHER_WAY = 60;

/**
 * An aim between aims points at the place between their places. Where head and tail of a fade lie on different turns of
 * the motors there is no such way: then both motors go straight.
 */
function pointMixed(program: Program): void {
  const { mixedAims, turned } = program.scratch;
  const { values } = program.fields[AIM]!;
  for (let head = 0; head < mixedAims.length; head++) {
    const turning = program.plans[head]!.turning;
    if (!mixedAims[head] || !turning) continue;
    const at = head * 5;
    const pan = values[at]!;
    const tilt = values[at + 1]!;
    const { rotation, place, bounds } = turning;
    const off = pointNear(
      rotation,
      place,
      bounds,
      values[at + 2]!,
      values[at + 3]!,
      values[at + 4]!,
      pan,
      tilt,
      turned,
    );
    if (off === Infinity) continue;
    const straight = rampBetween(off, SAME_WAY, OTHER_WAY);
    values[at] = turned[0]! + (pan - turned[0]!) * straight;
    values[at + 1] = turned[1]! + (tilt - turned[1]!) * straight;
  }
}
