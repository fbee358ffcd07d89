// What lamps do on a stretch of a channel that hurts by accident: reset, strike the lamp, put it out. Guarded by a second press.

import type { Act } from '../../gig';
import { bytesOfValue, patchedFixtures, type Range } from '../../rig';
import { rigInUse, type Show } from '../../show';
import { seconds, type Seconds } from '../../units';
import type { Action, HeldChannel } from '../actions';
import type { LiveState } from '../live-state';

export type LampAct = Extract<Act, { act: 'lamps' }>;

/** A second press within this does it, in seconds. */
export const GUARD_SECONDS = seconds(4);
/** Where a type does not say how long an act must be sent, in seconds. */
export const USUAL_ACT_SECONDS = 3;

/** What is sent for an act: the middle of its stretch. */
export const sentFor = ({ from, to }: Pick<Range, 'from' | 'to'>): number => Math.round((from + to) / 2);

type Part = { readonly length: Seconds; readonly channels: readonly HeldChannel[] };

/** Channels of a role's lamps on which they do it, with how long they must be sent. Empty where none of them can. */
function partsOf(show: Show, { role, does }: Pick<LampAct, 'role' | 'does'>): readonly Part[] {
  const rig = rigInUse(show);
  const cast = rig.casting.find((one) => one.role === role)?.fixtures ?? [];
  const lamps = patchedFixtures(rig, show.profiles).filter(({ fixture }) => cast.includes(fixture.id));
  return lamps.flatMap(({ fixture, mode }) =>
    mode.channels.flatMap(({ at, ranges }) => {
      const range = ranges.find((one) => one.does === does);
      if (!range) return [];
      const bytes = bytesOfValue(sentFor(range) / 255, at.length);
      const channels = at.flatMap((place, i) => {
        const address = fixture.address + place - 1;
        return address > 512 ? [] : [{ universe: fixture.universe as number, address, value: bytes[i]! }];
      });
      return [{ length: seconds(range.hold ?? USUAL_ACT_SECONDS), channels }];
    }),
  );
}

/** What the lamps of a role can do of this kind. */
export const lampActsOf = (show: Show, role: LampAct['role']): readonly LampAct['does'][] =>
  (['reset', 'lamp on', 'lamp off'] as const).filter((does) => partsOf(show, { role, does }).length > 0);

const guardOf = ({ role, does }: LampAct): string => `${does} ${role}`;

/** Whether it was pressed once, and a second press would do it. */
export const isArmed = ({ armed }: LiveState, act: LampAct, now: Seconds): boolean =>
  armed !== null && armed.what === guardOf(act) && now < armed.until;

/** The first press arms it, a second one within seconds does it. */
export function lampActions(show: Show, live: LiveState, act: LampAct, now: Seconds): readonly Action[] {
  const parts = partsOf(show, act);
  if (parts.length === 0) return [];
  if (!isArmed(live, act, now)) return [{ type: 'arm', what: guardOf(act), length: GUARD_SECONDS }];
  const byLength = new Map<Seconds, HeldChannel[]>();
  for (const { length, channels } of parts) byLength.set(length, [...(byLength.get(length) ?? []), ...channels]);
  const held = [...byLength].map(([length, channels]) => ({ type: 'hold-channels' as const, channels, length }));
  return [{ type: 'arm', what: null }, ...held];
}
