// Where in a set one is, and what was left for it: a slip is repaired by going back.

import type { Seconds } from '../units';
import type { Action } from './actions';
import type { LiveState } from './state';

type Place = NonNullable<LiveState['set']>;

/** The place after going to a stop. A song that played on as it was left is kept with it. */
export function placeInSet(
  { set, song }: Pick<LiveState, 'set' | 'song'>,
  action: Extract<Action, { type: 'set-place' }>,
  at: Seconds,
): Place {
  const same = set?.set === action.set;
  const left = same && action.repair !== true ? { stop: set.stop, song: song?.playing ? song : null, at } : undefined;
  return {
    set: action.set,
    entry: action.entry,
    stop: action.stop,
    since: at,
    began: same ? set.began : at,
    ...(left ? { left } : {}),
  };
}
