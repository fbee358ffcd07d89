// Notes as they are struck here, by pads, keys or MIDI.

import { strikes } from '@hovlix/core/gear';
import type { Stroke } from '@hovlix/core/live';
import { bareHostOf } from '../controls/bare-host';
import type { Stage } from '../conduct/gestures';

type Ear = (stroke: Stroke, velocity: number) => void;
const takers = new WeakMap<object, Ear>();
const ears = new WeakMap<object, Set<Ear>>();

/** Hears every stroke of this screen as it is struck. @returns what ends that. */
export function onStrike({ conducting }: Stage, ear: Ear): () => void {
  const all = ears.get(conducting) ?? new Set();
  ears.set(conducting, all.add(ear));
  return () => void all.delete(ear);
}

/** @param velocity 0…1; 0 lets go of the note. */
export function strike(stage: Stage, stroke: Stroke, velocity: number): void {
  const { conducting } = stage;
  for (const ear of ears.get(conducting) ?? []) ear(stroke, velocity);
  let take = takers.get(conducting);
  if (!take) takers.set(conducting, (take = strikes(bareHostOf(stage))));
  take(stroke, velocity);
}
