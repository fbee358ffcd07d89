// What a device may do. The conductor asks this of every message; screens only ask to say so beforehand.

import { z } from 'zod';
import { never } from '../problem';
import type { Action } from './actions';

/** An operator may do everything, a player play the show, a viewer look. */
export const RIGHTS = ['operator', 'player', 'viewer'] as const;
export const Right = z.enum(RIGHTS);
export type Right = z.infer<typeof Right>;

/** The least right an action asks for; undefined where only the conductor itself may say it. */
export function rightForAction(type: Action['type']): Right | undefined {
  switch (type) {
    case 'open-song':
    case 'play':
    case 'pause':
    case 'seek':
    case 'anchor':
    case 'look-on':
    case 'look-off':
    case 'pad':
    case 'go':
    case 'bank':
    case 'all-off':
    case 'step':
    case 'speed':
    case 'fade-times':
    case 'role-master':
    case 'master':
    case 'blackout':
    case 'freeze':
    case 'notes':
    case 'tap':
    case 'tempo':
    case 'nudge':
    case 'loop':
    case 'jump':
    case 'set-place':
    case 'heard':
      return 'player';
    case 'hand':
    case 'release':
    case 'choose':
    case 'sending':
    case 'hold-channels':
    case 'arm':
    case 'free-channels':
    case 'flash-channels':
    case 'walk-channels':
    case 'end-test':
    case 'program':
      return 'operator';
    case 'gone':
    case 'show-on':
      return undefined;
    default:
      return never(type);
  }
}

/** The least right a message of a screen asks for. */
export function rightForMessage(message: FromScreenType): Right | undefined {
  switch (message.type) {
    case 'hello':
    case 'ping':
    case 'watch':
      return 'viewer';
    case 'act':
      return rightForAction(message.action.type);
    case 'edit':
    case 'preview':
    case 'put-on':
    case 'connections-edit':
    case 'learn':
      return 'operator';
    default:
      return never(message);
  }
}

type Plain = 'hello' | 'ping' | 'watch' | 'edit' | 'preview' | 'put-on' | 'connections-edit' | 'learn';
type FromScreenType =
  | { readonly type: Plain }
  | { readonly type: 'act'; readonly action: { readonly type: Action['type'] } };

export const rightReaches = (has: Right, wanted: Right | undefined): boolean =>
  wanted !== undefined && RIGHTS.indexOf(has) <= RIGHTS.indexOf(wanted);

/** Whether a device with a right may say a message. */
export const maySay = (has: Right, message: FromScreenType): boolean => rightReaches(has, rightForMessage(message));
export const mayAct = (has: Right, type: Action['type']): boolean => rightReaches(has, rightForAction(type));

/** What each right is, in words for the device that has it. */
export const RIGHT_WORDS: Readonly<Record<Right, string>> = {
  operator: 'may change everything',
  player: 'may play: songs, pads, tempo and masters',
  viewer: 'may look only',
};
