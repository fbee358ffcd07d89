// What a press does that is more than one act.

import type { Act } from '../gig';
import { actionsOf, clockAt, type Action, type Moment } from '../live';
import { seconds } from '../units';
import type { BareHost } from './host';

/** A tap that was made longer ago, in seconds, belongs to no beat any more. */
const LATEST = 1;

/** A tap that was made so long ago, in seconds; none where that is too long. */
export const tapMade = (ago: number): readonly Action[] =>
  ago <= LATEST ? [{ type: 'tap', late: Math.max(0, ago) }] : [];

/**
 * What an act does that was pressed some time ago, in seconds: a tap, and the beginning of a bar, count when they were made,
 * all else is done now, and so is what was to wait for some beats.
 */
export function actionsSince(moment: Moment, act: Act, down: boolean, ago: number): readonly Action[] {
  const late = act.after ? 0 : Math.max(0, ago);
  const then = act.act === 'tempo' ? { ...moment, now: seconds(moment.now - late) } : moment;
  return actionsOf(then, act, down).flatMap((action) => (action.type === 'tap' ? tapMade(late) : [action]));
}

/** Several in their order, those that wait when their beats have passed. */
export function inTurn(
  { press, time }: Pick<BareHost, 'press' | 'time'>,
  acts: readonly Act[],
  one: (act: Act) => void,
): void {
  const moment = press();
  const pulse = moment ? clockAt(moment).pulse : 0;
  for (const act of acts)
    if (act.after !== undefined && act.after > 0) time.after(act.after * pulse * 1000, () => one(act));
    else one(act);
}
