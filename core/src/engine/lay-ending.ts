// What the light does when a song is over, where the song says so.

import { positionAt } from '../light';
import { songTimeAt, type LiveState } from '../live';
import type { Seconds } from '../units';
import { addToLane, beginLane, mergeLane, rampBetween, type Witness } from './layers';
import { laySong } from './lay-song';
import type { Program, SongProgram } from './program';
import { slowedBy } from './slow';
import { addSteps, move } from './steps';
import type { Play } from './parts';

/** Before the end of a song, so that all that lies to its end still counts. In seconds. */
export const LAST_MOMENT = 0.001;

/** The clock that what comes after a song goes by. */
type Clock = { readonly beat: number; readonly at: number; readonly pace: number };

/** How long a song has been over, in seconds of the clock. */
export function secondsOver(song: NonNullable<LiveState['song']>, { duration }: SongProgram, at: Seconds): number {
  const over = songTimeAt(song, at) - duration;
  return over / song.rate + (song.playing ? 0 : at - song.at);
}

/** A song's last moment, and what comes after it. */
export function layEnding(program: Program, song: SongProgram, over: number, clock: Clock, witness?: Witness): void {
  const { then, fade, play } = song.ending!;
  const gone = then === 'hold' ? 0 : rampBetween(over, -1e-9, fade);
  if (gone < 1) laySong(program, song, song.duration - LAST_MOMENT, witness);
  if (gone <= 0) return;
  beginLane(program);
  if (play) {
    const { timing } = program.scratch;
    timing.rise = 1;
    timing.fall = 1;
    timing.scale = 1;
    timing.end = Infinity;
    if (witness) {
      witness.lane(gone);
      witness.source('lane', play.name, 'after the song');
    }
    addAlone(program, play, clock, over, witness);
  }
  if (witness) witness.dark(gone);
  // What was there goes by as much as what comes has come: together they are never less than either.
  mergeLane(program, 'add', gone, gone);
}

/** How much of a beat of the clock may be left for a chase to begin with the next one. */
const NEARLY = 0.05;

/** A look with its waves by the clock, or a chase, whose first step is that of the beat in which the song ended. */
function addAlone(
  program: Program,
  play: Play,
  { beat, at, pace }: Clock,
  over: number,
  witness: Witness | undefined,
): void {
  if (!play.chase) {
    move(program, play.sheet, beat, at, pace, witness);
    return addToLane(program, play.sheet, 1, witness);
  }
  const { chase } = play;
  const timed = chase.pace === 'seconds';
  const begun = Math.floor(beat - over * pace + NEARLY);
  const slow = slowedBy(chase.span / (timed ? 1 : pace));
  positionAt(chase.course, (timed ? over : beat - begun) / slow, program.scratch.position);
  addSteps(program, chase, beat, at, pace, witness);
}
