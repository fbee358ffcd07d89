// What is left to do of a press that was long on its way.

import type { Action } from './actions';

/**
 * What comes on in time with the music is not done late: it would only hit the wrong beat. All else is done whenever it
 * comes: what stops, lets go or lowers, where the sound is, and how far a fader was moved.
 * @returns undefined where nothing is left.
 */
export function leftOfLate(action: Action): Action | undefined {
  switch (action.type) {
    case 'look-on':
    case 'go':
    case 'step':
    case 'tap':
    case 'heard':
      return undefined;
    case 'pad':
      return action.down ? undefined : action;
    case 'notes': {
      const notes = action.notes.filter(({ velocity }) => velocity === 0);
      return notes.length > 0 ? { ...action, notes } : undefined;
    }
    default:
      return action;
  }
}
