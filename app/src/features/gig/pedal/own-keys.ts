// Keys that the app listens to itself, by their places on the keyboard: a control that takes one has it.

import type { OwnKey } from '@hovlix/core/bindings';
import { PAD_KEYS } from '../../../host/conduct/gestures';

const codeOf = (key: string): string => (/\d/.test(key) ? `Digit${key}` : `Key${key.toUpperCase()}`);

export const OF_PADS: readonly OwnKey[] = PAD_KEYS.map((key) => ({
  code: codeOf(key),
  key: key.toUpperCase(),
  does: '',
}));

export const OF_THE_APP: readonly OwnKey[] = (
  [
    ['Space', 'Space', 'Play or pause the song'],
    ['KeyT', 'T', 'Tap the tempo'],
    ['KeyB', 'B', 'Blackout on or off'],
    ['KeyM', 'M', 'Freeze on or off'],
    ['KeyN', 'N', 'Next look of the bank'],
    ['KeyP', 'P', 'Previous look of the bank'],
    ['KeyG', 'G', 'On in the set'],
    ['KeyH', 'H', 'Back in the set'],
    ['KeyG', 'Shift G', 'Next song of the set'],
    ['KeyH', 'Shift H', 'Previous song of the set'],
  ] as const
).map(([code, key, does]) => ({ code, key, does }));
