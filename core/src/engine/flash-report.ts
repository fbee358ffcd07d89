// Where in a show its light flashes more often than it may: counted in the light itself, as it would leave.

import { steady } from '../light';
import { AT_REST, playedAlone, type LiveState } from '../live';
import type { Show } from '../show';
import { seconds } from '../units';
import { compile } from './compile';
import { limiter } from './limiter';
import type { Sounds } from './lanes';
import { LAMP_STRIDE } from './lamp-numbers';
import { lampsFor, readLamps } from './lamps';
import type { Program } from './program';
import { frameFor } from './program';
import { render } from './render';
import { FLASH_SHARE } from './flash-share';
import { lightChanges } from './safety';

/** A stretch in which there are too many flashes. */
export type FlashStretch = {
  /** A song, or a look or a chase by itself. */
  readonly kind: 'song' | 'look';
  readonly id: string;
  readonly name: string;
  /** Seconds from its start. */
  readonly from: number;
  readonly to: number;
  /** The most in any second of it, as it was made, and as it leaves with flash safety on. */
  readonly made: number;
  readonly leaves: number;
};

/** Moments a second that are looked at: quick enough for fifteen flashes. */
const RATE = 30;
/** How long looks and chases are looked at by themselves, on the free clock at 120. */
const LOOK_SECONDS = 8;

/** What the host does between pieces of work: shows progress (0…1), breathes, and says whether to stop. */
type Between = (progress: number) => Promise<'go-on' | 'stop'>;

/** @returns the stretches with more than `show.safety.most` flashes in a second, or undefined where it was stopped. */
export async function flashReport(
  show: Show,
  sounds: Sounds,
  between: Between,
): Promise<readonly FlashStretch[] | undefined> {
  const { most } = show.safety;
  const free = watcher(compile({ ...show, safety: { on: false, most } }, undefined, sounds));
  const held = watcher(compile({ ...show, safety: { on: true, most } }, undefined, sounds));
  const found: FlashStretch[] = [];
  const plays = [...show.looks, ...show.chases];
  const works = show.songs.length * 10 + plays.length;
  let done = 0;
  for (const song of show.songs) {
    const stretch = { kind: 'song' as const, id: song.id as string, name: song.title };
    for (const piece of tooMany(
      free(playedAlone(song.id), song.duration),
      held(playedAlone(song.id), song.duration),
      most,
    ))
      found.push({ ...stretch, ...piece });
    done += 10;
    if ((await between(done / works)) === 'stop') return undefined;
  }
  for (const { id, name } of plays) {
    const state = { ...AT_REST, standing: [{ look: id, on: true, ramp: steady(1), since: seconds(0) }] };
    for (const piece of tooMany(free(state, LOOK_SECONDS), held(state, LOOK_SECONDS), most))
      found.push({ kind: 'look', id, name, ...piece });
    done++;
    if ((await between(done / works)) === 'stop') return undefined;
  }
  return found;
}

/** Flashes in the second before each moment, `RATE` moments a second. */
type Watch = (state: LiveState, duration: number) => Float64Array;

function watcher(program: Program): Watch {
  const frame = frameFor(program);
  const lamps = lampsFor(program);
  const { shares } = program.safety;
  return (state, duration) => {
    const count = Math.max(1, Math.ceil(duration * RATE));
    const light = new Float64Array(count);
    const strobes = new Float64Array(count);
    const safe = limiter();
    for (let i = 0; i < count; i++) {
      render(program, state, seconds(i / RATE), frame);
      safe.hold(program, frame, i / RATE);
      readLamps(program, frame, lamps);
      let strobing = 0;
      for (let head = 0; head < shares.length; head++) {
        const at = head * LAMP_STRIDE;
        // Relative luminance of linear light (IEC 61966-2-1).
        const own = shares[head]! * (0.2126 * lamps[at]! + 0.7152 * lamps[at + 1]! + 0.0722 * lamps[at + 2]!);
        light[i] = light[i]! + own;
        if (lamps[at + 6]! > 0) strobing += own;
        if (lamps[at + 6]! > strobes[i]! && own > 0) strobes[i] = lamps[at + 6]!;
      }
      if (strobing < FLASH_SHARE) strobes[i] = 0;
    }
    const changes = new Float64Array(count);
    lightChanges(light, (at) => (changes[at] = 1));
    let within = 0;
    return Float64Array.from(changes, (change, i) => {
      within += change - (i >= RATE ? changes[i - RATE]! : 0);
      return Math.max(within >> 1, Math.floor(strobes[i]! + 1e-6));
    });
  };
}

/** Stretches that lie closer together than this are told as one, in seconds. */
const JOIN = 2;

function tooMany(
  made: Float64Array,
  leaves: Float64Array,
  most: number,
): readonly Omit<FlashStretch, 'kind' | 'id' | 'name'>[] {
  const found: { from: number; to: number; made: number; leaves: number }[] = [];
  for (let i = 0; i < made.length; i++) {
    if (made[i]! <= most && leaves[i]! <= most) continue;
    const from = Math.max(0, i / RATE - 1);
    const last = found.at(-1);
    const open = last && from - last.to < JOIN ? last : undefined;
    if (!open) found.push({ from, to: i / RATE, made: made[i]!, leaves: leaves[i]! });
    else {
      open.to = i / RATE;
      open.made = Math.max(open.made, made[i]!);
      open.leaves = Math.max(open.leaves, leaves[i]!);
    }
  }
  return found;
}
