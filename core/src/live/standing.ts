// Looks and chases that stand: coming on, going off, and going out by themselves.

import { positionAt, pressedTo, type Course, type Position } from '../light/chase';
import { rampAt, rampLater, rampOf, rampOn, steady } from '../light/ramp';
import type { Chase } from '../light/schema';
import { beats, clamp, seconds, type Beats, type Seconds } from '../units';
import type { Action } from './actions';
import type { Drum } from '../music/drums';
import type { Hearing } from './hearing';
import { AT_CLOCK, freeBeat, runAt } from './run';
import type { LiveState } from './live-state';

export type Standing = LiveState['standing'][number];

type Turn = Extract<Action, { type: 'look-on' | 'look-off' }>;

/** How much of a standing look there is at a moment, 0…1. */
export function standingWeight(one: Standing, at: Seconds): number {
  return rampAt(one.ramp, at) * endingWeight(one, at);
}

/** What a look that goes out by itself has left, 0…1. */
export function endingWeight({ ends }: Standing, at: Seconds): number {
  if (!ends || at < ends.at) return 1;
  return ends.fade > 0 ? clamp(1 - (at - ends.at) / ends.fade, 0, 1) : 0;
}

/** Whether a look counts as on: pressed on, and not gone out by itself. */
export function isOn(one: Standing, at: Seconds): boolean {
  return one.on && (!one.ends || at < one.ends.at);
}

/** The beat a standing look runs by where the clock reads `beat`: all speeds counted in. */
export function ownBeat(state: LiveState, one: Standing, beat: Beats | undefined, at: Seconds): number {
  return runAt(one.speed ?? AT_CLOCK, runAt(state.speed, beat ?? freeBeat(state, at)));
}

/**
 * Writes where a chase that is on has got to `out`. Allocates nothing.
 * @param own the beat it runs by, see `ownBeat`. @param slow by how much it is held back, 1 for not at all.
 */
export function chasePlace(
  one: Standing,
  course: Course,
  pace: Chase['pace'],
  own: number,
  at: number,
  slow: number,
  out: Position,
): void {
  const begun = one.beat ?? 0;
  if (pace === 'hand') return pressedTo(course, one.presses?.count ?? 0, own - (one.presses?.beat ?? begun), out);
  const gone = pace === 'beats' ? own - begun : at - (one.since ?? 0);
  positionAt(course, gone / slow + (one.from ?? 0), out);
}

/**
 * Where a chase that goes by strokes is by what the microphone heard since it came on. Allocates nothing.
 * @param spaced only strokes with room between them count: where flashes are limited.
 */
export function heardPlace(
  state: Pick<LiveState, 'hearing' | 'tempo'>,
  one: Standing,
  course: Course,
  drum: Drum,
  spaced: boolean,
  at: number,
  out: Position,
): void {
  const counted = state.hearing?.counts[drum];
  if (!counted) return pressedTo(course, 0, Infinity, out);
  const since = ((at - (spaced ? counted.spacedAt : counted.at)) * state.tempo.bpm) / 60;
  const begun = one.heard?.[drum];
  const heard = spaced ? counted.spaced - (begun?.spaced ?? 0) : counted.count - (begun?.count ?? 0);
  pressedTo(course, Math.max(0, heard), since, out);
}

/** A chase that goes by hand, so many steps further. */
export function stepped(one: Standing, by: number, beat: number): Standing {
  return { ...one, presses: { count: (one.presses?.count ?? 0) + by, beat: beats(beat) } };
}

function countsOf({ counts: { kick, snare, hat } }: Hearing): NonNullable<Standing['heard']> {
  const both = ({ count, spaced }: typeof kick) => ({ count, spaced });
  return { kick: both(kick), snare: both(snare), hat: both(hat) };
}

/** So many looks back is kept what came on before one. */
const KEPT_BEFORE = 8;

/** What a look comes on after. One that is still there goes on the way it came. */
function comesAfter(state: LiveState, look: string, there: Standing | undefined): Pick<Standing, 'after'> {
  if (there) return there.after ? { after: there.after } : {};
  const last = state.standing.filter((one) => one.look !== look).at(-1);
  return last ? { after: [...(last.after ?? []), last.look].slice(-KEPT_BEFORE) } : {};
}

/** It was pressed, and waits for its moment. */
export const isWaiting = (one: Standing, at: Seconds): boolean => one.on && at < (one.since ?? one.ramp.at);

/** Called off before its moment: what was there of it goes on as if nobody had pressed. */
function calledOff(state: LiveState, armed: Standing): LiveState {
  const { before } = armed.ramp;
  return {
    ...state,
    standing: before
      ? state.standing.map((one) => (one === armed ? { ...one, on: false, ramp: before } : one))
      : state.standing.filter((one) => one !== armed),
  };
}

/** It is lit until a moment at which it makes room for another. */
export const makesRoom = ({ on, ramp }: Standing, at: Seconds): boolean =>
  !on && ramp.before !== undefined && ramp.before.to > 0 && at < ramp.at;

/** What would have made room for a look that was called off stays. */
export function roomTakenBack(state: LiveState, { ramp }: Standing, at: Seconds): LiveState {
  const stays = (one: Standing) => makesRoom(one, at) && one.ramp.at === ramp.at;
  const standing = state.standing.map((one) => (stays(one) ? { ...one, on: true, ramp: rampOf(one.ramp, at) } : one));
  const { song } = state;
  if (song?.unlit !== ramp.at || song.unlit <= at) return { ...state, standing };
  const { unlit: _, ...lit } = song;
  return { ...state, standing, song: lit };
}

/** How a look goes on until it is turned: as a fade, where it goes out by itself. */
function wayOf(one: Standing, now: Seconds): Standing['ramp'] {
  const { ends } = one;
  if (!ends || now < ends.at) return rampOf(one.ramp, now);
  return rampOn(steady(standingWeight(one, now)), 0, now, seconds(Math.max(0, ends.at + ends.fade - now)));
}

/** @param at when it turns. @param now when that was asked for: until it turns, nothing changes. */
export function lookTurned(state: LiveState, action: Turn, at: Seconds, now = at): LiveState {
  const on = action.type === 'look-on';
  const before = state.standing.find((one) => one.look === action.look);
  if (before && !on && isWaiting(before, now)) return calledOff(state, before);
  const gone = (one: Standing) => !isOn(one, now) && standingWeight(one, now) <= 0;
  const others = state.standing.filter((one) => one.look !== action.look && !gone(one));
  if (!before && !on) return { ...state, standing: others };
  const fade = seconds(action.fade * state.fadeTimes);
  const ramp = rampLater(before ? wayOf(before, now) : steady(0), on ? 1 : 0, at, fade, now);
  if (before && !on) {
    const { ends, ...rest } = before;
    // What goes out by itself meanwhile still does.
    const kept = at > now && ends && now < ends.at ? { ends } : {};
    const turned = { ...rest, ...kept, on, ramp, ...(action.pulse ? { pulse: action.pulse } : {}) };
    // A look that fades out keeps its place; one that comes on goes on top.
    return { ...state, standing: state.standing.map((one) => (one === before ? turned : one)) };
  }
  const turned: Standing = {
    look: action.look,
    on,
    ramp,
    since: at,
    // A chase pressed a little early or late still steps on the beat.
    beat: beats(runAt(state.speed, Math.round((on ? action.beat : undefined) ?? freeBeat(state, at)))),
    pulse: action.pulse ?? seconds(60 / state.tempo.bpm),
    ...comesAfter(state, action.look, before),
    ...(before?.speed ? { speed: before.speed } : {}),
    ...(on && action.from !== undefined ? { from: action.from } : {}),
    ...(state.hearing ? { heard: countsOf(state.hearing) } : {}),
    ...(on && action.hold !== undefined
      ? {
          ends: { at: seconds(at + fade + action.hold), fade: seconds((action.out ?? 0) * state.fadeTimes) },
        }
      : {}),
  };
  return { ...state, standing: [...others, turned] };
}
