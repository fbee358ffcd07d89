// Keys that the app listens to itself, by their places on the keyboard: a control that takes one has it.

import type { OwnKey } from '@hovlix/core/bindings';
import { PAD_KEYS } from '../../../host/conduct/gestures';
import { KEYS } from './words';

const codeOf = (key: string): string => (/\d/.test(key) ? `Digit${key}` : `Key${key.toUpperCase()}`);

export const OF_PADS: readonly OwnKey[] = PAD_KEYS.map((key) => ({
  code: codeOf(key),
  key: key.toUpperCase(),
  does: '',
}));

export const OF_THE_APP: readonly OwnKey[] = (
  [
    ['Space', 'Space', KEYS.play],
    ['KeyT', 'T', KEYS.tap],
    ['KeyB', 'B', KEYS.blackout],
    ['KeyM', 'M', KEYS.freeze],
    ['KeyN', 'N', KEYS.nextLook],
    ['KeyP', 'P', KEYS.previousLook],
    ['KeyG', 'G', KEYS.on],
    ['KeyH', 'H', KEYS.back],
    ['KeyG', 'Shift G', KEYS.nextSong],
    ['KeyH', 'Shift H', KEYS.previousSong],
  ] as const
).map(([code, key, does]) => ({ code, key, does }));
