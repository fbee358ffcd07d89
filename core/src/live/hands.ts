// Values taken by hand over everything, and given back.

import { rampAt, rampOn, steady } from '../light/ramp';
import { whoKey } from '../light/who';
import type { LookValue } from '../light/schema';
import { seconds, type Seconds } from '../units';
import type { Action } from './actions';
import type { LiveState } from './live-state';

type Hands = LiveState['hands'];

/** A hand closes this fast, so that a dragged fader is one movement. */
const GRASP = seconds(0.04);

/** What is in hand after a press. Taken for a while, a value is on its way out from the first: only later. */
export function handsTaken(
  hands: Hands,
  { values, only, hold, out }: Extract<Action, { type: 'hand' }>,
  at: Seconds,
): Hands {
  if (hold === undefined) return handsWith(hands, values, only === true, at);
  const again = new Set(values.map(whoKey));
  const ramp = { from: 1, to: 0, at: seconds(at + hold), duration: out ?? seconds(0) };
  const others = stillHeld(hands, at).filter((one) => one.on || !again.has(whoKey(one.value)));
  return [...others, ...values.map((value) => ({ value, on: false, ramp }))];
}

/** What is in hand after more was taken: each new value replaces the one that spoke to the same lamps. */
export function handsWith(hands: Hands, taken: readonly LookValue[], only: boolean, at: Seconds): Hands {
  const again = new Set(taken.map(whoKey));
  const left = (one: Hands[number]) => only && one.on && !again.has(whoKey(one.value));
  const after = stillHeld(hands, at).map((one) =>
    left(one) ? { ...one, on: false, ramp: rampOn(one.ramp, 0, at, GRASP) } : one,
  );
  for (const value of taken) {
    const who = whoKey(value);
    const place = after.findIndex((one) => one.on && whoKey(one.value) === who);
    const before = after[place];
    const ramp = before ? before.ramp : rampOn(steady(0), 1, at, GRASP);
    if (place >= 0) after.splice(place, 1);
    after.push({ value, on: true, ramp });
  }
  return after;
}

/** What is in hand after it was given back: of one role, or all. */
export function released(hands: Hands, role: string | undefined, at: Seconds, fade: Seconds): Hands {
  return stillHeld(hands, at).map((one) =>
    (one.on || one.ramp.at > at) && (role === undefined || one.value.role === role)
      ? { ...one, on: false, ramp: rampOn(one.ramp, 0, at, fade) }
      : one,
  );
}

function stillHeld(hands: Hands, at: Seconds): Hands {
  return hands.filter((one) => one.on || rampAt(one.ramp, at) > 0);
}
