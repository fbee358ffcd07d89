// Notes as they are struck here, by pads, keys or MIDI.

import { strikes } from '@hovlix/core/gear';
import type { Stroke } from '@hovlix/core/live';
import { localSeconds } from '../conduct/local-clock';
import { bareHostOf } from '../controls/bare-host';
import type { Stage } from '../conduct/gestures';

/** `at` is when, by the page's clock. */
type Listener = (stroke: Stroke, velocity: number, at: number) => void;
const takers = new WeakMap<object, ReturnType<typeof strikes>>();
const listeners = new WeakMap<object, Set<Listener>>();

/** Hears every stroke of this screen as it is struck. @returns what ends that. */
export function onStrike({ conducting }: Stage, listener: Listener): () => void {
  const all = listeners.get(conducting) ?? new Set();
  listeners.set(conducting, all.add(listener));
  return () => void all.delete(listener);
}

/** @param velocity 0…1; 0 lets go of the note. @param at when, by the page's clock. */
export function strike(stage: Stage, stroke: Stroke, velocity: number, at = localSeconds()): void {
  const { conducting } = stage;
  for (const listener of listeners.get(conducting) ?? []) listener(stroke, velocity, at);
  let take = takers.get(conducting);
  if (!take) takers.set(conducting, (take = strikes(bareHostOf(stage))));
  take(stroke, velocity);
}
