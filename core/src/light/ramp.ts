// A value on its way from one level to another.

import { seconds, type Seconds } from '../units';

/** From `from` at `at`, in a straight line, to `to` after `duration` seconds; then it stays. */
export type Ramp = {
  readonly from: number;
  readonly to: number;
  readonly at: Seconds;
  readonly duration: Seconds;
};

export const steady = (value: number): Ramp => ({ from: value, to: value, at: seconds(0), duration: seconds(0) });

/** The value at a moment: `from` before the start, `to` from the end on. A ramp of no length has switched at its start. */
export function rampAt(ramp: Ramp, at: Seconds): number {
  if (at >= ramp.at + ramp.duration) return ramp.to;
  if (at <= ramp.at) return ramp.from;
  return ramp.from + ((ramp.to - ramp.from) * (at - ramp.at)) / ramp.duration;
}

/** A new ramp that takes up wherever the old one is at that moment. */
export function rampOn(before: Ramp, to: number, at: Seconds, duration: Seconds): Ramp {
  return { from: rampAt(before, at), to, at, duration };
}
