// Clips that are changed together.

import type { Clip } from '@hovlix/core/song';

/** At least one. */
export type SomeClips = readonly [Clip, ...Clip[]];

export const someClips = (clips: readonly Clip[]): SomeClips | undefined =>
  clips.length > 0 ? (clips as unknown as SomeClips) : undefined;

/** Whether all say the same. */
export const alike = (values: readonly number[]): boolean => values.every((one) => Math.abs(one - values[0]!) < 1e-9);
