// Looks and chases that stand: coming on, going off, and going out by themselves.

import { positionAt, pressedTo, type Course, type Position } from '../light/chase';
import { rampAt, rampOn, steady } from '../light/ramp';
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

export function lookTurned(state: LiveState, action: Turn, at: Seconds): LiveState {
  const on = action.type === 'look-on';
  const before = state.standing.find((one) => one.look === action.look);
  const gone = (one: Standing) => !isOn(one, at) && standingWeight(one, at) <= 0;
  const others = state.standing.filter((one) => one.look !== action.look && !gone(one));
  if (!before && !on) return { ...state, standing: others };
  const fade = seconds(action.fade * state.fadeTimes);
  const from = before ? steady(standingWeight(before, at)) : steady(0);
  const ramp = rampOn(from, on ? 1 : 0, at, fade);
  if (before && !on) {
    const { ends: _, ...rest } = before;
    const turned = { ...rest, on, ramp, ...(action.pulse ? { pulse: action.pulse } : {}) };
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
