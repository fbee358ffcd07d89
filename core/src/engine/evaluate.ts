// What every head should do at one instant: the layers, lowest first. Shared by `render` and `explain`.

import { heightOfHit, rampAt, rampOf } from '../light';
import {
  AT_CLOCK,
  AT_REST,
  chasePlace,
  endingWeight,
  frozenShare,
  heardPlace,
  isLit,
  leftAt,
  runAt,
  songTimeAt,
  type Lit,
  type LiveState,
  type Standing,
} from '../live';
import { pointNear } from '../rig';
import { clamp, seconds, type Seconds } from '../units';
import { songPace, standingBeat } from './clock';
import { countBefore, curveFor, listen, strokesOf } from './follower-inputs';
import { ABOVE, AIM, HAZE, MOVE, SLOT, STANDING, STROBE } from './fields';
import {
  addToLane,
  beginLane,
  clearFields,
  keepLaid,
  layHand,
  layHit,
  laySheet,
  mergeLane,
  mixKept,
  rampBetween,
  type Witness,
} from './layers';
import { LAST_MOMENT, layEnding, secondsOver } from './lay-ending';
import { laySong } from './lay-song';
import { holdStrobes } from './safety';
import { findShows } from './shows';
import { slowedBy } from './slow';
import { addSteps, move, onStroke } from './steps';
import type { Program, SongProgram } from './program';
import type { ChaseProgram, Play } from './parts';

/** How long a song takes to push standing looks aside, and to give them back. */
const SUSPEND_SECONDS = 0.25;

/**
 * Fills the values of `program.fields`: levels before masters, everything else final. Allocates nothing, but for what
 * was not made ready, see `ready`.
 */
export function evaluate(program: Program, live: LiveState, at: Seconds, witness?: Witness): void {
  clearFields(program);
  const { frozen } = live;
  const share = frozenShare(frozen, at);
  if (frozen && share > 0) layMoment(program, frozen.lit, frozen.at, share >= 1 ? witness : undefined);
  if (share < 1) {
    if (share > 0) keepLaid(program);
    layMoment(program, live, at, witness);
    if (share > 0) mixKept(program, share);
  }
  finish(program);
}

/** All that gives light at a moment. A song that has jumped is laid where it was, too, while that fades. */
function layMoment(program: Program, lit: Lit, at: Seconds, witness?: Witness): void {
  const song = litSong(lit, at);
  if (song) leftAt(song, at, left);
  const share = song ? left.share : 0;
  if (song && share > 0) {
    const last = (program.songs.get(song.id)?.duration ?? 0) - LAST_MOMENT;
    layAt(program, lit, song, Math.min(left.songTime, last), at);
    keepLaid(program);
  }
  layAt(program, lit, song, song ? songTimeAt(song, at) : 0, at, witness);
  if (share > 0) mixKept(program, share);
}

const litSong = ({ song }: Lit, at: Seconds): Lit['song'] => (song && isLit(song, at) ? song : null);

/** Filled anew for each frame. */
const left = { share: 0, songTime: 0 };

/** All that gives light, with the song at a moment of its music. */
function layAt(program: Program, live: Lit, song: Lit['song'], songTime: number, at: Seconds, witness?: Witness): void {
  const playing = song ? program.songs.get(song.id) : undefined;
  const there = playing !== undefined && songTime < playing.duration;
  const sounding = song !== null && there && song.playing;
  // A song that is over may keep the stage: see `Ending`.
  const ended = song !== null && playing !== undefined && !there && playing.ending !== null;
  const suspended = ended ? 1 : sounding ? clamp((at - song.since) / SUSPEND_SECONDS, 0, 1) : 0;
  const envelopes = there || ended ? playing.envelopes : null;
  const heardAt = ended ? playing.duration - LAST_MOMENT : songTime;
  listen(program.inputs, envelopes, heardAt, live.hearing, at);
  // All inputs before any light, so that a follower in hand is heard in its first frame as in any other.
  for (let i = 0; i < live.hands.length; i++)
    listen(program.hand(live.hands[i]!.value).inputs, envelopes, heardAt, live.hearing, at);
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
  else if (ended) layEnding(program, playing, secondsOver(song, playing, at), scene, witness);
  program.scratch.layer = ABOVE;
  layHits(program, live, at, witness);
  layHands(program, live, at, beat, witness);
}

/**
 * Works out beforehand what a state asks for the first time: values in hand, looks after other looks, notes. Changes no
 * light; without it the next frame works it out itself, and takes longer.
 */
export function ready(program: Program, live: LiveState): void {
  readyFor(program, live);
  if (live.frozen) readyFor(program, live.frozen.lit);
}

function readyFor(program: Program, live: Lit): void {
  const envelopes = (live.song && program.songs.get(live.song.id)?.envelopes) ?? null;
  for (const { value } of live.hands) {
    const { inputs } = program.hand(value);
    if (envelopes) for (const input of inputs) if (input.source === 'song' && !input.drum) curveFor(envelopes, input);
  }
  for (const one of live.standing) program.standing(one);
  for (const note of live.sounding) program.struck(note);
}

/** How dark blackout makes the stage, 0…1. */
export function blackoutAt(live: LiveState, at: Seconds): number {
  return clamp(rampAt(live.blackout.ramp, at), 0, 1);
}

/** Filled anew for each frame, so that a frame makes nothing. */
const scene: Scene = { live: AT_REST, at: seconds(0), beat: 0, pace: 2, left: 1, song: undefined, songTime: 0 };

/** The moment at which standing looks are laid, and the song that sounds then. */
type Scene = {
  live: Lit;
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
  const ramp = rampOf(one.ramp, scene.at);
  timing.scale = endingWeight(one, scene.at) * (play.keep ? 1 : scene.left);
  timing.rise = rampAt(ramp, scene.at);
  timing.fall = 1;
  timing.at = scene.at;
  timing.begin = ramp.at;
  timing.from = ramp.from;
  timing.to = ramp.to;
  timing.end = Infinity;
  timing.pulse = one.pulse ?? 60 / scene.live.tempo.bpm;
  timing.leaving = ramp === one.ramp ? !one.on : ramp.to <= 0;
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

function layHits(program: Program, live: Lit, at: Seconds, witness?: Witness): void {
  for (let i = 0; i < live.sounding.length; i++) {
    const note = live.sounding[i]!;
    const struck = program.struck(note);
    if (!struck) continue;
    const { hit, strike } = struck;
    const lifted = note.lifted === undefined ? Infinity : note.lifted - note.at;
    const choked = note.choked === undefined ? Infinity : note.choked - note.at;
    const height = heightOfHit(strike, at - note.at, lifted, choked) * struck.strength;
    if (height <= 0 || (struck.flashes && note.crowded)) continue;
    if (witness) witness.source('hit', hit.name, struck.kit);
    layHit(program, struck, height, witness);
  }
}

function layHands(program: Program, live: Lit, at: Seconds, beat: number, witness?: Witness): void {
  for (let i = 0; i < live.hands.length; i++) {
    const hand = live.hands[i]!;
    const weight = rampAt(hand.ramp, at);
    if (weight <= 0) continue;
    const { sheet } = program.hand(hand.value);
    if (witness) witness.source('hand', sheet.name, '');
    move(program, sheet, beat, at, scene.pace, witness);
    layHand(program, sheet, weight, witness);
  }
}

/**
 * Ends the merge: sums are divided by their weight, so that home never tints a fade (blue rises as blue, not as pale
 * white); home shows only where nothing spoke at all. Haze and figures grow from nothing with their weight, and fields
 * that set one channel keep theirs: what the channel does without them shows through.
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
    if (!pointNear(rotation, place, bounds, values, at, turned)) continue;
    const straight = rampBetween(turned[2]!, SAME_WAY, OTHER_WAY);
    values[at] = turned[0]! + (pan - turned[0]!) * straight;
    values[at + 1] = turned[1]! + (tilt - turned[1]!) * straight;
  }
}
