// What the input thread hears, where the output thread can read it without waiting: memory that both see.

import type { InputRow } from '@hovlix/core/connect';
import { MOST_INPUTS } from '@hovlix/core/connect';

/**
 * Slots of 512 levels with a header each: a version that is odd while it is being written (a sequence lock), and
 * whether a source sends. `key` is a hash of the row's id, so that both threads find the same slot.
 */
export type SharedLevels = { readonly head: Int32Array; readonly levels: Uint8Array };

const WORDS = 4;
const [VERSION, SENDS, KEY] = [0, 1, 2];

export function sharedLevels(buffer = new SharedArrayBuffer(MOST_INPUTS * (WORDS * 4 + 512))): SharedLevels & {
  readonly buffer: SharedArrayBuffer;
} {
  return {
    buffer,
    head: new Int32Array(buffer, 0, MOST_INPUTS * WORDS),
    levels: new Uint8Array(buffer, MOST_INPUTS * WORDS * 4),
  };
}

/** Writes a row's levels; `null` where nobody sends. Only one thread writes. */
export function writeShared(shared: SharedLevels, slot: number, id: InputRow['id'], levels: Uint8Array | null): void {
  const at = slot * WORDS;
  Atomics.add(shared.head, at + VERSION!, 1);
  Atomics.store(shared.head, at + KEY!, hashOf(id));
  Atomics.store(shared.head, at + SENDS!, levels ? 1 : 0);
  if (levels) shared.levels.set(levels.subarray(0, 512), slot * 512);
  Atomics.add(shared.head, at + VERSION!, 1);
}

/** Empties the slots from `slot` on: their rows are gone. */
export function clearShared(shared: SharedLevels, slot: number): void {
  for (let i = slot; i < MOST_INPUTS; i++) {
    Atomics.store(shared.head, i * WORDS + SENDS!, 0);
    Atomics.store(shared.head, i * WORDS + KEY!, 0);
  }
}

/** Copies a row's levels. False where nobody sends, or the writer is quicker than we are three times in a row. */
export function readShared(shared: SharedLevels, id: InputRow['id'], out: Uint8Array): boolean {
  const key = hashOf(id);
  for (let slot = 0; slot < MOST_INPUTS; slot++) {
    const at = slot * WORDS;
    if (Atomics.load(shared.head, at + KEY!) !== key) continue;
    for (let tries = 0; tries < 3; tries++) {
      const before = Atomics.load(shared.head, at + VERSION!);
      if (before & 1) continue;
      if (Atomics.load(shared.head, at + SENDS!) === 0) return false;
      for (let i = 0; i < 512; i++) out[i] = shared.levels[slot * 512 + i]!;
      if (Atomics.load(shared.head, at + VERSION!) === before) return true;
    }
    return false;
  }
  return false;
}

/** FNV-1a, 32 bits; never 0, which marks an empty slot. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash || 1;
}
