// What a press does that is more than one action, or none of the conductor's.

import type { Act } from '../gig';
import { Look } from '../light';
import { clockAt, type Moment } from '../live';
import { nextNumber, rigInUse } from '../show';
import type { Id } from '../units';
import { valuesNow } from './on-now';
import type { BarePlace } from './place';

/** Several in their order, those that wait when their beats have passed. */
export function inTurn({ press, time }: Pick<BarePlace, 'press' | 'time'>, acts: readonly Act[], one: (act: Act) => void): void {
  const moment = press();
  const pulse = moment ? clockAt(moment).pulse : 0;
  for (const act of acts)
    if (act.after !== undefined && act.after > 0) time.after(act.after * pulse * 1000, () => one(act));
    else one(act);
} // prettier-ignore

/** What is on as a look, named by its number; undefined where nothing is. */
export function lookOfNow(moment: Moment, id: Id<'Look'>): Look | undefined {
  const values = valuesNow(moment, rigInUse(moment.show).casting);
  if (values.length === 0) return undefined;
  const number = nextNumber(moment.show);
  return Look.parse({ id, number, name: `Look ${number}`, fadeIn: 1, fadeOut: 1, values });
}
