// A value on its way from one level to another.

import { seconds, type Seconds } from '../units';

type Way = { readonly from: number; readonly to: number; readonly at: Seconds; readonly duration: Seconds };

/**
 * From `from` at `at`, in a straight line, to `to` after `duration` seconds; then it stays. Where it begins later than
 * it was asked for, what it takes the place of goes on until then.
 */
export type Ramp = Way & { readonly before?: Way | undefined };

export const steady = (value: number): Ramp => ({ from: value, to: value, at: seconds(0), duration: seconds(0) });

/** The ramp that counts at a moment: one that has not begun gives way to what was before it. Allocates nothing. */
export const rampOf = (ramp: Ramp, at: Seconds): Ramp => (ramp.before && at < ramp.at ? ramp.before : ramp);

/** The value at a moment: `from` before the start, `to` from the end on. A ramp of no length has switched at its start. */
export function rampAt(whole: Ramp, at: Seconds): number {
  const ramp = rampOf(whole, at);
  if (at >= ramp.at + ramp.duration) return ramp.to;
  if (at <= ramp.at) return ramp.from;
  return ramp.from + ((ramp.to - ramp.from) * (at - ramp.at)) / ramp.duration;
}

/** A new ramp that takes up wherever the old one is at that moment. */
export function rampOn(before: Ramp, to: number, at: Seconds, duration: Seconds): Ramp {
  return { from: rampAt(before, at), to, at, duration };
}

/** The same, asked for at `now` and begun later: the old one goes on until then. */
export function rampLater(before: Ramp, to: number, at: Seconds, duration: Seconds, now: Seconds): Ramp {
  if (at <= now) return rampOn(before, to, at, duration);
  const { before: _, ...way } = rampOf(before, now);
  return { ...rampOn(before, to, at, duration), before: way };
}
