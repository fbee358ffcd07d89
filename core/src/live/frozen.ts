// Light that is held as it is, and gives way again.

import { rampAt, rampOn, steady } from '../light/ramp';
import type { Seconds } from '../units';
import type { Action } from './actions';
import type { Lit, LiveState } from './live-state';

type Frozen = LiveState['frozen'];

/** How much of the light is the frozen one, 0…1. Allocates nothing. */
export const frozenShare = (frozen: Frozen, at: Seconds): number => (frozen ? rampAt(frozen.ramp, at) : 0);

/** Whether somebody holds it; on its way out it is let go of. */
export const isFrozen = ({ frozen }: Pick<LiveState, 'frozen'>): boolean => frozen?.ramp.to === 1;

/** Frozen anew while it gives way, it stays the light that it was. */
export function frozenWith(state: LiveState, { on, fade }: Extract<Action, { type: 'freeze' }>, at: Seconds): Frozen {
  const { frozen } = state;
  if (!frozen || frozenShare(frozen, at) <= 0) return on ? { lit: litOf(state), at, ramp: steady(1) } : null;
  return { ...frozen, ramp: rampOn(frozen.ramp, on ? 1 : 0, at, fade) };
}

/** Forgotten once nothing of it shows and it is on no way back. */
export const stillFrozen = (frozen: Frozen, at: Seconds): Frozen =>
  frozen && frozen.ramp.to <= 0 && frozenShare(frozen, at) <= 0 ? null : frozen;

function litOf({ song, standing, hands, speed, sounding, hearing, tempo }: LiveState): Lit {
  return { song, standing, hands, speed, sounding, hearing, tempo };
}
