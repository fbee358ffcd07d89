// What is left to do of a press that was long on its way.

import type { Action } from './actions';
import type { Seconds } from '../units';
import type { LiveState } from './live-state';
import { isOn } from './standing';

/** What lasts only a moment must hit it: later than this it is not done any more. Seconds. */
const OF_THE_MOMENT = 0.3;
/** What is switched on and stays may come a little later. Seconds. */
const SWITCHED_ON = 1;

/**
 * What comes on is not done late: it would surprise. All else is done whenever it comes: what stops, lets go or lowers,
 * where the sound is, and how far a fader was moved.
 * @param late seconds since it was pressed. @param came when it came, by the conductor's clock.
 * @returns undefined where nothing is left.
 */
export function leftOfLate(
  { standing }: Pick<LiveState, 'standing'>,
  action: Action,
  late: number,
  came: Seconds,
): Action | undefined {
  // It counts when it was made.
  if (action.type === 'tap') {
    const ago = (action.late ?? 0) + Math.max(0, late);
    return ago <= SWITCHED_ON ? { ...action, late: ago } : undefined;
  }
  if (late <= OF_THE_MOMENT) return action;
  switch (action.type) {
    case 'step':
    case 'heard':
      return undefined;
    case 'notes': {
      const notes = action.notes.filter(({ velocity }) => velocity === 0);
      return notes.length > 0 ? { ...action, notes } : undefined;
    }
    case 'look-on':
    case 'go':
      return late <= SWITCHED_ON ? action : undefined;
    case 'pad': {
      const on = standing.some((one) => one.look === action.look && isOn(one, came));
      const ends = !action.down || action.press === 'stop' || (action.press === 'toggle' && on);
      return ends || (action.press !== 'flash' && late <= SWITCHED_ON) ? action : undefined;
    }
    default:
      return action;
  }
}
