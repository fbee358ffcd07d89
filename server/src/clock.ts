// The machine's steady clock, the same in every thread.

import { seconds, type Seconds } from '@hovlix/core/units';

/** Seconds since the machine started; never jumps when somebody sets the time of day. */
export function now(): Seconds {
  return seconds(Number(process.hrtime.bigint()) / 1e9);
}
