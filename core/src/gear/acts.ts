// What a press does that is more than one act.

import type { Act } from '../gig';
import { clockAt } from '../live';
import type { BareHost } from './host';

/** Several in their order, those that wait when their beats have passed. */
export function inTurn({ press, time }: Pick<BareHost, 'press' | 'time'>, acts: readonly Act[], one: (act: Act) => void): void {
  const moment = press();
  const pulse = moment ? clockAt(moment).pulse : 0;
  for (const act of acts)
    if (act.after !== undefined && act.after > 0) time.after(act.after * pulse * 1000, () => one(act));
    else one(act);
} // prettier-ignore
