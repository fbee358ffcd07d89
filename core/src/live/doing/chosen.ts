// Roles that are chosen, and what is done to them by hand.

import type { Act } from '../../gig';
import type { LampsDo, LookValue } from '../../light';
import type { Show } from '../../show';
import type { Id } from '../../units';
import type { LiveState } from '../live-state';
import type { Moment } from '../press';

type Roles = readonly Id<'Role'>[];

/** Those that are chosen and still there. */
export const chosenNow = ({
  show,
  live,
}: {
  readonly show: Pick<Show, 'roles'>;
  readonly live: Pick<LiveState, 'chosen'>;
}): Roles => live.chosen.filter((role) => show.roles.some(({ id }) => id === role));

/** What is chosen after a press: a role that is chosen already, alone or beside others, is not any more. */
export function chosenAfter(moment: Moment, { role, beside }: Extract<Act, { act: 'choose' }>): Roles {
  if (role === null) return [];
  const now = chosenNow(moment);
  if (!beside) return now.length === 1 && now[0] === role ? [] : [role];
  return now.includes(role) ? now.filter((one) => one !== role) : [...now, role];
}

/** What a role has in hand as a whole. */
export const inHand = ({ live }: Pick<Moment, 'live'>, role: Id<'Role'>): LookValue | undefined =>
  live.hands.find(({ on, value }) => on && value.role === role && value.pick === undefined)?.value;

/** What these roles have in hand once this is said to them, too. */
export const handsWithSaid = (moment: Pick<Moment, 'live'>, roles: Roles, does: LampsDo): readonly LookValue[] =>
  roles.map((role) => ({ ...(inHand(moment, role) ?? { role }), ...does }));
