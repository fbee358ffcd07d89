// What a foot means: press, double press, hold, release, out of a contact that opens and closes and bounces.

import type { Gesture, Times } from './control';

/** A switch and what is still to be decided about it. Moments are in seconds of one clock. */
export type Foot = {
  /** The contact as it was seen last, and as it is taken to be. */
  readonly raw: boolean;
  readonly down: boolean;
  /** When it was taken to change last. */
  readonly changed: number;
  /** A press nobody has been told of yet: when it went down. */
  readonly pending: number | null;
  /** This time down it was told already, or belongs to a double press. */
  readonly told: boolean;
};

export const FOOT_AWAY: Foot = { raw: false, down: false, changed: -Infinity, pending: null, told: false };

/** Which gestures have something to do: what nobody wants is not waited for. */
export type Wanted = { readonly double: boolean; readonly hold: boolean; readonly eager?: boolean | undefined };

export type Felt = { readonly foot: Foot; readonly gestures: readonly Gesture[] };

/**
 * The switch at a moment: `contact` is what it reads now. Called at each change, and at `wakeAt` where that is not null.
 * Moments must not fall. Presses are told at once where neither double press nor hold is wanted; with a hold they are
 * told as the foot lifts, with a double press when the time for a second one is over.
 */
export function felt(before: Foot, contact: boolean, at: number, times: Times, wanted: Wanted): Felt {
  const gestures: Gesture[] = [];
  let foot = timed({ ...before, raw: contact }, at, times, wanted, gestures);
  // What follows within the bounce is looked at again when that is over.
  if (foot.raw !== foot.down && at >= foot.changed + times.bounce)
    foot = foot.raw ? pressed(foot, at, times, wanted, gestures) : lifted(foot, at, times, wanted, gestures);
  return { foot, gestures };
}

/** When to look at the switch again, if nothing changes before; null for not at all. */
export function wakeAt(foot: Foot, times: Times, wanted: Wanted): number | null {
  const moments: number[] = [];
  if (foot.raw !== foot.down) moments.push(foot.changed + times.bounce);
  if (foot.pending !== null && wanted.double && !foot.down) moments.push(foot.pending + times.double);
  if (mayBeHeld(foot, wanted)) moments.push(foot.changed + times.hold);
  return moments.length > 0 ? Math.min(...moments) : null;
}

/** A hold that was told is marked by a pending of Infinity: nothing more comes of this time down. */
const HELD = Infinity;
const isHeldAlready = ({ pending }: Foot): boolean => pending === HELD;

/** Whether this time down may still become a hold. */
const mayBeHeld = (foot: Foot, { double, hold, eager }: Wanted): boolean =>
  foot.down && hold && !isHeldAlready(foot) && (!foot.told || (eager === true && !double));

/** What time alone has decided by now. */
function timed(foot: Foot, at: number, times: Times, wanted: Wanted, gestures: Gesture[]): Foot {
  if (mayBeHeld(foot, wanted) && at >= foot.changed + times.hold) {
    gestures.push('hold');
    return { ...foot, pending: HELD, told: true };
  }
  if (!foot.down && foot.pending !== null && at >= foot.pending + times.double) {
    gestures.push('press');
    return { ...foot, pending: null };
  }
  return foot;
}

function pressed(foot: Foot, at: number, times: Times, wanted: Wanted, gestures: Gesture[]): Foot {
  if (foot.pending !== null && wanted.double && at < foot.pending + times.double) {
    gestures.push('double');
    return { ...foot, down: true, changed: at, pending: null, told: true };
  }
  const atOnce = !wanted.double && (!wanted.hold || wanted.eager === true);
  if (atOnce) gestures.push('press');
  return { ...foot, down: true, changed: at, pending: atOnce ? null : at, told: atOnce };
}

function lifted(foot: Foot, at: number, times: Times, wanted: Wanted, gestures: Gesture[]): Foot {
  const up: Foot = { ...foot, down: false, changed: at, told: false };
  if (foot.told || foot.pending === null || isHeldAlready(foot)) {
    gestures.push('release');
    return { ...up, pending: null };
  }
  const waits = wanted.double && at < foot.pending + times.double;
  if (!waits) gestures.push('press');
  gestures.push('release');
  return { ...up, pending: waits ? foot.pending : null };
}
