// What the input thread hears, where the output thread can read it without waiting: memory that both see.

import type { InputRow } from '@hovlix/core/connect';
import { MOST_INPUTS } from '@hovlix/core/connect';

/**
 * Slots with a header and two lots of 512 levels each: while one is written the other is read, so that what is heard is
 * there at any moment, also while the writer is held up in the middle. The header holds a hash of the row's id, so that both
 * threads find the same slot, and how often it was written, twice, and one more where a source sends.
 */
export type SharedLevels = { readonly head: Int32Array; readonly levels: Uint8Array };

const WORDS = 2;
const [STATE, KEY] = [0, 1];
const LEVELS = 512;

export function sharedLevels(buffer = new SharedArrayBuffer(MOST_INPUTS * (WORDS * 4 + 2 * LEVELS))): SharedLevels & {
  readonly buffer: SharedArrayBuffer;
} {
  return {
    buffer,
    head: new Int32Array(buffer, 0, MOST_INPUTS * WORDS),
    levels: new Uint8Array(buffer, MOST_INPUTS * WORDS * 4),
  };
}

/** Where the levels lie that a state of a slot is about. */
const place = (slot: number, state: number): number => (slot * 2 + ((state >> 1) & 1)) * LEVELS;

/** Writes a row's levels; `null` where nobody sends. Only one thread writes. */
export function writeShared(shared: SharedLevels, slot: number, id: InputRow['id'], levels: Uint8Array | null): void {
  const at = slot * WORDS;
  const key = hashOf(id);
  // A slot that was another row's is nobody's until it holds this one's levels.
  if (Atomics.load(shared.head, at + KEY!) !== key) Atomics.store(shared.head, at + KEY!, 0);
  const next = ((Atomics.load(shared.head, at + STATE!) & ~1) + 2) | (levels ? 1 : 0);
  if (levels) shared.levels.set(levels.subarray(0, LEVELS), place(slot, next));
  Atomics.store(shared.head, at + STATE!, next);
  Atomics.store(shared.head, at + KEY!, key);
}

/** Empties the slots that no row has any more. */
export function clearShared(shared: SharedLevels, taken: ReadonlySet<number>): void {
  for (let slot = 0; slot < MOST_INPUTS; slot++)
    if (!taken.has(slot)) Atomics.store(shared.head, slot * WORDS + KEY!, 0);
}

/** Copies a row's levels. False where nobody sends, or where they were replaced three times while they were read. */
export function readShared(shared: SharedLevels, id: InputRow['id'], out: Uint8Array): boolean {
  const key = hashOf(id);
  for (let slot = 0; slot < MOST_INPUTS; slot++) {
    const at = slot * WORDS;
    if (Atomics.load(shared.head, at + KEY!) !== key) continue;
    for (let tries = 0; tries < 3; tries++) {
      const before = Atomics.load(shared.head, at + STATE!);
      if ((before & 1) === 0) return false;
      const from = place(slot, before);
      for (let i = 0; i < LEVELS; i++) out[i] = shared.levels[from + i]!;
      if (Atomics.load(shared.head, at + STATE!) === before) return true;
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
